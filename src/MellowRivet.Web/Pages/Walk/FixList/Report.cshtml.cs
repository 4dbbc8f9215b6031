using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.FixList;

/// <summary>The fix list with its photos, by class, to print.</summary>
public sealed class ReportModel(Desk desk, RivetDb db, KeptFrames frames) : WalkPage(desk, db, frames)
{
    public override Station At => Station.FixList;

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await LoadAsync(stop) ? Page() : NotFound();
}
