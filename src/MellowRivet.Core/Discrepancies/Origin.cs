using MellowRivet.Core.Judgements;

namespace MellowRivet.Core.Discrepancies;

/// <summary>The judgement that a discrepancy was born from. Its class comes from there, never from words.</summary>
/// <param name="Key">What was judged.</param>
/// <param name="InWords">The judgement in words.</param>
/// <param name="Verdict">What it was judged to be.</param>
/// <param name="Source">The rule and its standing.</param>
public sealed record Origin(string Key, string InWords, Verdict Verdict, RuleSource Source)
{
    /// <summary>
    /// By a published rule or the manual it is an airworthiness item, and nobody makes it less; by common
    /// practice somebody who may sign can.
    /// </summary>
    public bool IsFixed => Source.Standing != Standing.Practice;
}

/// <summary>
/// A class that somebody set below what the judgement or the words say. It is kept, and printed where a judgement stands behind it.
/// </summary>
/// <param name="From">What it would be.</param>
/// <param name="To">What it was set to.</param>
/// <param name="Reason">Why.</param>
/// <param name="Reference">By which data; empty where no judgement stands behind it.</param>
/// <param name="Certificate">By which certificate; empty where none is needed.</param>
/// <param name="By">Who.</param>
/// <param name="At">When.</param>
public sealed record Lowered(DiscrepancyClass From, DiscrepancyClass To, string Reason, string Reference, string Certificate, Guid By,
    DateTimeOffset At)
{
    public string AsEntered =>
        $"lowered from {From.InWords()} to {To.InWords()}: {Reason}{(Reference.Length > 0 ? $" Ref. {Reference}" : "")}";

    public string InWords => $"{AsEntered}{(Certificate.Length > 0 ? $" ({Certificate})" : "")}";
}
