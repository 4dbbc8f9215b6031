using MathNet.Numerics.Distributions;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.EngineRun;

/// <summary>Oil pressure at an altitude.</summary>
/// <param name="Feet">Pressure altitude, ft.</param>
/// <param name="Psi">Oil pressure, psi.</param>
public readonly record struct AltitudePoint(double Feet, double Psi);

/// <summary>A value with the half-width that holds it 19 times in 20.</summary>
public readonly record struct Within(double Value, double Half);

/// <summary>
/// A straight line of oil pressure against altitude by ordinary least squares. Points come from one steady climb or descent, so
/// that wild ones are seen on the plot and struck by a person; a robust line would hide how few they are.
/// </summary>
/// <remarks>Reference: simple linear regression; the tests compare with MathNet.Numerics and with SciPy's linregress.</remarks>
public sealed record AltitudeFit
{
    private AltitudeFit(int n, double slope, double intercept, double residual, double meanFeet, double spread) =>
        (N, PsiPerFoot, AtSeaLevel, Residual, this.meanFeet, this.spread) = (n, slope, intercept, residual, meanFeet, spread);

    private readonly double meanFeet, spread;

    public int N { get; }

    /// <summary>Slope, psi per foot.</summary>
    public double PsiPerFoot { get; }

    /// <summary>Pressure at sea level by the line, psi.</summary>
    public double AtSeaLevel { get; }

    /// <summary>Standard deviation of the points about the line, psi.</summary>
    public double Residual { get; }

    /// <summary>Fits the line; null under three points or where all stand at one altitude.</summary>
    public static AltitudeFit? Fit(IReadOnlyList<AltitudePoint> points)
    {
        if (points.Count < 3)
            return null;
        var (feet, psi) = (points.Average(point => point.Feet), points.Average(point => point.Psi));
        var spread = points.Sum(point => Math.Pow(point.Feet - feet, 2));
        if (spread < 1)
            return null;
        var slope = points.Sum(point => (point.Feet - feet) * (point.Psi - psi)) / spread;
        var intercept = psi - slope * feet;
        var squares = points.Sum(point => Math.Pow(point.Psi - intercept - slope * point.Feet, 2));
        return new(points.Count, slope, intercept, Math.Sqrt(squares / (points.Count - 2)), feet, spread);
    }

    /// <summary>The line at an altitude with its standard error.</summary>
    public (double Psi, double Error) At(double feet) =>
        (AtSeaLevel + PsiPerFoot * feet, Residual * Math.Sqrt(1.0 / N + Math.Pow(feet - meanFeet, 2) / spread));

    /// <summary>
    /// What a change gained at an altitude, psi, with its uncertainty: the two lines' errors together, at the fewer degrees of freedom.
    /// </summary>
    public static Within Gain(AltitudeFit before, AltitudeFit after, double feet)
    {
        var ((one, oneError), (other, otherError)) = (before.At(feet), after.At(feet));
        var t = StudentT.InvCDF(0, 1, Math.Min(before.N, after.N) - 2, 0.975);
        return new(other - one, t * Math.Sqrt(oneError * oneError + otherError * otherError));
    }

    /// <summary>Reads points as hands type them, or as a table pasted: altitude in feet and pressure in psi, a pair on each line.</summary>
    public static (IReadOnlyList<AltitudePoint> Points, Refusal? Refusal) Read(string? typed)
    {
        var points = new List<AltitudePoint>();
        foreach (var line in (typed ?? "").Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
        {
            var numbers = line.Split((char[])[' ', '\t', ';'], StringSplitOptions.RemoveEmptyEntries).Select(TypedNumber.Parse).ToList();
            if (numbers is not [{ } feet, { } psi] || feet is < -2_000 or > 60_000 || psi is < 0 or > 500)
                return ([], new("points", $"“{line}”: a line is the altitude in ft and the oil pressure in psi, such as 6000 54."));
            points.Add(new(feet, psi));
        }
        return points.Count > 500 ? ([], new("points", "Up to 500 points.")) : (points, null);
    }
}
