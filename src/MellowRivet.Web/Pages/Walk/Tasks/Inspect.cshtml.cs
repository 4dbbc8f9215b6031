using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Tasks;

/// <summary>The inspector's queue: what waits for a second person.</summary>
public sealed class InspectModel(Desk desk, RivetDb db, KeptFrames frames, TimeProvider clock) : WalkPage(desk, db, frames)
{
    public override Station At => Station.Airframe;
    protected override JobParts Shows => JobParts.Walk;

    public IEnumerable<InspectionTask> Tasks =>
        Job.Inspection.Walk.Where(task => SecondPerson.Wanted(Job.Inspection.House, Job.Inspection, task));
    public IEnumerable<Discrepancy> Corrected =>
        Job.Inspection.Discrepancies.Where(found => SecondPerson.Wanted(Job.Inspection.House, found)).OrderBy(found => found.Number);

    /// <summary>Why the one who looks can't inspect it; null where they may.</summary>
    public string? WhyNot(Guid? doneBy) => SecondPerson.MayInspect(Person(User.PersonId())!, doneBy)?.Message;

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await LoadAsync(stop) ? Page() : NotFound();

    /// <summary>Inspects a task or what was done about a discrepancy, as a second person.</summary>
    [Needs(Right.InspectWork)]
    public async Task<IActionResult> OnPostAsync(Guid post, Guid? task, Guid? found, CancellationToken stop)
    {
        var me = await Db.PersonAsync(User.PersonId(), stop);
        var written = await Desk.WriteAsync(Id, post, job =>
            job.Inspection.Tasks.FirstOrDefault(other => other.Id == task) is { } done ? done.Inspect(me, clock.GetUtcNow())
            : job.Inspection.Discrepancies.FirstOrDefault(other => other.Id == found) is { } corrected
            ? corrected.Inspect(me, clock.GetUtcNow())
            : new("inspect", "There is no such task or discrepancy."), stop, JobParts.Tasks | JobParts.Discrepancies);
        if (written.Done)
            return Redirect($"/walk/{Id}/inspect");
        if (!await LoadAsync(stop))
            return NotFound();
        Refuse(written.Refusal!);
        return Page();
    }
}
