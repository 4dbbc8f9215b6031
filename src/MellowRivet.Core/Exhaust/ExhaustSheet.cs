using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Exhaust;

/// <summary>The sheet of an engine's exhaust, intake, hoses and mount. Common practice; the manual decides.</summary>
public static class ExhaustSheet
{
    public static EngineSheet Of(Aircraft aircraft, Component engine)
    {
        var rows = engine.Layout.Rows;
        var flanges = engine.Layout.Cylinders.Select(place => (place, spot: new Spot(SideOf(place) * 0.82, (place.Row - 0.5) / rows)));
        return new(SheetKind.Exhaust, engine,
        [
            new("Exhaust", [.. new[] { ("before", "Tested at, as found"), (SheetValue.After, "Tested at, after a repair") }
                .Select(when => new SheetValue("exhaust-pressure", when.Item1, when.Item2, SheetValue.NoLimit(Unit.Psi), StandsAlone: false,
                    Danger: (ExhaustPressure.Most, ExhaustPressure.Danger)))],
            [
                .. flanges.Select(one =>
                    new SheetLook($"exhaust-{one.place.Number}",
                        $"Flange of cylinder {one.place.Number}: white or grey streaks, stud, gasket", null, one.spot)),
                new("slip-joint", "Slip joints and clamps: streaks, play, cracks beside welds", null, new(-0.5, 0.98)),
                new("can", "Can and baffles: tapped (it rings, a hole sounds dull), bulges, older repairs", null, new(0, 1.08)),
                .. new[] { ("before", "as found"), (SheetValue.After, "after a repair") }
                    .Select(when => new SheetLook($"bubbles-{when.Item1}",
                        $"Under pressure {when.Item2}, soaped all over: bubbles, and where", null, null, ("exhaust-pressure", when.Item1))),
                new("exchanger", "Cabin heat exchanger, shroud off",
                    "A leak here brings carbon monoxide into the cabin: an airworthiness item, not deferred "
                    + "unless the exchanger is isolated.", new(0.5, 0.98)),
            ],
                "The exhaust stays hot long after the engine stops. Under pressure a can or hose lets go: about 2 "
                + "psi, never above 5, face away."),
            new("Intake", [],
                [.. flanges.Select(one =>
                    new SheetLook($"intake-{one.place.Number}", $"Intake of cylinder {one.place.Number}: gasket, dye, soot at the joint",
                        null, one.spot with { Across = one.spot.Across * 0.55 })),
                        new("air-box", "Air box, flap, filter: loose parts end in the engine", null, new(0, 0.2))]),
            new("Hoses", [], [.. Hoses(aircraft, engine)
                .Select(hose => new SheetLook($"hose-{hose.Id:N}", $"{hose.Title}: chafe, cracks, bends, clear of the exhaust")),
                new("hose-heat", "Hoses near the exhaust: sleeved or re-routed, and looked at again after the first flight")]),
            new("Mount and baffles", [],
            [
                new("mount-upper-left", "Mount, upper left: weld, rust, rubber", null, new(-0.95, 1)),
                new("mount-upper-right", "Mount, upper right", null, new(0.95, 1)),
                new("mount-lower-left", "Mount, lower left", null, new(-0.95, 1.12)),
                new("mount-lower-right", "Mount, lower right", null, new(0.95, 1.12)),
                new("baffles", "Baffles and their seals: cracks, gaps that let air past, seals lying the right way"),
            ]),
        ]);
    }

    /// <summary>The hoses that sit on an engine.</summary>
    public static IEnumerable<Component> Hoses(Aircraft aircraft, Component engine) =>
        aircraft.SittingOn(engine.Id, ComponentKind.Hose).Select(stay => stay.Component);

    private static double SideOf(CylinderPlace place) => place.Bank switch { Bank.Left => -1, Bank.Right => 1, _ => 0.4 };
}
