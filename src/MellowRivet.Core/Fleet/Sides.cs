using System.Text.RegularExpressions;

namespace MellowRivet.Core.Fleet;

/// <summary>What an aircraft has two of: named by its side, limited by one figure of the manual.</summary>
public static partial class Sides
{
    private static readonly string[] Endings = ["-left", "-right", "-nose"];

    /// <summary>Whether words say a side: "left brake", "RH tank".</summary>
    public static bool IsSaid(string? words) => Side().IsMatch(words ?? "");

    /// <summary>The same on the other side: "left brake" of "right brake".</summary>
    public static string Turned(string words) => Side().Replace(words, found =>
    {
        var other = Pairs.First(pair => string.Equals(pair.One, found.Value, StringComparison.OrdinalIgnoreCase)).Other;
        return char.IsUpper(found.Value[0]) && !char.IsUpper(other[0]) ? char.ToUpperInvariant(other[0]) + other[1..] : other;
    });

    private static readonly (string One, string Other)[] Pairs =
        [("left", "right"), ("right", "left"), ("LH", "RH"), ("RH", "LH"), ("L/H", "R/H"), ("R/H", "L/H")];

    // "Right" alone, as in "all right" or "right way", is rarely said of what was found; a person reads the words before they are kept.
    [GeneratedRegex(@"\b(left|right|LH|RH|L/H|R/H)\b", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex Side();

    /// <summary>What a measurement is called without its side: "brake-pad" of "brake-pad-left"; itself where it has none.</summary>
    public static string BothOf(string measure) =>
        Endings.FirstOrDefault(ending => measure.EndsWith(ending, StringComparison.Ordinal)) is { } ending
            ? measure[..^ending.Length]
            : measure;
}
