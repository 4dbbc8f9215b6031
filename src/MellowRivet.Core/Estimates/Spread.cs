using System.Globalization;
using System.Text.RegularExpressions;

namespace MellowRivet.Core.Estimates;

/// <summary>
/// Hours or money as one figure, or as low, likely and high: a triangular law, because covers hide things. All three are alike
/// where it is one figure.
/// </summary>
/// <param name="Low">The least, from 0.</param>
/// <param name="Likely">The likeliest.</param>
/// <param name="High">The most.</param>
public readonly partial record struct Spread(decimal Low, decimal Likely, decimal High)
{
    /// <summary>Between two figures of a spread as it is written back: it can be typed on a keypad that has figures and a point.</summary>
    public const string Between = "..";

    public static Spread Of(decimal only) => new(only, only, only);

    /// <summary>It is more than one figure.</summary>
    public bool IsRange => High > Low;

    /// <summary>The mean of the triangular law.</summary>
    public decimal Mean => (Low + Likely + High) / 3;

    /// <summary>
    /// Its variance: (a² + b² + c² − ab − ac − bc) / 18. Reckoned from the distances, so that a small spread on a large sum isn't lost.
    /// </summary>
    public double Variance
    {
        get
        {
            var (left, right) = ((double)(Likely - Low), (double)(High - Likely));
            return ((left * left) + (left * right) + (right * right)) / 18;
        }
    }

    public static Spread operator +(Spread one, Spread other) =>
        new(one.Low + other.Low, one.Likely + other.Likely, one.High + other.High);

    public Spread Times(decimal factor) =>
        new(Math.Round(Low * factor, 2), Math.Round(Likely * factor, 2), Math.Round(High * factor, 2));

    /// <summary>The share of the law that lies at or below a value, from 0 to 1.</summary>
    internal double Below(double value)
    {
        var (low, likely, high) = ((double)Low, (double)Likely, (double)High);
        return value <= low ? (IsRange || value < low ? 0 : 1)
            : value >= high ? 1
            : value <= likely ? (value - low) * (value - low) / ((high - low) * (likely - low))
            : 1 - ((high - value) * (high - value) / ((high - low) * (high - likely)));
    }

    /// <summary>The density of the law at a value; of a spread that is a range.</summary>
    internal double Density(double value)
    {
        var (low, likely, high) = ((double)Low, (double)Likely, (double)High);
        return value < low || value > high ? 0
            : value < likely ? 2 * (value - low) / ((high - low) * (likely - low))
            : likely < high ? 2 * (high - value) / ((high - low) * (high - likely))
            : 2 / (high - low);
    }

    /// <summary>The value that a share of the law lies below, in closed form.</summary>
    /// <param name="share">From 0 to 1.</param>
    public double Quantile(double share)
    {
        var (low, likely, high) = ((double)Low, (double)Likely, (double)High);
        var peak = IsRange ? (likely - low) / (high - low) : 0;
        return share <= peak
            ? low + Math.Sqrt(share * (high - low) * (likely - low))
            : high - Math.Sqrt((1 - share) * (high - low) * (high - likely));
    }

    /// <summary>
    /// Reads one figure, or three as low..likely..high; a dash, a semicolon or "to" keeps them apart as well. Null for nothing typed.
    /// </summary>
    /// <param name="typed">As typed.</param>
    /// <param name="one">Reads one figure; null where it is none.</param>
    /// <param name="most">The most that is taken, below which it has to stay.</param>
    /// <param name="what">What it is, as a sentence begins with it: "Hours".</param>
    /// <returns>The spread, or what is wrong with it.</returns>
    public static (Spread? Spread, string? Problem) Read(string? typed, Func<string, double?> one, decimal most, string what)
    {
        if (string.IsNullOrWhiteSpace(typed))
            return (null, null);
        var parts = Apart().Split(typed.Trim());
        if (parts[0].Length == 0)
            return (null, $"{what} from 0 up: what costs less than nothing is for the invoice.");
        if (parts.Length is not (1 or 3))
            return (null, $"{what} as one figure, or as three: low..likely..high.");
        var read = new decimal[parts.Length];
        for (var index = 0; index < parts.Length; index++)
        {
            if (one(parts[index]) is not { } value)
                return (null, $"{what} as a number, 2.5, or as low..likely..high: 2..3..5. “{parts[index]}” is none"
                    + $"{(parts[index].Contains(',', StringComparison.Ordinal) ? ": thousands without a comma" : "")}.");
            if (value < 0)
                return (null, $"{what} from 0 up.");
            if (value >= (double)most)
                return (null, $"{what} below {most.ToString("#,0", CultureInfo.InvariantCulture)}.");
            read[index] = Math.Round((decimal)value, 2);
        }
        if (read is [var only])
            return (Of(only), null);
        return read[0] > read[1] || read[1] > read[2]
            ? (null, $"{what}: low, likely and high rise from one to the next; {typed.Trim()} doesn’t.")
            : (new(read[0], read[1], read[2]), null);
    }

    /// <summary>As it is typed: "2.5", "2..3..5".</summary>
    public string AsTyped => IsRange ? string.Join(Between, Say(Low), Say(Likely), Say(High)) : Say(Likely);

    /// <summary>To read: "2.5", "3 (2–5)".</summary>
    public string InWords => IsRange ? $"{Say(Likely)} ({Say(Low)}–{Say(High)})" : Say(Likely);

    private static string Say(decimal figure) => figure.ToString("0.##", CultureInfo.InvariantCulture);

    // "−1" begins with a dash and has nothing before it; a fraction's slash keeps nothing apart.
    [GeneratedRegex(@"\s*(?:\.{2,}|…|[–—−-]|;|\bto\b)\s*", RegexOptions.CultureInvariant | RegexOptions.IgnoreCase)]
    private static partial Regex Apart();
}
