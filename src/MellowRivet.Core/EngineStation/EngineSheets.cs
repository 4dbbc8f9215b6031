using MellowRivet.Core.Exhaust;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Magnetos;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.EngineStation;

/// <summary>The sheets that an engine has, from what it is built of. Texts are common practice; the manual decides.</summary>
public static class EngineSheets
{
    private static readonly RuleSource Practice = new(Standing.Practice, "common practice");

    /// <summary>Every sheet of an engine: one for each magneto and carburettor, then oil, exhaust and the run.</summary>
    public static IEnumerable<EngineSheet> Of(Aircraft aircraft, Component engine) =>
    [
        .. On(aircraft, engine, ComponentKind.Magneto).Select(stay => Magneto(stay.Component)),
        .. On(aircraft, engine, ComponentKind.Carburettor).Select(stay => Carburettor(stay.Component)),
        Oil(engine), Exhaust(aircraft, engine), Run(engine),
    ];

    /// <summary>A sheet of an engine by the part it is about: those in the list, and a cylinder's looks through the borescope.</summary>
    public static EngineSheet? Find(Aircraft aircraft, Component engine, SheetKind kind, Guid carrier) =>
        Of(aircraft, engine).Concat(On(aircraft, engine, ComponentKind.Cylinder).Select(stay => Borescope(stay.Component))).FirstOrDefault(sheet => sheet.Kind == kind && sheet.Carrier.Id == carrier);

    public static EngineSheet Borescope(Component cylinder) => new(SheetKind.Borescope, cylinder,
    [
        new("Through the plug hole", [],
        [
            new("exhaust-valve", "Exhaust valve: even rings of colour; a green or red wedge at its edge is burning, a lost edge is burnt"),
            new("intake-valve", "Intake valve: edge, seat, deposits that keep it open"), new("barrel", "Barrel: cross-hatch, rust, scratches along the way of the rings"),
            new("crown", "Piston crown: oil wash, marks of a valve, a hole beginning"), new("head", "Head and plug holes: cracks between valve and plug"),
        ], "Switches off, P-leads grounded: the propeller is turned by hand while the tip is inside. Withdraw the tip before the piston comes."),
    ]);

    private static IEnumerable<Installation> On(Aircraft aircraft, Component engine, ComponentKind kind) => aircraft.SittingOn(engine.Id).Where(stay => stay.Component.Kind == kind);

    private static ToleranceBand NoLimit(Unit unit) => new(unit, null, null, Practice);

    public static EngineSheet Magneto(Component magneto) => new(SheetKind.Magneto, magneto,
    [
        new("On the bench", [.. MagnetoSheet.Values],
        [
            new("rotor", "Rotor: shaft, bearing faces, magnet loose on its shaft"), new("block", "Distributor block: cracks, carbon tracks, electrodes burnt"),
            new("gear", "Distributor gear: teeth cracked, chipped, worn; electrode finger tight"), new("brush", "Carbon brush: length, chips, free in its hole"),
            new("bearing", "Bearings: rough, dry, loose"), new("springs", "Springs of points and brush: tension, corrosion"),
            new("capacitor", "Capacitor: lead broken or chafed, terminal, case bulged"), new("points", "Points, main and retard: pitted, blue, burnt; follower worn, felt dry"),
            new("marks", "Timing: chamfered tooth against its mark, red line in the window"),
        ]),
        new("In place", [new("magneto-timing", "", "Fires before top dead centre", NoLimit(Unit.Degree))],
            [new("lead", "P-lead, filter, harness: secure, not chafed, grounds when switched off")],
            "Take every magneto for live. Switch off, P-lead grounded, one plug out of every cylinder, nobody in the propeller's arc while it is turned."),
    ]);

