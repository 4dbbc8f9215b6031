using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Magnetos;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.EngineRun;

/// <summary>
/// What an engine run is judged by. Law: 14 CFR 43.15(c)(2), from memory; numbers are the manual's or, where named, common practice.
/// </summary>
public static class RunValues
{
    private static readonly RuleSource Practice = new(Standing.Practice, "common practice");

    private static SheetValue Value(string kind, string name, Unit unit, double? low = null, double? high = null, bool law = true) =>
        new(kind, "", name, new(unit, low, high, Practice), law);

    public static IReadOnlyList<SheetValue> All { get; } =
    [
        Value("oil-temperature", "Oil temperature", Unit.Celsius), Value("oil-pressure", "Oil pressure", Unit.Psi),
        Value("fuel-pressure", "Fuel pressure", Unit.Psi),
        Value("cylinder-temperature", "Cylinder or coolant temperature", Unit.Celsius), Value("static-rpm", "Static rpm", Unit.Rpm),
        Value("idle-rpm", "Idle rpm", Unit.Rpm),
        new("mag-drop-left", "", "Drop, left ignition alone", MagnetoDrop.Band, IsLaw: true),
        new("mag-drop-right", "", "Drop, right ignition alone", MagnetoDrop.Band, IsLaw: true),
        Value("mixture-rise", "Idle mixture: rise before it stops", Unit.Rpm, 10, 50, law: false),
        Value("bus-voltage", "Charging, at cruise rpm", Unit.Volt, law: false),
        Value("suction", "Suction", Unit.InchOfMercury, 4.5, 5.5, law: false),
    ];

    /// <summary>Those of an engine: one that burns its oil with the fuel has neither oil pressure nor oil temperature.</summary>
    public static IEnumerable<SheetValue> On(EngineLayout layout) =>
        All.Where(value => layout != EngineLayout.InlineTwoStroke || value.Kind is not ("oil-pressure" or "oil-temperature"));

    /// <summary>Why a missing value is flagged.</summary>
    public static RuleSource Law { get; } = new(Standing.Law, "14 CFR 43.15(c)(2), from memory");
}
