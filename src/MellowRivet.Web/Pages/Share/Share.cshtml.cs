using MellowRivet.Core;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Share;

/// <summary>
/// Where a phone shares photos to: they are kept, and the person says which inspection they belong to. The phone's own share
/// sheet sends no form token, so the browser has to say that no other site sent it.
/// </summary>
[IgnoreAntiforgeryToken]
[EnableRateLimiting("uploads")]
[Needs(Right.Look)]
public sealed class ShareModel(RivetDb db, Uploads uploads) : PageModel
{
    public IReadOnlyList<(Inspection Inspection, string Registration)> InWork { get; private set; } = [];
    public IReadOnlyList<string> Kept { get; private set; } = [];
    public string? Words { get; private set; }
    public IReadOnlyList<Refusal> Refusals { get; private set; } = [];

    public string FindIn(Inspection inspection) =>
        $"/walk/{inspection.Id}/find"
        + $"{QueryString.Create(Kept.Select(sha => KeyValuePair.Create("kept", (string?)sha)).Append(KeyValuePair.Create("what", Words))
            .Where(pair => pair.Value is not null))}";

    public Task OnGetAsync(CancellationToken stop) => LoadAsync(stop);

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostAsync(List<IFormFile> photos, string? text, string? title, CancellationToken stop)
    {
        if (Request.Headers["Sec-Fetch-Site"].ToString() is not ("none" or "same-origin"))
            return StatusCode(StatusCodes.Status403Forbidden);
        var attached = await uploads.TakeInAsync(photos, [], stop);
        Kept = [.. attached.Photos.Select(photo => photo.Sha256)];
        Refusals = attached.Refusals;
        Words = new[] { text, title }.FirstOrDefault(words => !string.IsNullOrWhiteSpace(words));
        Words = Words?.Length > 200 ? Words[..200] : Words;
        await LoadAsync(stop);
        return Kept.Count > 0 && InWork is [var only] ? Redirect(FindIn(only.Inspection)) : Page();
    }

    private async Task LoadAsync(CancellationToken stop) => InWork = await db.AllInWorkAsync(stop);
}
