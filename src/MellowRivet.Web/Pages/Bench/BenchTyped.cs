using MellowRivet.Core.Measures;
using MellowRivet.Web.Api;

namespace MellowRivet.Web.Pages.Bench;

/// <summary>One field of a bench form.</summary>
/// <param name="Name">Its name, as the open interface calls it.</param>
/// <param name="Label">What is shown.</param>
/// <param name="Unit">The unit beside it; "" for none.</param>
/// <param name="Value">What was typed.</param>
/// <param name="Problem">What is wrong with it; null where nothing is.</param>
/// <param name="Measure">The symbol of the unit a number without one is read in; null where the form's choice of a unit says it.</param>
/// <param name="MeasureOf">The name of that choice; null without one.</param>
public sealed record BenchField(string Name, string Label, string Unit, string? Value, string? Problem, string? Measure, string? MeasureOf);

/// <summary>What was typed on a sheet of the bench: it stands in the address. What is wrong with it is noted as it is read.</summary>
public sealed class BenchTyped(IQueryCollection query)
{
    // The open interface's names of fields, as the forms call them: sheets that send lists say theirs.
    private readonly Dictionary<string, (string Field, string Words)> names = [];

    private static readonly Dictionary<string, string> Labels = new()
    {
        ["ohms"] = "Resistance", ["gapInches"] = "Gap", ["firingOrder"] = "Firing order", ["pattern"] = "School", ["cylinders"] = "Engine",
        ["supplyPsi"] = "Supply", ["ambientPsi"] = "Ambient", ["dayOrificePsi"] = "Today's orifice",
        ["primaryOhms"] = "Primary coil", ["secondaryOhms"] = "Secondary coil", ["capacitorMicrofarads"] = "Capacitor",
        ["pointsOpenDegrees"] = "Main points open", ["pointsGapInches"] = "Main points gap", ["retardDegrees"] = "Retard points",
        ["limitGrams"] = "A pair weighs at most", ["scaleResolutionGrams"] = "The scale's step", ["wanted"] = "Wanted",
        ["wrenchLengthInches"] = "Wrench", ["extensionInches"] = "Extension", ["printed"] = "As printed", ["table"] = "Table",
        ["tolerancePounds"] = "Good either side", ["celsius"] = "Temperature", ["pounds"] = "Measured", ["value"] = "Value",
    };

    /// <summary>Something was typed.</summary>
    public bool Asked => query.Count > 0;

    /// <summary>What is wrong, field by field, in the words of the open interface.</summary>
    internal Problems Problems { get; } = new();

    /// <summary>Every problem with the field it is about, for where the answer would stand.</summary>
    public IEnumerable<string> ProblemsInWords => Problems.ByField.Select(one =>
        $"{(names.TryGetValue(one.Key, out var called) ? called.Words : Labels.GetValueOrDefault(one.Key, one.Key))}: {one.Value[0]}");

    /// <summary>Says which field of the form a field of the open interface comes from, and what stands above it.</summary>
    public void Call(string name, string field, string words) => names[name] = (field, words);

    public string? Problem(string field) =>
        Problems.ByField.Where(one => one.Key == field || (names.TryGetValue(one.Key, out var called) && called.Field == field))
            .Select(one => one.Value[0]).FirstOrDefault();

    /// <summary>A field as it stands.</summary>
    public BenchField Field(string name, string label, string unit = "", string? otherwise = null) =>
        new(name, label, unit, Text(name) ?? (Asked ? null : otherwise), Problem(name), UnitOf(name)?.Symbol,
            UnitOf(name) is null && name != "printed" ? "unit" : null);

    /// <summary>What was typed in a field; null where it is empty.</summary>
    public string? Text(string name) => query[name] is [{ Length: > 0 } typed, ..] ? typed : null;

    /// <summary>All that was sent under one name.</summary>
    public IEnumerable<string> All(string name) => query[name].OfType<string>();

    public bool Ticked(string name) => Text(name) is "true";

    /// <summary>A measure as typed; null where the field is empty, and a problem where it is none.</summary>
    /// <param name="name">The field.</param>
    /// <param name="unit">The unit of a number without one; null for the one that the field's name tells.</param>
    public double? Number(string name, Unit? unit = null)
    {
        if (Text(name) is not { } typed)
            return null;
        var read = MeasureText.Read(typed, unit ?? UnitOf(name)
            ?? throw new ArgumentException($"Nothing tells the unit of {name}.", nameof(name)));
        if (read.Problem is { } problem)
            Problems.Add(name, problem);
        return read.Value;
    }

    // The open interface's names tell their units.
    private static Unit? UnitOf(string name) =>
        Units.FirstOrDefault(unit => name.TrimEnd([.. "0123456789"]).EndsWith(unit.Ending, StringComparison.OrdinalIgnoreCase)).Unit;

    private static readonly (string Ending, Unit Unit)[] Units =
    [
        ("Ohms", Unit.Ohm), ("Inches", Unit.Inch), ("Psi", Unit.Psi), ("Grams", Unit.Gram), ("Microfarads", Unit.Microfarad),
        ("Degrees", Unit.Degree), ("Pounds", Unit.Pound), ("Celsius", Unit.Celsius),
        ("First", Unit.Gram), ("Second", Unit.Gram), ("Together", Unit.Gram),
    ];

    /// <summary>A choice as made; null where none was.</summary>
    public T? Choice<T>(string name) where T : struct, Enum =>
        Enum.TryParse<T>(Text(name), out var choice) && Enum.IsDefined(choice) ? choice : null;
}
