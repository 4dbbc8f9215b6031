using MellowRivet.Core.Judgements;

namespace MellowRivet.Core.Carburettors;

/// <summary>A pair of floats on the scale.</summary>
/// <param name="First">One float's weight, g.</param>
/// <param name="Second">The other's, g.</param>
/// <param name="TogetherGrams">Both weighed together, g; null where they weren't.</param>
public sealed record FloatPair(double First, double Second, double? TogetherGrams = null)
{
    /// <summary>What the pair weighs: weighed together where it was, else the sum.</summary>
    public double TotalGrams => TogetherGrams ?? First + Second;
}

/// <summary>Judges carburettor floats by their weight: a heavy float has drunk fuel and floods its bowl.</summary>
public static class FloatJudge
{
    /// <summary>The most a pair may weigh, g. Common practice.</summary>
    public const double LimitGrams = 7.0;

    /// <summary>From this difference on, the two of a pair are called uneven, g. Common practice.</summary>
    public const double UnevenGrams = 0.5;

    // Scales show tenths or hundredths: what floating point adds is no weight.
    private const double Crumb = 1e-6;

    /// <summary>
    /// Judges a pair. Where it was weighed together as well and differs from the sum of the two by more than rounding explains
    /// (half a step for each of three weighings), it is weighed again before anything is said.
    /// </summary>
    /// <param name="pair">The weights, g, above zero.</param>
    /// <param name="limitGrams">The most a pair may weigh, g.</param>
    /// <param name="resolutionGrams">The scale's step, g.</param>
    public static Judgement Judge(FloatPair pair, double limitGrams = LimitGrams, double resolutionGrams = 0.1) =>
        Table(limitGrams, resolutionGrams).Of(("first", pair.First), ("second", pair.Second), ("together", pair.TogetherGrams)).Judgement!;

    /// <summary>What a pair is judged by: the weights "first", "second" and, where they were weighed so, "together", g.</summary>
    /// <param name="limitGrams">The most a pair may weigh, g.</param>
    /// <param name="resolutionGrams">The scale's step, g.</param>
    public static JudgementTable Table(double limitGrams = LimitGrams, double resolutionGrams = 0.1)
    {
        var source = limitGrams == LimitGrams
            ? new RuleSource(Standing.Practice, "common practice")
            : new RuleSource(Standing.Manual, "limit as given");
        JudgementTest heavy = new("margin", Than.Below, "nothing"), uneven = new("apart", Than.AtLeast, "uneven");
        JudgementRow Heavy(string more, params JudgementTest[] when) => new(when, Verdict.Reject, $"A pair above {limitGrams:0.0#} g{more}",
            source, "margin", "Replace both floats of the pair, and look into the bowl for what they left.");
        return new(
            new Dictionary<string, double>
            {
                ["limit"] = limitGrams, ["explained"] = 1.5 * resolutionGrams + Crumb, ["uneven"] = UnevenGrams - Crumb, ["nothing"] = 0,
            },
            [
                new("sum", Making.Sum, ["first", "second"]), new("total", Making.Else, ["together", "sum"]),
                new("apart", Making.Apart, ["first", "second"]), new("off", Making.Apart, ["together", "sum"]),
                new("margin", Making.Less, ["limit", "total"], 6),
            ],
            [
                new([new("off", Than.Above, "explained")], Verdict.Retest,
                    "{first:0.0#} + {second:0.0#} is {sum:0.0#} g, together they read {together:0.0#} g", source, "margin",
                    $"Weigh all three again: a scale of {resolutionGrams:0.0##} g steps explains {1.5 * resolutionGrams:0.0##} g."),
                Heavy(", and uneven", heavy, uneven), Heavy("", heavy),
                new([uneven], Verdict.Watch, $"At most {limitGrams:0.0#} g, uneven by {{apart:0.0#}} g", source, "margin",
                    "Within the limit; the heavier one may be drinking. Weigh them again at the next service."),
                new([], Verdict.Good, $"A pair at most {limitGrams:0.0#} g", source, "margin", "Good."),
            ]);
    }
}
