using MellowRivet.Core;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Records;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>An inspection with its aircraft, as a page works on them.</summary>
public sealed record Job(Inspection Inspection, Aircraft Aircraft);

/// <summary>What became of a post: why it was refused, or that it was carried out already.</summary>
public sealed record Written(Refusal? Refusal, bool Repeated = false)
{
    public bool Done => Refusal is null;
}

/// <summary>Loads and saves the work of one inspection, so that a post is carried out once, wholly or not at all.</summary>
public sealed class Desk(RivetDb db, TimeProvider clock)
{
    /// <summary>The inspection with everything in it, and its aircraft; null where there is none.</summary>
    public async Task<Job?> JobAsync(Guid inspectionId, CancellationToken stop, bool tracking = false)
    {
        var inspections = tracking ? db.Inspections : db.Inspections.AsNoTracking();
        var inspection = await inspections
            .Include(row => row.Tasks).Include(row => row.Discrepancies).Include(row => row.Readings).Include(row => row.CompressionTests)
            .FirstOrDefaultAsync(row => row.Id == inspectionId, stop);
        if (inspection is null)
            return null;
        var fleet = tracking ? db.Aircraft : db.Aircraft.AsNoTracking();
        return new(inspection, await fleet.Include(row => row.Components).FirstAsync(row => row.Id == inspection.AircraftId, stop));
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
        db.ChangeTracker.Clear();
        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        if (await db.Postings.AnyAsync(done => done.Id == post, stop))
            return new(null, Repeated: true);
        if (await JobAsync(inspectionId, stop, tracking: true) is not { } job)
            return new(new Refusal("inspection", "There is no such inspection."));
        if ((job.Inspection.Closed() ?? decide(job)) is { } refusal)
            return new(refusal);
        // Every write checks the inspection's version, so that none slips in behind a signature.
        db.Entry(job.Inspection).Property(row => row.Version).IsModified = true;
        db.Postings.Add(new() { Id = post, At = clock.GetUtcNow() });
        await db.SaveChangesAsync(stop);
        await transaction.CommitAsync(stop);
        return new((Refusal?)null);
    }

    /// <summary>Signs an inspection: its records join the shop's chain and its state is set, both or neither.</summary>
    public Task<Written> SignAsync(Guid inspectionId, Guid post, RulePack rules, Signer signer, CancellationToken stop) =>
        WriteAsync(inspectionId, post, job =>
        {
            if (!Readiness.Of(job.Inspection, job.Aircraft).MaySign)
                return new Refusal("sign", "There are still things to do before this can be signed: they are listed above.");
            Seal(db, job, rules, signer, clock.GetLocalNow());
            return null;
        }, stop);

    /// <summary>Writes the records that close an inspection at the end of the chain, and closes it. Saving is the caller's.</summary>
    public static void Seal(RivetDb db, Job job, RulePack rules, Signer signer, DateTimeOffset at)
    {
        var last = db.SignedRecords.OrderByDescending(record => record.Number).FirstOrDefault();
        foreach (var draft in RecordWriter.Draft(job.Inspection, job.Aircraft, rules, signer, at))
            db.SignedRecords.Add(last = SignedRecord.After(last, job.Aircraft.Id, job.Inspection.Id, draft.Book, draft.Content, at));
        job.Inspection.Sign();
    }
}
