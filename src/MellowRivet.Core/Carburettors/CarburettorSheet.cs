using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Carburettors;

/// <summary>The sheet of one carburettor: floats, bowl, balance. Common practice; the manual decides.</summary>
public static class CarburettorSheet
{
    public static EngineSheet Of(Component carburettor) => new(SheetKind.Carburettor, carburettor,
    [
        new("Floats", [new("float", "one", "One float", SheetValue.NoLimit(Unit.Gram), StandsAlone: false),
            new("float", "other", "The other float", SheetValue.NoLimit(Unit.Gram), StandsAlone: false),
            new("float", "together", "Both together", SheetValue.NoLimit(Unit.Gram), StandsAlone: false)], [],
            "Fuel runs out of an opened bowl. Tank valve shut, extinguisher at hand, no flame, no spark, battery off."),
        new("Bowl", [],
        [
            new("bowl", "Bowl clean: residue, water, rubber crumbs"), new("needle", "Needle and seat: ridge, dirt; the arm moves freely"),
            new("gasket", "Gasket seated in its groove all round: look with the mirror"),
            new("clip", "Clip home, and safetied where it has to be"),
            new("vent", "Vent line open, led where it can't drip on the exhaust"),
        ]),
        new("Balance", [new("carburettor-vacuum", "idle", "Vacuum at idle", SheetValue.NoLimit(Unit.InchOfMercury), StandsAlone: false),
            new("carburettor-vacuum", "high", "Vacuum at the higher rpm", SheetValue.NoLimit(Unit.InchOfMercury), StandsAlone: false)],
            [new("idle-stop", "Arm leaves the idle stop at the same moment as the other carburettor's"),
                new("full-stop", "Arm reaches the full stop at the same moment")],
            "Gauges are read with the engine running: one at the controls, chocks and brakes, the other keeps to one "
            + "side, away from the propeller."),
    ]);
}
