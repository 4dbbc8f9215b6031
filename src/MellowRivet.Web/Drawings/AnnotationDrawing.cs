using MellowRivet.Core.Discrepancies;

namespace MellowRivet.Web.Drawings;

/// <summary>One annotation as it is drawn over a picture, in pixels of the original.</summary>
/// <param name="Annotation">What is drawn.</param>
/// <param name="Path">The outline.</param>
/// <param name="Label">Its size, or its words; null for none.</param>
/// <param name="Aside">The words of one that has a size; empty for none.</param>
/// <param name="At">The point that the label stands at.</param>
/// <param name="Above">Whether the label stands above that point; near the upper edge it stands below.</param>
/// <param name="Rightward">Whether the label runs to the right of it; towards the right edge it ends there.</param>
public sealed record DrawnAnnotation(Annotation Annotation, string Path, string? Label, string Aside, Spot At, bool Above, bool Rightward)
{
    public string Kind => Annotation.Kind.InWords();

    public string? InFull => Aside.Length > 0 ? $"{Label} · {Aside}" : Label;
}

/// <summary>Annotations over a picture as lines and labels.</summary>
public static class AnnotationDrawing
{
    public static IReadOnlyList<DrawnAnnotation> Of(Photo photo)
    {
        var annotations = photo.Annotations ?? [];
        var (size, scale) = (Size(photo), PhotoScale.Of(annotations));
        return [.. annotations.Select(annotation =>
        {
            var (label, aside) = annotation.Kind switch
            {
                AnnotationKind.Scale => (annotation.KnownMm is { } known ? $"{known:0.##} mm" : "? mm", annotation.Words),
                AnnotationKind.Length or AnnotationKind.Patch => 
                    (scale?.Measure(annotation).InWords.Split(" (")[0] ?? "no scale yet", annotation.Words),
                _ => (annotation.Words.Length > 0 ? annotation.Words : null, ""),
            };
            var at = annotation.Kind == AnnotationKind.Arrow ? annotation.Points[0] : annotation.Points.MinBy(point => point.Y);
            return new DrawnAnnotation(annotation, PathOf(annotation, size), label, aside, at, at.Y > size * 2, at.X < photo.Width * 0.6);
        })];
    }

    /// <summary>The height of a label's letters, and the length of a barb, in pixels of the original.</summary>
    public static double Size(Photo photo) => photo.Width / 40.0;

    private static string PathOf(Annotation annotation, double size)
    {
        var points = annotation.Points;
        string Line(IEnumerable<Spot> spots) => "M" + string.Join(" L", spots.Select(spot => $"{spot.X:0.#} {spot.Y:0.#}"));
        switch (annotation.Kind)
        {
            case AnnotationKind.Words:
                return "";
            case AnnotationKind.Ring:
                var radius = points[0].To(points[1]);
                return $"M{points[0].X - radius:0.#} {points[0].Y:0.#} a{radius:0.#} {radius:0.#} 0 1 0 {2 * radius:0.#} 0 a"
                    + $"{radius:0.#} {radius:0.#} 0 1 0 {-2 * radius:0.#} 0";
            case AnnotationKind.Arrow:
                var turn = Math.Atan2(points[1].Y - points[0].Y, points[1].X - points[0].X);
                var barb = Math.Min(size, points[0].To(points[1]) / 2);
                Spot Barb(double by) => new(points[1].X - barb * Math.Cos(turn + by), points[1].Y - barb * Math.Sin(turn + by));
                return $"{Line(points)} {Line([Barb(0.45), points[1], Barb(-0.45)])}";
            case AnnotationKind.Patch:
                return Line(points) + " Z";
            default:
                // A small bar across either end says that it is measured between them; it doesn't hide a short crack.
                var bar = Math.Min(size / 2, points[0].To(points[^1]) / 8);
                var along = Math.Atan2(points[^1].Y - points[0].Y, points[^1].X - points[0].X) + Math.PI / 2;
                Spot Off(Spot spot, double by) => new(spot.X + by * Math.Cos(along), spot.Y + by * Math.Sin(along));
                return $"{Line(points)} {Line([Off(points[0], bar), Off(points[0], -bar)])} "
                    + $"{Line([Off(points[^1], bar), Off(points[^1], -bar)])}";
        }
    }
}

/// <summary>The small drawing that a place is pinned on.</summary>
public sealed record PlaceDrawing(Core.Fleet.Configuration Build, Pin? Pin, bool MayPin);
