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
using MellowRivet.Core.Surveys;
using MellowRivet.Store.Proof;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

// What is signed: in one turn with everything that follows from it.
public sealed partial class Desk
{
    /// <summary>Signs an inspection: its records join the shop's chain and its state is set, both or neither.</summary>
    /// <param name="inspectionId">The inspection.</param>
    /// <param name="post">The id the form carried.</param>
    /// <param name="rules">The rules and people it is weighed by.</param>
    /// <param name="signer">Who signs.</param>
    /// <param name="read">The entries that stood before the person who signs: others aren't signed in their place.</param>
    /// <param name="stop">Stops waiting.</param>
    public async Task<Written> SignAsync(Guid inspectionId, Guid post, ShopRules rules, Signer signer, string? read,
        CancellationToken stop)
    {
        return await WriteAskingAsync(inspectionId, post, async job =>
        {
            // Looked up in its own turn: a directive that came in a moment ago holds it up.
            var due = await Board.InTurnAsync(job.Aircraft.Id, stop);
            var refusal = !Readiness.Of(job.Inspection, job.Aircraft, rules, due.Research).MaySign
                ? new("sign", "There are still things to do before this can be signed: they are listed above.")
                : RecordWriter.ReadAs(RecordWriter.Draft(new(job.Inspection, job.Aircraft, rules, due, clock.Today(), clock),
                    signer)) != read
                ? new("sign", "Something changed while you had this open, and the entries read otherwise now. Read them, then sign.")
                : Seal(db, new(job.Inspection, job.Aircraft, rules, due, clock.Today(), clock), signer, clock.GetUtcNow());
            if (refusal is null)
                await StopClocksAsync(inspectionId, clock.GetUtcNow(), stop);
            return refusal;
        }, stop);
    }

    /// <summary>Signs the status of bulletins as they stand on the aircraft of an inspection: a record of its own in the chain.</summary>
    public async Task<Written> SignStatusAsync(Guid inspectionId, Guid post, RulePack rules, Signer signer, CancellationToken stop)
    {
        var (at, today) = (clock.GetUtcNow(), clock.Today());
        return await db.OnceAsync(post, clock, async () =>
        {
            if (await JobAsync(inspectionId, stop) is not { Inspection.IsSurvey: false } job)
                return new("inspection", "There is no such inspection.");
            var research = (await Board.InTurnAsync(job.Aircraft.Id, stop)).Research;
            if (research.Lines.Count == 0)
                return new("sign", "The shop holds no bulletin: there is no status to sign.");
            var draft = RecordWriter.BulletinStatus(job.Inspection, job.Aircraft, rules, research, signer, today);
            db.Signing.Add(new(job.Aircraft.Id, job.Inspection.Id, [draft], at));
            return null;
        }, stop);
    }

    /// <summary>
    /// Clears an open item of an aircraft by an entry of its own: the entry joins the shop's chain and the item ends, both or neither.
    /// </summary>
    /// <param name="aircraftId">The aircraft: an item of another isn't cleared from its page.</param>
    /// <param name="itemId">The item.</param>
    /// <param name="post">The id the form carried.</param>
    /// <param name="rules">The rule pack of the aircraft.</param>
    /// <param name="done">What was done.</param>
    /// <param name="signer">Who signs.</param>
    /// <param name="stop">Stops waiting.</param>
    public async Task<Written> ClearAsync(Guid aircraftId, Guid itemId, Guid post, ShopRules rules, Correction done, Signer signer,
        CancellationToken stop)
    {
        var (at, today) = (clock.GetUtcNow(), clock.Today());
        return await db.OnceAsync(post, clock, async () =>
        {
            if (await db.OpenItems.FirstOrDefaultAsync(row => row.Id == itemId && row.AircraftId == aircraftId, stop)
                is not { IsOpen: true } item)
                return new("item", "It is not open any more.");
            if (done.Check() is { } wrong)
                return wrong;
            if (done.Kind == CorrectionKind.Deferred)
                return new("action", "To clear it, it is put right: what is deferred stays open.");
            if (done.Reference.Length == 0)
                return new("reference", "By which data: manual, chapter, revision. The entry names it.");
            if (await db.Inspections.Where(row => row.AircraftId == item.AircraftId && row.State == InspectionState.InWork
                    && row.Kind != InspectionKind.Survey)
                .Select(row => row.WorkOrder).FirstOrDefaultAsync(stop) is { } order)
                return new("item", $"It stands on the fix list of {order}, which is in work: put it right there.");
            var aircraft = await db.Aircraft.WithParts().FirstAsync(row => row.Id == item.AircraftId, stop);
            if (rules.Pack.MayClear(signer.Person, aircraft, today).By is null)
                return new("sign", rules.Pack.MayClear(signer.Person, aircraft, today).Reason);
            foreach (var part in done.Parts ?? [])
                if (part.ReplacedComponent is { } replaced
                    && aircraft.Replace(replaced, part.Number, part.SerialIn, today, $"{item.FirstNumber}: {done.Kind.InWords()}",
                        signer.Person.Id)
                    is { } tree)
                    return tree;
            return Clear(db, item, aircraft, rules, done, signer, at, today);
        }, stop);
    }

