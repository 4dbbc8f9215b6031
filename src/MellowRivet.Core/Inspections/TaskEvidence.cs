using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Trends;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Inspections;

/// <summary>A value at a task that is typed and not kept yet.</summary>
/// <param name="Value">In the unit of the limits.</param>
/// <param name="Celsius">The temperature it was read at; null where it wasn't said.</param>
/// <param name="At">The time in service that its series runs on, now.</param>
public sealed record TypedNow(double Value, double? Celsius, Hours At);

/// <summary>What is known of a measured task from before, and where it goes.</summary>
/// <param name="Before">Readings of its kind on the part that is fitted now, latest first.</param>
/// <param name="Series">The same as a series, with what is typed: how far each is off the table where a table judges.</param>
/// <param name="Band">The limits that the series runs between; null for a task that doesn't measure.</param>
/// <param name="Trend">Its trend.</param>
/// <param name="Wear">For what wears: how long it lasts; null otherwise.</param>
public sealed record TaskEvidence(IReadOnlyList<Reading> Before, IReadOnlyList<TrendPoint> Series, ToleranceBand? Band,
    TrendReading? Trend, Wear? Wear)
{
    public static readonly TaskEvidence None = new([], [], null, null, null);

    // What a pad gauge or a vernier in the hangar tells apart: half a hundredth of an inch.
    private const double LengthInches = 0.005;

    /// <param name="task">The task.</param>
    /// <param name="aircraft">The aircraft, for its own limits and tables.</param>
    /// <param name="before">Readings of its kind on the part that is fitted now, latest first.</param>
    /// <param name="typed">A value that is typed; null where there is none.</param>
    public static TaskEvidence Of(InspectionTask task, Aircraft aircraft, IReadOnlyList<Reading> before, TypedNow? typed = null)
    {
        if (task.Measure is not { } measure || TaskJudge.BandFor(task, aircraft) is not { } band)
            return None;
        // Tensions at different temperatures compare only by how far each is off the table.
        var table = TaskJudge.TableFor(task, aircraft);
        double? Level(double value, double? celsius) =>
            table is null ? value : celsius is { } at && table.Target(at) is { } target ? value - target : null;

        // Of two readings at one time in service the later counts.
        var series = before.Where(reading => typed is null || reading.TaskId != task.Id).GroupBy(reading => reading.SeriesTime)
            .Select(same => (Hours: (double)same.Key.Value, Value: Level(In(band.Unit, same.First()), same.First().Conditions.Celsius)))
            .Where(point => point.Value is not null).Select(point => new TrendPoint(point.Hours, point.Value!.Value)).ToList();
        if (typed is not null && Level(typed.Value, typed.Celsius) is { } level)
        {
            var now = (double)typed.At.Value;
            series = [.. series.Where(point => point.Hours != now), new(now, level)];
        }
        if (table is not null)
            band = new(Unit.Pound, -table.TolerancePounds, table.TolerancePounds, new(Standing.Manual, table.Reference));
        var wear = measure.Method == MeasureMethod.Wear && band.Low is { } least
            ? Wear.Of(series, least, band.Unit.Dimension == Dimension.Length ? Unit.Inch.To(band.Unit, LengthInches) : 0)
            : null;
        return new(before, series, band,
            Trends.Trend.Read(series, limit: band.Low ?? band.High, direction: band.Low is null ? Direction.Rising : Direction.Falling),
            wear);
    }

    private static double In(Unit unit, Reading reading) => Unit.Find(reading.UnitSymbol)!.To(unit, reading.Value);
}
