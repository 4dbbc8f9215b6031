using MellowRivet.Core.Judgements;

namespace MellowRivet.Core.Measures;

/// <summary>Limits on both sides of a measured value, either of which may be missing, with where they come from.</summary>
/// <param name="Unit">The unit of the limits.</param>
/// <param name="Low">The least good value, itself good; null for no lower limit.</param>
/// <param name="High">The greatest good value, itself good; null for no upper limit.</param>
/// <param name="Source">Where the limits come from.</param>
public sealed record ToleranceBand(Unit Unit, double? Low, double? High, RuleSource Source)
{
    /// <summary>Judges a value given in the unit of the limits.</summary>
    public Judgement Judge(double value) => Table().Of(value);

    /// <summary>What a value is judged by, in the unit of the limits.</summary>
    public JudgementTable Table()
    {
        if (Low is null && High is null)
            return JudgementTable.Always(new(Verdict.Unknown, "No limit is on file", Source, null,
                "Read the limit in the maintenance manual and put it on file with its reference."));
        var given = new Dictionary<string, double>();
        if (Low is { } low)
            given["low"] = low;
        if (High is { } high)
            given["high"] = high;
        return new(given, Distances, Rows(Describe(), Unit, Source));
    }

    /// <summary>How far a value stands within the limits "low" and "high", and beyond either.</summary>
    internal static IReadOnlyList<Made> Distances { get; } =
    [
        new("under", Making.Less, ["low", JudgementTable.Value]), new("over", Making.Less, [JudgementTable.Value, "high"]),
        new("above", Making.Less, [JudgementTable.Value, "low"]), new("below", Making.Less, ["high", JudgementTable.Value]),
        new("margin", Making.Least, ["above", "below"]),
    ];

    /// <summary>The rows of a value between "low" and "high".</summary>
    internal static IReadOnlyList<JudgementRow> Rows(string rule, Unit unit, RuleSource source) =>
    [
        new([new(JudgementTable.Value, Than.Below, "low")], Verdict.Reject, rule, source, "margin",
            $"{{under:0.###}} {unit} under. Measure again; if it stands, put it on the fix list."),
        new([new(JudgementTable.Value, Than.Above, "high")], Verdict.Reject, rule, source, "margin",
            $"{{over:0.###}} {unit} over. Measure again; if it stands, put it on the fix list."),
        new([], Verdict.Good, rule, source, "margin", "Within limits."),
    ];

    /// <summary>The limits in words: "35–41 lb", "at most 0.03 in", "at least 2 mm".</summary>
    public string Describe() => (Low, High) switch
    {
        ({ } low, { } high) => $"{low:0.###}–{Unit.After(high, "0.###")}",
        (null, { } high) => $"at most {Unit.After(high, "0.###")}",
        ({ } low, null) => $"at least {Unit.After(low, "0.###")}",
        _ => "no limit on file",
    };
}
