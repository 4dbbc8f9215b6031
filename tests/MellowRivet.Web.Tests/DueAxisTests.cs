using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Web.Drawings;

namespace MellowRivet.Web.Tests;

public class DueAxisTests
{
    private static readonly DateOnly Today = new(2026, 11, 23);
    private readonly Aircraft aircraft = new(Guid.NewGuid(), "N0TST", "Test", "T", Category.Standard, new(Wing.Low, Gear.NoseWheel, 2, 2));

    public DueAxisTests()
    {
        for (var month = 12; month >= 0; month--)
            aircraft.ReadTime(Today.AddDays(-30 * month), new Hours(1000 - 15 * month));
    }

    private DueLine Line(params DueItem[] items) => DueLine.Of(aircraft, items, aircraft.MeterReadings, Today);

    [Fact]
    public void A_later_day_never_stands_before_an_earlier_one()
    {
        var axis = new DueAxis(Line());
        var places = Enumerable.Range(-800, 6_000).Select(day => axis.X(Today.AddDays(day))).ToList();
        places.ShouldBeInOrder();
        places.ShouldAllBe(x => x >= 0 && x <= DueAxis.End);
        axis.X(Today).ShouldBe(DueAxis.Today);
    }

    // Half an hour a day: 1000 h today, about 1045.5 in 91 days (2027-02-23 is 92 days on).
    [Fact]
    public void Hours_stand_on_the_axis_where_the_use_puts_them()
    {
        var ticks = new DueAxis(Line()).Ticks;
        ticks[0].Hours.ShouldBe("1000 h");
        ticks[1].Hours.ShouldBe("1046 h");
        ticks[^1].Hours.ShouldBeNull("ten years on no hours are promised");
    }

    [Fact]
    public void Each_limb_has_its_letter_and_the_governing_one_its_range()
    {
        RuleSource source = new(Standing.Practice, "test");
        var item = new DueItem(Guid.NewGuid(), aircraft.Id, null, "both", DueKind.Service, new(100, 12), source);
        item.SetDone(new(Today, 1000), Today).ShouldBeNull();
        var line = Line(item);
        var ticks = new DueAxis(line).TicksOf(line.Entries.Single()).ToList();
        ticks.Select(tick => (tick.Letter, tick.Governs)).ShouldBe([("h", true), ("d", false)]);
        ticks[0].From.ShouldNotBeNull();
        ticks[0].Title.ShouldBe("by hours: at 1100.0 h, 100.0 h left");
        ticks[1].Title.ShouldBe("by calendar: by 2027-11-30, in 372 days");
        DueSaid.Forecast(line.Entries.Single().Status).ShouldStartWith("about 2027-06-11 (");
    }

    [Fact]
    public void On_a_twin_a_part_is_named_with_its_engine()
    {
        foreach (var side in new[] { "left", "right" })
            aircraft.InstallIgnition(
                aircraft.InstallEngine(new Component(Guid.NewGuid(), ComponentKind.Engine, "", side)
                    { LayoutKey = EngineLayout.FlatSix.Key, Ignition = new(IgnitionKind.Magneto, IgnitionKind.Magneto) }, side, default,
                    new Hours(0)));
        var items = aircraft.Fitted(ComponentKind.Magneto)
            .Select(stay => new DueItem(Guid.NewGuid(), null, stay.ComponentId, "Bench inspection", DueKind.Service, new(500),
                new(Standing.Practice, "test"))).ToArray();
        Line(items).Entries.Select(entry => entry.Title).Order().ShouldBe([
            "Bench inspection, magneto left, left engine", "Bench inspection, magneto left, right engine",
            "Bench inspection, magneto right, left engine", "Bench inspection, magneto right, right engine"]);
    }

    [Theory]
    [InlineData(DueState.Ok, State.Good)]
    [InlineData(DueState.Soon, State.Watch)]
    [InlineData(DueState.Grace, State.Recommended)]
    [InlineData(DueState.Unknown, State.CannotTell)]
    [InlineData(DueState.Overdue, State.Airworthiness)]
    public void Each_state_has_the_shape_it_has_everywhere(DueState due, State shape) => States.Of(due).ShouldBe(shape);

    [Theory]
    [InlineData(false, false)]
    [InlineData(true, false)]
    [InlineData(false, true)]
    public void The_drawing_shows_how_the_aircraft_is_built(bool retractable, bool folding)
    {
        var plain = AircraftDrawing.Details(new(Wing.Low, Gear.NoseWheel, 1, 2));
        AircraftDrawing.Details(new(Wing.Low, Gear.NoseWheel, 1, 2, retractable, folding)).Count.ShouldBe(plain.Count
            + (retractable ? 1 : 0) + (folding ? 1 : 0));
    }
}
