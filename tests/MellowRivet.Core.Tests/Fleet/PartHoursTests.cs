using MellowRivet.Core.Compression;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Oil;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Trends;

namespace MellowRivet.Core.Tests.Fleet;

/// <summary>Parts that move between aircraft with other hours, and back; every figure is reckoned by hand beside it.</summary>
public class PartHoursTests
{
    private readonly Aircraft home = Fixture.Aircraft(),
        away = new(Guid.NewGuid(), "N0AWY", "Test type", "T-2", Category.Standard, new(Wing.Low, Gear.NoseWheel, 1, 2));

    public PartHoursTests() => away.ReadTime(Fixture.Today, new Hours(5000));

    private static PartHours HoursOf(Guid part, params Aircraft[] fleet) =>
        new(fleet.SelectMany(aircraft => aircraft.Installations).Where(stay => stay.ComponentId == part));

    // The engine came to N0TST at 0 h with 120 h of its own. At the 1000.5 h of that aircraft it has 1120.5 h, moves to N0AWY at
    // 5000 h, flies 60 h there to 1180.5 h, and comes back: at 1010 h of N0TST, 9.5 h on, it has 1190 h.
    [Fact]
    public void An_engine_keeps_its_own_hours_from_aircraft_to_aircraft_and_back()
    {
        var engine = home.Engines.Single().ComponentId;
        MoveThereAndBack(engine);
        var own = HoursOf(engine, home, away);
        own.IsKnown.ShouldBeTrue();
        At(own, home, 1000.5m).ShouldBe(1120.5m);
        At(own, away, 5000).ShouldBe(1120.5m);
        At(own, away, 5060).ShouldBe(1180.5m);
        At(own, home, 1010, days: 60).ShouldBe(1190);
        At(own, away, 5100, days: 60).ShouldBe(1180.5m, "it had come off by then: what it had at its end");

        var cylinder = home.Cylinder(home.Engines.Single().Component, 2)!.Id;
        At(HoursOf(cylinder, home, away), home, 1010, days: 60).ShouldBe(1190, "what sits on it went along");
        own.At(Guid.NewGuid(), new Hours(1), Fixture.Now).ShouldBeNull("it was never on that one");
    }

    // Off at 1000.5 h and back on at the same 1000.5 h, with 60 h flown elsewhere between: the day tells which it was.
    [Fact]
    public void Two_stays_at_the_same_hours_are_told_apart_by_the_day()
    {
        var engine = home.Engines.Single().ComponentId;
        MoveThereAndBack(engine, fliesOn: false);
        var own = HoursOf(engine, home, away);
        At(own, home, 1000.5m, days: -20).ShouldBe(1120.5m);
        At(own, home, 1000.5m, days: 60).ShouldBe(1180.5m);
    }

    [Fact]
    public void Where_nobody_knows_the_hours_go_on_from_those_of_the_first_aircraft()
    {
        var part = new Component(Guid.NewGuid(), ComponentKind.Magneto, "", "M-1");
        home.Install(part, "left", new Hours(900), null, home.Engines.Single().ComponentId, Fixture.Today.AddDays(-30));
        home.MoveTo(part.Id, away, "left", Fixture.Today, "lent").ShouldBeNull();
        var own = HoursOf(part.Id, home, away);
        own.IsKnown.ShouldBeFalse();
        At(own, home, 950, days: -10).ShouldBe(950);
        At(own, away, 5010, days: 10).ShouldBe(1010.5m, "1000.5 h when it left, 10 h on");

        // Somebody finds its papers: 400 h when it came to the second aircraft, so 400 − 100.5 = 299.5 h when it came to the first.
        away.PutRight(away.Installations.Single(stay => stay.ComponentId == part.Id).Id, [.. Stays(part.Id)], new Hours(5000),
            new Hours(400), null).ShouldBeNull();
        At(HoursOf(part.Id, home, away), home, 950, days: -10).ShouldBe(349.5m);
        At(HoursOf(part.Id, home, away), away, 5010, days: 10).ShouldBe(410);
    }

    // Put down as fitted at 0 h with 120 h, and it was fitted at 200 h with 90 h: at 1000.5 h it has 890.5 h, not 1120.5 h.
    [Fact]
    public void A_wrong_stay_put_right_puts_right_what_went_along_and_what_came_after()
    {
        var engine = home.Engines.Single().ComponentId;
        var wrong = home.Engines.Single();
        MoveThereAndBack(engine);
        home.PutRight(wrong.Id, [.. Stays(engine), .. home.GoesAlong(wrong).SelectMany(stay => Stays(stay.ComponentId))], new Hours(200),
            new Hours(90), wrong.RemovedAt).ShouldBeNull();
        var cylinder = home.Cylinder(home.Engines.Single().Component, 3)!.Id;
        foreach (var part in new[] { engine, cylinder })
        {
            var own = HoursOf(part, home, away);
            At(own, home, 1000.5m).ShouldBe(890.5m);
            At(own, away, 5060).ShouldBe(950.5m);
            At(own, home, 1010, days: 60).ShouldBe(960);
        }
    }

    [Theory]
    [InlineData(1001, null, null, "stayAt")]
    [InlineData(10, null, 900, "stayOff")]
    public void A_stay_is_not_put_right_into_something_impossible(int at, int? own, int? off, string field) =>
        home.PutRight(home.Engines.Single().Id, [], new Hours(at), own is { } then ? new Hours(then) : null, off is { } end
            ? new Hours(end)
            : null)!.Field.ShouldBe(field);

