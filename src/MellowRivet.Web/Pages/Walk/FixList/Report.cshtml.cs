using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.FixList;

/// <summary>The fix list with its photos.</summary>
public sealed record ReportView(WalkShown Walk) : WalkView(Walk)
{
    public override Station At => Station.FixList;
}

/// <summary>The fix list with its photos, by class, to print.</summary>
public sealed class ReportModel(Desk desk, RivetDb db, KeptFrames frames) : WalkPage<ReportView>(desk, db, frames)
{
    protected override bool IsOfInspections => true;

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    protected override Task<ReportView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop) =>
        Task.FromResult<ReportView?>(new(walk));
}
