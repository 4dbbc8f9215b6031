using MellowRivet.Core.Discrepancies;

namespace MellowRivet.Web.Drawings;

/// <summary>One mark as it is drawn over a picture, in pixels of the original.</summary>
/// <param name="Path">The outline.</param>
/// <param name="Label">Its words or its size; null for none.</param>
/// <param name="LabelX">Where the label begins.</param>
/// <param name="LabelY">The label's base line.</param>
/// <param name="Kind">What it is, for its colour.</param>
public sealed record DrawnMark(string Path, string? Label, double LabelX, double LabelY, MarkKind Kind);

/// <summary>Marks over a picture as lines and labels.</summary>
public static class MarkDrawing
{
    public static IReadOnlyList<DrawnMark> Of(Photo photo)
    {
        var marks = photo.Marks ?? [];
        var scale = PhotoScale.Of(marks);
        var size = photo.Width / 40.0;
        return [.. marks.Select(mark =>
        {
            var points = mark.Points;
            var label = mark.Kind switch
            {
                MarkKind.Scale => $"{mark.KnownMm:0.##} mm{(mark.Words.Length > 0 ? $", {mark.Words}" : "")}",
                MarkKind.Length or MarkKind.Patch =>
                    string.Join(" · ", new[] { scale?.Measure(mark).InWords.Split(" (")[0] ?? "no scale yet", mark.Words }
                        .Where(words => words.Length > 0)),
                _ => mark.Words.Length > 0 ? mark.Words : null,
            };
            var at = mark.Kind == MarkKind.Arrow ? points[0] : points.MinBy(point => point.Y);
            return new DrawnMark(PathOf(mark, size), label, Math.Clamp(at.X, size, photo.Width * 0.7),
                Math.Clamp(at.Y - size * 0.6, size * 1.4, photo.Height - size), mark.Kind);
        })];
    }

    private static string PathOf(PhotoMark mark, double size)
    {
        var points = mark.Points;
        string Line(IEnumerable<Spot> spots) => "M" + string.Join(" L", spots.Select(spot => $"{spot.X:0.#} {spot.Y:0.#}"));
        switch (mark.Kind)
        {
            case MarkKind.Words:
                return "";
            case MarkKind.Ring:
                var radius = points[0].To(points[1]);
                return $"M{points[0].X - radius:0.#} {points[0].Y:0.#} a{radius:0.#} {radius:0.#} 0 1 0 {2 * radius:0.#} 0 a"
                    + $"{radius:0.#} {radius:0.#} 0 1 0 {-2 * radius:0.#} 0";
            case MarkKind.Arrow:
                var turn = Math.Atan2(points[1].Y - points[0].Y, points[1].X - points[0].X);
                Spot Barb(double by) => new(points[1].X - size * Math.Cos(turn + by), points[1].Y - size * Math.Sin(turn + by));
                return $"{Line(points)} {Line([Barb(0.45), points[1], Barb(-0.45)])}";
            case MarkKind.Patch:
                return Line(points) + " Z";
            default:
                // A small bar across either end says that it is measured between them.
                var along = Math.Atan2(points[^1].Y - points[0].Y, points[^1].X - points[0].X) + Math.PI / 2;
                Spot Off(Spot spot, double by) => new(spot.X + by * Math.Cos(along), spot.Y + by * Math.Sin(along));
                return $"{Line(points)} {Line([Off(points[0], size / 2), Off(points[0], -size / 2)])} "
                    + $"{Line([Off(points[^1], size / 2), Off(points[^1], -size / 2)])}";
        }
    }
}

/// <summary>The small drawing that a place is pinned on.</summary>
public sealed record PlaceDrawing(Core.Fleet.Configuration Build, Pin? Pin, bool MayPin);
