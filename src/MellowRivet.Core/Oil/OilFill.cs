using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Oil;

/// <summary>An oil change: what an engine was filled with. The entry tells it.</summary>
/// <param name="EngineId">The engine.</param>
/// <param name="Oil">The oil, by grade and specification, as printed on the can.</param>
/// <param name="Value">How much went in.</param>
/// <param name="UnitSymbol">Its unit: l or qt.</param>
/// <param name="Filter">The new filter's part number; empty where the engine has none, or a screen that was cleaned.</param>
/// <param name="By">Who.</param>
/// <param name="At">When.</param>
public sealed record OilFill(Guid EngineId, string Oil, double Value, string UnitSymbol, string Filter, Guid By, DateTimeOffset At)
{
    public const int LongestName = 60;

    /// <summary>More than any piston engine holds, in litres.</summary>
    public const double Most = 60;

    /// <summary>Who filled it, and when.</summary>
    public Stamp Said => new(By, At);

    /// <summary>What went in, in words.</summary>
    public string InWords => $"{Amount} {Oil}{(Filter.Length > 0 ? $", filter {Filter}" : "")}";

    /// <summary>How much: "5.7 l".</summary>
    public string Amount => $"{Value:0.##} {UnitSymbol}";

    /// <summary>An oil change as it is typed, or what is wrong with it.</summary>
    public static (OilFill? Fill, Refusal? Refusal) Read(Guid engineId, string? oil, string? amount, string? unit, string? filter, Guid by,
        DateTimeOffset at)
    {
        if (string.IsNullOrWhiteSpace(oil) || oil.Trim().Length > LongestName)
            return (null, new("oil", $"Which oil: grade and specification as on the can, in up to {LongestName} characters."));
        if (Unit.Find(unit) is not { Dimension: Dimension.Volume } of)
            return (null, new("amount", "Litres or quarts."));
        if (MeasureText.Value(amount, of) is not { } value || value <= 0 || of.To(Unit.Litre, value) > Most)
            return (null, new("amount", "How much went in, as a number above 0: 5.7."));
        return filter?.Trim().Length > LongestName
            ? (null, new("filter", $"The filter’s part number, in up to {LongestName} characters."))
            : (new(engineId, oil.Trim(), value, of.Symbol, filter?.Trim() ?? "", by, at), null);
    }
}
