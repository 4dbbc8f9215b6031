using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.EngineRun;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Exhaust;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Tests.Inspections;

// Product.md, promise 9: what is done on a sheet is not said again in the walk.
public class SheetsAnswerTests
{
    private readonly Aircraft aircraft = Fixture.Aircraft();
    private readonly Inspection inspection;
    private readonly Component engine;

    public SheetsAnswerTests()
    {
        engine = aircraft.Engines.First().Component;
        aircraft.Install(new(Guid.NewGuid(), ComponentKind.Magneto, "", "M-1"), "left", default, null, engine.Id);
        inspection = Fixture.Inspect(aircraft, [Fixture.AppendixD]);
    }

    private InspectionTask Task(string key) => inspection.Tasks.Single(task => task.Key == key);

    private Refusal? Press(string key, TaskVerdict verdict, string? reason = null) => inspection.Take(Task(key),
        new(Guid.NewGuid(), verdict, reason, Task(key).Changes, new(null, null)), aircraft, null, Fixture.Ines, Fixture.Now,
        Fixture.Today).Refusal;

    private void Looked(string key, LookState state, string words = "")
    {
        var sheet = ExhaustSheet.Of(aircraft, engine);
        inspection.Look(sheet, sheet.Looks.Single(look => look.Key == key),
            new(engine.Id, SheetKind.Exhaust, key, state, words, null, null, Fixture.Ines, Fixture.Now)).ShouldBeNull();
        inspection.AnswerFromSheets(aircraft);
    }

    [Theory]
    [InlineData("engine-compression", "no reading of cylinder 1, 2, 3, 4")]
    [InlineData("engine-plugs", "0 of 8 done, next 1T")]
    [InlineData("engine-metal", "not said yet what it held")]
    [InlineData("engine-magnetos", "0 of 2 done")]
    public void A_task_whose_sheet_wants_a_value_is_answered_there_alone(string key, string says)
    {
        Press(key, TaskVerdict.Good)!.Message.ShouldContain(says);
        Task(key).Verdict.ShouldBe(TaskVerdict.NotYet);
    }

    [Fact]
    public void The_last_reading_answers_the_task_for_whoever_read_it()
    {
        foreach (var number in new[] { 1, 2, 3 })
            Fixture.Compress(inspection, aircraft, number, 77, minute: number);
        inspection.AnswerFromSheets(aircraft);
        Task("engine-compression").Verdict.ShouldBe(TaskVerdict.NotYet);
        Fixture.Compress(inspection, aircraft, 4, 77, minute: 9);
        inspection.AnswerFromSheets(aircraft);
        Task("engine-compression").ShouldSatisfyAllConditions(task => task.Verdict.ShouldBe(TaskVerdict.Good),
            task => task.By.ShouldBe(Fixture.Ines), task => task.At.ShouldBe(Fixture.Now.AddMinutes(9)));
    }

    [Fact]
    public void Looks_that_are_all_a_sheet_wants_are_done_in_one_touch_from_the_walk()
    {
        Press("engine-mount", TaskVerdict.Good).ShouldBeNull();
        Task("engine-mount").Verdict.ShouldBe(TaskVerdict.Good);
        inspection.SheetChecks.Select(check => check.Key).ShouldBe(
            ["mount-upper-left", "mount-upper-right", "mount-lower-left", "mount-lower-right", "baffles"], ignoreOrder: true);
        Task("engine-exhaust").Verdict.ShouldBe(TaskVerdict.NotYet, "nobody looked at that");
    }

    [Fact]
    public void Something_found_leaves_the_task_open_until_it_is_on_the_fix_list()
    {
        Looked("baffles", LookState.Found, "torn");
        Press("engine-mount", TaskVerdict.Good)!.Message.ShouldContain("put it on the fix list");
        Task("engine-mount").Verdict.ShouldBe(TaskVerdict.NotYet);
        var judged = InspectionJudgements.Of(inspection, aircraft).Single(one => one.Key.EndsWith("/baffles", StringComparison.Ordinal));
        inspection.PutOnList(Guid.NewGuid(), "Baffle torn", judged.Where.ZoneKey, "",
            new(DiscrepancyClass.Airworthiness, false, Fixture.Ines, Fixture.Now), null, judged, Fixture.Classes).Refusal.ShouldBeNull();
        inspection.AnswerFromSheets(aircraft);
        Task("engine-mount").Verdict.ShouldBe(TaskVerdict.Discrepancy);
    }

    [Fact]
    public void A_sheet_that_is_opened_again_takes_its_answer_back()
    {
        foreach (var number in new[] { 1, 2, 3, 4 })
            Fixture.Compress(inspection, aircraft, number, 77);
        inspection.AnswerFromSheets(aircraft);
        Fixture.Compress(inspection, aircraft, 2, 40, again: true, minute: 5);
        Fixture.Compress(inspection, aircraft, 2, 41, again: true, minute: 6);
        inspection.AnswerFromSheets(aircraft);
        Task("engine-compression").ShouldSatisfyAllConditions(task => task.Verdict.ShouldBe(TaskVerdict.NotYet),
            task => task.By.ShouldBeNull());
    }

    [Fact]
    public void Not_on_this_one_stays_what_somebody_said()
    {
        Press("engine-hoses", TaskVerdict.NotApplicable, "no hoses on this engine").ShouldBeNull();
        Looked("hose-heat", LookState.Good);
        Task("engine-hoses").Verdict.ShouldBe(TaskVerdict.NotApplicable);
    }

