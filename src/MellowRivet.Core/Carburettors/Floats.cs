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
    public static Judgement Judge(FloatPair pair, double limitGrams = LimitGrams, double resolutionGrams = 0.1)
    {
        var source = limitGrams == LimitGrams
            ? new RuleSource(Standing.Practice, "common practice")
            : new RuleSource(Standing.Manual, "limit as given");
        var sum = pair.First + pair.Second;
        var margin = Math.Round(limitGrams - pair.TotalGrams, 6);
        if (pair.TogetherGrams is { } together && Math.Abs(together - sum) > 1.5 * resolutionGrams + Crumb)
            return new(Verdict.Retest, $"{pair.First:0.0#} + {pair.Second:0.0#} is {sum:0.0#} g, together they read {together:0.0#} g",
                source, margin,
                $"Weigh all three again: a scale of {resolutionGrams:0.0##} g steps explains {1.5 * resolutionGrams:0.0##} g.");
        var uneven = Math.Abs(pair.First - pair.Second) >= UnevenGrams - Crumb;
        if (margin < 0)
            return new(Verdict.Reject, $"A pair above {limitGrams:0.0#} g{(uneven ? ", and uneven" : "")}", source, margin,
                "Replace both floats of the pair, and look into the bowl for what they left.");
        return uneven
            ? new(Verdict.Watch, $"At most {limitGrams:0.0#} g, uneven by {Math.Abs(pair.First - pair.Second):0.0#} g", source, margin,
                "Within the limit; the heavier one may be drinking. Weigh them again at the next service.")
            : new(Verdict.Good, $"A pair at most {limitGrams:0.0#} g", source, margin, "Good.");
    }
}
