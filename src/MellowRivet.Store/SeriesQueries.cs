using MellowRivet.Core.EngineLogs;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Trends;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>An engine monitor's log in its list.</summary>
public sealed record LogHeader(Guid Id, string Name, DateTimeOffset AddedAt);

/// <summary>What was measured: a part's series go along with it, whichever aircraft it flew on.</summary>
public static class SeriesQueries
{
    // Readings of a task that are looked at: more don't fit its plot.
    private const int MostEvidence = 40;

    private const int PartsAtOnce = 200;

    /// <summary>Readings on some parts, wherever they flew, and on the airframe of an aircraft.</summary>
    /// <param name="db">The shop.</param>
    /// <param name="parts">The parts.</param>
    /// <param name="airframe">The aircraft whose own readings are wanted as well; null for none.</param>
    public static IQueryable<Reading> SeriesOf(this RivetDb db, IEnumerable<Guid> parts, Guid? airframe = null)
    {
        var ids = parts.Select(part => (Guid?)part).Distinct().ToList();
        return db.Readings.AsNoTracking()
            .Where(reading => ids.Contains(reading.ComponentId) || (reading.AircraftId == airframe && reading.ComponentId == null));
    }

    /// <summary>Every series of an aircraft that is loaded with its parts: one query, however many there are.</summary>
    /// <param name="db">The shop.</param>
    /// <param name="aircraft">The aircraft.</param>
    /// <param name="axis">The hours it is drawn over.</param>
    /// <param name="surveyed">What a buyer had measured as well: no business of whoever owns the aircraft.</param>
    /// <param name="stop">Stops waiting.</param>
    public static async Task<IReadOnlyList<SeriesGroup>> SeriesOfAsync(this RivetDb db, Aircraft aircraft, HoursAxis axis, bool surveyed,
        CancellationToken stop)
    {
        var readings = axis == HoursAxis.Part
            ? db.SeriesOf(aircraft.Installations.Where(stay => stay.IsOn).Select(stay => stay.ComponentId), aircraft.Id)
            : db.Readings.AsNoTracking().Where(reading => reading.AircraftId == aircraft.Id);
        if (!surveyed)
            readings = readings.Where(reading => !db.Inspections.Any(row => row.Id == reading.InspectionId
                && row.Kind == InspectionKind.Survey));
        return AircraftSeries.Of(aircraft, await readings.ToListAsync(stop), axis);
    }

    /// <summary>Compressions of every cylinder that is or was on an engine here, wherever else each flew.</summary>
    public static Task<List<Reading>> CompressionsOfAsync(this RivetDb db, Aircraft aircraft, Component engine, CancellationToken stop) =>
        db.SeriesOf(aircraft.Installations.Where(stay => stay.ParentId == engine.Id && stay.Component.Kind == ComponentKind.Cylinder)
            .Select(stay => stay.ComponentId))
            .Where(reading => reading.Kind == Reading.CompressionKind).ToListAsync(stop);

    /// <summary>The log of an engine that came last; null where none did.</summary>
    public static Task<EngineLog?> LatestLogAsync(this RivetDb db, Guid engineId, CancellationToken stop) =>
        db.EngineLogs.AsNoTracking().Where(log => log.EngineId == engineId).OrderByDescending(log => log.AddedAt).FirstOrDefaultAsync(stop);

    /// <summary>The logs of an engine by name and day, the latest first, without what is in them.</summary>
    public static async Task<IReadOnlyList<LogHeader>> LogsOfAsync(this RivetDb db, Guid engineId, CancellationToken stop) =>
        await db.EngineLogs.AsNoTracking().Where(log => log.EngineId == engineId).OrderByDescending(log => log.AddedAt)
            .Select(log => new LogHeader(log.Id, log.Name, log.AddedAt)).ToListAsync(stop);

    /// <summary>One log, with its flights.</summary>
    public static Task<EngineLog?> LogAsync(this RivetDb db, Guid id, CancellationToken stop) =>
        db.EngineLogs.AsNoTracking().FirstOrDefaultAsync(log => log.Id == id, stop);

    /// <summary>The hours on which a reading of a part would stand in its series, taken now at a time in service of its aircraft.</summary>
    public static async Task<Hours> SeriesTimeAsync(this RivetDb db, Guid aircraftId, Guid? componentId, Hours aircraftTime,
        DateTimeOffset at, CancellationToken stop) => componentId is { } part
        ? new PartHours(await db.Installations.AsNoTracking().Where(stay => stay.ComponentId == part)
            .ToListAsync(stop)).At(aircraftId, aircraftTime, at) ?? aircraftTime
        : aircraftTime;