    /// <summary>Gives up a job that was taken by mistake: nothing was recorded at it, and nothing of it stays.</summary>
    public Task<Written> GiveUpAsync(Guid inspectionId, Guid post, CancellationToken stop) => db.OnceAsync(post, clock, async () =>
    {
        if (await JobAsync(inspectionId, stop) is not { } seen)
            return new("give-up", "It is given up already.");
        if (seen.Inspection.CheckGiveUp() is { } refusal)
            return refusal;
        if (await db.BookedTimes.AnyAsync(row => row.InspectionId == inspectionId, stop)
            || await db.OrderedParts.AnyAsync(row => row.InspectionId == inspectionId, stop))
            return new("give-up", "Hours are booked on it, or parts are on the list for it: say what was done, or withdraw its line.");
        db.Discrepancies.RemoveRange(await db.Discrepancies.Where(found => found.InspectionId == inspectionId).ToListAsync(stop));
        db.Inspections.Remove(await db.Inspections.FirstAsync(row => row.Id == inspectionId, stop));
        return null;
    }, stop);

    /// <summary>Corrects a signed record by a new one that names it; the old one stays as it was signed.</summary>
    /// <param name="number">The record's number.</param>
    /// <param name="inspectionId">The inspection it belongs to.</param>
    /// <param name="post">The id the form carried.</param>
    /// <param name="rules">The rule pack of the aircraft.</param>
    /// <param name="correct">What is wrong, read from the record as it stands.</param>
    /// <param name="signer">Who signs.</param>
    /// <param name="stop">Stops waiting.</param>
    public Task<Written> CorrectAsync(long number, Guid inspectionId, Guid post, RulePack rules,
        Func<SignedRecord, (RecordCorrection? Correction, Refusal? Refusal)> correct, Signer signer, CancellationToken stop)
    {
        var (at, today) = (clock.GetUtcNow(), clock.Today());
        return db.OnceAsync(post, clock, async () =>
        {
            if (await db.SignedRecords.FirstOrDefaultAsync(row => row.Id == number && row.Id > 0 && row.InspectionId == inspectionId, stop)
                is not { } record)
                return new("line", "There is no such record here.");
            if (correct(record) is var (correction, refusal) && correction is null)
                return refusal;
            var aircraft = await db.Aircraft.WithParts().FirstAsync(row => row.Id == record.AircraftId, stop);
            var draft = RecordWriter.Correcting(record, correction, aircraft, rules, signer, today);
            db.Signing.Add(new(record.AircraftId, record.InspectionId, [draft], at));
            return null;
        }, stop);
    }

    /// <summary>Writes the entry that clears an open item at the end of the chain, and ends the item. Saving is the caller's.</summary>
    public static Refusal? Clear(RivetDb db, OpenItem item, Aircraft aircraft, ShopRules rules, Correction done, Signer signer,
        DateTimeOffset at, DateOnly on)
    {
        var left = db.OpenItems.Count(other => other.AircraftId == item.AircraftId && other.Id != item.Id
            && other.Because == OpenBecause.Airworthiness && other.End == null);
        var draft = RecordWriter.Clearing(item, aircraft, rules, done, signer, on, left);
        item.Close(new(done.InWords, on, signer.Person.Id, $"record {db.NextNumber()}"));
        db.Signing.Add(new(item.AircraftId, item.InspectionId, [draft], at, Clears: true));
        return null;
    }

    /// <summary>
    /// Closes an inspection, and has the records that close it join the end of the chain, at an instant of one of the
    /// shop's days. Saving is the caller's.
    /// </summary>
    public static Refusal? Seal(RivetDb db, Closing closing, Signer signer, DateTimeOffset at)
    {
        var (inspection, on) = (closing.Inspection, closing.On);
        if (inspection.IsSurvey)
            return new("sign", $"{SurveyWords.NoInspection} Nothing of it is signed.");
        Job job = new(inspection, closing.Aircraft);
        if (db.SetComplied(job, on) is { } refusal)
            return refusal;
        db.Signing.Add(new(inspection.AircraftId, inspection.Id, RecordWriter.Draft(closing, signer), at, inspection.WorkOrder));
        db.SetDoneBySigning(closing.Next, on);
        db.SettleOpenItems(inspection, signer.Person.Id, on);
        inspection.Sign();
        return null;
    }
}
