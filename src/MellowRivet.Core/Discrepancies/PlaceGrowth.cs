using MellowRivet.Core.Measures;
using MellowRivet.Core.Trends;

namespace MellowRivet.Core.Discrepancies;

/// <summary>What was measured on pictures of one place, inspection after inspection.</summary>
/// <param name="Unit">The unit of the points.</param>
/// <param name="Points">A point for each inspection, by its time in service.</param>
/// <param name="InWords">How far the last differs from the one before, against what the pictures can tell.</param>
public sealed record PlaceGrowth(Unit Unit, IReadOnlyList<TrendPoint> Points, string InWords)
{
    /// <summary>
    /// One point for each inspection: the longest length, or where none is measured the largest patch. Null under two points.
    /// </summary>
    /// <param name="history">What was found at the place before.</param>
    /// <param name="found">What is found there now.</param>
    /// <param name="timeInService">The aircraft's time in service now, hours.</param>
    public static PlaceGrowth? Of(PlaceHistory history, Discrepancy found, decimal timeInService)
    {
        var finds = history.Same.Select(find => (find.TimeInService, find.Found)).Append((timeInService, found)).ToList();
        return Of(finds, AnnotationKind.Length, Unit.Millimetre) ?? Of(finds, AnnotationKind.Patch, Unit.SquareMillimetre);
    }

    private static PlaceGrowth? Of(IEnumerable<(decimal TimeInService, Discrepancy Found)> finds, AnnotationKind kind, Unit unit)
    {
        var points = finds.Select(find => (find.TimeInService, Size: Largest(find.Found, kind))).Where(point => point.Size is not null)
            .GroupBy(point => point.TimeInService).Select(same => same.MaxBy(point => point.Size!.Value))
            .OrderBy(point => point.TimeInService).ToList();
        if (points.Count < 2)
            return null;
        var (before, now) = (points[^2].Size!, points[^1].Size!);
        var grown = now.Value - before.Value;
        // Two measurements differ where their difference is more than both uncertainties together.
        var apart = Math.Sqrt(before.Uncertainty * before.Uncertainty + now.Uncertainty * now.Uncertainty);
        var words = Math.Abs(grown) <= apart
            ? $"No change that the pictures can tell: {grown:+0.0;−0.0} {unit} is within ± {apart:0.0}."
            : $"{(grown > 0 ? "Grown" : "Smaller")} by {Math.Abs(grown):0.0} ± {apart:0.0} {unit} in "
                + $"{points[^1].TimeInService - points[^2].TimeInService:0.#} h.";
        return new(unit, [.. points.Select(point => new TrendPoint((double)point.TimeInService, point.Size!.Value))], words);
    }

    private static Measured? Largest(Discrepancy found, AnnotationKind kind) =>
        found.Photos.SelectMany(photo => photo.Measured).Where(measured => measured.Kind == kind).MaxBy(measured => measured.Value);
}
