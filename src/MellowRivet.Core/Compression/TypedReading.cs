using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Compression;

/// <summary>What a cylinder held, as it is sent.</summary>
/// <param name="ReadingId">The reading's id, made by the device: sent again, it is corrected.</param>
/// <param name="Number">The cylinder's number.</param>
/// <param name="Value">As typed: "76" or "76/80".</param>
/// <param name="Leaks">Everywhere it was heard to leak.</param>
/// <param name="PartId">The cylinder that was in that place when it was read; null where that wasn't told.</param>
public sealed record TypedCylinder(Guid ReadingId, int Number, string? Value, IReadOnlyList<LeakPath> Leaks, Guid? PartId = null);

/// <summary>A compression as it is typed: "76" or "76/80".</summary>
/// <param name="Held">What the cylinder held, psi gauge; null where the text was refused.</param>
/// <param name="Problem">What is wrong with the text, in words for beside the field; null where it was taken.</param>
public sealed record TypedReading(Psi? Held, string? Problem)
{
    /// <summary>What may stand behind the stroke, and what else a test says of its readings.</summary>
    /// <param name="Supply">The supply of the test, psi gauge.</param>
    /// <param name="Orifice">What the master orifice read, psi gauge; null where it wasn't taken.</param>
    public sealed record Behind(double Supply, double? Orifice)
    {
        /// <summary>What is said of a text that is no reading.</summary>
        public string NoReading { get; } = Said(TypedReading.NoReading, Supply);

        /// <summary>What is said of another supply.</summary>
        public string Other { get; } = Said(OtherSupply, Supply);
    }

    private const string NoReading = "“{typed}” is not a reading. Type it as 76 or 76/{supply}.";
    private const string OtherSupply = "This test runs at {supply} psi supply, not {behind}. Change the supply for the whole test above.";

    /// <summary>What is wanted in the field.</summary>
    public static string Wanted(Psi supply) => $"Type what the cylinder held: 76 or 76/{supply}.";

    /// <summary>What the field doesn't take.</summary>
    public static IReadOnlyList<FieldBound> Bounds(Psi supply) =>
    [
        new(Than.Below, 0, "A reading can't be below zero."),
        new(Than.Above, supply.Value, $"{{value}} is above the supply of {supply} psi: read the second gauge again."),
    ];

    /// <summary>Reads the text against the supply of the test. Half pounds are taken, with a point or a comma.</summary>
    public static TypedReading Parse(string? text, Psi supply)
    {
        if (string.IsNullOrWhiteSpace(text))
            return Refused(Wanted(supply));
        var parts = text.Split('/');
        if (parts.Length > 2 || MeasureText.Value(parts[0], Unit.Psi) is not { } held)
            return Refused(MeasureGrammar.Say(Said(NoReading, supply.Value), ("typed", text.Trim())));
        if (parts.Length == 2 && MeasureText.Value(parts[1], Unit.Psi) != supply.Value)
            return Refused(MeasureGrammar.Say(Said(OtherSupply, supply.Value), ("behind", parts[1].Trim())));
        return FieldBound.First(Bounds(supply), "value", text, held, Unit.Psi, Unit.Psi) is { } outside
            ? Refused(outside.Message)
            : new(new Psi(held), null);
    }

    private static string Said(string words, double supply) => MeasureGrammar.Say(words, ("supply", new Psi(supply)));

    private static TypedReading Refused(string problem) => new(null, problem);
}
