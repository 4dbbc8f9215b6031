using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Worksheets;
using static MellowRivet.Core.Tests.Bulletins.BulletinFixture;

namespace MellowRivet.Core.Tests.Bulletins;

/// <summary>A bulletin as work of an inspection: its steps, who may say it was done, what is signed.</summary>
public class InInspectionTests
{
    private static readonly Person Mechanic = Fixture.Person(new Certificate(CertificateKind.Mechanic, "QF 1"));

    private readonly Aircraft aircraft = Fixture.Aircraft();
    private readonly Inspection inspection;
    private readonly ShopBulletin held;
    private readonly Bulletin directive = Bulletin("AD-1", compliance: new([new(DeadlineKind.BeforeNextFlight)], new Repeat(100)),
        about: ComponentKind.Engine) with
    {
        By = [CertificateKind.Mechanic],
        Steps = [new("Look at the bolt", "Magnetos off."), new("Torque it", Torque: "17 N·m (115 in-lb)"),
            new("Play", Measure: new("bolt-play", "thou", null, 2, Judgements.Standing.Manual, "p. 4"))],
        LogWording = "{number} by {method} at {hours}", LabourHours = 1.5m,
    };

    public InInspectionTests()
    {
        held = Held(directive);
        inspection = Fixture.Inspection(aircraft);
        Fixture.Finish(inspection, aircraft);
    }

    private BulletinResearch Looked => Research(aircraft, [held]);

    private string Take()
    {
        inspection.TakeInBulletin(Looked.Lines[0]).ShouldBeNull();
        return inspection.Bulletins.Single().ZoneKey;
    }

    [Fact]
    public void Its_hours_are_its_own_work_to_be_priced_and_not_the_inspections()
    {
        inspection.Unpriced([]).Single().Estimate.ShouldBeNull("the worksheet of this test says no hours");
        var zone = Take();
        inspection.Unpriced([]).Select(work => (work.Key, work.Estimate?.Hours?.Likely))
            .ShouldBe([("inspection", null), ($"bulletin-{zone}", 1.5m)]);
        inspection.Expect($"bulletin-{zone}", was => (was, null), inspection.Unpriced([]), Mechanic.Id, Fixture.Now).ShouldBeNull();
        inspection.PricedWork.Single().Kind.ShouldBe(WorkKind.Bulletin);
    }

    private void AnswerAll(string zone)
    {
        foreach (var task in inspection.Tasks.Where(task => task.ZoneKey == zone))
        {
            if (task.Measure is not null)
                inspection.Record(new(Guid.NewGuid(), aircraft.Id, task.ComponentId, "bolt-play", zone, 1.5, Core.Measures.Unit.Thou, new(),
                    aircraft.TimeInService, Fixture.Now, Fixture.Ines) { InspectionId = inspection.Id, TaskId = task.Id });
            inspection.Answer(task, TaskVerdict.Good, null, inspection.JudgementAt(task, aircraft), Fixture.Ines, Fixture.Now)
                .ShouldBeNull();
        }
    }

    [Fact]
    public void A_binding_one_that_is_due_holds_the_signature_up_until_it_is_taken_in_and_complied_with()
    {
        Readiness.Of(inspection, aircraft, Fixture.Bare, BulletinResearch.None).MaySign.ShouldBeTrue();
        Readiness.Of(inspection, aircraft, Fixture.Bare, Looked).Blockers.ShouldHaveSingleItem().By.ShouldBe(HeldUpBy.Bulletin);
        var zone = Take();
        Readiness.Of(inspection, aircraft, Fixture.Bare, Looked).Blockers.Count(blocker => blocker.Task?.ZoneKey == zone)
            .ShouldBe(3, "its steps");
        AnswerAll(zone);
        Readiness.Of(inspection, aircraft, Fixture.Bare,
            Looked).Blockers.ShouldHaveSingleItem().What.ShouldContain("say how it was complied with");
        inspection.ComplyWith(directive, zone, "doc 1", false, false, "done", Mechanic, Today, Fixture.Now).ShouldBeNull();
        Readiness.Of(inspection, aircraft, Fixture.Bare, Looked).MaySign.ShouldBeTrue();
    }

    // A step that takes the very part off is done by that: its answer doesn't pass to the part that comes in its place.
    [Fact]
    public void The_steps_stay_with_the_part_they_were_taken_in_for()
    {
        var zone = Take();
        AnswerAll(zone);
        var old = aircraft.Engines.Single().ComponentId;
        aircraft.TakeOff(old, Fixture.Today, aircraft.TimeInService, "AD-1").ShouldBeNull();
        aircraft.Fit(new(Guid.NewGuid(), ComponentKind.Engine, "", "E-9") { LayoutKey = EngineLayout.FlatFour.Key }, "", Fixture.Today,
            aircraft.TimeInService, new(0), null).ShouldBeNull();
        inspection.Follow(aircraft);
        inspection.Tasks.Where(task => task.ZoneKey == zone)
            .ShouldAllBe(task => task.ComponentId == old && task.Verdict == TaskVerdict.Good);
        inspection.Tasks.Where(task => task.ZoneKey == "engine")
            .ShouldAllBe(task => task.ComponentId != old && task.Verdict == TaskVerdict.NotYet);
    }

