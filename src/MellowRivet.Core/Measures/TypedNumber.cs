using System.Globalization;
using System.Text.RegularExpressions;

namespace MellowRivet.Core.Measures;

/// <summary>
/// Reads a number as hands write it: a comma or a point for the decimals, thousands apart, 1 1/2. A measure with its unit is read by
/// <see cref="MeasureText"/>.
/// </summary>
public static partial class TypedNumber
{
    /// <summary>
    /// The number, or null where the text is empty, not a number, could mean two ("4,318"), or is not finite. "1e9" is not how anyone
    /// writes a reading.
    /// </summary>
    public static double? Parse(string? text) =>
        text?.Trim() is { Length: > 0 } typed && Begin(typed) is { Number: { } number, Behind.Length: 0 } ? number : null;

    /// <summary>Whether something stands there and is no number.</summary>
    public static bool IsNone(string? text, double? parsed) => parsed is null && !string.IsNullOrWhiteSpace(text);

    /// <summary>Hours in service as typed: 4318.6, 4318,6 h, 1 1/2, 0:45; null where out of range as well.</summary>
    public static Hours? ParseHours(string? text) =>
        MeasureText.Read(text, Unit.Hour).Value is >= 0 and < 1_000_000 and { } value ? new Hours(Math.Round((decimal)value, 4)) : null;

    /// <summary>Reads the number a text begins with.</summary>
    /// <param name="typed">The text, without blanks around it.</param>
    /// <returns>The number, null where none begins it; what stands behind it; and what has to be asked where it could mean two.</returns>
    internal static (double? Number, string Behind, string? Problem) Begin(string typed)
    {
        var text = Folded(typed);
        if (Mixed().Match(text) is { Success: true } mixed)
            return Whole(mixed.Groups["under"]) is > 0 and var under
                ? (Signed(mixed, Whole(mixed.Groups["whole"]) + Whole(mixed.Groups["over"]) / under), Behind(text, mixed), null)
                : (null, text, null);
        // 4k7 is written where a point gets lost: on a resistor, in an oily hand.
        if (Lettered().Match(text) is { Success: true } lettered)
            return (Signed(lettered, double.Parse($"{lettered.Groups["whole"].Value}.{lettered.Groups["tenths"].Value}",
                CultureInfo.InvariantCulture)), lettered.Groups["letter"].Value + Behind(text, lettered), null);
        foreach (var shape in new[] { Grouped().Match(text), Decimal().Match(text) })
            if (shape.Success)
            {
                var written = shape.Groups["number"].Value;
                if (TwoMeanings().IsMatch(written))
                    return (null, text, MeasureGrammar.Say(MeasureGrammar.Two, ("written", written),
                        ("joined", written.Replace(",", "", StringComparison.Ordinal)),
                        ("pointed", written.Replace(',', '.').TrimEnd('0').TrimEnd('.'))));
                return Figures(written) is { } number
                    ? (Signed(shape, number), Behind(text, shape), null)
                    : (null, text, null);
            }
        return (null, text, null);
    }

    private static double Whole(Group group) => group.Success ? double.Parse(group.Value, CultureInfo.InvariantCulture) : 0;

    private static double Signed(Match match, double number) => match.Groups["minus"].Success ? -number : number;

    private static string Behind(string text, Match match) => text[match.Length..].Trim();

    // The last sign of "1,204.5" or "1.204,5" is the point, the others keep thousands apart.
    private static double? Figures(string written)
    {
        var last = written.LastIndexOfAny(['.', ',']);
        var isPoint = last >= 0 && written.Count(letter => letter == written[last]) == 1;
        var whole = string.Concat((isPoint ? written[..last] : written).Where(char.IsAsciiDigit));
        return double.TryParse(isPoint ? $"{whole}.{written[(last + 1)..]}" : whole, NumberStyles.AllowDecimalPoint,
            CultureInfo.InvariantCulture, out var number) && double.IsFinite(number)
            ? number
            : null;
    }

    private static string Folded(string typed) => MeasureGrammar.Signs
        .Aggregate(typed, (text, sign) => text.Replace(sign.Key, sign.Value, StringComparison.Ordinal)).Trim();

    [GeneratedRegex(MeasureGrammar.Mixed, RegexOptions.CultureInvariant | RegexOptions.ExplicitCapture)]
    private static partial Regex Mixed();

    [GeneratedRegex(MeasureGrammar.Lettered, RegexOptions.CultureInvariant | RegexOptions.ExplicitCapture)]
    private static partial Regex Lettered();

    [GeneratedRegex(MeasureGrammar.Grouped, RegexOptions.CultureInvariant | RegexOptions.ExplicitCapture)]
    private static partial Regex Grouped();

    [GeneratedRegex(MeasureGrammar.Decimal, RegexOptions.CultureInvariant | RegexOptions.ExplicitCapture)]
    private static partial Regex Decimal();

    [GeneratedRegex(MeasureGrammar.TwoMeanings, RegexOptions.CultureInvariant)]
    private static partial Regex TwoMeanings();
}
