using System.Globalization;

namespace MellowRivet.Core.EngineRun;

/// <summary>
/// Oil pressure before a change against after it, from whatever there is: two lines, one reading against a line, or two readings at
/// one altitude. Only three readings on each side say how certain it is.
/// </summary>
/// <param name="Before">The line through the readings before; null under three of them.</param>
/// <param name="After">The line through those after.</param>
/// <param name="Feet">The altitude the gain is told for, ft; null where nothing can be told.</param>
/// <param name="Psi">The gain, psi; null where nothing can be told.</param>
/// <param name="Half">The half-width that holds the gain 19 times in 20, psi; null under three readings on a side.</param>
/// <param name="Why">What the comparison rests on, in words.</param>
public sealed record AltitudeComparison(AltitudeFit? Before, AltitudeFit? After, double? Feet, double? Psi, double? Half, string Why)
{
    // Two readings this near in altitude are read as one altitude: oil pressure falls by well under a psi there.
    private const double SameAltitudeFeet = 500;

    /// <summary>"16 psi more at 6000 ft, from one reading before: no certainty given."</summary>
    public string InWords => Psi is not { } gain ? Why : string.Create(CultureInfo.InvariantCulture,
        $"{Math.Abs(gain):0.#} psi {(gain < 0 ? "less" : "more")} at {Feet:0} ft"
        + $"{(Half is { } half ? $", give or take {half:0.#}" : "")}, {Small(Why)}");

    /// <summary>Compares the readings.</summary>
    /// <param name="before">Readings before the change.</param>
    /// <param name="after">Readings after it.</param>
    /// <param name="at">The altitude that is asked about, ft; null for where the fewer readings are.</param>
    public static AltitudeComparison Of(IReadOnlyList<AltitudePoint> before, IReadOnlyList<AltitudePoint> after, double? at = null)
    {
        var (one, other) = (AltitudeFit.Fit(before), AltitudeFit.Fit(after));
        if (before.Count == 0 || after.Count == 0)
            return new(one, other, null, null, null, before.Count == 0 && after.Count == 0 ? "Nothing was read yet."
                : $"Nothing was read {(before.Count == 0 ? "before" : "after")} yet: one reading there is enough for an answer.");
        var rests = string.Join(" and ", new[] { From(before, "before"), From(after, "after") });
        if (one is not null && other is not null)
        {
            var feet = at ?? (before.Count <= after.Count ? before : after).Average(point => point.Feet);
            var gain = AltitudeFit.Gain(one, other, feet);
            return new(one, other, feet, gain.Value, gain.Half, $"From the lines through {rests}; the band holds 19 times in 20.");
        }
        if ((one ?? other) is { } line)
        {
            var few = one is null ? before : after;
            var (feet, psi) = (few.Average(point => point.Feet), few.Average(point => point.Psi));
            var gain = one is null ? line.At(feet).Psi - psi : psi - line.At(feet).Psi;
            return new(one, other, at ?? feet, gain, null, $"From {From(few, one is null ? "before" : "after")}"
                + $"{(at is { } asked && Math.Abs(asked - feet) > SameAltitudeFeet ? ", as if it fell alike with altitude" : "")}"
                + ": no certainty given.");
        }
        var (then, now) = (before.Average(point => point.Feet), after.Average(point => point.Feet));
        return Math.Abs(then - now) <= SameAltitudeFeet
            ? new(null, null, at ?? now, after.Average(point => point.Psi) - before.Average(point => point.Psi), null,
                $"From {rests}: no certainty given.")
            : new(null, null, null, null, null, string.Create(CultureInfo.InvariantCulture,
                $"Read at {then:0} ft before and at {now:0} ft after: read one of them again at the other’s altitude."));
    }

    private static string Small(string words) => char.ToLowerInvariant(words[0]) + words[1..];

    private static string From(IReadOnlyList<AltitudePoint> points, string when) =>
        $"{(points.Count == 1 ? "one reading" : $"{points.Count} readings")} {when}";
}
