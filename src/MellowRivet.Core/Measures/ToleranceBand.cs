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
    public Judgement Judge(double value)
    {
        var rule = Describe();
        if (Low is null && High is null)
            return new(Verdict.Unknown, "No limit is on file", Source, null,
                "Read the limit in the maintenance manual and put it on file with its reference.");

        var margin = Math.Min(value - (Low ?? double.NegativeInfinity), (High ?? double.PositiveInfinity) - value);
        if (Low is { } low && value < low)
            return new(Verdict.Reject, rule, Source, margin,
                $"{low - value:0.###} {Unit} under. Measure again; if it stands, put it on the fix list.");
        if (High is { } high && value > high)
            return new(Verdict.Reject, rule, Source, margin,
                $"{value - high:0.###} {Unit} over. Measure again; if it stands, put it on the fix list.");
        return new(Verdict.Good, rule, Source, margin, "Within limits.");
    }

    /// <summary>The limits in words: "35–41 lb", "at most 0.03 in", "at least 2 mm".</summary>
    public string Describe() => (Low, High) switch
    {
        ({ } low, { } high) => $"{low:0.###}–{Unit.After(high, "0.###")}",
        (null, { } high) => $"at most {Unit.After(high, "0.###")}",
        ({ } low, null) => $"at least {Unit.After(low, "0.###")}",
        _ => "no limit on file",
    };
}
