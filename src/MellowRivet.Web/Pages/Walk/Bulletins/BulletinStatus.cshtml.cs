using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Walk.Close;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Walk.Bulletins;

/// <summary>The research sheet: every bulletin considered, with its answer, reason and status, to print and to sign.</summary>
[EnableRateLimiting("sign-in")]
public sealed class BulletinStatusModel(Desk desk, RivetDb db, KeptFrames frames, Shelf shelf, UserManager<MellowRivet.Store.Account> users)
    : SigningPage(desk, db, frames, shelf, users)
{
    public override Station At => Station.Bulletins;
    protected override bool WholeResearch => true;
    protected override JobParts Shows => JobParts.Bare;

    public SignedRecord? Signed { get; private set; }

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await ShowAsync(stop) ? Page() : NotFound();

    [Needs(Right.Sign)]
    public async Task<IActionResult> OnPostAsync(Guid post, string? password, CancellationToken stop)
    {
        if (!await ShowAsync(stop))
            return NotFound();
        if (await SignerAsync(password) is not { } signer)
            return Page();
        var written = await Desk.SignStatusAsync(Id, post, Rules, signer, stop);
        if (written.Done)
            return Redirect($"/walk/{Id}/records");
        Refuse(written.Refusal!);
        return Page();
    }

    private async Task<bool> ShowAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return false;
        Signed = (await Db.RecordsOfAsync(Id, stop)).LastOrDefault(record => record.Book == Book.BulletinStatus);
        return true;
    }
}
