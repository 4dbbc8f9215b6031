using MellowRivet.Core;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Walk;

/// <summary>What stands between the aircraft and its signature, and the signature.</summary>
[EnableRateLimiting("sign-in")]
public sealed class CloseModel(Desk desk, RivetDb db, Shelf shelf, UserManager<MellowRivet.Store.Account> users, TimeProvider clock) : SigningPage(desk, db, shelf, users)
{
    public override Station At => Station.Close;

    public string Statement { get; private set; } = "";
    public string Source { get; private set; } = "";

    public string BooksInWords => string.Join(", ", new[] { "the airframe" }
        .Concat(Job.Aircraft.Engines.Select(engine => $"the {engine.Position} engine".Replace("  ", " ")))
        .Concat(Job.Aircraft.Propellers.Select(propeller => $"the {propeller.Position} propeller".Replace("  ", " "))));

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await ShowAsync(stop) ? Page() : NotFound();

    [Needs(Right.Sign)]
    public async Task<IActionResult> OnPostAsync(Guid post, string? password, CancellationToken stop)
    {
        if (!await ShowAsync(stop))
            return NotFound();
        if (Answer.Allowed && !Readiness.MaySign && Job.Inspection.InWork)
        {
            ModelState.AddModelError("sign", "There are still things to do before this can be signed: they are listed here.");
            return Page();
        }
        if (await SignerAsync(password) is not { } signer)
            return Page();
        var written = await Desk.SignAsync(Id, post, Rules, signer, stop);
        if (written.Done)
            return Redirect($"/walk/{Id}/records");
        await ShowAsync(stop);
        Refuse(written.Refusal!);
        return Page();
    }

    private async Task<bool> ShowAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return false;
        var (text, source) = Rules.Statement(Job.Inspection.Kind, Job.Aircraft.Category, Readiness.Unairworthy.Count == 0, "aircraft",
            clock.Today());
        (Statement, Source) = (text, source.Text);
        return true;
    }
}
