using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Store.Photos;
using MellowRivet.Web.Access;
using MellowRivet.Web.Look;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Walk;

/// <summary>Puts a discrepancy on the fix list, with its photos and sounds, from anywhere in the walk.</summary>
[EnableRateLimiting("uploads")]
public sealed class FindModel(Desk desk, RivetDb db, PhotoFiles photos, SoundFiles sounds, Shelf shelf, TimeProvider clock) : WalkPage(desk, db)
{
    public override Station At => Station.FixList;
    public override string? ZoneHere => Form.Zone;

    public FindForm Form { get; private set; } = new();
    public IReadOnlyList<Refusal> Problems { get; private set; } = [];
    public CaptureView View => new(Job, Form, Problems, BackTo, IsDialog: false);

    private string BackTo => Job.Inspection.Tasks.FirstOrDefault(task => task.Id == Form.Task) is { } task
        ? $"/walk/{Id}/{Seam.Place(task.Station)}/{task.ZoneKey}?task={task.Id}"
        : Form.Squawk is null ? $"/walk/{Id}/fix-list" : $"/walk/{Id}/arrive";

    // The form's own script sends it and shows what comes back, where the person is.
    private bool IsLive => Request.Headers.ContainsKey("X-Rivet");

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnGetAsync(string? zone, Guid? task, string? what, string? measured, Guid? squawk, List<string> kept, CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return NotFound();
        if (!Job.Inspection.InWork)
            return Redirect($"/walk/{Id}/close");
        Form = new()
        {
            Zone = zone,
            Task = task,
            What = what ?? Job.Inspection.Squawks.FirstOrDefault(heard => heard.Id == squawk)?.Words,
            Measured = measured,
            How = measured is null ? FoundHow.Visual : FoundHow.Measurement,
            Squawk = squawk,
            Kept = [.. kept.Where(sha => photos.PathOf(sha, PhotoSize.Thumb) is not null).Take(Attachments.Most)],
        };
        Form.Class = Guess().Class;
        return Page();
    }

    /// <summary>Guesses the class from what is typed, and says what is known of such a finding; keeps nothing.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnGetGuessAsync(string? what, Guid? task, CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return NotFound();
        Form = new() { What = what, Task = task };
        return Partial("_Guess", Guess());
    }

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostAsync(FindForm form, CancellationToken stop)
    {
        Form = form;
        if (!await LoadAsync(stop))
            return NotFound();
        List<Refusal> problems = [.. Discrepancy.Check(form.What, form.Where)];
        if (!Enum.IsDefined(form.Class) || !Enum.IsDefined(form.How))
            problems.Add(new("class", "Choose what it means for the aircraft."));
        if (Job.Inspection.Tasks.All(task => task.ZoneKey != form.Zone))
            problems.Add(new("zone", "Choose the zone it is in."));
        if (form.Guess)
            form.Class = Guess().Class;

        Discrepancy? made = null;
        if (problems.Count == 0)
        {
            var attached = await Attachments.TakeInAsync(form.Photos, form.Sounds, photos, sounds, stop);
            attached = attached with { Photos = [.. form.Kept.Take(Attachments.Most).Select(photos.Find).OfType<Photo>(), .. attached.Photos] };
            problems.AddRange(attached.Refusals);
            if (problems.Count == 0)
            {
                var written = await Desk.WriteAsync(Id, form.Post, job => Record(job, form, attached, out made), stop);
                if (written.Done)
                    return Done(made);
                problems.Add(written.Refusal!);
            }
        }
        Problems = problems;
        if (!IsLive)
            return Page();
        // Only the problems come back: the form, its words and its chosen pictures stay as they are.
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Partial("_FindProblems", Problems);
    }

    private Refusal? Record(Job job, FindForm form, Attachments attached, out Discrepancy? made)
    {
        var (inspection, now, me) = (job.Inspection, clock.GetUtcNow(), User.PersonId());
        var task = inspection.Tasks.FirstOrDefault(task => task.Id == form.Task);
        var found = made = inspection.Find(form.Post, form.What!, form.Zone!, form.Where ?? "", form.Class, form.Grounded, task, me, now);
        if (form.How != FoundHow.Visual || !string.IsNullOrWhiteSpace(form.Measured))
            if (found.Describe(found.What, null, found.Place, form.How, form.Measured, me, now) is { } measured)
                return measured;
        if (attached.AddTo(found) is { } full)
            return full;
        if (!string.IsNullOrWhiteSpace(form.Note) && found.Add(Guid.CreateVersion7(), form.Note, me, now) is { } note)
            return note;
        if (form.Foreign && inspection.FindObject(Guid.CreateVersion7(), form.Zone, found.What.Length > 120 ? found.What[..120] : found.What, attached.Photos.Count > 0 ? attached.Photos[0] : null, me, now) is { } foreign)
            return foreign;
        return form.Squawk is { } squawk ? inspection.Answer(squawk, $"On the fix list as {inspection.WorkOrder}-{found.Number:00}.", me, now) : null;
    }

    private ClassGuess Guess() => ClassGuess.Of(Form.What, Job.Inspection.Tasks.FirstOrDefault(task => task.Id == Form.Task), shelf.UsualFindings);

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