    [Fact]
    public void A_sheet_that_was_left_out_with_a_reason_leaves_the_task_to_the_hand()
    {
        var ask = Asks.Of(inspection, aircraft, Fixture.Shop).Single(one => one.Asked == Asked.Mount);
        inspection.LeaveOut(ask, "on paper, list 12", Fixture.Inspector, Fixture.Inspector.Certificates[0], Fixture.Now).ShouldBeNull();
        Press("engine-mount", TaskVerdict.Good).ShouldBeNull();
        inspection.AnswerFromSheets(aircraft);
        Task("engine-mount").Verdict.ShouldBe(TaskVerdict.Good);
        inspection.SheetChecks.ShouldBeEmpty();
    }

    [Fact]
    public void A_value_of_the_run_typed_on_its_sheet_answers_the_runs_task()
    {
        var run = RunSheet.Of(engine);
        var drop = run.Values.Single(value => value is { Kind: "mag-drop-left", Position: SheetValue.After });
        inspection.Measure(Guid.NewGuid(), run, drop, 90, drop.Band.Unit, new(Fixture.Ines, Fixture.Now)).ShouldBeNull();
        inspection.AnswerFromSheets(aircraft);
        Task("run-mag-left").Verdict.ShouldBe(TaskVerdict.Good);
        inspection.Measure(Guid.NewGuid(), run, drop, null, drop.Band.Unit, new(Fixture.Ines, Fixture.Now)).ShouldBeNull();
        inspection.AnswerFromSheets(aircraft);
        Task("run-mag-left").Verdict.ShouldBe(TaskVerdict.NotYet);
    }

    [Fact]
    public void A_task_of_another_list_that_says_the_same_follows()
    {
        var both = new Inspection(Guid.NewGuid(), aircraft, InspectionKind.Service100, "26-2",
            [Fixture.Shipped("service"), Fixture.AppendixD], Fixture.Today);
        var lead = both.Tasks.Single(task => task.Key is "sv-exhaust" or "engine-exhaust" && task.TiedTo is null);
        var tied = both.Tasks.Single(task => task.TiedTo == lead.Id);
        both.LookAtRestOf(lead, aircraft, Fixture.Ines, Fixture.Now).ShouldBeNull();
        (lead.Verdict, tied.Verdict).ShouldBe((TaskVerdict.Good, TaskVerdict.Good));
    }

    // What an aircraft has two of is asked twice, and its limit is typed once.
    [Theory]
    [InlineData("brake-pad-left", "brake-pad-right")]
    [InlineData("tyre-pressure-left", "tyre-pressure-nose")]
    public void One_limit_of_the_manual_holds_for_both_sides_until_one_has_its_own(string one, string other)
    {
        aircraft.SetLimit(new(aircraft.FiledUnder(one), "in", 0.1, null, "manual 32"));
        aircraft.LimitOf(other)!.Low.ShouldBe(0.1);
        aircraft.SetLimit(new(other, "in", 0.2, null, "manual 32, right"));
        aircraft.LimitOf(one)!.Low.ShouldBe(0.1);
        aircraft.LimitOf(other)!.Low.ShouldBe(0.2);
        aircraft.FiledUnder(other).ShouldBe(other);
    }

    [Fact]
    public void Every_pair_of_an_aircraft_is_asked_for_side_by_side()
    {
        string[] sided = [.. inspection.Tasks.Select(task => task.Measure?.Kind).OfType<string>().Where(kind => kind.EndsWith("-left",
            StringComparison.Ordinal))];
        sided.ShouldContain("brake-pad-left");
        foreach (var left in sided)
            inspection.Tasks.ShouldContain(task => task.Measure != null && task.Measure.Kind == $"{Sides.BothOf(left)}-right", left);
    }
}

public class SidesAndCuresTests
{
    [Theory]
    [InlineData("Left brake pads at the rivets", "Right brake pads at the rivets")]
    [InlineData("tank, RH: cap seal hard", "tank, LH: cap seal hard")]
    [InlineData("left-wing", "right-wing")]
    [InlineData("Bolt at the upright loose", "Bolt at the upright loose")]
    public void The_same_on_the_other_side_has_its_side_turned(string said, string turned)
    {
        Sides.Turned(said).ShouldBe(turned);
        Sides.Turned(turned).ShouldBe(said, "there and back");
    }

    [Fact]
    public void A_task_waits_until_what_was_put_on_has_cured()
    {
        var aircraft = Fixture.Aircraft();
        var inspection = Fixture.Inspect(aircraft, [Fixture.AppendixD]);
        var task = inspection.Tasks.First();
        inspection.LetCure(task.Id, CureOf.Sealant, "soon", Fixture.Ines, Fixture.Now)!.Field.ShouldBe("cure");
        inspection.LetCure(task.Id, CureOf.Sealant, "90 min", Fixture.Ines, Fixture.Now).ShouldBeNull();
        inspection.CureOf(task, Fixture.Now.AddMinutes(89))!.Until.ShouldBe(Fixture.Now.AddMinutes(90));
        inspection.CureOf(task, Fixture.Now.AddMinutes(90)).ShouldBeNull("it may go on");
        inspection.LetCure(task.Id, CureOf.Paint, "0", Fixture.Ines, Fixture.Now).ShouldBeNull();
        inspection.Cures.ShouldBeEmpty("no time at all ends the wait");
    }
}
