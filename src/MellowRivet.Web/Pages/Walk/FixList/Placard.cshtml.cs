using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.FixList;

/// <summary>The placard of a deferred item.</summary>
public sealed record PlacardView(WalkShown Walk, Discrepancy Found) : WalkView(Walk)
{
    public override Station At => Station.FixList;
}

/// <summary>The placard of a deferred item, to print and stick beside its control, with the answers that allow it.</summary>
public sealed class PlacardModel(Desk desk, RivetDb db, KeptFrames frames) : WalkPage<PlacardView>(desk, db, frames)
{
    protected override bool IsOfInspections => true;

    [FromRoute]
    public int Number { get; set; }

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    protected override Task<PlacardView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop) =>
        Task.FromResult(walk.Job.Inspection.Discrepancies.FirstOrDefault(found => found.Number == Number)
            is { Deferral.WantsPlacard: true } found
            ? new PlacardView(walk, found)
            : null);
}
