using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;

namespace MellowRivet.Core.Inspections;

/// <summary>A fact that whoever may sign left out of the entries, with the reason.</summary>
/// <param name="Key">The fact.</param>
/// <param name="Text">The sentence as it would have stood.</param>
/// <param name="Reason">Why.</param>
/// <param name="Certificate">By which certificate.</param>
/// <param name="By">Who.</param>
/// <param name="At">When.</param>
public sealed record OmittedFact(string Key, string Text, string Reason, string Certificate, Guid By, DateTimeOffset At)
{
    /// <summary>As the record keeps it beside what it says.</summary>
    public string AsKept => $"{Text} Left out: {Reason}";
}

/// <summary>A line that a person added to an entry.</summary>
/// <param name="Id">Its id, made by the device.</param>
/// <param name="Carrier">The engine or propeller whose book it stands in; null for the airframe's.</param>
/// <param name="Words">The line.</param>
/// <param name="By">Who.</param>
/// <param name="At">When.</param>
public sealed record AddedLine(Guid Id, Guid? Carrier, string Words, Guid By, DateTimeOffset At);

// What a person decides about the entries: how long they are, what else stands in them, what doesn't.
public sealed partial class Inspection
{
    private List<OmittedFact> omitted = [];
    private List<AddedLine> addedLines = [];

    /// <summary>Longest line that is added to an entry, in characters.</summary>
    public const int LongestLine = 500;

    /// <summary>Most lines that are added to the entries of one inspection.</summary>
    public const int MostLines = 40;

    /// <summary>How long its entries are.</summary>
    public EntryLength EntryLength { get; private set; } = EntryLength.Full;

    public IReadOnlyList<OmittedFact> Omitted => omitted;
    public IReadOnlyList<AddedLine> AddedLines => addedLines;

    public Refusal? Write(EntryLength length)
    {
        if (!Enum.IsDefined(length))
            return new("length", "Full or short.");
        EntryLength = length;
        return null;
    }

    /// <summary>Adds a line to one of the entries; sent again under its id, it takes the place of the first.</summary>
    /// <param name="id">Its id.</param>
    /// <param name="carrier">The engine or propeller whose book it goes into; null for the airframe's.</param>
    /// <param name="isThere">Whether that engine or propeller is on the aircraft.</param>
    /// <param name="words">The line; empty takes it back.</param>
    /// <param name="by">Who.</param>
    /// <param name="at">When.</param>
    public Refusal? AddLine(Guid id, Guid? carrier, bool isThere, string? words, Guid by, DateTimeOffset at)
    {
        var line = string.Join(' ', (words ?? "").Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
        if (line.Length == 0 && addedLines.All(other => other.Id != id))
            return new("line", "Write the line that the entry should have.");
        if (line.Length > LongestLine)
            return new("line", $"{line.Length} characters; {LongestLine} is the most. Make it two lines.");
        if (addedLines.Count >= MostLines)
            return new("line", $"{MostLines} added lines are the most.");
        if (carrier is not null && !isThere)
            return new("line", "That engine or propeller is not on this aircraft any more.");
        addedLines = [.. addedLines.Where(other => other.Id != id)];
        if (line.Length > 0)
            addedLines = [.. addedLines, new(id, carrier, line, by, at)];
        return null;
    }

    /// <summary>Leaves a fact out of the entries, with the reason; an empty reason is none.</summary>
    /// <param name="sentence">The sentence that tells it, as it stands.</param>
    /// <param name="reason">Why.</param>
    /// <param name="person">Who.</param>
    /// <param name="signs">The certificate by which they may sign this inspection; null where they may not.</param>
    /// <param name="at">When.</param>
    public Refusal? Omit(EntrySentence sentence, string? reason, Person person, Certificate? signs, DateTimeOffset at)
    {
        if (signs is null)
            return new("omit", $"Only somebody who may sign this inspection leaves something out of its entries; {person.Name} may not.");
        if (sentence.Wanted is { } wanted)
            return new("omit", $"It can’t be left out: {wanted.Text}.");
        if (string.IsNullOrWhiteSpace(reason) || reason.Trim().Length > Discrepancy.LongestWhere)
            return new("omit", $"Say why it doesn’t stand in the entry, in up to {Discrepancy.LongestWhere} characters: it is kept.");
        omitted = [.. omitted.Where(other => other.Key != sentence.Fact.Key),
            new(sentence.Fact.Key, sentence.InFull, reason.Trim(), InWords(signs), person.Id, at)];
        return null;
    }

    /// <summary>Puts a fact back into the entries.</summary>
    public void TellAgain(string? key) => omitted = [.. omitted.Where(other => other.Key != key)];
}