    public static EngineSheet Carburettor(Component carburettor) => new(SheetKind.Carburettor, carburettor,
    [
        new("Floats", [new("float", "one", "One float", NoLimit(Unit.Gram), StandsAlone: false), new("float", "other", "The other float", NoLimit(Unit.Gram), StandsAlone: false), new("float", "together", "Both together", NoLimit(Unit.Gram), StandsAlone: false)], [],
            "Fuel runs out of an opened bowl. Tank valve shut, extinguisher at hand, no flame, no spark, battery off."),
        new("Bowl", [],
        [
            new("bowl", "Bowl clean: residue, water, rubber crumbs"), new("needle", "Needle and seat: ridge, dirt; the arm moves freely"),
            new("gasket", "Gasket seated in its groove all round: look with the mirror"), new("clip", "Clip home, and safetied where it has to be"), new("vent", "Vent line open, led where it can't drip on the exhaust"),
        ]),
        new("Balance", [new("carburettor-vacuum", "idle", "Vacuum at idle", NoLimit(Unit.InchOfMercury), StandsAlone: false), new("carburettor-vacuum", "high", "Vacuum at the higher rpm", NoLimit(Unit.InchOfMercury), StandsAlone: false)],
            [new("idle-stop", "Arm leaves the idle stop at the same moment as the other carburettor's"), new("full-stop", "Arm reaches the full stop at the same moment")],
            "Gauges are read with the engine running: one at the controls, chocks and brakes, the other keeps to one side, away from the propeller."),
    ]);

    public static EngineSheet Oil(Component engine) => new(SheetKind.Oil, engine,
    [
        new("Oil", [new("oil-added", "", "Added since the last time", NoLimit(Unit.Litre), StandsAlone: false), new("oil-hours", "", "Hours on this oil", NoLimit(Unit.Hour), StandsAlone: false)],
            [new("filter", "Filter cut open, or screen out: spread out and looked at in good light"), new("magnetic-plug", "Magnetic plug: looked at before it was wiped")],
            "Warm oil burns. Catch it; wear gloves: used oil harms the skin."),
        new("Laboratory", [.. OilMetals.All.Select(metal => new SheetValue(metal.Kind, "", metal.Name, NoLimit(Unit.PartsPerMillion), StandsAlone: false))], []),
    ]);

    public static EngineSheet Exhaust(Aircraft aircraft, Component engine)
    {
        var rows = engine.Layout.Rows;
        var flanges = engine.Layout.Cylinders.Select(place => (place, spot: new Spot(SideOf(place) * 0.82, (place.Row - 0.5) / rows)));
        return new(SheetKind.Exhaust, engine,
        [
            new("Exhaust", [.. new[] { ("before", "Tested at, as found"), (SheetValue.After, "Tested at, after a repair") }.Select(when => new SheetValue("exhaust-pressure", when.Item1, when.Item2, NoLimit(Unit.Psi), StandsAlone: false, Danger: (ExhaustPressure.Most, ExhaustPressure.Danger)))],
            [
                .. flanges.Select(one => new SheetLook($"exhaust-{one.place.Number}", $"Flange of cylinder {one.place.Number}: white or grey streaks, stud, gasket", null, one.spot)),
                new("slip-joint", "Slip joints and clamps: streaks, play, cracks beside welds", null, new(-0.5, 0.98)),
                new("can", "Can and baffles: tapped (it rings, a hole sounds dull), bulges, older repairs", null, new(0, 1.08)),
                .. new[] { ("before", "as found"), (SheetValue.After, "after a repair") }.Select(when => new SheetLook($"bubbles-{when.Item1}", $"Under pressure {when.Item2}, soaped all over: bubbles, and where", null, null, ("exhaust-pressure", when.Item1))),
                new("exchanger", "Cabin heat exchanger, shroud off", "A leak here brings carbon monoxide into the cabin: an airworthiness item, not deferred unless the exchanger is isolated.", new(0.5, 0.98)),
            ], "The exhaust stays hot long after the engine stops. Under pressure a can or hose lets go: about 2 psi, never above 5, face away."),
            new("Intake", [],
                [.. flanges.Select(one => new SheetLook($"intake-{one.place.Number}", $"Intake of cylinder {one.place.Number}: gasket, dye, soot at the joint", null, one.spot with { Across = one.spot.Across * 0.55 })), new("air-box", "Air box, flap, filter: loose parts end in the engine", null, new(0, 0.2))]),
            new("Hoses", [], [.. Hoses(aircraft, engine).Select(hose => new SheetLook($"hose-{hose.Id:N}", $"{hose.Title}: chafe, cracks, bends, clear of the exhaust")), new("hose-heat", "Hoses near the exhaust: sleeved or re-routed, and looked at again after the first flight")]),
            new("Mount and baffles", [],
            [
                new("mount-upper-left", "Mount, upper left: weld, rust, rubber", null, new(-0.95, 1)), new("mount-upper-right", "Mount, upper right", null, new(0.95, 1)),
                new("mount-lower-left", "Mount, lower left", null, new(-0.95, 1.12)), new("mount-lower-right", "Mount, lower right", null, new(0.95, 1.12)),
                new("baffles", "Baffles and their seals: cracks, gaps that let air past, seals lying the right way"),
            ]),
        ]);
    }

