using MellowRivet.Core;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;

namespace MellowRivet.Store;

/// <summary>Loads and saves the work of one inspection, so that a post is carried out once, wholly or not at all.</summary>
public sealed class Desk(RivetDb db, TimeProvider clock, WalkFeed feed, ShopBoard? board = null, Shelf? shelf = null)
{
    /// <summary>The rules and people that an inspection is weighed by, for each aircraft.</summary>
    /// <exception cref="InvalidOperationException">This desk has no shelf to take them from.</exception>
    public async Task<Func<Aircraft, ShopRules>> RulesAsync(CancellationToken stop) => Rules(await Board.PeopleAsync(stop));

    /// <summary>The same with people who are loaded.</summary>
    public Func<Aircraft, ShopRules> Rules(IReadOnlyDictionary<Guid, Person> people) =>
        aircraft => (shelf ?? throw new InvalidOperationException("This desk has no shelf.")).Weigh(aircraft.Category, people);

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

    /// <summary>The same job with more of it: where it is being written, or just was, only what is missing is fetched.</summary>
    /// <param name="job">What there is of it.</param>
    /// <param name="parts">What it is to have.</param>
    /// <param name="stop">Stops waiting.</param>
    /// <param name="aircraft">Its aircraft with every part, where that is at hand: to look at, in the place of
    /// the one that was written.</param>
    public async Task<Job> WithAsync(Job job, JobParts parts, CancellationToken stop, Aircraft? aircraft = null)
    {
        if (aircraft is not null)
            job = job with { Aircraft = aircraft, Has = job.Has | JobParts.Components };
        var missing = parts & ~job.Has;
        if (missing == 0)
            return job;
        var inspection = db.Entry(job.Inspection);
        if (inspection.State == EntityState.Detached)
            return (await LoadAsync(job.Inspection.Id, job.Has | parts, tracking: false, stop, job.Has.HasFlag(JobParts.Components)
                ? job.Aircraft
                : null))!;
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
        return job;
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
            if (job.Has.HasFlag(JobParts.Engine))
            {
                job.Inspection.Follow(job.Aircraft);
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

    /// <summary>Signs an inspection: its records join the shop's chain and its state is set, both or neither.</summary>
    /// <param name="inspectionId">The inspection.</param>
    /// <param name="post">The id the form carried.</param>
    /// <param name="rules">The rules and people it is weighed by.</param>
    /// <param name="signer">Who signs.</param>
    /// <param name="airworthy">Which statement stood before the person who signs: another one isn't signed in its place.</param>
    /// <param name="stop">Stops waiting.</param>
    public async Task<Written> SignAsync(Guid inspectionId, Guid post, ShopRules rules, Signer signer, bool airworthy,
        CancellationToken stop)
    {
        // Looked up in its own turn: a directive that came in a moment ago holds it up.
        return await WriteAskingAsync(inspectionId, post,
            async job => !Readiness.Of(job.Inspection, job.Aircraft, rules,
                (await Board.InTurnAsync(job.Aircraft.Id, stop)).Research).MaySign
            ? new("sign", "There are still things to do before this can be signed: they are listed above.")
            : airworthy == job.Inspection.OpenAirworthiness.Any()
                ? new("sign",
                    "Somebody changed the fix list while you had this open, and the statement is another one now. Read it, then sign.")
                : Seal(db, job, rules.Pack, signer, clock.GetUtcNow(), clock.Today()), stop);
    }

    /// <summary>Signs the status of bulletins as they stand on the aircraft of an inspection: a record of its own in the chain.</summary>
    public async Task<Written> SignStatusAsync(Guid inspectionId, Guid post, RulePack rules, Signer signer, CancellationToken stop)
    {
        var (at, today) = (clock.GetUtcNow(), clock.Today());
        return await db.OnceAsync(post, clock, async () =>
        {
            if (await JobAsync(inspectionId, stop) is not { } job)
                return new("inspection", "There is no such inspection.");
            var research = (await Board.InTurnAsync(job.Aircraft.Id, stop)).Research;
            if (research.Lines.Count == 0)
                return new("sign", "The shop holds no bulletin: there is no status to sign.");
            var draft = RecordWriter.BulletinStatus(job.Inspection, job.Aircraft, rules, research, signer, today);
            db.SignedRecords.Add(SignedRecord.After(await db.SignedRecords.OrderByDescending(record => record.Number)
                .FirstOrDefaultAsync(stop), job.Aircraft.Id, job.Inspection.Id, draft.Book, draft.Content, at));
            return null;
        }, stop);
    }

    /// <summary>
    /// Clears an open item of an aircraft by an entry of its own: the entry joins the shop's chain and the item ends, both or neither.
    /// </summary>
    /// <param name="itemId">The item.</param>
    /// <param name="post">The id the form carried.</param>
    /// <param name="rules">The rule pack of the aircraft.</param>
    /// <param name="done">What was done.</param>
    /// <param name="signer">Who signs.</param>
    /// <param name="stop">Stops waiting.</param>
    public async Task<Written> ClearAsync(Guid itemId, Guid post, ShopRules rules, Correction done, Signer signer, CancellationToken stop)
    {
        var (at, today) = (clock.GetUtcNow(), clock.Today());
        return await db.OnceAsync(post, clock, async () =>
        {
            if (await db.OpenItems.FirstOrDefaultAsync(item => item.Id == itemId, stop) is not { IsOpen: true } item)
                return new("item", "It is not open any more.");
            if (done.Check() is { } wrong)
                return wrong;
            if (done.Kind == CorrectionKind.Deferred)
                return new("action", "To clear it, it is put right: what is deferred stays open.");
            if (done.Reference.Length == 0)
                return new("reference", "By which data: manual, chapter, revision. The entry names it.");
            if (await db.Inspections.Where(row => row.AircraftId == item.AircraftId && row.State == InspectionState.InWork)
                .Select(row => row.WorkOrder).FirstOrDefaultAsync(stop) is { } order)
                return new("item", $"It stands on the fix list of {order}, which is in work: put it right there.");
            var aircraft = await db.Aircraft.WithParts().FirstAsync(row => row.Id == item.AircraftId, stop);
            if (rules.Pack.MayClear(signer.Person, aircraft).By is null)
                return new("sign", rules.Pack.MayClear(signer.Person, aircraft).Reason);
            foreach (var part in done.Parts ?? [])
                if (part.ReplacedComponent is { } replaced
                    && aircraft.Replace(replaced, part.Number, part.SerialIn, today, $"{item.FirstNumber}: {done.Kind.InWords()}")
                    is { } tree)
                    return tree;
            return Clear(db, item, aircraft, rules.Pack, done, signer, at, today);
        }, stop);
    }

    /// <summary>Writes the entry that clears an open item at the end of the chain, and ends the item. Saving is the caller's.</summary>
    public static Refusal? Clear(RivetDb db, OpenItem item, Aircraft aircraft, RulePack rules, Correction done, Signer signer,
        DateTimeOffset at, DateOnly on)
    {
        var left = db.OpenItems.Count(other => other.AircraftId == item.AircraftId && other.Id != item.Id
            && other.Because == OpenBecause.Airworthiness && other.End == null);
        var draft = RecordWriter.Clearing(item, aircraft, rules, done, signer, on, left);
        var record = SignedRecord.After(db.SignedRecords.OrderByDescending(row => row.Number)
            .FirstOrDefault(), item.AircraftId, item.InspectionId, draft.Book, draft.Content, at);
        db.SignedRecords.Add(record);
        item.Close(new(done.InWords, on, signer.Person.Id, $"record {record.Number}"));
        return null;
    }

    /// <summary>
    /// Writes the records that close an inspection at the end of the chain, and closes it, at an instant of one of the
    /// shop's days. Saving is the caller's.
    /// </summary>
    public static Refusal? Seal(RivetDb db, Job job, RulePack rules, Signer signer, DateTimeOffset at, DateOnly on)
    {
        if (db.MarkComplied(job, on) is { } refusal)
            return refusal;
        var last = db.SignedRecords.OrderByDescending(record => record.Number).FirstOrDefault();
        foreach (var draft in RecordWriter.Draft(job.Inspection, job.Aircraft, rules, signer, on))
            db.SignedRecords.Add(last = SignedRecord.After(last, job.Aircraft.Id, job.Inspection.Id, draft.Book, draft.Content, at));
        db.MarkDoneBySigning(job, on);
        db.SettleOpenItems(job.Inspection, signer.Person.Id, on);
        job.Inspection.Sign();
        return null;
    }
}
