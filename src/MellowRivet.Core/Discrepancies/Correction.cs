using MellowRivet.Core.Inspections;

namespace MellowRivet.Core.Discrepancies;

/// <summary>What was done, in kind: a second repair at one place says something that a second cleaning doesn't.</summary>
public enum CorrectionKind { Adjusted = 1, Cleaned, Repaired, Replaced, Deferred }

/// <summary>A part that was used.</summary>
/// <param name="Number">Its part number.</param>
/// <param name="SerialOut">The serial number of what came off; empty where it bears none.</param>
/// <param name="SerialIn">The serial number of what went on; empty where it bears none.</param>
/// <param name="ReplacedComponent">The part of the aircraft's file that it took the place of; null for a part that
/// the file doesn't follow.</param>
public sealed record PartUsed(string Number, string SerialOut, string SerialIn, Guid? ReplacedComponent = null);

/// <summary>A torque that was pulled in doing it.</summary>
/// <param name="Value">How much.</param>
/// <param name="UnitSymbol">Its unit.</param>
/// <param name="Wrench">The wrench, as it was then.</param>
public sealed record TorquePulled(double Value, string UnitSymbol, WrenchUsed Wrench);

/// <summary>The corrective action.</summary>
/// <param name="Action">What was done, in words.</param>
/// <param name="Kind">What kind of action it was.</param>
/// <param name="Reference">The data it was done by: manual, chapter, revision; may be empty.</param>
/// <param name="Parts">Parts used; null for none.</param>
/// <param name="Torque">The torque pulled; null for none.</param>
public sealed record Correction(string Action, CorrectionKind Kind = CorrectionKind.Adjusted, string Reference = "",
    IReadOnlyList<PartUsed>? Parts = null, TorquePulled? Torque = null)
{
    public const int LongestReference = 120, LongestNumber = 40, MostParts = 20;

    /// <summary>What is wrong with it as typed; null where it can be recorded.</summary>
    public Refusal? Check()
    {
        if (string.IsNullOrWhiteSpace(Action))
            return new("action", "Say what was done, with the reference it was done by.");
        if (Action.Trim().Length > Discrepancy.LongestWords)
            return new("action", $"{Action.Trim().Length} characters; {Discrepancy.LongestWords} is the most.");
        if (Reference.Length > LongestReference)
            return new("reference", $"The reference in up to {LongestReference} characters.");
        if (Parts is { } parts && (parts.Count > MostParts
            || parts.Any(part => part.Number.Length is 0 or > LongestNumber || part.SerialIn.Length > LongestNumber
                || part.SerialOut.Length > LongestNumber)))
            return new("parts", $"Up to {MostParts} parts, each with its part number; numbers of up to {LongestNumber} characters.");
        return null;
    }

    /// <summary>As it is entered in the books: the action, its reference, parts and torque.</summary>
    public string InWords => string.Join(" ", new[]
    {
        Action,
        Reference.Length > 0 ? $"Ref. {Reference}." : "",
        string.Join(" ", (Parts ?? [])
            .Select(
                part =>
                    $"P/n {part.Number}{(part.SerialOut.Length > 0 ? $", s/n {part.SerialOut} off" : "")}"
                    + $"{(part.SerialIn.Length > 0 ? $", s/n {part.SerialIn} on" : "")}.")),
        Torque is { } torque
            ? $"Torque {torque.Value:0.##} {torque.UnitSymbol}, {torque.Wrench.Title}, calibrated until "
            + $"{torque.Wrench.CalibratedUntil:yyyy-MM-dd}."
            : "",
    }.Where(words => words.Length > 0));
}

public static class CorrectionWords
{
    public static string InWords(this CorrectionKind kind) =>
        kind == CorrectionKind.Deferred ? "deactivated and placarded" : kind.ToString().ToLowerInvariant();
}
