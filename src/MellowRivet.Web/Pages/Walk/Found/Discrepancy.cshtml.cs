using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Parts;
using MellowRivet.Core.People;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using MellowRivet.Web.Pages.Walk.Costs;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Walk.Found;

/// <summary>One discrepancy: its pictures and place, its class, and its way from found to put right.</summary>
[EnableRateLimiting("uploads")]
public sealed class DiscrepancyModel(Desk desk, RivetDb db, KeptFrames frames, Uploads uploads, Shelf shelf, WorkClock clock)
    : WalkPage<DiscrepancyView>(desk, db, frames)
{
    [FromRoute]
    public int Number { get; set; }

    private string Here => $"/walk/{Id}/fix-list/{Number}";
    private DateOnly Today => clock.Today();

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.CorrectDiscrepancies)]
    public async Task<IActionResult> OnPostCorrectAsync(Guid post, CorrectionForm form, CancellationToken stop)
    {
        var wrench = await Db.ToolAsync(form.Wrench, stop);
        var ordered = await Db.PartsForAsync(Id, Number, stop);
        return await ChangeAsync(post, (job, found) =>
        {
            var (correction, wrong) = form.Read(wrench, Today);
            var refusal = correction is null ? wrong : OrderedPart.FittedUnseen(correction, ordered, Today) is { } unseen ? unseen
                : found.Correct(correction, job.Inspection.Terms, Me, clock.GetUtcNow())
                    ?? found.ReplaceParts(job.Aircraft, job.Inspection.WorkOrder, Today);
            if (refusal is null)
                Db.EndWatch(found.Id, "corrected");
            return refusal;
        }, stop, form);
    }

    /// <summary>Takes it a step on.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public Task<IActionResult> OnPostMoveAsync(Guid post, Disposition to, string? words, CancellationToken stop) =>
        ChangeAsync(post, (job, found) =>
        {
            if (!Enum.IsDefined(to))
                return new("state", "Choose a step.");
            if (found.Move(to, words, job.Inspection.Terms, Me, clock.GetUtcNow()) is { } refusal)
                return refusal;
            if (to == Disposition.Withdrawn)
                Db.EndWatch(found.Id, "withdrawn");
            return null;
        }, stop);

    /// <summary>Answers a question of the deferral test.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public Task<IActionResult> OnPostDeferAsync(Guid post, string? question, DeferralSays says, string? words, CancellationToken stop) =>
        ChangeAsync(post, (_, found) => found.Answer(question ?? "", says, words, shelf.Classes, Me, clock.GetUtcNow()), stop,
            anchor: "#deferral");

    /// <summary>Somebody looked again at what an earlier inspection left open: it is as it was.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public async Task<IActionResult> OnPostLookedAsync(Guid post, CancellationToken stop)
    {
        if (await FoundAsync(stop) is not var (_, carried))
            return NotFound();
        var placarded = (await Db.ItemAsync(carried.CarriedFrom, stop))?.Placarded ?? "";
        return await ChangeAsync(post, (_, found) => found.LookAgain(placarded, Me, clock.GetUtcNow()), stop);
    }

    /// <summary>Says how a mark was found benign.</summary>
    [Needs(Right.InspectWork)]
    public async Task<IActionResult> OnPostExamineAsync(Guid post, FoundHow method, string? words, DateOnly? on, DateOnly? until,
        CancellationToken stop)
    {
        var rules = await RulesAsync(stop);
        return await ChangeAsync(post,
            (job, found) => found.Examine(new(method, words?.Trim() ?? "", Me, on ?? Today, until), Today,
                As(job, rules(job.Aircraft), DiscrepancyClass.KnownMark, false, null), rules(job.Aircraft).Classes), stop);
    }

    /// <summary>Puts words, place and the rest right.</summary>
    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostDescribeAsync(Guid post, DescribeForm form, CancellationToken stop) =>
        ChangeAsync(post, (job, found) => (found.Changes != form.Seen
            ? DiscrepancyView.ChangedMeanwhile
            : job.Inspection.CheckPlace(form.Zone, form.Component, job.Aircraft)
                ?? found.Describe(form.What, form.PlainWords, form.PlaceOf(found), form.How, form.Measured, Me, clock.GetUtcNow(),
                    shelf.Classes)) is { } refusal ? refusal with { Field = "describe" } : null, stop, form);

    [Needs(Right.CorrectDiscrepancies)]
    public Task<IActionResult> OnPostEstimateAsync(Guid post, PriceForm form, DateOnly? by, CancellationToken stop) =>
        ChangeAsync(post, (job, found) =>
        {
            var (estimate, refusal) = form.Read(found.Estimate);
            return refusal ?? found.Expect(estimate! with { PartsBy = by }, job.Inspection.Terms, Me, clock.GetUtcNow());
        }, stop, form);

    /// <summary>Puts in words what a picture, a sound or a video alone told of.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostWordsAsync(Guid post, WordsForm form, CancellationToken stop)
    {
        var rules = await RulesAsync(stop);
        return await ChangeAsync(post, (job, found) => found.PutInWords(form.What, new(form.Class, form.Grounded, Me, clock.GetUtcNow(),
            form.Why, form.Reference, rules(job.Aircraft).SignsBy(Me, job.Inspection, job.Aircraft)), shelf.Classes,
            job.Inspection.Tasks.FirstOrDefault(task => task.Id == found.TaskId)) is { } refusal
            ? refusal with { Field = $"words-{refusal.Field}" }
            : null, stop, form);
    }

    /// <summary>Adds pictures, sounds, videos and a note.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostAttachAsync(Guid post, List<IFormFile> pictures, List<IFormFile> sounds,
        List<IFormFile> videos, string? note, CancellationToken stop)
    {
        var attached = await uploads.TakeInAsync(pictures, sounds, stop, clips: videos);
        return await ChangeAsync(post, (_, found) =>
        {
            if (pictures.Count + sounds.Count + videos.Count == 0 && string.IsNullOrWhiteSpace(note))
                return new("attach", "Add a picture, a sound, a video or a note.");
            var refusal = attached.Wrong("attach") ?? attached.AddTo(found)
                ?? (string.IsNullOrWhiteSpace(note) ? null : found.Add(Guid.CreateVersion7(), note, Me, clock.GetUtcNow()));
            return refusal?.At("attach");
        }, stop, new NoteForm(note), "#attached", JobParts.Discrepancies);
    }

    /// <summary>Says that another of this fix list is the same, or that they are two.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public Task<IActionResult> OnPostTwinAsync(Guid post, Guid twin, CancellationToken stop) =>
        ChangeAsync(post, (job, found) =>
        {
            var refusal = job.Inspection.SayTwins(found, twin, Me, clock.GetUtcNow());
            if (refusal is null && twin != Guid.Empty)
                foreach (var tied in job.Inspection.Discrepancies.Where(one => one.Id == twin || one == found))
                    if (tied.Disposition == Disposition.Withdrawn)
                        Db.EndWatch(tied.Id, "withdrawn");
            return refusal;
        }, stop);

    /// <summary>Says which of an earlier inspection's it is again, or that it is none of them.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostAgainAsync(Guid post, Guid? earlier, CancellationToken stop)
    {
        if (await FoundAsync(stop) is not var (seen, here))
            return NotFound();
        var known = (await PastAsync(seen.Inspection, here, stop)).Before.Select(find => find.Found.Id).Append(Guid.Empty).ToHashSet();
        return await ChangeAsync(post, (_, found) =>
        {
            if (earlier is { } one && !known.Contains(one))
                return new("again", "Choose one of the inspection before.");
            found.IsAgain(earlier);
            return null;
        }, stop);
    }

    /// <summary>Puts a watched discrepancy on the due line: to be looked at again by a day, or within hours.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public async Task<IActionResult> OnPostWatchAsync(Guid post, DateOnly? by, string? hours, CancellationToken stop)
    {
        if (await FoundAsync(stop) is not var (seen, found))
            return NotFound();
        var (watch, refusal) = Watch.Read(by, hours, Today);
        if (watch is null)
            return await AgainAsync(refusal!, stop);
        var order = seen.Inspection.WorkOrder;
        return await AfterAsync(Desk.WriteFileAsync(seen.Aircraft.Id, post, async aircraft =>
        {
            var item = await Db.WatchOfAsync(found.Id, stop) ?? Db.Put(watch.Of(found, aircraft.Id, order));
            return watch.Begin(item, found, order, aircraft.TimeInService, Today);
        }, stop), Here, stop);
    }

    [Needs(Right.CorrectDiscrepancies)]
    public async Task<IActionResult> OnPostClassifyAsync(Guid post, int seen, DiscrepancyClass @class, bool grounded, string? why,
        string? reference, CancellationToken stop)
    {
        var rules = await RulesAsync(stop);
        var less = new LessForm(why, reference);
        return await ChangeAsync(post, (job, found) => (found.Changes != seen
            ? new("class",
                $"Someone changed this while you had it open: it is now {found.Class.InWords()}. Set yours again if it still holds.")
            : found.Classify(As(job, rules(job.Aircraft), @class, grounded, less), rules(job.Aircraft).Classes,
                job.Inspection.Tasks.FirstOrDefault(task => task.Id == found.TaskId))) is { } refusal
                    ? refusal with { Field = "class" }
                    : null, stop, less);
    }

    private Classing As(Job job, ShopRules rules, DiscrepancyClass to, bool grounded, LessForm? less) =>
        new(to, grounded, Me, clock.GetUtcNow(), less?.Why, less?.Reference, rules.SignsBy(Me, job.Inspection, job.Aircraft));

    private Task<IActionResult> ChangeAsync(Guid post, Func<Job, Discrepancy, Refusal?> change, CancellationToken stop,
        object? typed = null, string anchor = "", JobParts parts = JobParts.Whole) =>
        WriteAsync(post, Here + anchor, job => InJob(job) is { } found
            ? change(job, found)
            : new Refusal("inspection", "There is no such discrepancy on this fix list."), stop, parts, typed);

    private Discrepancy? InJob(Job job) => job.Inspection.Discrepancies.FirstOrDefault(found => found.Number == Number);

    // It and its inspection, to ask something about it before it is written to; null where there is no such.
    private async Task<(Job Job, Discrepancy Found)?> FoundAsync(CancellationToken stop) =>
        await LookAsync(JobParts.Tasks | JobParts.Discrepancies, stop) is { } job && InJob(job) is { } found ? (job, found) : null;

    protected override async Task<DiscrepancyView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop)
    {
        if (InJob(walk.Job) is not { } found)
            return null;
        var inspection = walk.Job.Inspection;
        return new(walk, found, await PastAsync(inspection, found, stop), await Db.WatchOfAsync(found.Id, stop),
            shelf.Classes.Guess(found.What, inspection.Tasks.FirstOrDefault(task => task.Id == found.TaskId)),
            shelf.Classes.MayDefer(found.What)?.Message, await Db.WrenchesAsync(stop),
            inspection.InWork && User.May(Right.CorrectDiscrepancies), Today, await Db.PartsForAsync(Id, Number, stop));
    }

    private async Task<DiscrepancyPast> PastAsync(Inspection inspection, Discrepancy found, CancellationToken stop)
    {
        var history = PlaceHistory.Of(found.Place, await Db.EarlierFindsAsync(inspection, found.Place, stop));
        if (await Db.LastSignedAsync(inspection, stop) is not { } last)
            return new(history, [], null);
        var before = await Db.FoundAtAsync(last.Id, stop);
        return new(history,
            [.. before.OrderBy(row => row.Number)
                .Select(row => new EarlierFind(row, last.WorkOrder, last.Id, last.OpenedOn, last.TimeInService.Value))],
            Recurrence.Of(inspection.Discrepancies, before).Again.GetValueOrDefault(found.Id));
    }
}
