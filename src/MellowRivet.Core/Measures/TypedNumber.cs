using System.Globalization;

namespace MellowRivet.Core.Measures;

/// <summary>Reads a number as hands type it: a comma or a point for the decimals, blanks around it, nothing else.</summary>
public static class TypedNumber
{
    /// <summary>
    /// The number, or null where the text is empty, not a number, or not finite. "1e9" is not how anyone writes a reading.
    /// </summary>
    public static double? Parse(string? text) =>
        double.TryParse(text?.Trim().Replace(',', '.'), NumberStyles.AllowDecimalPoint | NumberStyles.AllowLeadingSign,
            CultureInfo.InvariantCulture, out var value) && double.IsFinite(value)
            ? value
            : null;

    /// <summary>Whether something stands there and is no number.</summary>
    public static bool IsNone(string? text, double? parsed) => parsed is null && !string.IsNullOrWhiteSpace(text);

    /// <summary>As <see cref="Parse"/>, for hours in service: null where out of range as well.</summary>
    public static Hours? ParseHours(string? text) =>
        decimal.TryParse(text?.Trim().Replace(',', '.'), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var value)
        && value is >= 0 and < 1_000_000
            ? new Hours(value)
            : null;
}
