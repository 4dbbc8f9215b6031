using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Discrepancies;

/// <summary>Something measured on a picture.</summary>
/// <param name="Kind">A length or a patch.</param>
/// <param name="Value">The length in mm, or the area in mm².</param>
/// <param name="Uncertainty">Expanded uncertainty in the same unit: two standard uncertainties, about 95 of 100.</param>
public sealed record Measured(AnnotationKind Kind, double Value, double Uncertainty)
{
    /// <summary>In millimetres and inches, each with its uncertainty, no finer than the uncertainty allows.</summary>
    public string InWords
    {
        get
        {
            // Between two ends that lie on one another there is nothing to measure.
            if (double.IsNaN(Uncertainty))
                return "no length";
            var (unit, other) = Kind == AnnotationKind.Length ? (Unit.Millimetre, Unit.Inch) : (Unit.SquareMillimetre, Unit.SquareInch);
            return $"{Pair(Value, Uncertainty)} {unit} ({Pair(unit.To(other, Value), unit.To(other, Uncertainty))} {other})";
        }
    }

    // Two figures of the uncertainty, and the value to the same place.
    private static string Pair(double value, double uncertainty)
    {
        var places = uncertainty <= 0 ? 3 : Math.Clamp(1 - (int)Math.Floor(Math.Log10(uncertainty)), 0, 4);
        return $"{Math.Round(value, places).ToString($"F{places}")} ± {Math.Round(uncertainty, places).ToString($"F{places}")}";
    }
}

/// <summary>
/// Pixels to millimetres on one picture, by two points a known distance apart. It holds in the plane of the scale, seen
/// square on, and there alone.
/// </summary>
/// <remarks>
/// Uncertainty by the law of propagation (NIST TN 1297, section A.3, from memory): each point is picked with the same standard
/// uncertainty u in x and in y, independently. A length between points has u(L)² = Σ |∂L/∂p|² u², which is √2·u for a straight
/// one; an area by the shoelace formula u(A)² = Σ ¼|p₊₁ − p₋₁|² u². What the scale adds counts once for a length and twice for an area.
/// </remarks>
public sealed class PhotoScale
{
    /// <summary>The size of each annotation in words; null for one that has none, and a hint while there is no scale.</summary>
    public static IEnumerable<string?> SizesOf(IReadOnlyList<Annotation> annotations)
    {
        var scale = Of(annotations);
        return annotations.Select(annotation => annotation.Kind is AnnotationKind.Length or AnnotationKind.Patch
            ? scale?.Measure(annotation).InWords ?? "draw a scale first"
            : null);
    }

    /// <summary>Said wherever something is measured on a picture.</summary>
    public const string Caution =
        "Holds in the plane of the scale, seen square on. A picture taken at a slant, or a scale nearer than the crack, measures wrong, "
        + "and no uncertainty here says so. Nothing is accepted by a picture: the limit is the manual's, the measurement "
        + "that counts is on the aircraft.";

    private readonly double mmPerPixel, relative;

    private PhotoScale(Annotation scale)
    {
        var pixels = scale.Points[0].To(scale.Points[1]);
        mmPerPixel = scale.KnownMm!.Value / pixels;
        relative = Math.Sqrt(Square(Math.Sqrt(2) * scale.PickPixels / pixels)
            + Square(scale.KnownUncertaintyMm!.Value / scale.KnownMm.Value));
    }

    /// <summary>The scale of a picture; null where none is drawn, or its true distance isn't said.</summary>
    public static PhotoScale? Of(IReadOnlyList<Annotation> annotations) =>
        annotations.FirstOrDefault(annotation => annotation.Kind == AnnotationKind.Scale) is { IsKnown: true, HasNoLength: false } scale
            ? new(scale)
            : null;

    /// <summary>Measures a length or a patch.</summary>
    /// <exception cref="ArgumentException">It is neither.</exception>
    public Measured Measure(Annotation annotation) => annotation.Kind switch
    {
        AnnotationKind.Length => Length(annotation),
        AnnotationKind.Patch => Patch(annotation),
        _ => throw new ArgumentException($"A {annotation.Kind.InWords()} measures nothing.", nameof(annotation)),
    };

    private Measured Length(Annotation annotation)
    {
        var points = annotation.Points;
        var pixels = points.Zip(points.Skip(1)).Sum(pair => pair.First.To(pair.Second));
        double variance = 0;
        for (var at = 0; at < points.Count; at++)
        {
            var (fromX, fromY) = at == 0 ? (0, 0) : Towards(points[at - 1], points[at]);
            var (toX, toY) = at == points.Count - 1 ? (0, 0) : Towards(points[at], points[at + 1]);
            variance += (Square(fromX - toX) + Square(fromY - toY)) * Square(annotation.PickPixels);
        }
        var length = pixels * mmPerPixel;
        return new(AnnotationKind.Length, length, 2 * length * Math.Sqrt((variance / Square(pixels)) + Square(relative)));
    }

    private Measured Patch(Annotation annotation)
    {
        var points = annotation.Points;
        double twice = 0, variance = 0;
        for (var at = 0; at < points.Count; at++)
        {
            var (before, here, after) = (points[(at + points.Count - 1) % points.Count], points[at], points[(at + 1) % points.Count]);
            twice += (here.X * after.Y) - (after.X * here.Y);
            variance += Square(before.To(after)) / 4 * Square(annotation.PickPixels);
        }
        var pixels = Math.Abs(twice) / 2;
        var area = pixels * mmPerPixel * mmPerPixel;
        return new(AnnotationKind.Patch, area, 2 * Math.Sqrt((variance * Square(mmPerPixel * mmPerPixel)) + Square(2 * relative * area)));
    }

    private static (double X, double Y) Towards(Spot from, Spot to)
    {
        var length = from.To(to);
        return length == 0 ? (0, 0) : ((to.X - from.X) / length, (to.Y - from.Y) / length);
    }

    private static double Square(double value) => value * value;
}
