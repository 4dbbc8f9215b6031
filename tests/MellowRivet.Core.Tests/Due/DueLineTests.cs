using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Tests.Due;

public class DueLineTests
{
    private static readonly DateOnly Today = new(2026, 11, 23);
    private static readonly RuleSource Source = new(Standing.Practice, "test");
    private readonly Aircraft aircraft = Fixture.Aircraft();

    public DueLineTests()
    {
        // 0.5 h a day up to the 1000.5 h that the fixture reads on 2026-11-20.
        for (var month = 12; month > 0; month--)
            aircraft.ReadTime(new DateOnly(2026, 11, 20).AddDays(-30 * month), new Hours(1000.5m - 15 * month));
    }

    private DueItem Item(string what, Interval interval, LastDone? done = null, Guid? part = null, DueKind kind = DueKind.Service,
        params InspectionKind[] doneBy)
    {
        var item = new DueItem(Guid.NewGuid(), part is null ? aircraft.Id : null, part, what, kind, interval, Source, doneBy);
        if (done is not null)
            item.SetDone(done, Today).ShouldBeNull();
        return item;
    }

    private DueLine Line(params DueItem[] items) => DueLine.Of(aircraft, items, aircraft.MeterReadings, Today);

    [Fact]
    public void What_calls_for_a_hand_comes_first_and_the_rest_by_forecast()
    {
        var retired = Item("retired", new(10), new(Today, 1m));
        retired.Retire("sold");
        var line = Line(retired,
            Item("far", new(EveryMonths: 12), new(Today)), Item("unknown", new(EveryMonths: 12)), Item("near", new(50), new(Today, 960.5m)),
            Item("overdue", new(50), new(Today, 940m)), Item("grace", new(50, GraceHours: 10), new(Today, 945.5m)));
        line.Entries.Select(entry => entry.Item.What).ShouldBe(["overdue", "grace", "near", "unknown", "far"]);
        line.Now.Hours.Use!.PerDay.ShouldBe(0.5, 1e-6);
    }

    [Fact]
    public void What_hangs_on_a_part_counts_the_parts_own_hours()
    {
        // Fitted at 900 aircraft hours with none of its own: 100.5 h now.
        var propeller = aircraft.Propellers.Single().Component;
        Line(Item("overhaul", new(150), new(Today, 0), propeller.Id)).Entries.Single().Status.Limb(LimbKind.Hours)!.Remaining.ShouldBe(
            49.5m);
    }

    [Fact]
    public void A_part_of_unknown_time_can_not_be_told()
    {
        var pump = aircraft.Install(new(Guid.NewGuid(), ComponentKind.Pump, "", "P"), "", new Hours(950), null).Component;
        Line(Item("life", new(500), new(Today, 10), pump.Id)).Entries.Single().Status.State.ShouldBe(DueState.Unknown);
    }

    [Fact]
    public void The_inspection_after_this_one_decides_what_is_done_while_it_is_open()
    {
        var line = Line(
            Item("annual", new(EveryMonths: 12), new(new DateOnly(2025, 11, 30)), null, DueKind.Inspection, InspectionKind.Annual),
            Item("magneto", new(500), new(Today, 700.5m)), // 200 h, 400 days on
            Item("altimeter", new(EveryMonths: 24), new(new DateOnly(2025, 1, 10))), // 2027-01-31
            Item("oil", new(25), new(Today, 990m), null, DueKind.Service, InspectionKind.Annual),
            Item("history lost", new(EveryMonths: 24)));
        line.InspectionAfter(InspectionKind.Annual).ShouldBe(new DateOnly(2027, 11, 30), "twelve calendar months from today");
        line.FallsDueBefore(new DateOnly(2027, 11, 30), InspectionKind.Annual).Select(entry => entry.Item.What)
            .ShouldBe(["altimeter", "history lost"], ignoreOrder: true);
        line.NextInspection!.Item.What.ShouldBe("annual");
    }

    [Fact]
    public void A_hundred_hours_done_late_remembers_when_it_was_due()
    {
        var item = Item("100-hour", new(100, GraceHours: 10), new(Today.AddDays(-90), 900));
        item.SetDone(new(Today, 1006.5m), Today).ShouldBeNull();
        item.Last!.WasDueHours.ShouldBe(1000);
        Line(item).Entries.Single().Status.Limb(LimbKind.Hours)!.DueAt.ShouldBe(1100);
    }

    [Theory]
    [InlineData("2026-11-24", 900.0, "on")]
    [InlineData(null, 900.0, "on")]
    [InlineData("2026-11-01", null, "hours")]
    [InlineData("2026-10-01", 990.0, "on")]
    [InlineData("2026-11-01", 800.0, "hours")]
    public void What_can_not_have_been_done_so_is_refused(string? on, double? hours, string field)
    {
        var item = Item("both", new(100, 12), new(new DateOnly(2026, 10, 15), 900m));
        item.SetDone(new(on is null ? null : DateOnly.Parse(on), (decimal?)hours), Today)!.Field.ShouldBe(field);
    }

