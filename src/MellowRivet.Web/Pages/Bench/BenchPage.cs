using MellowRivet.Core.Measures;
using MellowRivet.Web.Api;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Pages.Bench;

/// <summary>One field of a bench form.</summary>
/// <param name="Name">Its name, as the open interface calls it.</param>
/// <param name="Label">What is shown.</param>
/// <param name="Unit">The unit beside it; "" for none.</param>
/// <param name="Value">What was typed.</param>
/// <param name="Problem">What is wrong with it; null where nothing is.</param>
public sealed record BenchField(string Name, string Label, string Unit, string? Value, string? Problem);

/// <summary>A sheet of the bench and its place in the list.</summary>
public sealed record Calculator(string Href, string Title, string Says);

/// <summary>
/// A calculator that needs no aircraft. It keeps nothing: what is typed stands in the address, and the answer is the one the
/// open interface gives.
/// </summary>
public abstract class BenchPage : PageModel
{
    /// <summary>What is wrong, field by field, in the words of the open interface.</summary>
    private protected Problems Problems { get; } = new();

    /// <summary>Something was typed.</summary>
    public bool Asked => Request.Query.Count > 0;

    public static IReadOnlyList<Calculator> Sheets { get; } =
    [
        new("/bench/compression", "Compression", "Differential compression by three schools, with the leak area"),
        new("/bench/plug", "Plug", "Resistance, gap and condition of one plug"),
        new("/bench/plug-rotation", "Plug rotation", "Where each plug goes, so that row and polarity change"),
        new("/bench/magneto", "Magneto", "The six values of the 500-hour sheet"),
        new("/bench/floats", "Floats", "Carburettor floats by pair, with the re-weigh question"),
        new("/bench/torque", "Torque", "Wrench setting with an extension, misprints, standard torques"),
        new("/bench/cable", "Cable tension", "Tension by the manual's table of temperatures"),
        new("/bench/convert", "Conversions", "Between the units of the shop, exactly"),
        new("/bench/practice", "Practice", "Simulated instruments and cases: take the readings, say the verdict, be told why"),
    ];

    // The open interface's names of fields, as the forms call them: pages that send lists say theirs.
    private readonly Dictionary<string, (string Field, string Words)> names = [];

    /// <summary>Says which field of the form a field of the open interface comes from, and what stands above it.</summary>
    protected void Call(string name, string field, string words) => names[name] = (field, words);

    public string? Problem(string field) =>
        Problems.ByField.Where(one => one.Key == field || (names.TryGetValue(one.Key, out var called) && called.Field == field))
            .Select(one => one.Value[0]).FirstOrDefault();

    /// <summary>Every problem with the field it is about, for where the answer would stand.</summary>
    public IEnumerable<string> ProblemsInWords =>
        Problems.ByField.Select(
            one =>
                $"{(names.TryGetValue(one.Key, out var called) ? called.Words : Labels.GetValueOrDefault(one.Key, one.Key))}: "
                + $"{one.Value[0]}");

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

    /// <summary>A field as it stands.</summary>
    public BenchField Field(string name, string label, string unit = "", string? otherwise = null) =>
        new(name, label, unit, Typed(name) ?? (Asked ? null : otherwise), Problem(name));

    /// <summary>What was typed in a field; null where it is empty.</summary>
    public string? Typed(string name) => Request.Query[name] is [{ Length: > 0 } typed, ..] ? typed : null;

    public bool Ticked(string name) => Typed(name) is "true";

    /// <summary>A number as typed; null where the field is empty, and a problem where it is none.</summary>
    protected double? Number(string name)
    {
        if (Typed(name) is not { } typed)
            return null;
        if (TypedNumber.Parse(typed) is { } number)
            return number;
        Problems.Add(name, $"“{typed}” is no number.");
        return null;
    }

    /// <summary>A choice as made; null where none was.</summary>
    protected T? Choice<T>(string name) where T : struct, Enum =>
        Enum.TryParse<T>(Typed(name), out var choice) && Enum.IsDefined(choice) ? choice : null;
}
