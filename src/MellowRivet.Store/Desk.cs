using MellowRivet.Core;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Records;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>An inspection with its aircraft, as a page works on them.</summary>
public sealed record Job(Inspection Inspection, Aircraft Aircraft);

/// <summary>Loads and saves the work of one inspection, so that a post is carried out once, wholly or not at all.</summary>
public sealed class Desk(RivetDb db, TimeProvider clock, WalkFeed feed, DueBoard? board = null, JobsAtHand? hand = null) : IDisposable
{
    private Job? held;

    /// <summary>An aircraft's due line with the shop's bulletins on it, as the board keeps it.</summary>
    /// <param name="aircraft">The aircraft as it was just loaded.</param>
    /// <param name="stop">Stops waiting.</param>
    public Task<DueLine> DueLineAsync(Aircraft aircraft, CancellationToken stop)
    {
        var today = clock.Today();
        return board is null ? db.DueLineAsync(aircraft, today, stop) : board.LineAsync(db, aircraft, today, stop);
    }

    /// <summary>Every bulletin of the shop on one aircraft, with those that don't apply and why.</summary>
    public async Task<BulletinResearch> ResearchAsync(Guid aircraftId, CancellationToken stop) =>
        board is null ? BulletinResearch.None : await board.ResearchAsync(db, aircraftId, clock.Today(), stop);

    /// <summary>The inspection with everything in it, and its aircraft, to look at and not to change; null where there is none.</summary>
    public async Task<Job?> JobAsync(Guid inspectionId, CancellationToken stop) =>
        held = await TakeUpAsync(inspectionId, stop) ?? await LoadAsync(inspectionId, tracking: false, stop);

    private async Task<Job?> LoadAsync(Guid inspectionId, bool tracking, CancellationToken stop)
    {
        var inspections = tracking ? db.Inspections : db.Inspections.AsNoTracking();
        var inspection = await inspections
            .Include(row => row.Tasks).Include(row => row.Discrepancies).Include(row => row.Readings).Include(row => row.CompressionTests)
            .FirstOrDefaultAsync(row => row.Id == inspectionId, stop);
        if (inspection is null)
            return null;
        // A part that came back is one part: two of it couldn't be taken up again.
        var fleet = tracking ? db.Aircraft : db.Aircraft.AsNoTrackingWithIdentityResolution();
        return new(inspection, await fleet.WithParts().FirstAsync(row => row.Id == inspection.AircraftId, stop));
    }

    /// <summary>
    /// Carries out a post on an inspection: takes the write lock, loads it, lets Core decide, saves. Whoever writes at the
    /// same time waits their turn and sees what this one left, so Core always decides on the latest.
    /// </summary>
    /// <param name="inspectionId">The inspection.</param>
    /// <param name="post">The id the form carried; a second post with it changes nothing.</param>
    /// <param name="decide">Does the work on the loaded inspection; a refusal leaves everything as it was.</param>
    /// <param name="stop">Stops waiting.</param>
    public async Task<Written> WriteAsync(Guid inspectionId, Guid post, Func<Job, Refusal?> decide, CancellationToken stop)
    {
        Job? loaded = null;
        var outcome = await db.OnceAsync(post, clock, async () =>
        {
            var job = await TakeUpAsync(inspectionId, stop);
            if (job is not null)
                db.AttachRange(job.Aircraft, job.Inspection);
            else if ((job = await LoadAsync(inspectionId, tracking: true, stop)) is null)
                return new("inspection", "There is no such inspection.");
            loaded = job;
            var readings = job.Inspection.Readings.ToList();
            if ((job.Inspection.Closed() ?? decide(job)) is { } refusal)
                return refusal;
            // A reading may belong to no inspection: one that was taken off this one would go on counting in the trends.
            db.Readings.RemoveRange(readings.Except(job.Inspection.Readings));
            return null;
        }, stop);
        if (outcome is not { Done: true, Repeated: false })
            return outcome;
        feed.Written(inspectionId, post);
        held = loaded;
        return outcome with { Job = loaded };
    }

    /// <summary>What this one held is there for the next, once its page has been made.</summary>
    public void Dispose()
    {
        if (held is { } job)
            hand?.Lay(job);
        held = null;
    }

