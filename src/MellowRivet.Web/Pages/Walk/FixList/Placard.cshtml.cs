using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.FixList;

/// <summary>The placard of a deferred item, to print and stick beside its control, with the answers that allow it.</summary>
public sealed class PlacardModel(Desk desk, RivetDb db, KeptFrames frames) : WalkPage(desk, db, frames)
{
    [FromRoute]
    public int Number { get; set; }

    public override Station At => Station.FixList;
    protected override JobParts Shows => JobParts.Discrepancies;
    public Discrepancy Found { get; private set; } = null!;

    public async Task<IActionResult> OnGetAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop) || Job.Inspection.Discrepancies.FirstOrDefault(found => found.Number == Number) is not { } found
            || !found.Deferral.WantsPlacard)
            return NotFound();
        Found = found;
        return Page();
    }
}
