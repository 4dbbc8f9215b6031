using MellowRivet.Core;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Drawings;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Walk.Close;

/// <summary>What stands between the aircraft and its signature, and the signature.</summary>
[EnableRateLimiting("signing")]
public sealed class CloseModel(Desk desk, RivetDb db, KeptFrames frames, Shelf shelf, PasswordAgain again,
    TimeProvider clock, WorkClock work) : SigningPage<CloseView>(desk, db, frames, shelf, again)
{
    private string Here => $"/walk/{Id}";

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.Sign)]
    public async Task<IActionResult> OnPostAsync(Guid post, string? password, string? read, CancellationToken stop)
    {
        if (await LoadAsync(stop) is not { } walk)
            return NotFound();
        if (AnswerOf(walk).Allowed && walk.Job.Inspection.InWork && !ReadinessOf(walk).MaySign)
            return await AgainAsync(new("sign", "There are still things to do before this can be signed: they are listed here."), stop);
        var (signer, refusal) = await SignerAsync(walk, password, stop);
        return signer is null
            ? await AgainAsync(refusal!, stop)
            : await AfterAsync(Desk.SignAsync(Id, post, walk.Weighed, signer, read, stop), $"{Here}/records", stop);
    }

    /// <summary>Sets a bad judgement aside, with reason and reference.</summary>
    [Needs(Right.Sign)]
    public Task<IActionResult> OnPostAsideAsync(Guid post, string? key, string? seen, string? reason, string? reference,
        CancellationToken stop) => AnswerAsync(post, "judged", (job, me, signs, at) =>
            job.Inspection.SetJudgementAside(job.Aircraft, key, seen, reason, reference, me, signs, at), stop, new(key, reason, reference));

    /// <summary>Takes up again what was set aside.</summary>
    [Needs(Right.Sign)]
    public Task<IActionResult> OnPostUpAsync(Guid post, string? key, CancellationToken stop) =>
        AnswerAsync(post, "judged", (job, me, signs, _) =>
        {
            if (signs is null)
                return new("aside", $"{me.Name} may not sign this inspection.");
            job.Inspection.TakeUpAgain(key);
            return null;
        }, stop);

    /// <summary>Says that something asked for isn't part of this inspection, or asks for it again.</summary>
    [Needs(Right.Sign)]
    public async Task<IActionResult> OnPostNotPartAsync(Guid post, string? key, string? reason, bool again, CancellationToken stop)
    {
        var rules = await RulesAsync(stop);
        return await AnswerAsync(post, "asked", (job, me, signs, at) =>
        {
            if (again && signs is not null)
            {
                job.Inspection.AskAgain(key);
                return null;
            }
            return Asks.Find(job.Inspection, job.Aircraft, rules(job.Aircraft), key) is { } ask
                ? job.Inspection.LeaveOut(ask, reason, me, signs, at)
                : new("not-part", "This inspection doesn’t ask for that.");
        }, stop, new(key, reason, null));
    }

    /// <summary>States the checklist that the signer goes by.</summary>
    [Needs(Right.Sign)]
    public Task<IActionResult> OnPostChecklistAsync(Guid post, string? title, string? revision, CancellationToken stop) =>
        AnswerAsync(post, "scope", (job, me, signs, at) => job.Inspection.GoBy(title, revision, me, signs, at), stop,
            new("checklist", title, revision));

    /// <summary>Gives up a job that was taken by mistake.</summary>
    [Needs(Right.TakeIn)]
    public async Task<IActionResult> OnPostGiveUpAsync(Guid post, CancellationToken stop) =>
        await Desk.JobAsync(Id, stop, JobParts.Bare) is not { } job ? NotFound()
        : await AfterAsync(Desk.GiveUpAsync(Id, post, stop), $"/aircraft/{job.Aircraft.Id}/job", stop);

    /// <summary>How long the entries are.</summary>
    [Needs(Right.Sign)]
    public Task<IActionResult> OnPostLengthAsync(Guid post, EntryLength length, CancellationToken stop) =>
        AnswerAsync(post, "entries", (job, me, signs, _) => signs is null
            ? new("entries", $"{me.Name} may not sign this inspection.")
            : job.Inspection.Write(length), stop);

    /// <summary>Adds a line to an entry, or takes one back.</summary>
    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostLineAsync(Guid post, Guid line, Guid? carrier, string? words, CancellationToken stop) =>
        AnswerAsync(post, "entries", (job, me, _, at) => job.Inspection.AddLine(line, carrier,
            carrier is { } part && job.Aircraft.Fitting(part) is not null, words, me.Id, at), stop, new($"{carrier}", words, null));

    /// <summary>Leaves a fact out of the entries with the reason, or tells it again.</summary>
    [Needs(Right.Sign)]
    public async Task<IActionResult> OnPostOmitAsync(Guid post, string? key, string? reason, bool again, CancellationToken stop)
    {
        var rules = await RulesAsync(stop);
        if (await Desk.JobAsync(Id, stop, JobParts.Bare) is not { } bare)
            return NotFound();
        var due = await Desk.Board.LineAsync(bare.Aircraft.Id, stop);
        return await AnswerAsync(post, "entries", (job, me, signs, at) =>
        {
            if (again && signs is not null)
            {
                job.Inspection.TellAgain(key);
                return null;
            }
            return LogbookEntry.Of(new(job.Inspection, job.Aircraft, rules(job.Aircraft), due, clock.Today(), clock))
                .SelectMany(entry => entry.Sentences).FirstOrDefault(sentence => sentence.Fact.Key == key) is { } sentence
                ? job.Inspection.Omit(sentence, reason, me, signs, at)
                : new("omit", "The entries don’t tell that any more.");
        }, stop, new(key, reason, null));
    }

    /// <summary>Whoever may sign has looked at a zone; or takes that back.</summary>
    [Needs(Right.Sign)]
    public async Task<IActionResult> OnPostZoneAsync(Guid post, string? zone, List<Guid> except, bool back, string? from,
        CancellationToken stop)
    {
        var answer = await AnswerAsync(post, "zones", (job, me, signs, _) =>
        {
            if (back && signs is not null)
            {
                job.Inspection.LookAtZoneAgain(zone);
                return null;
            }
            // A look that was taken away from the shop saw nothing of what came since.
            return job.Inspection.LookAtZone(zone, except, me, signs, work.GetUtcNow());
        }, stop);
        return answer is RedirectResult && from == "zone"
            && (await Desk.JobAsync(Id, stop, JobParts.Tasks))?.Inspection.Tasks.FirstOrDefault(task => task.ZoneKey == zone) is { } there
            ? Redirect($"{Here}/{Seam.Place(there.Station)}/{there.ZoneKey}#zone-look") : answer;
    }

    private async Task<IActionResult> AnswerAsync(Guid post, string anchor,
        Func<Job, Person, Certificate?, DateTimeOffset, Refusal?> answer,
        CancellationToken stop, AnsweredForm? typed = null)
    {
        var rules = await RulesAsync(stop);
        return await WriteAsync(post, $"{Here}/close#{anchor}", job =>
        {
            var shop = rules(job.Aircraft);
            return answer(job, shop.People[Me], shop.SignsBy(Me, job.Inspection, job.Aircraft), clock.GetUtcNow());
        }, stop, typed: typed);
    }

    private static Readiness ReadinessOf(WalkShown walk) => walk.Job.Inspection.InWork
        ? Readiness.Of(walk.Job.Inspection, walk.Job.Aircraft, walk.Weighed, walk.Research)
        : Readiness.Signed(walk.Job.Inspection);

    protected override async Task<CloseView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop)
    {
        var (answer, inspection, aircraft) = (AnswerOf(walk), walk.Job.Inspection, walk.Job.Aircraft);
        var view = new CloseView(walk, answer, ReadinessOf(walk), [], null);
        if (!inspection.InWork || !walk.Weighed.Pack.HasStatement(inspection.Kind, aircraft.Category))
            return view;
        Closing closing = new(inspection, aircraft, walk.Weighed, await Desk.Board.LineAsync(aircraft.Id, stop), clock.Today(), clock);
        return view with { Entries = LogbookEntry.Of(closing), Read = answer.By is { } signs
            ? RecordWriter.ReadAs(RecordWriter.Draft(closing, new(walk.Weighed.People[Me], signs)))
            : null };
    }
}
