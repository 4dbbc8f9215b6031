using MellowRivet.Core.Compression;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Records;

namespace MellowRivet.Core.Tests.Fleet;

public class PartTests
{
    private readonly Aircraft aircraft = Fixture.Aircraft();
    private readonly Aircraft other = Fixture.Aircraft(serial: "T-2");

    private Component Engine => aircraft.Engines.Single().Component;

    [Fact]
    public void Own_time_follows_from_the_stays()
    {
        // The fixture's engine came with 120 h at 0; the aircraft has 1000.5.
        var stay = aircraft.Engines.Single();
        stay.SinceInstalled(aircraft.TimeInService).ShouldBe(new Hours(1000.5m));
        stay.TimeInService(aircraft.TimeInService).ShouldBe(new Hours(1120.5m));
        stay.SinceOverhaul(aircraft.TimeInService).ShouldBeNull();
        Engine.WasOverhauled(new(new DateOnly(2020, 1, 1), new Hours(800), "release 1"));
        stay.SinceOverhaul(aircraft.TimeInService).ShouldBe(new Hours(320.5m));
    }

    [Fact]
    public void A_part_of_unknown_time_stays_unknown()
    {
        var stay = aircraft.Install(new(Guid.NewGuid(), ComponentKind.Pump, "", "P"), "", new Hours(500), null);
        stay.SinceInstalled(aircraft.TimeInService).ShouldBe(new Hours(500.5m));
        stay.TimeInService(aircraft.TimeInService).ShouldBeNull();
    }

    [Fact]
    public void An_engine_moves_with_its_cylinders_and_its_own_time()
    {
        var engine = Engine;
        other.TakeOff(other.Engines.Single().ComponentId, null, other.TimeInService, "sold").ShouldBeNull();
        aircraft.MoveTo(engine.Id, other, "", new DateOnly(2026, 11, 21), "swap").ShouldBeNull();
        aircraft.Engines.ShouldBeEmpty();
        aircraft.Fitted(ComponentKind.Cylinder).ShouldBeEmpty();
        other.Engines.Single().ComponentId.ShouldBe(engine.Id);
        other.Engines.Single().TimeInService(other.TimeInService).ShouldBe(new Hours(1120.5m));
        Enumerable.Range(1, 4).ShouldAllBe(number => other.Cylinder(engine, number) != null);
        aircraft.Installations.Single(stay => stay.ComponentId == engine.Id).RemovedWhy.ShouldBe("swap", "where it was stays on file");
    }

    [Fact]
    public void An_engine_that_lay_in_the_shop_comes_back_with_its_own_cylinders()
    {
        var engine = Engine;
        var second = aircraft.Cylinder(engine, 2)!;
        aircraft.TakeOff(aircraft.Cylinder(engine, 4)!.Id, null, new Hours(700), "cracked").ShouldBeNull();
        aircraft.TakeOff(engine.Id, null, new Hours(1000), "prop strike").ShouldBeNull();
        var ended = aircraft.Installations.Single(stay => stay.ComponentId == engine.Id);
        aircraft.CameOffWith(ended).Count.ShouldBe(3, "cylinder 4 had come off before");
        aircraft.Fit(engine, "", null, new Hours(1000.5m), new Hours(1120), null, aircraft.CameOffWith(ended)).ShouldBeNull();
        aircraft.Cylinder(engine, 2).ShouldBe(second);
        aircraft.Cylinder(engine, 4).ShouldBeNull();
        aircraft.Fitting(second.Id)!.TimeInService(aircraft.TimeInService).ShouldBe(new Hours(1120));
    }

    [Fact]
    public void A_place_holds_one_part()
    {
        aircraft.Fit(new(Guid.NewGuid(), ComponentKind.Propeller, "", "P-2"), "", null, new Hours(1000), null,
            null)!.Field.ShouldBe("position");
        aircraft.MoveTo(Engine.Id, other, "", new DateOnly(2026, 11, 21), "swap")!.Field.ShouldBe("position");
        aircraft.TakeOff(aircraft.Propellers.Single().ComponentId, null, new Hours(1000), "nicked").ShouldBeNull();
        aircraft.Fit(new(Guid.NewGuid(), ComponentKind.Propeller, "", "P-2"), "", null, new Hours(1000), new Hours(10), null)
            .ShouldBeNull();
        aircraft.Propellers.Single().TimeInService(aircraft.TimeInService).ShouldBe(new Hours(10.5m));
    }

