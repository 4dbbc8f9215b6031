using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Walk.Close;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Walk.Bulletins;

/// <summary>The research sheet.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Answer">By which certificate whoever looks may sign it.</param>
/// <param name="Signed">The sheet that was signed last; null for none.</param>
public sealed record BulletinStatusView(WalkShown Walk, SigningAnswer Answer, SignedRecord? Signed) : SigningView(Walk, Answer)
{
    public override Station At => Station.Bulletins;
}

/// <summary>The research sheet: every bulletin considered, with its answer, reason and status, to print and to sign.</summary>
[EnableRateLimiting("status")]
public sealed class BulletinStatusModel(Desk desk, RivetDb db, KeptFrames frames, Shelf shelf, PasswordAgain again)
    : SigningPage<BulletinStatusView>(desk, db, frames, shelf, again)
{
    protected override bool WholeResearch => true;
    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.Sign)]
    public async Task<IActionResult> OnPostAsync(Guid post, string? password, CancellationToken stop)
    {
        if (await LoadAsync(stop) is not { } walk)
            return NotFound();
        var (signer, refusal) = await SignerAsync(walk, password, stop);
        return signer is null
            ? await AgainAsync(refusal!, stop)
            : await AfterAsync(Desk.SignStatusAsync(Id, post, RulesOf(walk), signer, stop), $"/walk/{Id}/records", stop);
    }

    protected override async Task<BulletinStatusView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop) =>
        new(walk, AnswerOf(walk), (await Db.RecordsOfAsync(Id, stop)).LastOrDefault(record => record.Book == Book.BulletinStatus));
}