    [Fact]
    public void Two_stays_of_a_part_on_one_aircraft_do_not_overlap()
    {
        var engine = home.Engines.Single().ComponentId;
        MoveThereAndBack(engine);
        home.PutRight(home.Fitting(engine)!.Id, [], new Hours(900), null, null)!.Message.ShouldContain("overlap");
        home.PutRight(Guid.NewGuid(), [], default, null, null)!.Field.ShouldBe("stayAt");
    }

    // Read on two aircraft 4000 h apart in time in service: on its own hours each series has the step it had.
    [Fact]
    public void Series_of_an_engine_a_cylinder_a_plug_and_a_magneto_go_along_on_their_own_hours()
    {
        var engine = home.Engines.Single().Component;
        home.InstallPlugs(engine, "QK", 1, new Hours(0), new Hours(0));
        home.Install(new(Guid.NewGuid(), ComponentKind.Magneto, "", "M-1"), "left", new Hours(0), new Hours(50), engine.Id);
        var (cylinder, plug, magneto) = (home.Cylinder(engine, 2)!.Id, home.Fitted(ComponentKind.Plug)
            .First().ComponentId, home.Fitted(ComponentKind.Magneto).First().ComponentId);
        List<Reading> readings = [.. ReadAll(home, 600, -100), .. ReadAll(home, 800, -80), .. ReadAll(home, 1000.5m, -60)];
        MoveThereAndBack(engine.Id);
        readings.AddRange([.. ReadAll(away, 5060, 15), .. ReadAll(home, 1010, 60)]);
        foreach (var reading in readings)
            reading.CountOn(HoursOf(reading.ComponentId!.Value, home, away));

        double[] since = [600, 800, 1000.5, 1060.5, 1070];
        var groups = AircraftSeries.Of(home, readings).ToDictionary(group => group.Kind, group => group.Series.Single());
        groups["oil-pressure"].Points.Select(point => point.Hours).ShouldBe(since.Select(hours => hours + 120));
        groups["plug-ohms"].Points.Select(point => point.Hours).ShouldBe(since);
        groups["magneto-e-gap"].Points.Select(point => point.Hours).ShouldBe(since.Select(hours => hours + 50));
        groups[Reading.CompressionKind].Points.Select(point => point.Hours).ShouldBe(since.Select(hours => hours + 120));
        groups["oil-pressure"].ToAircraft.ShouldBe(1010 - 1190, 0.001, "what is added to 1190 h of its own to get the aircraft's 1010 h");
        CylinderHistory.Of(home, engine, 2, readings, null).Trend.N.ShouldBe(5);

        // On the aircraft's hours stands what was read on it, and nothing that was read elsewhere.
        AircraftSeries.Of(home, readings, HoursAxis.Aircraft)
            .First(group => group.Kind == "oil-pressure").Series.Single().Points.Select(point => point.Hours)
            .ShouldBe([600, 800, 1000.5, 1010]);

        // 1 l at each note: hours a litre are the hours between, 60 h on the other aircraft among them.
        OilUse.Of(readings.Where(reading => reading.Kind == OilUse.AddedKind)).Points.Select(point => Math.Round(point.Value, 1))
            .ShouldBe([200, 200.5, 60, 9.5]);
        // Set at 0.016 and found at 0.018 after 60 h on the other aircraft: 0.002 in 60 h.
        PlugWear.Of([Gap(PlugKinds.GapSet, home, 1000.5m, 0.016, -60), Gap(PlugKinds.GapFound, away, 5060, 0.018, 15)],
            0.021).PerHundredHours!.Value.ShouldBe(0.002 / 60 * 100, 1e-9);

        IEnumerable<Reading> ReadAll(Aircraft on, decimal hours, int days) =>
        [
            Read("oil-pressure", engine.Id, on, hours, 70, Unit.Psi, days),
            Read(Reading.CompressionKind, cylinder, on, hours, 70, Unit.Psi, days),
            Read(PlugKinds.Ohms, plug, on, hours, 2_000, Unit.Ohm, days),
            Read("magneto-e-gap", magneto, on, hours, 25, Unit.Degree, days),
            Read(OilUse.AddedKind, engine.Id, on, hours, 1, Unit.Litre, days),
        ];
        Reading Gap(string kind, Aircraft on, decimal hours, double inches, int days)
        {
            var gap = Read(kind, plug, on, hours, inches, Unit.Inch, days);
            gap.CountOn(HoursOf(plug, home, away));
            return gap;
        }
    }

    private static Reading Read(string kind, Guid part, Aircraft on, decimal hours, double value, Unit unit, int days) =>
        new(Guid.NewGuid(), on.Id, part, kind, "", value, unit, new(true, 80, 14.7, null, Leaks.None), new Hours(hours),
            Fixture.Now.AddDays(days), Fixture.Ines);

    private IEnumerable<Installation> Stays(Guid part) =>
        home.Installations.Concat(away.Installations).Where(stay => stay.ComponentId == part);

    // Away today, back in 50 days.
    private void MoveThereAndBack(Guid part, bool fliesOn = true)
    {
        home.MoveTo(part, away, "", Fixture.Today, "lent").ShouldBeNull();
        away.ReadTime(Fixture.Today.AddDays(50), new Hours(5060));
        away.MoveTo(part, home, "", Fixture.Today.AddDays(50), "back").ShouldBeNull();
        if (fliesOn)
            home.ReadTime(Fixture.Today.AddDays(60), new Hours(1010));
    }

    private static decimal At(PartHours own, Aircraft on, decimal hours, int days = 0) =>
        own.At(on.Id, new Hours(hours), Fixture.Now.AddDays(days))!.Value.Value;
}
