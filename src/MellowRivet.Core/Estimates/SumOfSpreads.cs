namespace MellowRivet.Core.Estimates;

/// <summary>
/// What independent spreads come to together. Mean and variance are exact. A tenth lies below <see cref="P10"/> and nine tenths below
/// <see cref="P90"/>: in closed form for one range, by the exact convolution of two, and from three on by the normal law with that mean
/// and variance, which three triangles together are close to.
/// </summary>
/// <param name="Sum">Low, likely and high, each added up.</param>
/// <param name="Mean">The mean.</param>
/// <param name="Variance">The variance.</param>
/// <param name="P10">One time in ten it is less.</param>
/// <param name="P90">Nine times in ten it is less.</param>
public sealed record SumOfSpreads(Spread Sum, double Mean, double Variance, double P10, double P90)
{
    // The 90 % point of the standard normal law (NIST/SEMATECH e-Handbook of Statistical Methods, 1.3.6.7.1).
    private const double Ninety = 1.2815515655446004;

    public static SumOfSpreads Of(IEnumerable<Spread> parts)
    {
        var all = parts.ToList();
        var sum = all.Aggregate(Spread.Of(0), (one, other) => one + other);
        // In one unit of the shop's money no sum of a shop goes past what a double holds to the cent.
        var (mean, variance) = ((double)sum.Mean, all.Sum(part => part.Variance));
        var ranges = all.Where(part => part.IsRange).ToList();
        var certain = (double)all.Where(part => !part.IsRange).Sum(part => part.Likely);
        double At(double share) => ranges switch
        {
            [] => certain,
            [var only] => certain + only.Quantile(share),
            [var one, var other] => certain + OfTwo(one, other, share),
            _ => mean + (share < 0.5 ? -Ninety : Ninety) * Math.Sqrt(variance),
        };
        return new(sum, mean, variance, At(0.1), At(0.9));
    }

    // The share below a value rises with it, so halving finds the value: sixty times is past what a double tells apart.
    private static double OfTwo(Spread one, Spread other, double share)
    {
        var (from, to) = ((double)(one.Low + other.Low), (double)(one.High + other.High));
        for (var round = 0; round < 60; round++)
        {
            var middle = (from + to) / 2;
            if (Below(one, other, middle) < share)
                from = middle;
            else
                to = middle;
        }
        return (from + to) / 2;
    }

    // The integral of one's density times the other's share below what is left. Between the corners of both the integrand is a cubic,
    // and Simpson's rule is exact for cubics.
    private static double Below(Spread one, Spread other, double value)
    {
        var (low, high) = ((double)one.Low, (double)one.High);
        var corners = new[]
            {
                low, (double)one.Likely, high, value - (double)other.Low, value - (double)other.Likely, value - (double)other.High,
            }
            .Select(corner => Math.Clamp(corner, low, high)).Order().ToList();
        double At(double x) => one.Density(x) * other.Below(value - x);
        var below = 0.0;
        for (var index = 1; index < corners.Count; index++)
        {
            var (from, to) = (corners[index - 1], corners[index]);
            // A density that jumps at its edge is taken from inside the piece.
            if (to > from)
                below += (to - from) / 6 * (Inside(from, to, At) + (4 * At((from + to) / 2)) + Inside(to, from, At));
        }
        return below;
    }

    private static double Inside(double edge, double towards, Func<double, double> at) => at(edge + ((towards - edge) * 1e-12));
}