    [Fact]
    public void What_nobody_can_tell_holds_it_up_where_it_would_bind()
    {
        var open = directive with { AppliesTo = Rule("engine.crankshaft.serial in TK-1 to TK-9") };
        var research = Research(aircraft, [Held(open)]);
        Readiness.Of(inspection, aircraft, Fixture.Bare, research).Blockers.ShouldHaveSingleItem().What.ShouldContain("can’t tell yet");
        inspection.TakeInBulletin(research.Lines[0]).ShouldBeNull();
        inspection.Tasks.First(task => task.Station == Station.Bulletins).Text.ShouldContain(
            "Find out whether it applies. Read off: crankshaft of the engine");
        Readiness.Of(inspection, aircraft, Fixture.Bare,
            Research(aircraft, [Held(open with { Kind = BulletinKind.MandatoryBulletin })])).Blockers.ShouldNotContain(
                blocker => blocker.By == HeldUpBy.Bulletin, "an advisory one doesn't");
    }

    [Fact]
    public void Its_steps_stand_in_a_zone_of_its_own_with_caution_measure_and_misprint()
    {
        var zone = Take();
        var steps = inspection.Tasks.Where(task => task.ZoneKey == zone).OrderBy(task => task.Order).ToList();
        steps.ShouldAllBe(task => task.Station == Station.Bulletins && task.Book == Book.Engine && task.SecondPerson
            && task.ComponentId == aircraft.Engines.Single().ComponentId);
        (steps[0].Caution, steps[2].Measure!.High).ShouldBe(("Magnetos off.", 2));
        steps[1].Caution!.ShouldContain("Probably a misprint");
        inspection.Looks.ShouldNotContain(look => look.ZoneKey == zone);
        inspection.TakeInBulletin(Looked.Lines[0])!.Message.ShouldContain("tasks here already");
    }

    [Fact]
    public void Only_who_holds_what_it_asks_for_may_say_so_and_only_when_all_is_answered()
    {
        var zone = Take();
        inspection.ComplyWith(directive, zone, "doc 1", false, false, "done", Mechanic, Today, Fixture.Now)!.Message
            .ShouldContain("Not done yet");
        AnswerAll(zone);
        inspection.ComplyWith(directive, zone, "doc 1", false, false, "done", Fixture.Person(), Today, Fixture.Now)!.Field.ShouldBe("by");
        inspection.ComplyWith(directive, zone, "", false, false, "done", Mechanic, Today, Fixture.Now)!.Field.ShouldBe("method");
        inspection.ComplyWith(directive, zone, "doc 1", false, true, "done", Mechanic, Today, Fixture.Now)!.Field.ShouldBe("terminating");
        inspection.ComplyWith(directive, zone, "doc 1", false, false, "done", Mechanic, Today, Fixture.Now).ShouldBeNull();
        inspection.Answer(inspection.Tasks.First(task => task.ZoneKey == zone), TaskVerdict.NotYet, null, null, Fixture.Ines, Fixture.Now);
        inspection.Bulletins.Single().Complied.ShouldBeNull("a step is open again");
    }

    [Fact]
    public void Something_found_at_a_step_is_a_finding()
    {
        var zone = Take();
        AnswerAll(zone);
        inspection.Find(Guid.NewGuid(), "Bolt loose", zone, "", DiscrepancyClass.Airworthiness, false,
            inspection.Tasks.First(task => task.ZoneKey == zone), Fixture.Ines, Fixture.Now);
        inspection.ComplyWith(directive, zone, "doc 1", false, false, "done", Mechanic, Today, Fixture.Now)!.Field.ShouldBe("finding");
        inspection.ComplyWith(directive, zone, "doc 1", true, false, "done", Mechanic, Today, Fixture.Now).ShouldBeNull();
    }

    // 14 CFR 43.9 and 91.417(a)(2)(v), from memory: method, revision, date, time in service, next due.
    [Fact]
    public void The_wording_goes_into_the_engines_book_and_the_status_says_what_is_next()
    {
        var zone = Take();
        AnswerAll(zone);
        inspection.ComplyWith(directive, zone, "doc 1", false, false, directive.Wording("doc 1", Today, 1120.5m), Mechanic, Today,
            Fixture.Now)
            .ShouldBeNull();
        Signer signer = new(Mechanic, Mechanic.Certificates[0]);
        var drafts = RecordWriter.Draft(Fixture.Close(inspection, aircraft), signer);
        drafts.Single(draft => draft.Book == Book.Engine).Content["work"]!.AsArray().Select(line => $"{line}").ToList()[2..]
            .ShouldBe(["Measured, AD-1, engine s/n E-1: bolt play 1.5 thou (at most 2 thou).",
                "AD-1 by doc 1 at 1120.5 h. Complied with 2026-11-23 at 1120.5 h on engine. By somebody who isn’t on file."]);
        drafts.Where(draft => draft.Book != Book.Engine).ShouldAllBe(draft => draft.Content["work"]!.AsArray().Count == 0);

        var one = FollowUp(directive, aircraft, aircraft.Engines.Single().ComponentId);
        one.Comply(directive, Done(new(2026, 11, 20), 1120.5m), Today).ShouldBeNull();
        var status = RecordWriter.BulletinStatus(inspection, aircraft, Fixture.Rules,
            Research(aircraft, [Held(directive),
                Held(directive with { Number = "AD-0", Effective = new(2020, 1, 1), AppliesTo = Rule("aircraft.model is X") })], [one]),
                    signer, Fixture.Today);
        var lines = status.Content["work"]!.AsArray().Select(line => line!.GetValue<string>()).ToList();
        lines[0].ShouldContain("AD-0");
        lines[0].ShouldContain("does not apply");
        lines[1].ShouldContain("document 1, revision original issue, 2026-11-20, 1120.5 h, book, p. 1; next due 1220.5 h");
    }
}
