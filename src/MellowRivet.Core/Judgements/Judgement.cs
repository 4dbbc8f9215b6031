namespace MellowRivet.Core.Judgements;

/// <summary>What a value was judged to be, from harmless to not. Unknown is never taken for good.</summary>
public enum Verdict { Good = 1, Watch, Unknown, Retest, Reject }

/// <summary>How much weight a rule carries.</summary>
public enum Standing { Law = 1, Reference, Practice, Manual }

/// <summary>Where a rule comes from, in words a reader can follow up: "AC 43.13-1B chapter 8, from memory".</summary>
public sealed record RuleSource(Standing Standing, string Text)
{
    /// <summary>The standing as the interface says it.</summary>
    public string StandingInWords => Standing switch
    {
        Standing.Law => "published rule",
        Standing.Reference => "published reference",
        Standing.Practice => "common practice",
        _ => "your manual",
    };

    /// <summary>The source and its weight, for a rule that no manual takes the place of.</summary>
    public string AsItStands => Standing == Standing.Practice ? Text : $"{StandingInWords}: {Text}";

    /// <summary>
    /// The soft line beside every judgement. The aircraft's manual has the last word wherever it isn't the source itself.
    /// </summary>
    public string InWords => Standing switch
    {
        Standing.Manual => $"your manual: {Text}",
        Standing.Practice => $"{Text}; your manual decides",
        _ => $"{Text} · your manual decides",
    };
}

/// <summary>
/// A verdict with the rule that gave it, where that rule comes from, how far the value stands from the limit and what to do next.
/// </summary>
/// <param name="Verdict">What the value was judged to be.</param>
/// <param name="Rule">The rule in words, with its number.</param>
/// <param name="Source">Where the rule comes from.</param>
/// <param name="Margin">Distance to the limit in the unit of the value, negative beyond it; null where there is no
/// limit to measure from.</param>
/// <param name="Next">What to do, in words.</param>
public sealed record Judgement(Verdict Verdict, string Rule, RuleSource Source, double? Margin, string Next)
{
    /// <summary>The judgement that should be acted on first.</summary>
    public static Judgement Worst(IEnumerable<Judgement> judgements) => judgements.MaxBy(judgement => judgement.Verdict)
        ?? throw new ArgumentException("There is nothing to judge.", nameof(judgements));
}

public static class VerdictWords
{
    public static string InWords(this Verdict verdict) => verdict switch
    {
        Verdict.Good => "good",
        Verdict.Watch => "watch",
        Verdict.Reject => "reject",
        Verdict.Retest => "test again",
        _ => "can't tell yet",
    };
}
