using MellowRivet.Core.Judgements;

namespace MellowRivet.Core.Compression;

/// <summary>One cylinder's reading, judged.</summary>
public sealed record JudgedCylinder(CompressionReading Reading, double LeakArea, Judgement Judgement);

/// <summary>A whole engine's test, judged.</summary>
/// <param name="Cylinders">Each cylinder's reading with its judgement, as given.</param>
/// <param name="SpreadPsi">Best less worst, psi; null under two readings.</param>
/// <param name="Overall">What to act on first.</param>
public sealed record CompressionAssessment(IReadOnlyList<JudgedCylinder> Cylinders, double? SpreadPsi, Judgement Overall);

/// <summary>Judges a differential compression test by a limit set.</summary>
public static class CompressionJudge
{
    private static readonly RuleSource Practice = new(Standing.Practice, "common practice");

    /// <summary>Judges a whole test made under one set of conditions.</summary>
    /// <param name="limits">The engine's limit set.</param>
    /// <param name="conditions">How the test was made.</param>
    /// <param name="readings">At least one reading, none above the supply.</param>
    /// <exception cref="ArgumentException">No reading at all.</exception>
    public static CompressionAssessment Assess(CompressionLimits limits, TestConditions conditions,
        IEnumerable<CompressionReading> readings) =>
        Together(limits, [.. readings.Select(reading => Judge(limits, conditions, reading))]);

    /// <summary>Sets judged cylinders beside each other: the spread, and what to act on first.</summary>
    /// <exception cref="ArgumentException">No cylinder at all.</exception>
    public static CompressionAssessment Together(CompressionLimits limits, IReadOnlyList<JudgedCylinder> cylinders)
    {
        var held = cylinders.Select(cylinder => cylinder.Reading.Held.Value).ToList();
        double? spread = held.Count < 2 ? null : held.Max() - held.Min();
        return new(cylinders, spread,
            Judgement.Worst([.. cylinders.Select(cylinder => cylinder.Judgement), .. JudgeSpread(limits, spread)]));
    }

    /// <summary>Judges one cylinder on its own.</summary>
    public static JudgedCylinder Judge(CompressionLimits limits, TestConditions conditions, CompressionReading reading) =>
        new(reading, LeakArea.MultipleOfMaster(reading.Held, conditions.Supply, conditions.Ambient),
            JudgementOf(limits, conditions, reading));

    private static Judgement JudgementOf(CompressionLimits limits, TestConditions conditions, CompressionReading reading)
    {
        // These two are faults wherever the needle stands, hot or cold.
        if (reading.Leak.Has(LeakPath.Crack))
            return new(Verdict.Reject, "A leak from the head or a plug hole is a crack", Practice, null,
                "The cylinder comes off, whatever the number.");
        if (reading.Leak.Has(LeakPath.HeadGasket))
            return new(Verdict.Reject, "Bubbles in the coolant are a leaking head gasket", Practice, null,
                "The head comes off for a look at gasket and faces, whatever the number.");

        if (limits.RejectBelow(conditions) is not { } floor)
            return new(Verdict.Unknown, "Orifice of the day: no orifice reading yet", limits.RejectSource, null,
                "Read the master orifice with this tester today and enter it; until then there is no floor to judge by.");

        var watch = limits.WatchLevel(floor, conditions, reading.Leak);
        var margin = reading.Held.Value - floor.Value;
        var watched = reading.Held < watch || (limits.WatchIncludesLevel && reading.Held == watch);
        var floorInWords = limits.FloorInWords(floor, conditions);
        var source = limits.SourceFor(conditions);

        if (reading.Held < floor || watched)
        {
            if (!conditions.Hot)
                return new(Verdict.Retest, "Low on a cold engine is no verdict", Practice, margin,
                    "Run it warm, oil at about 70 °C, and test again within the hour.");
            if (reading.Held >= floor)
                return new(Verdict.Watch, $"Above {floorInWords} by {margin:0.#}", limits.WatchSource, margin,
                    $"{Listen(reading.Leak)} Compare with its own history and test again at the next service.");
            if (limits.SecondTryBeforeReject && !reading.SecondTry)
                return new(Verdict.Retest, $"Below {floorInWords} at the first try", source, margin,
                    $"Rock the propeller through top dead centre to seat the rings and try again. {Listen(reading.Leak)}");
            var after = reading.SecondTry ? " after a second hot try" : "";
            return new(Verdict.Reject, $"Below {floorInWords}{after}", source, margin,
                $"The cylinder comes off for inspection. {Listen(reading.Leak)}");
        }
        // A cold cylinder that holds is good, and that it was cold is part of what is known.
        return conditions.Hot
            ? new(Verdict.Good, $"At or above {floorInWords} by {margin:0.#}", source, margin, "Holds.")
            : new(Verdict.Good, $"At or above {floorInWords} by {margin:0.#}, cold", source, margin,
                "Holds, cold. Your manual may want it hot all the same: then test it again within an hour of running.");
    }

    // Nothing is said of a spread that stands out nowhere.
    private static IEnumerable<Judgement> JudgeSpread(CompressionLimits limits, double? spread)
    {
        if (spread >= limits.SpreadInvestigate)
            yield return new(Verdict.Watch, $"Spread of {spread:0.#} psi between best and worst, {limits.SpreadInvestigate} and over",
                Practice,
                limits.SpreadInvestigate - spread, "Investigate the weakest cylinder: leak path, plugs, borescope.");
        else if (spread >= limits.SpreadWatch)
            yield return new(Verdict.Watch, $"Spread of {spread:0.#} psi between best and worst, {limits.SpreadWatch} and over", Practice,
                limits.SpreadWatch - spread, "Watch the weakest cylinder at the next test.");
    }

    private static string Listen(Leaks leak) => !leak.Any
        ? "Listen at exhaust, intake and oil filler and note where it leaks."
        : $"Heard at {leak.Heard}.";
}