    public static EngineSheet Run(Component engine) => new(SheetKind.Run, engine,
        [.. new[] { "before", SheetValue.After }.Select(when => new SheetGroup($"{char.ToUpperInvariant(when[0])}{when[1..]} the work", [.. RunValues.All.Select(value => value with { Position = when })],
            when == "before" ? [new("warm", "Oil at about 70 °C before the compressions")] : [new("leak-check", "Leak check after the run, cowling off, engine stopped")],
            when == "before" ? "Chocks, brakes, nobody in front or in the propeller's arc, fire guard with an extinguisher, loose things off the apron." : null))]);

    /// <summary>The hoses that sit on an engine.</summary>
    public static IEnumerable<Component> Hoses(Aircraft aircraft, Component engine) => On(aircraft, engine, ComponentKind.Hose).Select(stay => stay.Component);

    private static double SideOf(CylinderPlace place) => place.Bank switch { Bank.Left => -1, Bank.Right => 1, _ => 0.4 };
}

/// <summary>What an engine run is judged by. Law: 14 CFR 43.15(c)(2), from memory; numbers are the manual's or, where named, common practice.</summary>
public static class RunValues
{
    private static readonly RuleSource Practice = new(Standing.Practice, "common practice");

    private static SheetValue Value(string kind, string name, Unit unit, double? low = null, double? high = null, bool law = true) => new(kind, "", name, new(unit, low, high, Practice), law);

    public static IReadOnlyList<SheetValue> All { get; } =
    [
        Value("oil-temperature", "Oil temperature", Unit.Celsius), Value("oil-pressure", "Oil pressure", Unit.Psi), Value("fuel-pressure", "Fuel pressure", Unit.Psi),
        Value("cylinder-temperature", "Cylinder or coolant temperature", Unit.Celsius), Value("static-rpm", "Static rpm", Unit.Rpm), Value("idle-rpm", "Idle rpm", Unit.Rpm),
        new("mag-drop-left", "", "Drop, left ignition alone", MagnetoDrop.Band, IsLaw: true), new("mag-drop-right", "", "Drop, right ignition alone", MagnetoDrop.Band, IsLaw: true),
        Value("mixture-rise", "Idle mixture: rise before it stops", Unit.Rpm, 10, 50, law: false), Value("bus-voltage", "Charging, at cruise rpm", Unit.Volt, law: false),
        Value("suction", "Suction", Unit.InchOfMercury, 4.5, 5.5, law: false),
    ];

    /// <summary>Those of an engine: one that burns its oil with the fuel has neither oil pressure nor oil temperature.</summary>
    public static IEnumerable<SheetValue> On(EngineLayout layout) => All.Where(value => layout != EngineLayout.InlineTwoStroke || value.Kind is not ("oil-pressure" or "oil-temperature"));

    /// <summary>Why a missing value is flagged.</summary>
    public static RuleSource Law { get; } = new(Standing.Law, "14 CFR 43.15(c)(2), from memory");
}

/// <summary>Metals that a laboratory reads in used oil, and where each mostly comes from. Common practice.</summary>
public static class OilMetals
{
    public sealed record Metal(string Kind, string Name, string From);

    public static IReadOnlyList<Metal> All { get; } =
    [
        new("oil-iron", "Iron", "cylinders, rings, gears, shafts"), new("oil-copper", "Copper", "bearings, bushes"), new("oil-aluminium", "Aluminium", "pistons, case"),
        new("oil-chromium", "Chromium", "plated rings, cylinders"), new("oil-nickel", "Nickel", "plated cylinders, valves"), new("oil-silicon", "Silicon", "dust past the air filter, sealant"),
        new("oil-lead", "Lead", "fuel; with unleaded fuel, bearings"), new("oil-tin", "Tin", "bearings"),
    ];
}
