using MellowRivet.Core.Discrepancies;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Owners;

/// <summary>The owner's page of one inspection: a link is the key, nobody signs in, and nothing else can be reached from it.</summary>
[EnableRateLimiting("owner")]
[OpenToAll("whoever has the link of a list")]
public sealed class ListModel(Desk desk, RivetDb db, TimeProvider clock) : PageModel
{
    [FromRoute]
    public string Token { get; set; } = "";

    public Job Job { get; private set; } = null!;
    public OwnerList Owner { get; private set; } = null!;
    public OwnerLink Link { get; private set; } = null!;

    /// <summary>The line whose answer wasn't taken, why, and what was typed.</summary>
    public (int Number, string Why, string? Words)? Refused { get; private set; }

    public async Task<IActionResult> OnGetAsync(CancellationToken stop)
    {
        if (!await ShowAsync(stop))
            return Ended();
        await db.OpenedAsync(Link.Id, clock.GetUtcNow(), stop);
        return Page();
    }

    public async Task<IActionResult> OnPostAsync(Guid post, int number, OwnerAnswer answer, string? words, CancellationToken stop)
    {
        if (!await ShowAsync(stop))
            return Ended();
        var written = await desk.WriteAsync(Link.InspectionId, post, job => OwnerList.Of(job.Inspection)
            .Answer(number, answer, words, clock.GetUtcNow()), stop, JobParts.Discrepancies);
        if (written.Done)
            return Redirect($"/owner/{Token}#line-{number}");
        await ShowAsync(stop);
        Refused = (number, written.Refusal!.Message, words);
        return Page();
    }

    private async Task<bool> ShowAsync(CancellationToken stop)
    {
        if (await db.OwnerLinkAsync(Token, clock, stop) is not { } link
            || await desk.JobAsync(link.InspectionId, stop, JobParts.Tasks | JobParts.Discrepancies) is not { } job)
            return false;
        (Link, Job, Owner) = (link, job, OwnerList.Of(job.Inspection));
        Response.Headers.CacheControl = "no-store";
        return true;
    }

    // A link that ended and one that never was look the same from outside.
    private NotFoundResult Ended() => NotFound();
}
