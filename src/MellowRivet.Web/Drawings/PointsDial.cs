using MellowRivet.Core.Magnetos;

namespace MellowRivet.Web.Drawings;

/// <summary>
/// A magneto's points as a dial in degrees of rotor rotation after neutral: the window in which the main points should open,
/// the window of the retard points after them, and what was read.
/// </summary>
/// <param name="OpensDegrees">Where the main points opened, ° after neutral; null where it wasn't read.</param>
/// <param name="RetardDegrees">How far after them the retard points opened, °; null where it wasn't read.</param>
public sealed record PointsDial(double? OpensDegrees, double? RetardDegrees)
{
    public const int Size = 300, Height = 318, Centre = 150, Radius = 112;

    // The dial shows sixty degrees of the rotor, spread over 300 of the circle.
    private const double Spread = 5, Most = 60;

    /// <summary>Where the main points are judged from: what was read, else the middle of the window.</summary>
    private double MainAt => OpensDegrees ?? (MagnetoSheet.PointsOpen.Band.Low!.Value + MagnetoSheet.PointsOpen.Band.High!.Value) / 2;

    public string MainWindow => Arc(MagnetoSheet.PointsOpen.Band.Low!.Value, MagnetoSheet.PointsOpen.Band.High!.Value, Radius);

    public string RetardWindow =>
        Arc(MainAt + MagnetoSheet.Retard.Band.Low!.Value, MainAt + MagnetoSheet.Retard.Band.High!.Value, Radius - 20);

    public string? MainHand => OpensDegrees is { } at ? Hand(at, Radius + 6) : null;

    public string? RetardHand => RetardDegrees is { } after ? Hand(MainAt + after, Radius - 14) : null;

    public IEnumerable<(double X, double Y, string Text)> Figures =>
        Enumerable.Range(0, 7).Select(tens => Place(tens * 10, Radius + 20) is var (x, y) ? (x, y + 4, $"{tens * 10}°") : default);

    public IEnumerable<string> Ticks =>
        Enumerable.Range(0, 31).Select(step => Place(step * 2, Radius + (step % 5 == 0 ? 9 : 5)) is var (x, y)
            && Place(step * 2, Radius) is var (a, b)
        ? FormattableString.Invariant($"M{a:0.#} {b:0.#}L{x:0.#} {y:0.#}") : "");

    private static (double X, double Y) Place(double degrees, double radius)
    {
        var angle = (Math.Clamp(degrees, -2, Most + 2) * Spread - 150) * Math.PI / 180;
        return (Centre + radius * Math.Sin(angle), Centre - radius * Math.Cos(angle));
    }

    private static string Arc(double from, double to, double radius)
    {
        var ((x1, y1), (x2, y2)) = (Place(from, radius), Place(to, radius));
        return FormattableString.Invariant($"M{x1:0.#} {y1:0.#}A{radius} {radius} 0 0 1 {x2:0.#} {y2:0.#}");
    }

    private static string Hand(double degrees, double length)
    {
        var (x, y) = Place(degrees, length);
        return FormattableString.Invariant($"M{Centre} {Centre}L{x:0.#} {y:0.#}");
    }
}
