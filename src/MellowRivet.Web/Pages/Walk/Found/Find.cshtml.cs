using MellowRivet.Core;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Drawings;
using MellowRivet.Store.Files;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Walk.Found;

/// <summary>Something found, on a page of its own.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Form">The form as it stands.</param>
/// <param name="BackTo">Where one came from.</param>
public sealed record FindView(WalkShown Walk, FindForm Form, string BackTo) : WalkView(Walk)
{
    public override Station At => Station.FixList;
    public override string? ZoneHere => Form.Zone;

    public CaptureView Capture => new(Job, Frame.Zones, Form, Refused.Refusals, BackTo, IsDialog: false);
}

/// <summary>Puts a discrepancy on the fix list, with its photos and sounds, from anywhere in the walk.</summary>
[EnableRateLimiting("uploads")]
public sealed class FindModel(Desk desk, RivetDb db, KeptFrames frames, PhotoFiles photos, Uploads uploads, Shelf shelf,
    WorkClock clock) : WalkPage<FindView>(desk, db, frames)
{
    // What the form begins with where one comes from somewhere.
    private FindForm begun = new();

    // The form's own script sends it and shows what comes back, where the person is.
    private bool IsLive => Request.Headers.ContainsKey("X-Rivet");

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnGetAsync(string? zone, Guid? task, string? what, string? where, string? measured, Guid? squawk,
        string? judged, int? mirror, List<string> kept, CancellationToken stop)
    {
        if (await LookAsync(judged is null ? JobParts.Tasks | JobParts.Discrepancies : JobParts.Whole, stop) is not { } job)
            return NotFound();
        if (!job.Inspection.InWork)
            return Redirect($"/walk/{Id}/close");
        var bad = job.Inspection.OpenJudgement(job.Aircraft, judged);
        var at = bad is null ? null : TaskOf(job, bad);
        measured ??= bad is { IsMeasured: true } ? Short($"{bad.Saw}; {bad.Judgement.Rule}", Discrepancy.LongestMeasured) : null;
        begun = new()
        {
            Judged = bad?.Key,
            Zone = zone ?? at?.ZoneKey ?? bad?.Where.ZoneKey ?? Anywhere(job.Inspection),
            Task = task ?? at?.Id,
            Where = where ?? bad?.Place,
            What = what ?? (bad is null ? null : $"{bad.What}: {bad.Saw}")
                ?? job.Inspection.Squawks.FirstOrDefault(heard => heard.Id == squawk)?.Words,
            Measured = measured,
            How = measured is null ? FoundHow.Visual : FoundHow.Measurement,
            Squawk = squawk,
            Kept = [.. kept.Concat(bad?.Photo is { } seen ? [seen.Sha256] : []).Distinct()
                .Where(sha => photos.PathOf(sha, PhotoSize.Thumb) is not null).Take(Uploads.Most)],
        };
        if (job.Inspection.Discrepancies.FirstOrDefault(found => found.Number == mirror) is { } same)
            Mirror(job.Inspection, same, begun);
        begun.Class = bad is null ? Guess(job.Inspection, begun).Class : DiscrepancyClass.Airworthiness;
        return await ShowAsync(stop);
    }

    // Nobody has said where: the whole aircraft, never whatever zone stands first.
    private static string? Anywhere(Inspection inspection) =>
        inspection.Tasks.FirstOrDefault(task => task.ZoneKey == Worksheet.WholeAircraft)?.ZoneKey;

    // What was found on one side, on the other one: a person looks before it is kept.
    private static void Mirror(Inspection inspection, Discrepancy same, FindForm form)
    {
        var zone = Sides.Turned(same.ZoneKey);
        (form.What, form.Where, form.How) = (Sides.Turned(same.What), Sides.Turned(same.Where), same.How);
        form.Zone = inspection.Tasks.Any(task => task.ZoneKey == zone) ? zone : same.ZoneKey;
    }

    // A judgement belongs to a task where the walk has one that its sheet answers.
    private static InspectionTask? TaskOf(Job job, Judged judged) =>
        job.Inspection.Tasks.FirstOrDefault(one => one.Id == judged.Where.TaskId)
        ?? (judged.Where.EngineId is null ? null : job.Inspection.Walk.FirstOrDefault(one =>
            job.Inspection.SheetsFor(one, job.Aircraft).Any(part => part.Judged.Any(there => there.Key == judged.Key))));

    private static string Short(string words, int most) => words.Length > most ? words[..most] : words;

    /// <summary>Guesses the class from what is typed, and says what is known of such a finding; keeps nothing.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnGetGuessAsync(string? what, Guid? task, CancellationToken stop) =>
        await LookAsync(JobParts.Tasks, stop) is { Inspection: var inspection }
            ? Partial("_Guess", Guess(inspection, new() { What = what, Task = task }))
            : NotFound();

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostAsync(FindForm form, CancellationToken stop)
    {
        if (await LookAsync(JobParts.Tasks | JobParts.Discrepancies, stop) is not { Inspection: var inspection })
            return NotFound();
        if (form.Guess)
            form.Class = form.Judged is null ? Guess(inspection, form).Class : DiscrepancyClass.Airworthiness;
        List<Refusal> problems = inspection.Closed() is { } closed ? [closed] : [.. inspection.Check(form.ToFind())];
        var (cost, wrongCost) = inspection.IsSurvey ? Estimate.ReadPrice(form.Cost, "What it costs") : (null, null);
        if (wrongCost is not null)
            problems.Add(new("cost", wrongCost));
        Discrepancy? made = null;
        var attached = problems.Count > 0
            ? Attachments.None
            : await uploads.TakeInAsync(form.Photos, form.Sounds, stop, clips: form.Videos);
        problems.AddRange(attached.Refusals);
        var (drawn, undrawn) = DrawnBefore.On(attached.Photos, problems.Count == 0 ? form.Drawn : []);
        if (undrawn is not null)
            problems.Add(undrawn);
        attached = attached with { Photos = drawn };
        if (problems.Count == 0)
        {
            attached = attached with { Photos = [.. form.Kept.Take(Uploads.Most).Select(photos.Find).OfType<Photo>(), .. attached.Photos] };
            var rules = await RulesAsync(stop);
            var written = await Desk.WriteAsync(Id, form.Post, job =>
            {
                (made, var refusal) = job.Inspection.PutOnList(form.Post, form.ToFind(), job.Aircraft, rules(job.Aircraft), attached.AddTo,
                    attached.Photo, Me, clock.GetUtcNow());
                return refusal ?? (made is null || !job.Inspection.IsSurvey ? null
                    : job.Inspection.Weigh(made, cost, new(made.Number, form.SellerPays, form.Hidden, form.Stops), Me, clock.GetUtcNow()));
            }, stop, form.Judged is null ? JobParts.Tasks | JobParts.Discrepancies : JobParts.Whole);
            if (written.Done)
                return Done(inspection, form, made);
            problems.Add(written.Refusal!);
        }
        if (!IsLive)
            return await ShowAsync(stop, new(form, problems));
        // What is no field's own waits on the device; a filter says so.
        if (problems.Find(problem => problem.Field == Once.Busy) is { } busy)
            ModelState.AddModelError(busy.Field, busy.Message);
        // Only the problems come back: the form, its words and its chosen pictures stay as they are.
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        IReadOnlyList<Refusal> said = problems;
        return Partial("_FindProblems", said);
    }

    private ClassGuess Guess(Inspection inspection, FindForm form) =>
        shelf.Classes.Guess(form.What, inspection.Tasks.FirstOrDefault(task => task.Id == form.Task),
            inspection.Tasks.FirstOrDefault(task => task.ZoneKey == form.Zone)?.ZoneTitle);

    private string BackTo(Inspection inspection, FindForm form) =>
        inspection.Tasks.FirstOrDefault(task => task.Id == form.Task) is { } task
            ? $"/walk/{Id}/{Seam.Place(task.Station)}/{task.ZoneKey}?task={task.Id}"
            : form.Squawk is null ? $"/walk/{Id}/fix-list" : $"/walk/{Id}/arrive";

    // A post that was carried out before made its discrepancy then: its id is the post's.
    private IActionResult Done(Inspection inspection, FindForm form, Discrepancy? made)
    {
        var back = BackTo(inspection, form);
        if (!IsLive)
            return Redirect(back);
        made ??= inspection.Discrepancies.FirstOrDefault(found => found.Id == form.Post);
        return new JsonResult(new
        {
            number = made is null ? "" : $"{inspection.WorkOrder}-{made.Number:00}",
            @class = made?.Class.InWords(),
            href = made is null ? back : $"/walk/{Id}/fix-list/{made.Number}",
            next = back,
        });
    }

    protected override Task<FindView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop)
    {
        var form = refused.Form as FindForm ?? begun;
        return Task.FromResult<FindView?>(new(walk, form, BackTo(walk.Job.Inspection, form)));
    }
}
