using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Tools;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Store.Files;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Walk.Found;

/// <summary>A picture with what is drawn over it.</summary>
/// <param name="Photo">The picture.</param>
/// <param name="What">What it shows.</param>
/// <param name="Address">Where its copies are served from.</param>
public sealed record MarkedPhoto(Photo Photo, string What, string Address = "/photos");

/// <summary>One discrepancy: its pictures and place, its class, and its way from found to put right.</summary>
[EnableRateLimiting("uploads")]
public sealed class DiscrepancyModel(Desk desk, RivetDb db, KeptFrames frames, PhotoFiles photos, SoundFiles soundFiles, Shelf shelf,
    TimeProvider clock) : WalkPage(desk, db, frames)
{
    [FromRoute]
    public int Number { get; set; }

    public override Station At => Station.FixList;
    protected override JobParts Shows => JobParts.Tasks | JobParts.Discrepancies | JobParts.Components;
    public override string? ZoneHere => Found.ZoneKey;

    public Discrepancy Found { get; private set; } = null!;

    /// <summary>What was typed and refused, so that it stays in its fields.</summary>
    public CorrectionForm Typed { get; private set; } = new();
    public DescribeForm Described { get; private set; } = new();
    public string? TypedNote { get; private set; }

    /// <summary>Its place on the due line; null where it has none.</summary>
    public DueItem? Watched { get; private set; }
    public PlaceHistory History { get; private set; } = new([], []);

    /// <summary>The inspection before, for what it may be again.</summary>
    public IReadOnlyList<EarlierFind> Before { get; private set; } = [];
    public Discrepancy? AgainFrom { get; private set; }
    public ClassGuess Guess { get; private set; } = null!;

    /// <summary>Why it is never deferred; null where it may be.</summary>
    public string? NotDeferrable { get; private set; }
    public IReadOnlyList<Tool> Wrenches { get; private set; } = [];

    /// <summary>The ones before and after it, worst first.</summary>
    public (int? Before, int? After) Neighbours { get; private set; }

    public bool MayCorrect => Job.Inspection.InWork && User.May(Right.CorrectDiscrepancies);

    /// <summary>The aircraft's parts that it may be on, or that were replaced.</summary>
    public IReadOnlyList<Installation> Parts =>
        [.. Job.Aircraft.Installations.Where(stay => stay.IsOn).OrderBy(stay => stay.Component.Kind)
            .ThenBy(stay => stay.Position, StringComparer.Ordinal)];

    public DateOnly Today => clock.Today();

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await ShowAsync(stop) ? Page() : NotFound();

    [Needs(Right.CorrectDiscrepancies)]
    public async Task<IActionResult> OnPostCorrectAsync(Guid post, CorrectionForm form, CancellationToken stop)
    {
        Typed = form;
        var wrench = await Db.ToolAsync(form.Wrench, stop);
        return await ChangeAsync(post, (job, found) =>
        {
            var (correction, wrong) = form.Read(wrench, Today);
            if (correction is null)
                return wrong;
            if (found.Correct(correction, job.Inspection.House, User.PersonId(), clock.GetUtcNow()) is { } refusal)
                return refusal;
            foreach (var part in correction.Parts ?? [])
                if (part.ReplacedComponent is { } replaced
                    && job.Aircraft.Replace(replaced, part.Number, part.SerialIn, Today,
                        $"{job.Inspection.WorkOrder}-{found.Number:00}: {correction.Kind.InWords()}") is { } tree)
                    return tree;
            Db.EndWatch(found.Id, "corrected");
            return null;
        }, stop);
    }

    /// <summary>Takes it a step on.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public Task<IActionResult> OnPostMoveAsync(Guid post, Disposition to, string? words,
        CancellationToken stop) => ChangeAsync(post, (job, found) =>
    {
        if (!Enum.IsDefined(to))
            return new("state", "Choose a step.");
        if (found.Move(to, words, job.Inspection.House, User.PersonId(), clock.GetUtcNow()) is { } refusal)
            return refusal;
        if (to == Disposition.Withdrawn)
            Db.EndWatch(found.Id, "withdrawn");
        return null;
    }, stop);

    /// <summary>Answers a question of the deferral test.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public Task<IActionResult> OnPostDeferAsync(Guid post, string? question, DeferralSays says, string? words, CancellationToken stop) =>
        ChangeAsync(post, (_, found) => found.Answer(question ?? "", says, words, shelf.Classes, User.PersonId(), clock.GetUtcNow()), stop,
            "#deferral");

    /// <summary>Somebody looked again at what an earlier inspection left open: it is as it was.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public async Task<IActionResult> OnPostLookedAsync(Guid post, CancellationToken stop)
    {
        if (!await ShowAsync(stop))
            return NotFound();
        var placarded = (await Db.ItemAsync(Found.CarriedFrom, stop))?.Placarded ?? "";
        return await ChangeAsync(post, (_, found) => found.LookAgain(placarded, User.PersonId(), clock.GetUtcNow()), stop);
    }

    /// <summary>Says how a mark was found benign.</summary>
    [Needs(Right.InspectWork)]
    public async Task<IActionResult> OnPostExamineAsync(Guid post, FoundHow method, string? words, DateOnly? on, DateOnly? until,
        CancellationToken stop)
    {
        var rules = await RulesAsync(stop);
        return await ChangeAsync(post,
            (job, found) => found.Examine(new(method, words?.Trim() ?? "", User.PersonId(), on ?? Today, until), Today,
                As(job, rules, DiscrepancyClass.KnownMark, false, null, null), rules(job.Aircraft).Classes), stop);
    }

    /// <summary>Puts words, place and the rest right.</summary>
    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostDescribeAsync(Guid post, DescribeForm form, CancellationToken stop)
    {
        Described = form;
        return ChangeAsync(post, (job, found) =>
        {
            if (found.Changes != form.Seen)
                return new("describe",
                    "Somebody changed this while you had it open: what they wrote stands above. Yours is still in its "
                    + "fields; set it again if it holds.");
            if (job.Inspection.Tasks.All(task => task.ZoneKey != form.Zone))
                return new("describe", "Choose the zone it is in.");
            if (form.Component is { } part && job.Aircraft.Fitting(part) is null)
                return new("describe", "That part is not on this aircraft.");
            var place = found.Place with
                { ZoneKey = form.Zone!, Where = form.Where ?? "", ComponentId = form.Component, Pin = Pin.At(form.X, form.Y) };
            return found.Describe(form.What, form.PlainWords, place, form.How, form.Measured, User.PersonId(), clock.GetUtcNow(),
                shelf.Classes) is { } refusal ? refusal with { Field = "describe" } : null;
        }, stop);
    }

    [Needs(Right.CorrectDiscrepancies)]
    public Task<IActionResult> OnPostEstimateAsync(Guid post, string? hours, string? parts, DateOnly? by,
        CancellationToken stop) => ChangeAsync(post, (_, found) =>
    {
        var (labour, price) = (TypedNumber.Parse(hours), TypedNumber.Parse(parts));
        return (labour is null && !string.IsNullOrWhiteSpace(hours)) || (price is null && !string.IsNullOrWhiteSpace(parts))
            || Math.Abs(labour ?? 0) > 1e9 || Math.Abs(price ?? 0) > 1e9
            ? new("estimate", "Hours and money as numbers: 2.5 and 180.")
            : found.Expect(new((decimal?)labour, (decimal?)price, by));
    }, stop);

    /// <summary>Adds pictures, sounds and a note.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostAttachAsync(Guid post, List<IFormFile> pictures, List<IFormFile> sounds, string? note,
        CancellationToken stop)
    {
        TypedNote = note;
        var attached = await Attachments.TakeInAsync(pictures, sounds, photos, soundFiles, stop);
        return await ChangeAsync(post, (_, found) =>
        {
            if (attached.Refusals.Count > 0)
                return attached.Refusals[0] with { Field = "attach" };
            if (pictures.Count + sounds.Count == 0 && string.IsNullOrWhiteSpace(note))
                return new("attach", "Add a picture, a sound or a note.");
            var refusal = attached.AddTo(found)
                ?? (string.IsNullOrWhiteSpace(note) ? null : found.Add(Guid.CreateVersion7(), note, User.PersonId(), clock.GetUtcNow()));
            return refusal is null ? null : refusal with { Field = "attach" };
        }, stop, "#attached", JobParts.Discrepancies);
    }

    /// <summary>Says which of an earlier inspection's it is again, or that it is none of them.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostAgainAsync(Guid post, Guid? earlier, CancellationToken stop)
    {
        var known = !await ShowAsync(stop) ? [] : Before.Select(find => find.Found.Id).Append(Guid.Empty).ToHashSet();
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
        if (!await ShowAsync(stop))
            return NotFound();
        var written = await Desk.WriteFileAsync(Job.Aircraft.Id, post, async aircraft =>
        {
            var within = TypedNumber.ParseHours(hours);
            if ((by is null && within is null) || by <= Today || by is { Year: > 2199 } || within is { Value: 0 }
                || (within is null && !string.IsNullOrWhiteSpace(hours)))
                return new Refusal("watch", "A day to come, hours from now, or both: whichever comes first.");
            Interval interval = new(EveryHours: within?.Value, NotAfter: by);
            var source = new RuleSource(Standing.Practice, $"watched since {Job.Inspection.WorkOrder}-{Found.Number:00}");
            var item = await Db.WatchOfAsync(Found.Id, stop)
                ?? Db.Put(new DueItem(Guid.CreateVersion7(), aircraft.Id, null, "", DueKind.Watch, interval, source)
                    { DiscrepancyId = Found.Id });
            item.Change($"Look again: {(Found.What.Length > 100 ? Found.What[..100] + "…" : Found.What)}", interval, source,
                item.LabourHours);
            return item.MarkDone(new(Today, aircraft.TimeInService.Value, null, null, null, Job.Inspection.WorkOrder), Today);
        }, stop);
        if (written.Done)
            return Redirect($"/walk/{Id}/fix-list/{Number}");
        Refuse(written.Refusal!);
        return Page();
    }

    /// <summary>What was typed beside a class that wasn't taken.</summary>
    public (string? Why, string? Reference) TypedLess { get; private set; }

    [Needs(Right.CorrectDiscrepancies)]
    public async Task<IActionResult> OnPostClassifyAsync(Guid post, int seen, DiscrepancyClass @class, bool grounded, string? why,
        string? reference, CancellationToken stop)
    {
        TypedLess = (why, reference);
        var rules = await RulesAsync(stop);
        return await ChangeAsync(post, (job, found) => found.Changes != seen
            ? new("class",
                $"Someone changed this while you had it open: it is now {found.Class.InWords()}. Set yours again if it still holds.")
            : found.Classify(As(job, rules, @class, grounded, why, reference), rules(job.Aircraft).Classes,
                job.Inspection.Tasks.FirstOrDefault(task => task.Id == found.TaskId)) is { } refusal
                    ? refusal with { Field = "class" }
                    : null, stop);
    }

    private Classing As(Job job, Func<Aircraft, ShopRules> rules, DiscrepancyClass to, bool grounded, string? why, string? reference) =>
        new(to, grounded, User.PersonId(), clock.GetUtcNow(), why, reference, rules(job.Aircraft)
            .SignsBy(User.PersonId(), job.Inspection, job.Aircraft));

    private async Task<IActionResult> ChangeAsync(Guid post, Func<Job, Discrepancy, Refusal?> change, CancellationToken stop,
        string anchor = "", JobParts parts = JobParts.Whole)
    {
        var written = await Desk.WriteAsync(Id, post,
            job => job.Inspection.Discrepancies.FirstOrDefault(found => found.Number == Number) is { } found
            ? change(job, found)
            : new Refusal("inspection", "There is no such discrepancy on this fix list."), stop, parts);
        if (written.Done)
            return Redirect($"/walk/{Id}/fix-list/{Number}{anchor}");
        if (!await ShowAsync(stop))
            return NotFound();
        Refuse(written.Refusal!);
        return Page();
    }

    private async Task<bool> ShowAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop) || Job.Inspection.Discrepancies.FirstOrDefault(found => found.Number == Number) is not { } found)
            return false;
        Found = found;
        Described = Described.What is null ? DescribeForm.Of(found) : Described;
        Watched = await Db.WatchOfAsync(found.Id, stop);
        var earlier = await Db.EarlierFindsAsync(Job.Inspection, found.Place, stop);
        History = PlaceHistory.Of(found.Place, earlier);
        if (await Db.LastSignedAsync(Job.Inspection, stop) is { } last)
        {
            var before = await Db.FoundAtAsync(last.Id, stop);
            Before = [.. before.OrderBy(row => row.Number)
                .Select(row => new EarlierFind(row, last.WorkOrder, last.Id, last.OpenedOn, last.TimeInService.Value))];
            AgainFrom = Recurrence.Of(Job.Inspection.Discrepancies, before).Again.GetValueOrDefault(found.Id);
        }
        Guess = shelf.Classes.Guess(found.What, Job.Inspection.Tasks.FirstOrDefault(task => task.Id == found.TaskId));
        NotDeferrable = shelf.Classes.MayDefer(found.What)?.Message;
        Wrenches = await Db.WrenchesAsync(stop);
        var order = FixListRules.WorstFirst(Job.Inspection.Discrepancies).Select(one => one.Number).ToList();
        var at = order.IndexOf(found.Number);
        Neighbours = (at > 0 ? order[at - 1] : null, at < order.Count - 1 ? order[at + 1] : null);
        return true;
    }
}