    // The shipped starters, against domain.md section 3 and 14 CFR 91.409, 91.411, 91.413, 91.207, from memory.
    [Fact]
    public void The_shipped_starters_follow_the_rules()
    {
        var starters = DueStarter.Parse(File.ReadAllText(Path.Combine(Fixture.Shelf, "due", "starters.json")))
            .ToDictionary(starter => starter.Key);
        starters["annual"].Interval.ShouldBe(new(EveryMonths: 12));
        starters["hundred-hour"].Interval.ShouldBe(new(100, GraceHours: 10));
        starters["hundred-hour"].DoneBy.ShouldBe([InspectionKind.Annual, InspectionKind.HundredHour]);
        foreach (var key in new[] { "altimeter", "transponder" })
            (starters[key].Interval.EveryMonths, starters[key].Interval.Calendar).ShouldBe((24, CalendarRule.EndOfMonth));
        starters["locator"].Interval.EveryMonths.ShouldBe(12);
        starters["locator-battery"].Interval.HasNoLimb.ShouldBeTrue("the date is marked on it");
        starters["engine-overhaul"].Interval.HasNoLimb.ShouldBeTrue("the manual has the times");
        starters["hoses-geared"].Interval.ShouldBe(new(EveryMonths: 60, Calendar: CalendarRule.SameDay));
        starters["gearbox-oil"].Interval.EveryMonths.ShouldBe(24);
        starters["gearbox-oil"].For(aircraft).ShouldBeEmpty("a flat four has no two-stroke gearbox");
        starters["annual"].For(Fixture.Aircraft(Category.ExperimentalAmateurBuilt)).ShouldBeEmpty();
        starters["engine-overhaul"].For(aircraft).ShouldHaveSingleItem().ComponentId.ShouldBe(aircraft.Engines.Single().ComponentId);
    }

    [Theory]
    [InlineData("nonsense")]
    [InlineData("""[{ "key": "x" }]""")]
    [InlineData("""
        [{ "key": "x", "what": "x", "kind": "service", "interval": { "everyHours": -1 }, "source": { "standing": "law", "text": "x" },
        "doneBy": [], "categories": [], "on": null, "layouts": [], "asked": false }]
        """)]
    public void A_shelf_file_that_does_not_hold_together_is_refused(string json) =>
        Should.Throw<FormatException>(() => DueStarter.Parse(json));

    [Fact]
    public void The_plan_takes_what_falls_due_the_squawks_and_what_was_left_last_time()
    {
        var last = Fixture.Inspection(aircraft);
        last.Find(Guid.NewGuid(), "watched", "gear", "", Core.Discrepancies.DiscrepancyClass.Watch, false, null, Fixture.Ines, Fixture.Now);
        last.Find(Guid.NewGuid(), "fixed", "gear", "", Core.Discrepancies.DiscrepancyClass.Recommended, false, null, Fixture.Ines,
            Fixture.Now).Correct(new("done"), new(new(), 0), Fixture.Ines, Fixture.Now);
        var inspection = Fixture.Inspection(aircraft);
        inspection.Hear(Guid.NewGuid(), "door rattles", Fixture.Ines, Fixture.Now).ShouldBeNull();
        var altimeter = Item("altimeter", new(EveryMonths: 24), new(new DateOnly(2025, 1, 10)));
        altimeter.Change("altimeter", altimeter.Interval, Source, 1.5m);
        var annual = Item("annual", new(EveryMonths: 12), new(new DateOnly(2025, 11, 30)), null, DueKind.Inspection, InspectionKind.Annual);

        var plan = WorkPlan.Of(inspection, Line(altimeter, annual), last);
        plan.Due.ShouldHaveSingleItem().Entry.Item.ShouldBe(altimeter);
        plan.FromLastTime.ShouldHaveSingleItem().What.ShouldBe("watched");
        plan.Hours.ShouldBe(2.0m, "an hour and a half, and half an hour for the squawk");

        inspection.Plan(altimeter.Id, doIt: false);
        WorkPlan.Of(inspection, Line(altimeter, annual), last).Hours.ShouldBe(0.5m);
        inspection.Plan(altimeter.Id, doIt: true);
        altimeter.SetDone(Line(altimeter).Entries[0].DoneNow(Today, inspection.WorkOrder), Today).ShouldBeNull();
        WorkPlan.Of(inspection, Line(altimeter, annual),
            last).Due.ShouldHaveSingleItem().IsDone.ShouldBeTrue("it stays on the plan, as done");
    }
}
