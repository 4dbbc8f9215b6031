using MellowRivet.Core.Discrepancies;

namespace MellowRivet.Core.Records;

/// <summary>
/// What a signed record says wrongly, and how it should read. The record stays as it was signed; a new one names it.
/// </summary>
/// <param name="Says">The line that is wrong, as it stands in the record.</param>
/// <param name="Reads">How it should read.</param>
/// <param name="Why">How the mistake came about, or was found.</param>
public sealed record RecordCorrection(string Says, string Reads, string Why)
{
    /// <summary>
    /// The lines of a record that can be corrected: its extent and what was done. A statement isn't: what was found not airworthy is
    /// cleared by an entry, and what was signed wrongly is inspected again. So it is with a list of discrepancies, and with a status of
    /// bulletins, which is signed anew.
    /// </summary>
    public static IReadOnlyList<string> LinesOf(SignedRecord record)
    {
        var text = record.Text();
        return record.Book is Book.DiscrepancyList or Book.BulletinStatus ? []
            : [$"{text["extent"]}", .. text["work"]!.AsArray().Select(line => $"{line}")];
    }

    /// <summary>A correction as it is typed, or what is wrong with it.</summary>
    /// <param name="record">The record.</param>
    /// <param name="line">Which of its lines, from 0.</param>
    /// <param name="reads">How it should read.</param>
    /// <param name="why">Why.</param>
    public static (RecordCorrection? Correction, Refusal? Refusal) Read(SignedRecord record, int? line, string? reads, string? why)
    {
        var lines = LinesOf(record);
        if (line is not { } index || index < 0 || index >= lines.Count)
            return (null, new("line", "Choose the line that is wrong."));
        var (right, reason) = (reads?.Trim() ?? "", why?.Trim() ?? "");
        if (right.Length is 0 or > Discrepancy.LongestWords || right == lines[index])
            return (null, new("reads", $"Write how that line should read, in up to {Discrepancy.LongestWords} characters."));
        return reason.Length is 0 or > Discrepancy.LongestWhere
            ? (null, new("why", $"Say how the mistake came about, in up to {Discrepancy.LongestWhere} characters."))
            : (new(lines[index], right, reason), null);
    }
}
