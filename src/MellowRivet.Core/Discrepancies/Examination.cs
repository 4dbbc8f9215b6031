namespace MellowRivet.Core.Discrepancies;

/// <summary>A test that found a mark to be benign, so that next year nobody starts again.</summary>
/// <param name="Method">How it was tested.</param>
/// <param name="Words">What was seen.</param>
/// <param name="By">Who tested it.</param>
/// <param name="On">When.</param>
/// <param name="Until">The last day the result is taken for; null where it has no end.</param>
public sealed record Examination(FoundHow Method, string Words, Guid By, DateOnly On, DateOnly? Until)
{
    public Refusal? Check(DateOnly today)
    {
        if (!Enum.IsDefined(Method))
            return new("examination", "Choose how it was tested.");
        if (string.IsNullOrWhiteSpace(Words) || Words.Trim().Length > Discrepancy.LongestWhere)
            return new("examination", $"Say what the test showed, in up to {Discrepancy.LongestWhere} characters.");
        if (On > today)
            return new("examination", "The day of the test is still to come.");
        return Until is { } until && (until <= On || until.Year > 2199) ? new("examination", "It is valid to a day after the test.") : null;
    }

    public bool HoldsOn(DateOnly day) => Until is null || day <= Until;
}

/// <summary>A known mark of an earlier inspection, carried into this one: to be accepted with initials, or tested again.</summary>
/// <param name="DiscrepancyId">The mark.</param>
/// <param name="Number">Its number there, "26-031-07".</param>
/// <param name="What">What it is.</param>
/// <param name="Place">Where.</param>
/// <param name="Examination">How it was found benign; null where the one before wrote nothing.</param>
/// <param name="Photo">Its picture; null where there is none.</param>
/// <param name="Accepted">Who looked and accepted it, and when; null until then.</param>
/// <param name="TestedAs">The discrepancy of this inspection under which it is tested again; null where it isn't.</param>
public sealed record KnownMark(
    Guid DiscrepancyId, string Number, string What, Place Place, Examination? Examination, Photo? Photo, Inspections.Stamp? Accepted = null,
    Guid? TestedAs = null)
{
    public bool IsAnswered => Accepted is not null || TestedAs is not null;

    /// <summary>Why it can't be accepted and has to be tested again; null where it can.</summary>
    public Refusal? MayAccept(DateOnly today) => Examination switch
    {
        null => new("mark", "Nobody wrote down how it was tested: test it again."),
        { } examination when !examination.HoldsOn(today) =>
            new("mark", $"The test was valid until {examination.Until:yyyy-MM-dd}: test it again."),
        _ => null,
    };
}
