using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Store.Photos;
using MellowRivet.Web.Access;
using MellowRivet.Web.Look;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk;

/// <summary>Something found, as it is sent.</summary>
public sealed class FindForm
{
    public Guid Post { get; set; } = Guid.CreateVersion7();
    public string? What { get; set; }
    public string? Zone { get; set; }
    public string? Where { get; set; }

    /// <summary>Airworthiness until a person says less: the cautious way round.</summary>
    public DiscrepancyClass Class { get; set; } = DiscrepancyClass.Airworthiness;
    public bool Grounded { get; set; }
    public Guid? Task { get; set; }

    /// <summary>The owner's complaint that it answers; null where it answers none.</summary>
    public Guid? Squawk { get; set; }
    public List<IFormFile> Photos { get; set; } = [];
}

/// <summary>Puts a discrepancy on the fix list, with its photos, from anywhere in the walk.</summary>
public sealed class FindModel(Desk desk, RivetDb db, PhotoFiles photos, TimeProvider clock) : WalkPage(desk, db)
{
    private const int MostPhotos = 12;

    public override Station At => Station.FixList;
    public override string? ZoneHere => Form.Zone;

    public FindForm Form { get; private set; } = new();
    public IReadOnlyList<Refusal> Problems { get; private set; } = [];

    public string BackTo => Job.Inspection.Tasks.FirstOrDefault(task => task.Id == Form.Task) is { } task
        ? $"/walk/{Id}/{Seam.Place(task.Station)}/{task.ZoneKey}?task={task.Id}"
        : Form.Squawk is null ? $"/walk/{Id}/fix-list" : $"/walk/{Id}/arrive";

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnGetAsync(string? zone, Guid? task, string? what, Guid? squawk, CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return NotFound();
        if (!Job.Inspection.InWork)
            return Redirect($"/walk/{Id}/close");
        Form = new() { Zone = zone, Task = task, What = what ?? Job.Inspection.Squawks.FirstOrDefault(heard => heard.Id == squawk)?.Words, Squawk = squawk };
        return Page();
    }

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostAsync(FindForm form, CancellationToken stop)
    {
        Form = form;
        if (!await LoadAsync(stop))
            return NotFound();
        List<Refusal> problems = [.. Discrepancy.Check(form.What, form.Where)];
        if (form.Photos.Count > MostPhotos)
            problems.Add(new("photos", $"{form.Photos.Count} pictures; {MostPhotos} at a time is the most."));
        if (!Enum.IsDefined(form.Class))
            problems.Add(new("class", "Choose what it means for the aircraft."));
        if (Job.Inspection.Tasks.All(task => task.ZoneKey != form.Zone))
            problems.Add(new("zone", "Choose the zone it is in."));

        List<Photo> taken = [];
        if (problems.Count == 0)
        {
            try
            {
                foreach (var file in form.Photos)
                {
                    await using var content = file.OpenReadStream();
                    var answer = await photos.TakeInAsync(content, file.FileName, stop);
                    if (answer.Refusal is { } refusal)
                        problems.Add(refusal);
                    else
                        taken.Add(answer.Photo!);
                }
            }
            catch (IOException)
            {
                problems.Add(new("photos", "The shop's disk didn't take the picture: it may be full. Nothing was saved; your words are still here."));
            }
        }
        if (problems.Count == 0)
        {
            var written = await Desk.WriteAsync(Id, form.Post, job =>
            {
                var task = job.Inspection.Tasks.FirstOrDefault(task => task.Id == form.Task);
                var found = job.Inspection.Find(form.Post, form.What!, form.Zone!, form.Where ?? "", form.Class, form.Grounded, task, User.PersonId(), clock.GetUtcNow());
                taken.ForEach(found.Add);
                return form.Squawk is { } squawk
                    ? job.Inspection.Answer(squawk, $"On the fix list as {job.Inspection.WorkOrder}-{found.Number:00}.", User.PersonId(), clock.GetUtcNow())
                    : null;
            }, stop);
            if (written.Done)
                return Done();
            problems.Add(written.Refusal!);
        }
        Problems = problems;
        if (!Request.Headers.ContainsKey("HX-Request"))
            return Page();
        // Only the problems come back: the form, its words and its chosen pictures stay as they are.
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Partial("_FindProblems", this);
    }

    private IActionResult Done()
    {
        var next = BackTo;
        if (!Request.Headers.ContainsKey("HX-Request"))
            return Redirect(next);
        Response.Headers["HX-Redirect"] = next;
        return new EmptyResult();
    }
}
