using MellowRivet.Core.Judgements;

namespace MellowRivet.Core.Exhaust;

/// <summary>
/// Judges an exhaust's pressure test. A few psi at most; what counts is whether it bubbles and where, and that it was tested at
/// the same pressure before a repair and after it. Common practice.
/// </summary>
public static class ExhaustPressure
{
    /// <summary>Above this a can or a hose lets go, psi: it isn't tested so.</summary>
    public const double Most = 5;

    /// <summary>What it is usually tested at, psi.</summary>
    public const double Usual = 2;

    /// <summary>Under this a leak makes no bubbles that anybody sees, psi.</summary>
    public const double Least = 1.5;

    /// <summary>What two tests at the same pressure may differ by, psi: a small gauge is read to that.</summary>
    public const double Same = 0.25;

    /// <summary>What is said where somebody would go higher.</summary>
    public const string Danger =
        "Dangerous: never above 5 psi, about 2 is enough. Under more a can or a hose lets go in your face. Let it off, and test again.";

    private static readonly RuleSource Practice = new(Standing.Practice, "common practice");

    /// <param name="psi">The pressure it was tested at, from 0 up to <see cref="Most"/>.</param>
    /// <param name="bubbles">Soaped all over, it bubbles somewhere; null where nobody has said.</param>
    /// <param name="before">The test before the repair: its pressure, and whether it bubbled; null without one.</param>
    /// <exception cref="ArgumentOutOfRangeException">The pressure is dangerous, or none.</exception>
    public static Judgement Judge(double psi, bool? bubbles, (double Psi, bool? Bubbles)? before)
    {
        if (!(psi >= 0 && psi <= Most))
            throw new ArgumentOutOfRangeException(nameof(psi), psi, Danger);
        return Table(bubbles, before?.Bubbles, before is not null).Of((JudgementTable.Value, psi), ("before", before?.Psi)).Judgement!;
    }

    /// <summary>What a pressure is judged by, psi, with the one "before" where there was one.</summary>
    /// <param name="bubbles">It bubbles somewhere; null where nobody has said.</param>
    /// <param name="bubbledBefore">It bubbled before the repair; null where nobody has said.</param>
    /// <param name="isAfter">There was a test before a repair.</param>
    public static JudgementTable Table(bool? bubbles, bool? bubbledBefore, bool isAfter)
    {
        const string value = JudgementTable.Value;
        if (bubbles == true)
            return JudgementTable.Always(new(Verdict.Reject, isAfter && bubbledBefore == true
                ? "It bubbles still"
                : "It bubbles under pressure", Practice, null,
                "Mark the place. By the cabin’s heat exchanger it is carbon monoxide in the cabin. Repair it, and "
                + "test again at the same pressure."));
        var low = new JudgementRow([new(value, Than.Below, "least")], Verdict.Unknown, $"Under {Least} psi a leak need not show", Practice,
            "margin", $"Test it at about {Usual:0} psi, never above {Most:0}.");
        return new(new Dictionary<string, double> { ["least"] = Least, ["same"] = Same },
            [new("margin", Making.Less, [value, "least"]), new("apart", Making.Apart, ["before", value])],
            bubbles is null
            ?
            [
                low, new([], Verdict.Unknown, "Nobody has said whether it bubbles", Practice, null,
                    "Soap it all over, look at every joint and weld, and say whether it bubbles and where."),
            ]
            :
            [
                low,
                new([new("apart", Than.Above, "same")], Verdict.Retest, "Tested at {value:0.##} psi and at {before:0.##} before", Practice,
                    null, "Test it at the same pressure before the repair and after it: only so the two compare."),
                new([], Verdict.Good, isAfter && bubbledBefore == true
                    ? "No bubbles any more, at the same pressure"
                    : "No bubbles", Practice, null, isAfter
                    ? "Look at it again at the next service: an older repair beside a new one says the part nears its end."
                    : "It holds."),
            ]);
    }
}
