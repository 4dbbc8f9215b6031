using MellowRivet.Core;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Store.Files;
using MellowRivet.Web.Access;
using MellowRivet.Web.Drawings;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Walk.Found;

/// <summary>Puts a discrepancy on the fix list, with its photos and sounds, from anywhere in the walk.</summary>
[EnableRateLimiting("uploads")]
public sealed class FindModel(Desk desk, RivetDb db, KeptFrames frames, PhotoFiles photos, SoundFiles sounds, Shelf shelf,
    TimeProvider clock) : WalkPage(desk, db, frames)
{
    public override Station At => Station.FixList;
    public override string? ZoneHere => Form.Zone;

    public FindForm Form { get; private set; } = new();
    public IReadOnlyList<Refusal> Problems { get; private set; } = [];
    public CaptureView View => new(Job, Frame.Zones, Form, Problems, BackTo, IsDialog: false);

    private string BackTo => Job.Inspection.Tasks.FirstOrDefault(task => task.Id == Form.Task) is { } task
        ? $"/walk/{Id}/{Seam.Place(task.Station)}/{task.ZoneKey}?task={task.Id}"
        : Form.Squawk is null ? $"/walk/{Id}/fix-list" : $"/walk/{Id}/arrive";

    // The form's own script sends it and shows what comes back, where the person is.
    private bool IsLive => Request.Headers.ContainsKey("X-Rivet");

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnGetAsync(string? zone, Guid? task, string? what, string? measured, Guid? squawk, string? judged,
        List<string> kept, CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return NotFound();
        if (!Job.Inspection.InWork)
            return Redirect($"/walk/{Id}/close");
        var bad = judged is null ? null : Judged(await Desk.WithAsync(Job, JobParts.Whole, stop), judged);
        task ??= TaskOf(bad)?.Id;
        zone ??= TaskOf(bad)?.ZoneKey ?? bad?.Where.ZoneKey;
        measured ??= bad is { IsMeasured: true } ? Short($"{bad.Saw}; {bad.Judgement.Rule}", Discrepancy.LongestMeasured) : null;
        what ??= bad is null ? null : $"{bad.What}: {bad.Saw}";
        Form = new()
        {
            Judged = bad?.Key,
            Zone = zone,
            Task = task,
            What = what ?? Job.Inspection.Squawks.FirstOrDefault(heard => heard.Id == squawk)?.Words,
            Measured = measured,
            How = measured is null ? FoundHow.Visual : FoundHow.Measurement,
            Squawk = squawk,
            Kept = [.. kept.Where(sha => photos.PathOf(sha, PhotoSize.Thumb) is not null).Take(Attachments.Most)],
        };
        Form.Class = bad is null ? Guess().Class : DiscrepancyClass.Airworthiness;
        return Page();
    }

    // The page of a judgement belongs to a task where the walk has one for it.
    private InspectionTask? TaskOf(Judged? judged) =>
        judged is null ? null : Job.Inspection.Tasks.FirstOrDefault(one => one.Id == judged.Where.TaskId)
        ?? (judged.Where.Cylinder is not null
            ? Job.Inspection.Tasks.FirstOrDefault(one => one.IsCompression && one.TiedTo is null
                && (one.ComponentId is null || one.ComponentId == judged.Where.EngineId))
            : null);

    private static Judged? Judged(Job job, string? key) =>
        key is null ? null : JudgedLines.Of(job.Inspection, job.Aircraft)
            .FirstOrDefault(line => line.Judged.Key == key && line.Judged.WantsAnswer && line.By is null or AnsweredBy.FixList)?.Judged;

    private static string Short(string words, int most) => words.Length > most ? words[..most] : words;

    /// <summary>Guesses the class from what is typed, and says what is known of such a finding; keeps nothing.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnGetGuessAsync(string? what, Guid? task, CancellationToken stop)
    {
        if (!await LookAsync(JobParts.Tasks, stop))
            return NotFound();
        Form = new() { What = what, Task = task };
        return Partial("_Guess", Guess());
    }

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostAsync(FindForm form, CancellationToken stop)
    {
        Form = form;
        if (!await LookAsync(JobParts.Tasks | JobParts.Discrepancies, stop))
            return NotFound();
        List<Refusal> problems = [.. Discrepancy.Check(form.What, form.Where)];
        if (!Enum.IsDefined(form.Class) || !Enum.IsDefined(form.How))
            problems.Add(new("class", "Choose what it means for the aircraft."));
        if (Job.Inspection.Tasks.All(task => task.ZoneKey != form.Zone))
            problems.Add(new("zone", "Choose the zone it is in."));
        if (form.Guess)
            form.Class = form.Judged is null ? Guess().Class : DiscrepancyClass.Airworthiness;

        Discrepancy? made = null;
        if (problems.Count == 0)
        {
            var attached = await Attachments.TakeInAsync(form.Photos, form.Sounds, photos, sounds, stop);
            attached = attached with
                { Photos = [.. form.Kept.Take(Attachments.Most).Select(photos.Find).OfType<Photo>(), .. attached.Photos] };
            problems.AddRange(attached.Refusals);
            if (problems.Count == 0)
            {
                var rules = await RulesAsync(stop);
                var written = await Desk.WriteAsync(Id, form.Post, job => Record(job, rules(job.Aircraft), form, attached, out made), stop,
                    form.Judged is null ? JobParts.Tasks | JobParts.Discrepancies : JobParts.Whole);
                if (written.Done)
                    return Done(made);
                problems.Add(written.Refusal!);
            }
        }
        Problems = problems;
        if (!IsLive)
            return await LoadAsync(stop) ? Page() : NotFound();
        // Only the problems come back: the form, its words and its chosen pictures stay as they are.
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Partial("_FindProblems", Problems);
    }

    private Refusal? Record(Job job, ShopRules rules, FindForm form, Attachments attached, out Discrepancy? made)
    {
        made = null;
        var (inspection, now, me) = (job.Inspection, clock.GetUtcNow(), User.PersonId());
        var task = inspection.Tasks.FirstOrDefault(task => task.Id == form.Task);
        var judged = Judged(job, form.Judged);
        if (form.Judged is not null && judged is null)
            return new("what", "What this was to be written down for was read again or answered meanwhile. Look at it first.");
        var (found, refusal) = inspection.PutOnList(form.Post, form.What!, form.Zone!, form.Where ?? "",
            new(form.Class, form.Grounded, me, now, form.Why, form.Reference, rules.SignsBy(me, inspection, job.Aircraft)), task, judged,
            rules.Classes);
        made = found;
        if (found is null)
            return refusal;
        if (form.How != FoundHow.Visual || !string.IsNullOrWhiteSpace(form.Measured))
            if (found.Describe(found.What, null, found.Place, form.How, form.Measured, me, now) is { } measured)
                return measured;
        if (attached.AddTo(found) is { } full)
            return full;
        if (!string.IsNullOrWhiteSpace(form.Note) && found.Add(Guid.CreateVersion7(), form.Note, me, now) is { } note)
            return note;
        if (form.Foreign && inspection.FindObject(Guid.CreateVersion7(), form.Zone, found.What.Length > 120
            ? found.What[..120]
            : found.What, attached.Photos.Count > 0 ? attached.Photos[0] : null, me, now) is { } foreign)
            return foreign;
        return form.Squawk is { } squawk
            ? inspection.Answer(squawk, $"On the fix list as {inspection.WorkOrder}-{found.Number:00}.", me, now)
            : null;
    }

    private ClassGuess Guess() =>
        shelf.Classes.Guess(Form.What, Job.Inspection.Tasks.FirstOrDefault(task => task.Id == Form.Task),
            Job.Inspection.Tasks.FirstOrDefault(task => task.ZoneKey == Form.Zone)?.ZoneTitle);

    // A post that was carried out before made its discrepancy then: its id is the post's.
    private IActionResult Done(Discrepancy? made)
    {
        if (!IsLive)
            return Redirect(BackTo);
        made ??= Job.Inspection.Discrepancies.FirstOrDefault(found => found.Id == Form.Post);
        return new JsonResult(new
        {
            number = made is null ? "" : $"{Job.Inspection.WorkOrder}-{made.Number:00}",
            @class = made?.Class.InWords(),
            href = made is null ? BackTo : $"/walk/{Id}/fix-list/{made.Number}",
            next = BackTo,
        });
    }
}
