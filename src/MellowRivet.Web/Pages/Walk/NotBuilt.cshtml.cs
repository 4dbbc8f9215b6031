using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk;

/// <summary>A station that is still to come: says so plainly, and what to do until then.</summary>
public sealed class NotBuiltModel(Desk desk, RivetDb db) : WalkPage(desk, db)
{
    [FromRoute]
    public string Place { get; set; } = "";

    public override Station At => Place == "look" ? Station.LookAndOpen : Station.Bulletins;

    public string Meanwhile => At switch
    {
        Station.LookAndOpen => "Until then keep the first look, the cleaning and the open panels on paper. Witness marks go on the fix list with a photo, before anything is cleaned.",
        _ => "Until then research directives and bulletins from the issuers' own lists, and keep the status list with the aircraft's papers.",
    };

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await LoadAsync(stop) ? Page() : NotFound();
}
