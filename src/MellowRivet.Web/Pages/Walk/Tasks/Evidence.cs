using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Trends;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Drawings;

namespace MellowRivet.Web.Pages.Walk.Tasks;

/// <summary>A value judged as it is typed, with what follows from it.</summary>
public sealed record JudgedTask(Guid Walk, InspectionTask Task, Judgement Judgement, MeasureForm Typed, Evidence Evidence)
{
    /// <summary>Keeps the value as it was read, and goes on to the fix list with its judgement.</summary>
    public string ToFixList => $"/walk/{Walk}/{Seam.Place(Task.Station)}/{Task.ZoneKey}?task={Task.Id}&handler=Verdict&then=find";
}

/// <summary>What is known of a measured task from before, and where it goes.</summary>
/// <param name="Before">Readings of its kind on the part that is fitted now, latest first.</param>
/// <param name="Plot">Their plot against time in service; null under two.</param>
/// <param name="Trend">Their trend.</param>
/// <param name="Wear">For what wears: how long it lasts; null otherwise.</param>
public sealed record Evidence(IReadOnlyList<Reading> Before, ReadingPlot? Plot, TrendReading? Trend, Wear? Wear)
{
    private const int MostShown = 40;

    public static readonly Evidence None = new([], null, null, null);

    /// <param name="db">The shop.</param>
    /// <param name="job">The inspection and its aircraft.</param>
    /// <param name="task">The task.</param>
    /// <param name="typed">A value that is typed and not kept yet, in the unit of the limits; null where there is none.</param>
    /// <param name="stop">Stops waiting.</param>
    public static async Task<Evidence> OfAsync(RivetDb db, Job job, InspectionTask task, (double Value, double? Celsius)? typed,
        CancellationToken stop)
    {
        if (task.Measure is not { } measure || TaskJudge.BandFor(task, job.Aircraft) is not { } band)
            return None;
        // Tensions at different temperatures compare only by how far each is off the table.
        var table = TaskJudge.TableFor(task, job.Aircraft);
        double? Level(double value, double? celsius) =>
            table is null ? value : celsius is { } at && table.Target(at) is { } target ? value - target : null;

        // A new engine begins new series; one that came from another aircraft brings its own.
        var before = await db.LatestAsync(job.Aircraft.Id, task.ComponentId, measure.Kind, MostShown, stop);
        // Of two readings at one time in service the later counts.
        var series = before.Where(reading => typed is null || reading.TaskId != task.Id).GroupBy(reading => reading.SeriesTime)
            .Select(same => (Hours: (double)same.Key.Value,
                Value: Level(Unit.Find(same.First().UnitSymbol)!.To(band.Unit, same.First().Value), same.First().Conditions.Celsius)))
            .Where(point => point.Value is not null).Select(point => new TrendPoint(point.Hours, point.Value!.Value)).ToList();
        if (typed is { } now && Level(now.Value, now.Celsius) is { } level)
        {
            var hours = await db.SeriesTimeAsync(job.Aircraft.Id, task.ComponentId, job.Inspection.TimeInService,
                DateTimeOffset.MaxValue, stop);
            series = [.. series.Where(point => point.Hours != (double)hours.Value), new((double)hours.Value, level)];
        }
        if (table is not null)
            band = new(Unit.Pound, -table.TolerancePounds, table.TolerancePounds, new(Core.Judgements.Standing.Manual, table.Reference));
        var wear = measure.Method == MeasureMethod.Wear && band.Low is { } least ? Wear.Of(series, least, Resolution(band.Unit)) : null;
        return new(before, series.Count < 2
            ? null
            : new(series, band), Core.Trends.Trend.Read(series, limit: band.Low ?? band.High, direction: band.Low is null
                ? Direction.Rising
                : Direction.Falling), wear);
    }

    // What a pad gauge or a vernier in the hangar tells apart: half a hundredth of an inch.
    private static double Resolution(Unit unit) => unit.Dimension == Dimension.Length ? Unit.Inch.To(unit, 0.005) : 0;
}
