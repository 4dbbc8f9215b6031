using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Walk;

/// <summary>What stands between the aircraft and its signature, and the signature.</summary>
[EnableRateLimiting("sign-in")]
public sealed class CloseModel(Desk desk, RivetDb db, Shelf shelf, UserManager<MellowRivet.Store.Account> users, TimeProvider clock) : WalkPage(desk, db)
{
    public override Station At => Station.Close;

    private RulePack Rules => shelf.RulesFor(Job.Aircraft.Category);

    public Person Me => Person(User.PersonId())!;
    public SigningAnswer Answer => Rules.MaySign(Me, Job.Inspection.Kind, Job.Aircraft);
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
        if (Answer.By is not { } certificate)
        {
            ModelState.AddModelError("sign", Answer.Reason);
            return Page();
        }
        if (!Readiness.MaySign && Job.Inspection.InWork)
        {
            ModelState.AddModelError("sign", "There are still things to do before this can be signed: they are listed here.");
            return Page();
        }
        if (await CheckPasswordAsync(password) is { } wrong)
        {
            ModelState.AddModelError("password", wrong);
            return Page();
        }
        var written = await Desk.SignAsync(Id, post, Rules, new(Me, certificate), stop);
        if (written.Done)
            return Redirect($"/walk/{Id}/records");
        await ShowAsync(stop);
        Refuse(written.Refusal!);
        return Page();
    }

    // The same lock-out as at the door: a signature is worth guessing at.
    private async Task<string?> CheckPasswordAsync(string? password)
    {
        var account = await users.GetUserAsync(User);
        if (account is null || await users.IsLockedOutAsync(account))
            return "Five wrong passwords: signing rests for five minutes.";
        if (await users.CheckPasswordAsync(account, password ?? ""))
        {
            await users.ResetAccessFailedCountAsync(account);
            return null;
        }
        await users.AccessFailedAsync(account);
        return "That is not your password. Nothing was signed.";
    }

    private async Task<bool> ShowAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return false;
        var (text, source) = Rules.Statement(Job.Inspection.Kind, Job.Aircraft.Category, Readiness.Unairworthy.Count == 0, "aircraft",
            DateOnly.FromDateTime(clock.GetLocalNow().DateTime));
        (Statement, Source) = (text, source.Text);
        return true;
    }
}