    /// <summary>A shop from before readings were counted on their parts' own hours: the stays say what those were.</summary>
    public static async Task CountAllOnPartsAsync(this RivetDb db, CancellationToken stop)
    {
        var stays = (await db.Installations.AsNoTracking().ToListAsync(stop)).ToLookup(stay => stay.ComponentId);
        foreach (var some in stays.Select(group => group.Key).Chunk(PartsAtOnce))
        {
            var ids = some.Select(part => (Guid?)part).ToList();
            foreach (var reading in await db.Readings.Where(reading => ids.Contains(reading.ComponentId)).ToListAsync(stop))
                reading.CountOn(new(stays[reading.ComponentId!.Value]));
            await db.SaveChangesAsync(stop);
            db.ChangeTracker.Clear();
        }
    }

    /// <summary>
    /// Counts readings on their parts' own hours: those that are being added, and all of a part whose stays are being changed.
    /// A stay that was put right so puts right what was read during it, and after it.
    /// </summary>
    internal static async Task CountOnPartsAsync(this RivetDb db, CancellationToken stop)
    {
        var changed = db.ChangeTracker.Entries<Installation>()
            .Where(entry => entry.State is EntityState.Added or EntityState.Modified or EntityState.Deleted)
            .Select(entry => entry.Entity.ComponentId).ToHashSet();
        var added = db.ChangeTracker.Entries<Reading>()
            .Where(entry => entry.Entity.ComponentId is not null && (entry.State == EntityState.Added
                || (entry.State == EntityState.Modified && entry.Property(reading => reading.TimeInService).IsModified)))
            .Select(entry => entry.Entity).ToList();
        if (changed.Count + added.Count == 0)
            return;
        var parts = added.Select(reading => reading.ComponentId!.Value).Concat(changed).ToHashSet();
        // Tracked ones come as they are now, in the middle of this save.
        await db.Installations.Where(stay => parts.Contains(stay.ComponentId)).LoadAsync(stop);
        var hours = db.Installations.Local.Where(stay => parts.Contains(stay.ComponentId)).GroupBy(stay => stay.ComponentId)
            .ToDictionary(stays => stays.Key, stays => new PartHours(stays));
        if (changed.Count > 0)
            await db.Readings.Where(reading => changed.Contains(reading.ComponentId!.Value)).LoadAsync(stop);
        foreach (var reading in db.Readings.Local.Where(reading => reading.ComponentId is { } part && parts.Contains(part)).ToList())
            if (hours.TryGetValue(reading.ComponentId!.Value, out var own))
            {
                reading.CountOn(own);
                db.Entry(reading).DetectChanges();
            }
    }

    /// <summary>Everything that was read on a part.</summary>
    /// <param name="db">The shop.</param>
    /// <param name="part">The part.</param>
    /// <param name="stop">Stops waiting.</param>
    /// <param name="kind">Of this kind only; null for all.</param>
    public static async Task<IReadOnlyList<Reading>> ReadOnAsync(this RivetDb db, Guid part, CancellationToken stop, string? kind = null)
    {
        var readings = db.SeriesOf([part]);
        return await (kind is null ? readings : readings.Where(reading => reading.Kind == kind)).ToListAsync(stop);
    }

    /// <summary>The latest readings of a kind on a part, or on the airframe of an aircraft, latest first.</summary>
    public static async Task<IReadOnlyList<Reading>> LatestAsync(this RivetDb db, Guid aircraftId, Guid? part, string kind, int most,
        CancellationToken stop) =>
        await (part is { } on ? db.SeriesOf([on]) : db.SeriesOf([], aircraftId)).Where(reading => reading.Kind == kind)
            .OrderByDescending(reading => reading.At).Take(most).ToListAsync(stop);

    /// <summary>Gaps of some plugs, as found and as set, wherever they were.</summary>
    public static async Task<ILookup<Guid?, Reading>> GapsOfAsync(this RivetDb db, IEnumerable<Guid> plugs, CancellationToken stop) =>
        (await db.SeriesOf(plugs).Where(reading => reading.Kind == PlugKinds.GapSet || reading.Kind == PlugKinds.GapFound)
            .ToListAsync(stop))
            .ToLookup(reading => reading.ComponentId);

    /// <summary>What is known of a measured task from before, and where it goes.</summary>
    /// <param name="db">The shop.</param>
    /// <param name="job">The inspection and its aircraft.</param>
    /// <param name="task">The task.</param>
    /// <param name="typed">A value that is typed and not kept yet, with its temperature; null where there is none.</param>
    /// <param name="stop">Stops waiting.</param>
    public static async Task<TaskEvidence> EvidenceAsync(this RivetDb db, Job job, InspectionTask task,
        (double Value, double? Celsius)? typed, CancellationToken stop)
    {
        if (task.Measure is not { } measure)
            return TaskEvidence.None;
        // A new engine begins new series; one that came from another aircraft brings its own.
        var before = await db.LatestAsync(job.Aircraft.Id, task.ComponentId, measure.Kind, MostEvidence, stop);
        TypedNow? now = typed is not var (value, celsius) ? null : new(value, celsius,
            await db.SeriesTimeAsync(job.Aircraft.Id, task.ComponentId, job.Inspection.TimeInService, DateTimeOffset.MaxValue, stop));
        return TaskEvidence.Of(task, job.Aircraft, before, now);
    }
}
