using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Share;

/// <summary>Pictures that a phone shared, and where they may go.</summary>
/// <param name="InWork">The inspections in work.</param>
/// <param name="Kept">The pictures, by the hash they are kept under.</param>
/// <param name="Words">What the phone says of them.</param>
public sealed record ShareView(IReadOnlyList<(Inspection Inspection, string Registration)> InWork, IReadOnlyList<string> Kept,
    string? Words)
    : PageView
{
    public string FindIn(Inspection inspection) =>
        $"/walk/{inspection.Id}/find"
        + $"{QueryString.Create(Kept.Select(sha => KeyValuePair.Create("kept", (string?)sha)).Append(KeyValuePair.Create("what", Words))
            .Where(pair => pair.Value is not null))}";
}

/// <summary>
/// Where a phone shares photos to: they are kept, and the person says which inspection they belong to. The phone's own share
/// sheet sends no form token, so the browser has to say that no other site sent it.
/// </summary>
[IgnoreAntiforgeryToken]
[EnableRateLimiting("uploads")]
[Needs(Right.Look)]
public sealed class ShareModel(RivetDb db, Uploads uploads) : ShopPage<ShareView>
{
    private const int LongestWords = 200;

    private IReadOnlyList<string> kept = [];
    private string? words;

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostAsync(List<IFormFile> photos, string? text, string? title, CancellationToken stop)
    {
        if (Request.Headers["Sec-Fetch-Site"].ToString() is not ("none" or "same-origin"))
            return StatusCode(StatusCodes.Status403Forbidden);
        var attached = await uploads.TakeInAsync(photos, [], stop);
        kept = [.. attached.Photos.Select(photo => photo.Sha256)];
        words = new[] { text, title }.FirstOrDefault(said => !string.IsNullOrWhiteSpace(said));
        words = words?.Length > LongestWords ? words[..LongestWords] : words;
        await MakeAsync(stop, new(null, attached.Refusals));
        return kept.Count > 0 && View.InWork is [var only] ? Redirect(View.FindIn(only.Inspection)) : Page();
    }

    protected override async Task<ShareView?> ViewAsync(Refused refused, CancellationToken stop) =>
        new(await db.AllInWorkAsync(stop), kept, words);
}