    // Else a rejected part would count as replaced by itself (domain.md section 14).
    [Fact]
    public void What_came_off_a_place_goes_back_as_itself_and_not_as_a_new_part()
    {
        var (engine, cylinder) = (Engine, aircraft.Cylinder(Engine, 2)!);
        aircraft.TakeOff(cylinder.Id, null, new Hours(1000), "leaks at the rings").ShouldBeNull();
        var (field, message) = aircraft.Fit(new(Guid.NewGuid(), ComponentKind.Cylinder, "", $" {cylinder.SerialNumber.ToLowerInvariant()}"),
            "2", null, new Hours(1000), default, engine.Id)!;
        (field, message).ShouldBe(
            ("serial",
                $"S/n {cylinder.SerialNumber.ToLowerInvariant()} is the one that came off there. Choose it from what lies in the shop: "
                + $"its history goes on with it."));
        aircraft.Fit(cylinder, "2", null, new Hours(1000), new Hours(1120), engine.Id).ShouldBeNull();
        aircraft.Replace(cylinder.Id, "", cylinder.SerialNumber.ToLowerInvariant(), new DateOnly(2026, 11, 21),
            "why")!.Message.ShouldContain("the one that comes off");

        aircraft.InstallPlugs(engine, "P", 1, default, null);
        var plug = aircraft.SittingOn(engine.Id)
            .Single(stay => stay.Component.Kind == ComponentKind.Plug && stay.Position == "1T").Component;
        aircraft.TakeOff(plug.Id, null, new Hours(1000), "dropped").ShouldBeNull();
        aircraft.FitPlug(engine, PlugHole.Parse("1T")!.Value, "P", plug.SerialNumber, null, new DateOnly(2026, 11, 21),
            "why")!.Field.ShouldBe("number");
        aircraft.FitPlug(engine, PlugHole.Parse("1T")!.Value, "P", "another", null, new DateOnly(2026, 11, 21), "why").ShouldBeNull();
    }

    [Fact]
    public void A_part_can_not_come_off_before_it_went_on_or_after_now()
    {
        var propeller = aircraft.Propellers.Single().ComponentId;
        aircraft.TakeOff(propeller, null, new Hours(899), "why")!.Field.ShouldBe("at");
        aircraft.TakeOff(propeller, null, new Hours(1001), "why")!.Field.ShouldBe("at");
        aircraft.TakeOff(propeller, null, new Hours(950), " ")!.Field.ShouldBe("why");
        aircraft.TakeOff(propeller, null, new Hours(950), "why").ShouldBeNull();
        aircraft.TakeOff(propeller, null, new Hours(950), "why")!.Field.ShouldBe("part");
    }

    [Fact]
    public void A_new_engine_begins_its_own_series_and_no_other()
    {
        var (old, propeller) = (Engine, aircraft.CarrierOf(Book.Propeller));
        aircraft.CarrierOf(Book.Engine).ShouldBe(old);
        aircraft.CarrierOf(Book.Airframe).ShouldBeNull();
        aircraft.TakeOff(old.Id, null, new Hours(1000), "time expired").ShouldBeNull();
        var fresh = new Component(Guid.NewGuid(), ComponentKind.Engine, "", "E-2") { LayoutKey = EngineLayout.FlatFour.Key };
        aircraft.Fit(fresh, "", null, new Hours(1000), new Hours(0), null).ShouldBeNull();

        aircraft.CarrierOf(Book.Engine).ShouldBe(fresh, "what is read on an engine hangs on the new one from now on");
        aircraft.CarrierOf(Book.Propeller).ShouldBe(propeller, "the propeller's series goes on");
        var inspection = Fixture.Inspection(aircraft);
        Fixture.Compress(inspection, aircraft, 1, 77);
        CylinderHistory.Of(aircraft, fresh, 1, inspection.Readings, null).Readings.Count.ShouldBe(1);
        CylinderHistory.Of(aircraft, old, 1, inspection.Readings,
            null).Readings.ShouldBeEmpty("the old engine's history doesn't take the new one's readings");
    }

    [Theory]
    [InlineData("1-3-2-4", true)]
    [InlineData("1 2 3 4", true)]
    [InlineData("", true)]
    [InlineData("1-3-2", false)]
    [InlineData("1-3-2-2", false)]
    [InlineData("1-3-2-5", false)]
    [InlineData("x", false)]
    public void A_firing_order_as_typed_fires_each_cylinder_once(string typed, bool holds) =>
        (Component.ReadFiringOrder(typed, EngineLayout.FlatFour).Refusal is null).ShouldBe(holds);
}