    // The inspection as somebody left it, where nothing has been written since.
    private async Task<Job?> TakeUpAsync(Guid inspectionId, CancellationToken stop)
    {
        if (hand?.Take(inspectionId) is not { } job)
            return null;
        return await db.Inspections.AnyAsync(row => row.Id == inspectionId && row.Revision == job.Inspection.Revision
            && db.Aircraft.Any(aircraft => aircraft.Id == row.AircraftId && aircraft.Revision == job.Aircraft.Revision), stop) ? job : null;
    }

    /// <summary>
    /// Carries out a post on an aircraft, with its parts and all its meter readings: in turn, once, wholly or not at all,
    /// like one on an inspection.
    /// </summary>
    public Task<Written> WriteFileAsync(Guid aircraftId, Guid post, Func<Aircraft, Task<Refusal?>> decide, CancellationToken stop) =>
        db.OnceAsync(post, clock, async () =>
            await db.Aircraft.WithParts().Include(row => row.MeterReadings).FirstOrDefaultAsync(row => row.Id == aircraftId, stop) is { } aircraft
                ? await decide(aircraft)
                : new("aircraft", "There is no such aircraft."), stop);

    /// <summary>Signs an inspection: its records join the shop's chain and its state is set, both or neither.</summary>
    public async Task<Written> SignAsync(Guid inspectionId, Guid post, RulePack rules, Signer signer, CancellationToken stop)
    {
        if (await db.Inspections.AsNoTracking().Where(row => row.Id == inspectionId).Select(row => (Guid?)row.AircraftId).FirstOrDefaultAsync(stop) is not { } aircraftId)
            return new(new("inspection", "There is no such inspection."));
        // Looked up before the turn is taken: what somebody notes in between makes it stricter only by the next look.
        var research = (await db.FreshLineAsync(aircraftId, _ => rules, clock.Today(), stop)).Research;
        return await WriteAsync(inspectionId, post, job => Readiness.Of(job.Inspection, job.Aircraft, research).MaySign
            ? Seal(db, job, rules, signer, clock.GetUtcNow(), clock.Today())
            : new("sign", "There are still things to do before this can be signed: they are listed above."), stop);
    }

    /// <summary>Signs the status of bulletins as they stand on the aircraft of an inspection: a record of its own in the chain.</summary>
    public async Task<Written> SignStatusAsync(Guid inspectionId, Guid post, RulePack rules, Signer signer, CancellationToken stop)
    {
        var (at, today) = (clock.GetUtcNow(), clock.Today());
        return await db.OnceAsync(post, clock, async () =>
        {
            if (await JobAsync(inspectionId, stop) is not { } job)
                return new("inspection", "There is no such inspection.");
            var research = (await db.FreshLineAsync(job.Aircraft.Id, _ => rules, today, stop)).Research;
            if (research.Lines.Count == 0)
                return new("sign", "The shop holds no bulletin: there is no status to sign.");
            var draft = RecordWriter.BulletinStatus(job.Inspection, job.Aircraft, rules, research, signer, today);
            db.SignedRecords.Add(SignedRecord.After(await db.SignedRecords.OrderByDescending(record => record.Number).FirstOrDefaultAsync(stop), job.Aircraft.Id, job.Inspection.Id, draft.Book, draft.Content, at));
            return null;
        }, stop);
    }

    /// <summary>Writes the records that close an inspection at the end of the chain, and closes it, at an instant of one of the shop's days. Saving is the caller's.</summary>
    public static Refusal? Seal(RivetDb db, Job job, RulePack rules, Signer signer, DateTimeOffset at, DateOnly on)
    {
        if (db.MarkComplied(job, on) is { } refusal)
            return refusal;
        var last = db.SignedRecords.OrderByDescending(record => record.Number).FirstOrDefault();
        foreach (var draft in RecordWriter.Draft(job.Inspection, job.Aircraft, rules, signer, on))
            db.SignedRecords.Add(last = SignedRecord.After(last, job.Aircraft.Id, job.Inspection.Id, draft.Book, draft.Content, at));
        db.MarkDoneBySigning(job, on);
        job.Inspection.Sign();
        return null;
    }
}
