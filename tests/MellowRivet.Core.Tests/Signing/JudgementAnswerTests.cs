using System.Reflection;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Carburettors;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.EngineRun;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Exhaust;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Magnetos;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Oil;
using MellowRivet.Core.People;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Worksheets;
using static MellowRivet.Core.Tests.Bulletins.BulletinFixture;

namespace MellowRivet.Core.Tests.Signing;

/// <summary>What answers a bad judgement, and what does not.</summary>
public class JudgementAnswerTests : JudgementCase
{
    [Fact]
    public void Read_again_and_good_it_is_answered_and_remembered()
    {
        Task("pads", 0.08);
        inspection.Remember(aircraft);
        inspection.Record(new(Guid.NewGuid(), aircraft.Id, null, "pads", "gear", 0.2, Unit.Inch, new(), aircraft.TimeInService,
            Fixture.Now.AddMinutes(5),
            Fixture.Ines) { InspectionId = inspection.Id, TaskId = inspection.Tasks.Single(task => task.Key == "pads").Id });
        inspection.Remember(aircraft);
        (Only.By, Only.Answer).ShouldBe((AnsweredBy.ReadAgain, "Read again: 0.2 in, at least 0.1 in."));
        All.ShouldHaveSingleItem().Judgement.Verdict.ShouldBe(Verdict.Good);
    }

    [Fact]
    public void A_bad_value_that_is_taken_back_is_not_answered()
    {
        var sheet = RunSheet.Of(engine);
        Value(sheet, "mag-drop-left", "after", 260);
        inspection.Remember(aircraft);
        inspection.Measure(Guid.NewGuid(), sheet, sheet.Values.Single(one => one.Kind == "mag-drop-left" && one.Position == "after"), null,
            Unit.Rpm, new(Fixture.Ines, Fixture.Now)).ShouldBeNull();
        inspection.Remember(aircraft);
        All.ShouldBeEmpty();
        (Only.IsUnanswered, Only.Answer).ShouldBe((true, "It was taken back and not read again: read it again."));
        Value(sheet, "mag-drop-left", "after", 120, 9);
        inspection.Remember(aircraft);
        Only.By.ShouldBe(AnsweredBy.ReadAgain);
    }

    [Fact]
    public void An_older_good_reading_that_comes_to_light_again_is_no_answer()
    {
        var task = inspection.Tasks.Single(one => one.Key == "pads");
        void Read(Guid id, double value, int minute) =>
            inspection.Record(new(id, aircraft.Id, null, "pads", "gear", value, Unit.Inch, new(), aircraft.TimeInService,
                Fixture.Now.AddMinutes(minute), Fixture.Ines) { InspectionId = inspection.Id, TaskId = task.Id });
        Read(Guid.NewGuid(), 0.2, 0);
        var bad = Guid.NewGuid();
        Read(bad, 0.08, 5);
        inspection.Remember(aircraft);
        inspection.Withdraw(task, bad, Fixture.Ines).ShouldNotBeNull();
        inspection.Remember(aircraft);
        (Only.IsUnanswered, Only.Answer).ShouldBe((true, "It was taken back and not read again: read it again."));
    }

    [Fact]
    public void A_reading_that_another_limit_makes_good_is_said_to_be_that()
    {
        Task("pads", 0.08);
        inspection.Remember(aircraft);
        aircraft.SetLimit(new("pads", "in", 0.07, null, "manual 32-40, p. 3"));
        (Only.By, Only.Answer).ShouldBe(
            (AnsweredBy.OtherLimit, "The same reading, judged by another limit: at least 0.07 in (your manual: manual 32-40, p. 3)."),
            "before anybody has written on the inspection since");
        Entered(Book.Airframe).ShouldBe(["Measured, Gear: pads 0.08 in (at least 0.07 in).",
            "Pads: 0.08 in. At least 0.1 in. The same reading, judged by another limit: at least 0.07 in "
            + "(your manual: manual 32-40, p. 3)."]);
        inspection.Remember(aircraft);
        Only.By.ShouldBe(AnsweredBy.OtherLimit);
    }

