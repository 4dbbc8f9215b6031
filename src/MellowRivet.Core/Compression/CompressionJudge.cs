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
        var read = held.Select((psi, at) => (Name: $"{at}", (double?)psi)).ToArray();
        var together = SpreadTable(limits, [.. read.Select(one => one.Name)])?.Of(read).Judgement;
        return new(cylinders, spread, Judgement.Worst(
            [.. cylinders.Select(cylinder => cylinder.Judgement), .. new[] { together }.OfType<Judgement>()]));
    }

    /// <summary>Judges one cylinder on its own.</summary>
    public static JudgedCylinder Judge(CompressionLimits limits, TestConditions conditions, CompressionReading reading) =>
        new(reading, LeakArea.MultipleOfMaster(reading.Held, conditions.Supply, conditions.Ambient),
            Table(limits, conditions, reading.Leak, reading.SecondTry)
                .Of((JudgementTable.Value, reading.Held.Value), (Orifice, conditions.DayOrifice?.Value)).Judgement!);

    /// <summary>What a table calls the reading of the master orifice.</summary>
    public const string Orifice = "orifice";

    /// <summary>
    /// What a reading is judged by, psi gauge, with what was heard at that try; beside it goes what the master orifice read, where it
    /// was taken.
    /// </summary>
    /// <param name="limits">The engine's limit set.</param>
    /// <param name="conditions">How the test is made.</param>
    /// <param name="leak">Where air is heard.</param>
    /// <param name="secondTry">A further try after a low hot one of the same test.</param>
    public static JudgementTable Table(CompressionLimits limits, TestConditions conditions, Leaks leak, bool secondTry)
    {
        // These two are faults wherever the needle stands, hot or cold.
        if (leak.Has(LeakPath.Crack))
            return JudgementTable.Always(new(Verdict.Reject, "A leak from the head or a plug hole is a crack", Practice, null,
                "The cylinder comes off, whatever the number."));
        if (leak.Has(LeakPath.HeadGasket))
            return JudgementTable.Always(new(Verdict.Reject, "Bubbles in the coolant are a leaking head gasket", Practice, null,
                "The head comes off for a look at gasket and faces, whatever the number."));

        var (given, makes) = Levels(limits, conditions, leak);
        var (words, source, listen) = (limits.FloorByName(conditions), limits.SourceFor(conditions), Listen(leak));
        JudgementTest low = new(JudgementTable.Value, Than.Below, "floor"),
            watched = new(JudgementTable.Value, limits.WatchIncludesLevel ? Than.AtMost : Than.Below, "watch"),
            holds = new(JudgementTable.Value, Than.AtLeast, "floor");
        var cold = new JudgementRow([low], Verdict.Retest, "Low on a cold engine is no verdict", Practice, "margin",
            "Run it warm, oil at about 70 °C, and test again within the hour.");
        JudgementRow[] rows = conditions.Hot
            ?
            [
                limits.SecondTryBeforeReject && !secondTry
                    ? new([low], Verdict.Retest, $"Below {words} at the first try", source, "margin",
                        $"Rock the propeller through top dead centre to seat the rings and try again. {listen}")
                    : new([low], Verdict.Reject, $"Below {words}{(secondTry ? " after a second hot try" : "")}", source, "margin",
                        $"The cylinder comes off for inspection. {listen}"),
                new([watched], Verdict.Watch, $"Above {words} by {{margin:0.#}}", limits.WatchSource, "margin",
                    $"{listen} Compare with its own history and test again at the next service."),
                new([holds], Verdict.Good, $"At or above {words} by {{margin:0.#}}", source, "margin", "Holds."),
            ]
            :
            [
                cold, cold with { When = [watched] },
                // A cold cylinder that holds is good, and that it was cold is part of what is known.
                new([holds], Verdict.Good, $"At or above {words} by {{margin:0.#}}, cold", source, "margin",
                    "Holds, cold. Your manual may want it hot all the same: then test it again within an hour of running."),
            ];
        return new(given, [.. makes, new("margin", Making.Less, [JudgementTable.Value, "floor"])],
        [
            .. rows,
            new([], Verdict.Unknown, "Orifice of the day: no orifice reading yet", limits.RejectSource, null,
                "Read the master orifice with this tester today and enter it; until then there is no floor to judge by."),
        ]);
    }

    // The floor and the level below which it is watched: numbers that stand, or made of what the tester read today.
    private static (Dictionary<string, double> Given, IReadOnlyList<Made> Makes) Levels(CompressionLimits limits, TestConditions conditions,
        Leaks leak)
    {
        if (limits.FloorIsRead)
            return (new() { ["lead"] = limits.WatchLevel(default, conditions, leak).Value },
                [new("floor", Making.Else, [Orifice]), new("watch", Making.Sum, ["floor", "lead"])]);
        var floor = limits.RejectBelow(conditions)!.Value;
        return (new() { ["floor"] = floor.Value, ["watch"] = limits.WatchLevel(floor, conditions, leak).Value }, []);
    }

    /// <summary>
    /// What the readings of an engine's cylinders are judged by beside each other, psi gauge each; null where the school doesn't judge
    /// their spread.
    /// </summary>
    /// <param name="limits">The engine's limit set.</param>
    /// <param name="names">What the table calls each reading.</param>
    public static JudgementTable? SpreadTable(CompressionLimits limits, IReadOnlyList<string> names)
    {
        if (limits is not { SpreadWatch: { } watch, SpreadInvestigate: { } investigate })
            return null;
        JudgementRow From(string level, double psi, string next) => new([new("spread", Than.AtLeast, level)], Verdict.Watch,
            $"Spread of {{spread:0.#}} psi between best and worst, {psi} and over", Practice, $"margin {level}", next);
        return new(new Dictionary<string, double> { ["watch"] = watch, ["investigate"] = investigate },
            [
                new("best", Making.Most, names), new("worst", Making.Least, names), new("spread", Making.Less, ["best", "worst"]),
                new("margin investigate", Making.Less, ["investigate", "spread"]), new("margin watch", Making.Less, ["watch", "spread"]),
            ],
            [
                From("investigate", investigate, "Investigate the weakest cylinder: leak path, plugs, borescope."),
                From("watch", watch, "Watch the weakest cylinder at the next test."),
                new([], Verdict.Good, $"Best and worst less than {watch} psi apart", Practice, "margin watch", "Even."),
            ]);
    }

    private static string Listen(Leaks leak) => !leak.Any
        ? "Listen at exhaust, intake and oil filler and note where it leaks."
        : $"Heard at {leak.Heard}.";
}
