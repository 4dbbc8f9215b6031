using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk;

/// <summary>A station that is still to come: says so plainly, and what to do until then.</summary>
public sealed class NotBuiltModel(Desk desk, RivetDb db) : WalkPage(desk, db)
{
    public override Station At => Station.Bulletins;

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await LoadAsync(stop) ? Page() : NotFound();
}
