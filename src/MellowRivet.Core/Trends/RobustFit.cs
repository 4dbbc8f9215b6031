using MathNet.Numerics.Distributions;
using MathNet.Numerics.Statistics;
using MellowRivet.Core.Inspections;

namespace MellowRivet.Core.Trends;

/// <summary>A point of a series: time in service in hours, and the value.</summary>
public readonly record struct TrendPoint(double Hours, double Value)
{
    /// <summary>The reading it stands for; null where it is reckoned from several.</summary>
    public Reading? Of { get; init; }
}

/// <summary>What a line expects at some hours, with the band in which a single reading falls 19 times in 20.</summary>
public readonly record struct Expectation(double Expected, double Low, double High);

/// <summary>
/// A straight line that a few wild readings can't bend: slope by Theil–Sen (the median of all pairwise slopes),
/// intercept by the median of what remains, noise as 1.4826 × the median absolute deviation of the residuals
/// (which equals the standard deviation where the noise is normal).
/// </summary>
/// <remarks>Reference: Theil 1950, Sen 1968, from memory; the tests compare with an independent implementation.</remarks>
public sealed class RobustFit
{
    private const double MadToSigma = 1.4826;
    private readonly int count;
    private readonly double meanHours;
    private readonly double spreadOfHours;

    /// <summary>Value per hour.</summary>
    public double Slope { get; }

    /// <summary>Value at zero hours.</summary>
    public double Intercept { get; }

    /// <summary>Robust standard deviation of the readings about the line.</summary>
    public double Noise { get; }

    /// <summary>Half-width multiplier of the band before distance is counted: Student's t at 97.5 % times the noise.</summary>
    private readonly double bandUnit;

    /// <summary>Fits the line.</summary>
    /// <param name="points">At least three points at two or more different hours.</param>
    /// <param name="leastNoise">The least noise to assume for the band, so that three identical readings don't
    /// promise a perfect fourth.</param>
    /// <exception cref="ArgumentException">Too few points, or all at the same hours.</exception>
    public RobustFit(IReadOnlyList<TrendPoint> points, double leastNoise = 0)
    {
        var slopes = PairwiseSlopes(points).ToList();
        if (points.Count < 3 || slopes.Count == 0)
            throw new ArgumentException("A line with a band needs three points at two different hours.", nameof(points));

        Slope = slopes.Median();
        Intercept = points.Select(point => point.Value - Slope * point.Hours).Median();
        Noise = MadToSigma * points.Select(point => Math.Abs(point.Value - At(point.Hours))).Median();

        count = points.Count;
        meanHours = points.Average(point => point.Hours);
        spreadOfHours = points.Sum(point => Math.Pow(point.Hours - meanHours, 2));
        bandUnit = StudentT.InvCDF(0, 1, count - 2, 0.975) * Math.Max(Noise, leastNoise);
    }

    /// <summary>The line's value.</summary>
    public double At(double hours) => Intercept + Slope * hours;

    /// <summary>The line's value with the band for a single new reading, wider the farther from the readings.</summary>
    public Expectation Expect(double hours)
    {
        var half = bandUnit * Math.Sqrt(1 + 1.0 / count + Math.Pow(hours - meanHours, 2) / spreadOfHours);
        return new(At(hours), At(hours) - half, At(hours) + half);
    }

    /// <summary>
    /// Where the line meets a level, and the range of hours within which the band touches it; an end that it never touches is null.
    /// </summary>
    public (double Hours, double? Earliest, double? Latest)? Crossing(double level)
    {
        if (Slope == 0)
            return null;
        var hours = (level - Intercept) / Slope;

        // The band's edges meet the level where (Slope·u + d)² = bandUnit²·(1 + 1/n + u²/S), with u = hours − mean and
        // d = line at the mean − level: a quadratic in u whose two roots are the two edges (inverse prediction).
        var d = At(meanHours) - level;
        var a = Slope * Slope - bandUnit * bandUnit / spreadOfHours;
        var b = 2 * Slope * d;
        var c = d * d - bandUnit * bandUnit * (1 + 1.0 / count);
        var discriminant = b * b - 4 * a * c;
        if (discriminant < 0 || a == 0)
            return (hours, null, null);
        var (one, other) = ((-b - Math.Sqrt(discriminant)) / (2 * a) + meanHours, (-b + Math.Sqrt(discriminant)) / (2 * a) + meanHours);
        if (a > 0)
            return (hours, Math.Min(one, other), Math.Max(one, other));
        // The slope is lost in the noise: on the far side one edge runs away from the level and never comes back to it.
        var edges = new[] { one, other };
        return (hours,
            edges.Where(edge => edge <= hours).Select(edge => (double?)edge).Max(),
            edges.Where(edge => edge > hours).Select(edge => (double?)edge).Min());
    }

    private static IEnumerable<double> PairwiseSlopes(IReadOnlyList<TrendPoint> points)
    {
        for (var i = 0; i < points.Count; i++)
            for (var j = i + 1; j < points.Count; j++)
                if (points[i].Hours != points[j].Hours)
                    yield return (points[j].Value - points[i].Value) / (points[j].Hours - points[i].Hours);
    }
}
