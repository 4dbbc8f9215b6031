using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Trends;

namespace MellowRivet.Core.Tests.Trends;

public class AircraftSeriesTests
{
    private readonly Aircraft aircraft = Fixture.Aircraft();

    private Component Engine => aircraft.Engines.First().Component;

    private Reading Read(string kind, Guid? part, decimal hours, double value, Unit unit, string position = "", Guid? task = null) =>
        new(Guid.NewGuid(), aircraft.Id, part, kind, position, value, unit, new(), new Hours(hours), Fixture.Now, Fixture.Ines)
            { TaskId = task };

    private IEnumerable<Reading> Steady(string kind, double value, double step, double last, Unit unit) =>
        Enumerable.Range(0, 6).Select(time => Read(kind, Engine.Id, 100 * (time + 1), time == 5 ? last : value + step * time, unit));

    [Fact]
    public void What_is_unusual_stands_first()
    {
        List<Reading> readings = [.. Steady("bus-voltage", 14.1, 0, 14.1, Unit.Volt),
            .. Steady("suction", 5, 0.001, 4.1, Unit.InchOfMercury)];
        var groups = AircraftSeries.Of(aircraft, readings);
        groups.Select(group => (group.Kind, group.IsUnusual)).ShouldBe([("suction", true), ("bus-voltage", false)]);
        groups[0].Series.Single().Trend.LastIsUnusual.ShouldBe(true);
    }

    // Worked by hand: readings at 100 to 600 h reach back 500 h. Falling 2 psi in 100 h from 70, the line meets 52 at 1000 h, 400 h on;
    // falling 1 psi it would be 1900 h, 1300 h on.
    [Theory]
    [InlineData(-2, 1000)]
    [InlineData(-1, null)]
    public void A_crossing_is_foreseen_no_further_ahead_than_the_readings_reach_back(double step, int? hours)
    {
        aircraft.SetLimit(new("oil-pressure", "psi", 52, 90, "manual 79"));
        var series = AircraftSeries.Of(aircraft, [.. Steady("oil-pressure", 70, step, 70 + 5 * step, Unit.Psi)]).Single().Series.Single();
        series.Trend.Crossing.ShouldNotBeNull();
        series.Foreseen?.Hours.ShouldBe(hours!.Value, 0.5);
        (series.Foreseen is null).ShouldBe(hours is null);
    }

    [Fact]
    public void Units_are_brought_together_and_the_manuals_limit_is_drawn()
    {
        aircraft.SetLimit(new("oil-pressure", "bar", 3, 6, "manual 79"));
        var group = AircraftSeries.Of(aircraft,
            [Read("oil-pressure", Engine.Id, 100, 70, Unit.Psi), Read("oil-pressure", Engine.Id, 200, 4, Unit.Bar)]).Single();
        // All readings were taken at one moment here: either unit may lead, and the other is converted to it.
        var series = group.Series.Single();
        var inPsi = group.Unit == "psi";
        series.Points.Select(point => Math.Round(point.Value, 1)).ShouldBe(inPsi ? [70, 58.0] : [4.8, 4]);
        series.Limit!.Value.ShouldBe(inPsi ? 43.5 : 3, 0.05);
    }

    [Fact]
    public void A_plugs_series_goes_with_the_plug_and_a_task_and_the_run_sheet_are_one()
    {
        aircraft.InstallPlugs(Engine, "QK", 1, new Hours(0), null);
        var plug = aircraft.Fitted(ComponentKind.Plug).First().ComponentId;
        var groups = AircraftSeries.Of(aircraft,
            [Read(PlugKinds.Ohms, plug, 100, 900, Unit.Ohm, "1T"), Read(PlugKinds.Ohms, plug, 200, 950, Unit.Ohm, "3B"),
            Read("static-rpm", Engine.Id, 100, 2_300, Unit.Rpm, "run", Guid.NewGuid()),
            Read("static-rpm", Engine.Id, 200, 2_310, Unit.Rpm, "after"), Read("static-rpm", Engine.Id, 200, 2_250, Unit.Rpm, "before")]);
        groups.Single(group => group.Kind == PlugKinds.Ohms).Series.Single().Points.Count.ShouldBe(2);
        groups.Single(group => group.Kind == "static-rpm").Series.Select(series => (series.Label, series.Points.Count))
            .ShouldBe([("", 2), ("before", 1)]);
    }

    [Fact]
    public void A_part_that_came_off_takes_its_series_along_and_an_overhaul_begins_one_anew()
    {
        var magneto = new Component(Guid.NewGuid(), ComponentKind.Magneto, "", "M-1");
        aircraft.Install(magneto, "left", new Hours(0), new Hours(0), Engine.Id);
        magneto.WasOverhauled(new(new DateOnly(2026, 1, 1), new Hours(250), "release"));
        List<Reading> readings = [.. Enumerable.Range(1, 6).Select(time => Read("magneto-e-gap", magneto.Id, 100 * time, 10, Unit.Degree))];
        var series = AircraftSeries.Of(aircraft, readings).Single().Series.Single();
        (series.Label, series.Trend.N, series.Events.Single().Hours).ShouldBe(("left", 4, 250));
        aircraft.TakeOff(magneto.Id, new DateOnly(2026, 11, 1), new Hours(900), "worn").ShouldBeNull();
        AircraftSeries.Of(aircraft, readings).ShouldBeEmpty();
    }
}
