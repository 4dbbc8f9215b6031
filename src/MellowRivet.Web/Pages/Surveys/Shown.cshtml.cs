using MellowRivet.Core.Discrepancies;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using MellowRivet.Web.Pages.Walk.Surveying;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Surveys;

/// <summary>What one of the two sides of a survey reads.</summary>
/// <param name="Report">The report.</param>
/// <param name="Link">The link it was opened by.</param>
public sealed record ShownView(SideReport Report, OwnerLink Link) : PageView;

/// <summary>A survey's report by link: the link is the key, nobody signs in, and nothing else can be reached from it.</summary>
[EnableRateLimiting("owner")]
[OpenToAll("whoever has the link of a survey's report")]
public sealed class ShownModel(Desk desk, RivetDb db, TimeProvider clock) : ShopPage<ShownView>
{
    [FromRoute]
    public string Token { get; set; } = "";

    public async Task<IActionResult> OnGetAsync(CancellationToken stop)
    {
        if (!await MakeAsync(stop))
            return NotFound();
        await db.OpenedAsync(View.Link.Id, clock.GetUtcNow(), stop);
        return Page();
    }

    // A link that ended and one that never was look the same from outside.
    protected override async Task<ShownView?> ViewAsync(Refused refused, CancellationToken stop)
    {
        if (await db.OwnerLinkAsync(Token, clock, stop, survey: true) is not { } link
            || await desk.SurveyStandAsync(link.InspectionId, stop) is not var (job, stand))
            return null;
        Response.Headers.CacheControl = "no-store";
        var people = await desk.Board.PeopleAsync(stop);
        return new(new(job, stand, link.For, who => people.GetValueOrDefault(who)?.Name ?? "", $"/survey/{Token}/photos",
            link.For == LinkFor.Buyer
                ? await db.PapersAsync(job.Aircraft, await desk.Board.LineAsync(job.Aircraft.Id, stop), stand.Survey.Rules, stop)
                : null), link);
    }
}
