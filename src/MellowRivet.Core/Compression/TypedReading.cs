using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Compression;

/// <summary>What a cylinder held, as it is sent.</summary>
/// <param name="ReadingId">The reading's id, made by the device: sent again, it is corrected.</param>
/// <param name="Number">The cylinder's number.</param>
/// <param name="Value">As typed: "76" or "76/80".</param>
/// <param name="Leaks">Everywhere it was heard to leak.</param>
public sealed record TypedCylinder(Guid ReadingId, int Number, string? Value, IReadOnlyList<LeakPath> Leaks);

/// <summary>A compression as it is typed: "76" or "76/80".</summary>
/// <param name="Held">What the cylinder held, psi gauge; null where the text was refused.</param>
/// <param name="Problem">What is wrong with the text, in words for beside the field; null where it was taken.</param>
public sealed record TypedReading(Psi? Held, string? Problem)
{
    /// <summary>Reads the text against the supply of the test. Half pounds are taken, with a point or a comma.</summary>
    public static TypedReading Parse(string? text, Psi supply)
    {
        if (string.IsNullOrWhiteSpace(text))
            return Refused($"Type what the cylinder held: 76 or 76/{supply}.");
        var parts = text.Split('/');
        if (parts.Length > 2 || MeasureText.Value(parts[0], Unit.Psi) is not { } held)
            return Refused($"“{text.Trim()}” is not a reading. Type it as 76 or 76/{supply}.");
        if (parts.Length == 2 && MeasureText.Value(parts[1], Unit.Psi) != supply.Value)
            return Refused($"This test runs at {supply} psi supply, not {parts[1].Trim()}. Change the supply for the whole test above.");
        if (held < 0)
            return Refused("A reading can't be below zero.");
        if (held > supply.Value)
            return Refused($"{held:0.##} is above the supply of {supply} psi: read the second gauge again.");
        return new(new Psi(held), null);
    }

    private static TypedReading Refused(string problem) => new(null, problem);
}
