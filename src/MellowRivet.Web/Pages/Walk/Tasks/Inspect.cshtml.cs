using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Tasks;

/// <summary>What waits for a second person.</summary>
public sealed record InspectView(WalkShown Walk) : WalkView(Walk)
{
    public override Station At => Station.Airframe;

    public IEnumerable<InspectionTask> Tasks =>
        Job.Inspection.Walk.Where(task => SecondPerson.Wanted(Job.Inspection.House, Job.Inspection, task));

    public IEnumerable<Discrepancy> Corrected =>
        Job.Inspection.Discrepancies.Where(found => SecondPerson.Wanted(Job.Inspection.House, found)).OrderBy(found => found.Number);

    /// <summary>Why the one who looks can't inspect it; null where they may.</summary>
    public string? WhyNot(Guid? doneBy) => SecondPerson.MayInspect(Person(Walk.Me)!, doneBy)?.Message;
}

/// <summary>The inspector's queue.</summary>
public sealed class InspectModel(Desk desk, RivetDb db, KeptFrames frames, WorkClock clock) : WalkPage<InspectView>(desk, db, frames)
{
    protected override bool IsOfInspections => true;

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    /// <summary>Inspects a task or what was done about a discrepancy, as a second person.</summary>
    [Needs(Right.InspectWork)]
    public async Task<IActionResult> OnPostAsync(Guid post, Guid? task, Guid? found, CancellationToken stop)
    {
        var me = await Db.PersonAsync(Me, stop);
        return await WriteAsync(post, $"/walk/{Id}/inspect", job =>
            job.Inspection.Tasks.FirstOrDefault(other => other.Id == task) is { } done ? done.Inspect(me, clock.GetUtcNow())
            : job.Inspection.Discrepancies.FirstOrDefault(other => other.Id == found) is { } corrected
                ? corrected.Inspect(me, clock.GetUtcNow())
            : new("inspect", "There is no such task or discrepancy."), stop, JobParts.Tasks | JobParts.Discrepancies);
    }

    protected override Task<InspectView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop) =>
        Task.FromResult<InspectView?>(new(walk));
}
