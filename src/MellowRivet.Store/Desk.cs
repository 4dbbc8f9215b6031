using MellowRivet.Core;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Signing;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;

namespace MellowRivet.Store;

/// <summary>Loads and saves the work of one inspection, so that a post is carried out once, wholly or not at all.</summary>
public sealed partial class Desk(RivetDb db, TimeProvider clock, WalkFeed feed, ShopBoard? board = null, Shelf? shelf = null,
    WorkClock? work = null)
{
    /// <summary>The rules and people that an inspection is weighed by, for each aircraft.</summary>
    /// <exception cref="InvalidOperationException">This desk has no shelf to take them from.</exception>
    public async Task<Func<Aircraft, ShopRules>> RulesAsync(CancellationToken stop) => Rules(await Board.PeopleAsync(stop));

    /// <summary>The same with people who are loaded.</summary>
    public Func<Aircraft, ShopRules> Rules(IReadOnlyDictionary<Guid, Person> people) =>
        aircraft => (shelf ?? throw new InvalidOperationException("This desk has no shelf.")).Weigh(aircraft.Category, people, clock);

    /// <summary>The shop as it stands.</summary>
    /// <exception cref="InvalidOperationException">This desk has no board to look at.</exception>
    public ShopBoard Board => board ?? throw new InvalidOperationException("This desk has no board.");

    /// <summary>An inspection and its aircraft, to look at and not to change; null where there is none.</summary>
    /// <param name="inspectionId">The inspection.</param>
    /// <param name="stop">Stops waiting.</param>
    /// <param name="parts">What is shown of it.</param>
    /// <param name="aircraft">Its aircraft with every part, where that is at hand; null to fetch what is shown of it.</param>
    public Task<Job?> JobAsync(Guid inspectionId, CancellationToken stop, JobParts parts = JobParts.Whole, Aircraft? aircraft = null) =>
        LoadAsync(inspectionId, parts, tracking: false, stop, aircraft);

    /// <summary>How far an inspection is, by its changes; null where there is none.</summary>
    public Task<JobRevision?> RevisionAsync(Guid inspectionId, CancellationToken stop) =>
        db.Inspections.Where(inspection => inspection.Id == inspectionId)
            .Select(inspection => new JobRevision(inspection.Changes, inspection.AircraftId)).FirstOrDefaultAsync(stop);

    /// <summary>
    /// One task of an inspection with the aircraft's own limits: what a value is judged by. Null where there is no such task.
    /// </summary>
    public async Task<(Job Job, InspectionTask Task)?> TaskAsync(Guid inspectionId, Guid? taskId, CancellationToken stop) =>
        await db.Set<InspectionTask>().AsNoTracking()
            .FirstOrDefaultAsync(row => row.Id == taskId && row.InspectionId == inspectionId, stop) is { } task
            && await LoadAsync(inspectionId, JobParts.Bare, tracking: false, stop) is { } job ? (job, task) : null;

    /// <summary>A job that is being written, with more of it: only what is missing is fetched.</summary>
    /// <param name="job">What there is of it.</param>
    /// <param name="parts">What it is to have.</param>
    /// <param name="stop">Stops waiting.</param>
    public async Task WithAsync(Job job, JobParts parts, CancellationToken stop)
    {
        var missing = parts & ~job.Has;
        if (missing == 0)
            return;
        var inspection = db.Entry(job.Inspection);
        // What is tracked falls into its place by itself. (A collection's own Load would compile its query anew each time.)
        var (id, aircraftId) = (job.Inspection.Id, job.Aircraft.Id);
        if (missing.HasFlag(JobParts.Tasks))
            Hold(inspection.Collection(row => row.Tasks), await db.Set<InspectionTask>().Where(row => row.InspectionId == id)
                .ToListAsync(stop));
        if (missing.HasFlag(JobParts.Discrepancies))
            Hold(inspection.Collection(row => row.Discrepancies), await db.Discrepancies.Where(row => row.InspectionId == id)
                .ToListAsync(stop));
        if (missing.HasFlag(JobParts.Readings))
            Hold(inspection.Collection(row => row.Readings), await db.Readings.Where(row => row.InspectionId == id).ToListAsync(stop));
        if (missing.HasFlag(JobParts.CompressionTests))
            Hold(inspection.Collection(row => row.CompressionTests), await db.Set<CompressionTest>().Where(row => row.InspectionId == id)
                .ToListAsync(stop));
        if (missing.HasFlag(JobParts.Components))
            Hold(db.Entry(job.Aircraft).Collection(row => row.Installations), await db.Installations.Include(row => row.Component)
                .Where(row => row.AircraftId == aircraftId).ToListAsync(stop));
        job.Has |= parts;
    }

    // One that nothing fell into was looked for all the same.
    private static void Hold<TOwner, T>(CollectionEntry<TOwner, T> list, List<T> found) where TOwner : class where T : class =>
        list.CurrentValue ??= found;

    private async Task<Job?> LoadAsync(Guid inspectionId, JobParts parts, bool tracking, CancellationToken stop, Aircraft? aircraft = null)
    {
        var inspections = tracking ? db.Inspections : db.Inspections.AsNoTracking();
        if (parts.HasFlag(JobParts.Tasks))
            inspections = inspections.Include(row => row.Tasks);
        if (parts.HasFlag(JobParts.Discrepancies))
            inspections = inspections.Include(row => row.Discrepancies);
        if (parts.HasFlag(JobParts.Readings))
            inspections = inspections.Include(row => row.Readings);
        if (parts.HasFlag(JobParts.CompressionTests))
            inspections = inspections.Include(row => row.CompressionTests);
        if (await inspections.FirstOrDefaultAsync(row => row.Id == inspectionId, stop) is not { } inspection)
            return null;
        if (aircraft is not null)
            return new(inspection, aircraft) { Has = parts | JobParts.Bare | JobParts.Components };
        var fleet = tracking ? db.Aircraft : db.Aircraft.AsNoTracking();
        if (parts.HasFlag(JobParts.Components))
            fleet = fleet.WithParts();
        return new(inspection, await fleet.FirstAsync(row => row.Id == inspection.AircraftId, stop)) { Has = parts | JobParts.Bare };
    }

    /// <summary>
    /// Carries out a post on an inspection: takes the write lock, loads it, lets Core decide, saves. Whoever writes at the
    /// same time waits their turn and sees what this one left, so Core always decides on the latest.
    /// </summary>
    /// <param name="inspectionId">The inspection.</param>
    /// <param name="post">The id the form carried; a second post with it changes nothing.</param>
    /// <param name="decide">Does the work on the loaded inspection; a refusal leaves everything as it was.</param>
    /// <param name="stop">Stops waiting.</param>
    /// <param name="parts">What the work is done on. Without <see cref="JobParts.Engine"/> nothing can be judged: less is for what measures
    /// nothing and changes no part.</param>
    public Task<Written> WriteAsync(Guid inspectionId, Guid post, Func<Job, Refusal?> decide, CancellationToken stop,
        JobParts parts = JobParts.Whole) =>
        WriteAskingAsync(inspectionId, post, job => Task.FromResult(decide(job)), stop, parts);

    /// <inheritdoc cref="WriteAsync"/>
    public Task<Written> WriteAskingAsync(Guid inspectionId, Guid post, Func<Job, Task<Refusal?>> decide, CancellationToken stop,
        JobParts parts = JobParts.Whole) =>
        WriteOnAsync(inspectionId, post, () => LoadAsync(inspectionId, parts, tracking: true, stop), decide, stop);

    /// <summary>
    /// Answers a task: its turn is short, since only the tasks of its zone are loaded, and what was read at it. Nothing else of the
    /// inspection can be asked for in it, unless <see cref="WithAsync"/> fetches it; the outcome carries no job,
    /// since it would be a part of one.
    /// </summary>
    /// <param name="inspectionId">The inspection.</param>
    /// <param name="taskId">The task.</param>
    /// <param name="post">The id the form carried.</param>
    /// <param name="decide">Does the work, or says why not.</param>
    /// <param name="stop">Stops waiting.</param>
    public async Task<Written> AnswerAsync(Guid inspectionId, Guid? taskId, Guid post, Func<Job, InspectionTask, Task<Refusal?>> decide,
        CancellationToken stop)
    {
        var written = await WriteOnAsync(inspectionId, post, async () =>
        {
            var zone = await db.Set<InspectionTask>().Where(task => task.Id == taskId && task.InspectionId == inspectionId)
                .Select(task => task.ZoneKey).FirstOrDefaultAsync(stop);
            var row = await db.Inspections.Include(row => row.Tasks.Where(task => task.ZoneKey == zone))
                .Include(row => row.Readings.Where(reading => reading.TaskId == taskId))
                .FirstOrDefaultAsync(row => row.Id == inspectionId, stop);
            return row is null ? null
                : new Job(row, await db.Aircraft.FirstAsync(aircraft => aircraft.Id == row.AircraftId, stop)) { Has = JobParts.Bare };
        }, job => job.Inspection.Tasks.FirstOrDefault(task => task.Id == taskId) is { } task
            ? decide(job, task)
            : Task.FromResult<Refusal?>(new("verdict", "There is no such task.")), stop);
        return written with { Job = null };
    }

    private async Task<Written> WriteOnAsync(Guid inspectionId, Guid post, Func<Task<Job?>> load, Func<Job, Task<Refusal?>> decide,
        CancellationToken stop)
    {
        Job? loaded = null;
        var outcome = await db.OnceAsync(post, clock, async () =>
        {
            if (await load() is not { } job)
                return new("inspection", "There is no such inspection.");
            loaded = job;
            var readings = job.Has.HasFlag(JobParts.Readings) ? job.Inspection.Readings.ToList() : null;
            if ((job.Inspection.Closed() ?? await decide(job)) is { } refusal)
                return refusal;
            if (work?.Late is { } said)
                job.Inspection.Came(said, clock.GetUtcNow());
            if (job.Has.HasFlag(JobParts.Engine))
            {
                job.Inspection.Follow(job.Aircraft);
                if (job.Inspection.InWork && job.Has.HasFlag(JobParts.Whole))
                    job.Inspection.AnswerFromSheets(job.Aircraft);
                // A bad judgement is kept from here on, until it is answered.
                if (job.Inspection.InWork)
                    job.Inspection.Remember(job.Aircraft);
            }
            // A reading may belong to no inspection: one that was taken off this one would go on counting in the trends.
            if (readings is not null)
                db.Readings.RemoveRange(readings.Except(job.Inspection.Readings));
            return null;
        }, stop);
        if (outcome is not { Done: true, Repeated: false })
            return outcome;
        feed.Written(inspectionId, post);
        return outcome with { Job = loaded };
    }

    /// <summary>Carries out a post on an aircraft with its parts: in turn, once, wholly or not at all, like one on an inspection.</summary>
    /// <param name="aircraftId">The aircraft.</param>
    /// <param name="post">The id the form carried.</param>
    /// <param name="decide">Does the work, or says why not.</param>
    /// <param name="stop">Stops waiting.</param>
    /// <param name="meters">With all that its meters ever showed: years of readings, for what reads a meter.</param>
    public Task<Written> WriteFileAsync(Guid aircraftId, Guid post, Func<Aircraft, Task<Refusal?>> decide, CancellationToken stop,
        bool meters = false) => db.OnceAsync(post, clock, async () =>
        {
            var fleet = db.Aircraft.WithParts();
            if (await (meters ? fleet.Include(row => row.MeterReadings) : fleet)
                .FirstOrDefaultAsync(row => row.Id == aircraftId, stop) is not { } aircraft)
                return new("aircraft", "There is no such aircraft.");
            if (await decide(aircraft) is { } refusal)
                return refusal;
            await FollowPartsAsync(stop);
            return null;
        }, stop);

    // What came on or off in an aircraft's file while an inspection is in work: its tasks are about what is there now.
    private async Task FollowPartsAsync(CancellationToken stop)
    {
        var touched = db.ChangeTracker.Entries<Installation>()
            .Where(entry => entry.State is EntityState.Added or EntityState.Modified
                && entry.Entity.Component is { Kind: ComponentKind.Engine or ComponentKind.Propeller })
            .Select(entry => entry.Entity.AircraftId).ToHashSet();
        if (touched.Count == 0)
            return;
        foreach (var inspection in await db.Inspections.Include(row => row.Tasks)
            .Where(row => row.State == InspectionState.InWork && touched.Contains(row.AircraftId)).ToListAsync(stop))
            inspection.Follow(db.Aircraft.Local.FirstOrDefault(aircraft => aircraft.Id == inspection.AircraftId)
                ?? await db.Aircraft.WithParts().FirstAsync(aircraft => aircraft.Id == inspection.AircraftId, stop));
    }
}