    [Fact]
    public void A_new_part_begins_a_new_series_and_an_empty_place_does_not()
    {
        Fixture.Compress(inspection, aircraft, 2, 15, again: true);
        inspection.Remember(aircraft);
        var old = aircraft.Cylinder(engine, 2)!;
        aircraft.TakeOff(old.Id, Fixture.Today, aircraft.TimeInService, "rings").ShouldBeNull();
        inspection.Remember(aircraft);
        Only.IsUnanswered.ShouldBeTrue("nothing sits in its place");
        aircraft.Install(new(Guid.NewGuid(), ComponentKind.Cylinder, "", "new"), "2", aircraft.TimeInService, default, engine.Id,
            Fixture.Today);
        inspection.Remember(aircraft);
        Only.By.ShouldBe(AnsweredBy.PartReplaced);
        CompressionSheet.Of(aircraft, engine, inspection).Missing.ShouldContain(2, "it has no reading of its own yet");
    }

    [Fact]
    public void A_number_put_right_is_read_again_and_a_look_is_answered_by_what_was_done()
    {
        Fixture.Compress(inspection, aircraft, 2, 15, again: true);
        Found(ExhaustSheet.Of(aircraft, engine), "slip-joint");
        foreach (var line in Lines)
            inspection.PutOnList(Guid.NewGuid(), line.Judged.What, line.Judged.Where.ZoneKey, "",
                new(DiscrepancyClass.Airworthiness, false, Fixture.Ines, Fixture.Now), null, line.Judged, Fixture.Classes).Found!
                .Correct(new("put right", CorrectionKind.Repaired, "manual"), inspection.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
        Lines.Single(line => !line.Judged.IsMeasured).By.ShouldBe(AnsweredBy.FixList);
        var number = Lines.Single(line => line.Judged.IsMeasured);
        (number.IsUnanswered, number.Answer).ShouldBe((true, "26-1-01 is put right: read it again."));
        Fixture.Compress(inspection, aircraft, 2, 76, minute: 90);
        Lines.ShouldNotContain(line => line.IsUnanswered);
    }

    [Fact]
    public void What_is_seen_bad_again_after_it_was_put_right_is_not_answered_by_that()
    {
        var sheet = ExhaustSheet.Of(aircraft, engine);
        Found(sheet, "slip-joint");
        var (found, _) = inspection.PutOnList(Guid.NewGuid(), "slip joint", "engine", "",
            new(DiscrepancyClass.Airworthiness, false, Fixture.Ines, Fixture.Now), null, Only.Judged, Fixture.Classes);
        Found(sheet, "slip-joint", minute: 10);
        Only.By.ShouldBe(AnsweredBy.FixList, "the line is open still");
        found!.Correct(new("welded", CorrectionKind.Repaired, "manual"), inspection.Terms, Fixture.Ines, Fixture.Now.AddMinutes(20))
            .ShouldBeNull();
        Only.By.ShouldBe(AnsweredBy.FixList);
        Found(sheet, "slip-joint", minute: 30);
        (Only.IsUnanswered, Only.Answer).ShouldBe((true, "It was seen after 26-1-01 was put right: open that again, or look again."));
        Found(sheet, "slip-joint", minute: 40, LookState.Good);
        Lines.ShouldNotContain(line => line.IsUnanswered);
    }

    [Fact]
    public void A_line_that_was_set_lower_answers_for_the_reading_it_was_set_lower_for_alone()
    {
        Ohms("1T", 6_000);
        var (found, _) = inspection.PutOnList(Guid.NewGuid(), "plug 1T", "engine", "",
            new(DiscrepancyClass.Airworthiness, false, Fixture.Ines, Fixture.Now), null, Only.Judged, Fixture.Classes);
        Ohms("1T", 6_100);
        Only.By.ShouldBe(AnsweredBy.FixList, "an open airworthiness item answers for the plug, whatever it reads");
        Ohms("1T", 6_000);
        found!.Classify(new(DiscrepancyClass.Watch, false, Fixture.Ines, Fixture.Now, "fires well under pressure", "plug sheet 3",
            Fixture.Inspector.Certificates[0]), Fixture.Classes, null).ShouldBeNull();
        Only.By.ShouldBe(AnsweredBy.FixList);
        Ohms("1T", 30_000);
        (Only.IsUnanswered, Only.Answer).ShouldBe((true, "26-1-01 was set lower for what was there before: judge this one for itself."));
        inspection.SetJudgementAside(aircraft, Only.Judged.Key, Only.Judged.Seen, "a reason", "a reference", Fixture.Inspector,
            Fixture.Inspector.Certificates[0], Fixture.Now).ShouldBeNull();
    }

    [Fact]
    public void A_line_for_the_same_task_or_a_withdrawn_one_is_no_answer()
    {
        Fixture.Compress(inspection, aircraft, 2, 15, again: true);
        var task = inspection.Tasks.Single(one => one.IsCompression);
        inspection.Find(Guid.NewGuid(), "Cylinder 2 reads 15/80", "engine", "", DiscrepancyClass.Airworthiness, false, task, Fixture.Ines,
            Fixture.Now);
        Only.IsUnanswered.ShouldBeTrue();
        var (found, _) = inspection.PutOnList(Guid.NewGuid(), "cylinder 2", "engine", "",
            new(DiscrepancyClass.Airworthiness, false, Fixture.Ines, Fixture.Now), task, Only.Judged, Fixture.Classes);
        Only.By.ShouldBe(AnsweredBy.FixList);
        found!.Move(Disposition.Withdrawn, "no matter", inspection.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
        Only.IsUnanswered.ShouldBeTrue();
    }

    [Fact]
    public void Setting_aside_takes_the_right_to_sign_a_reason_a_reference_and_the_very_reading()
    {
        Ohms("1T", 30_000);
        var (key, seen, signs) = (Only.Judged.Key, Only.Judged.Seen, Fixture.Inspector.Certificates[0]);
        Refusal? Aside(string? what, string? reason, string? reference, Certificate? by) =>
            inspection.SetJudgementAside(aircraft, key, what, reason, reference, Fixture.Inspector, by, Fixture.Now);
        Aside(seen, "spare", "sheet 3", null)!.Message.ShouldContain("Only somebody who may sign");
        Aside(seen, " ", "sheet 3", signs)!.Message.ShouldContain("Say why");
        Aside(seen, "spare", "", signs)!.Message.ShouldContain("By which data");
        Aside("another", "spare", "sheet 3", signs)!.Message.ShouldContain("read again meanwhile");
        Aside(seen, "spare", "sheet 3", signs).ShouldBeNull();
        (Only.By, Only.Aside!.AsEntered).ShouldBe(
            (AnsweredBy.SetAside,
                "Plug 1T, resistance: 30000 Ω. Above 5000 Ω. Set aside: spare Ref. sheet 3"));
        Entered(Book.Engine).ShouldBe(["Spark plugs, 1 of 8: resistance 30000 Ω (1T) (at most 5000 Ω).",
            "Plug 1T, resistance: 30000 Ω. Above 5000 Ω. Set aside: spare Ref. sheet 3. "
            + $"By {Fixture.Inspector.Name} (mechanic with inspection authorization, 77)."]);
        // Read again it is another judgement, and wants its own answer.
        Ohms("1T", 31_000);
        Only.IsUnanswered.ShouldBeTrue();
        Entered(Book.Engine).ShouldHaveSingleItem("what was said of the other reading is no longer so").ShouldStartWith("Spark plugs");
        Ohms("1T", 30_000);
        inspection.TakeUpAgain(key);
        Only.IsUnanswered.ShouldBeTrue();
    }
}
