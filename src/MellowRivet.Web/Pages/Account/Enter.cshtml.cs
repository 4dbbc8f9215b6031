using System.ComponentModel.DataAnnotations;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Demo;
using MellowRivet.Web.Hosting;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Account;

/// <summary>Someone of the demo to enter as.</summary>
public sealed record DemoPerson(string SignInName, string Name, string What);

/// <summary>The door.</summary>
/// <param name="DemoPeople">Whom one may enter as; nobody outside the demo.</param>
public sealed record EnterView(IReadOnlyList<DemoPerson> DemoPeople) : PageView;

/// <summary>The door: a name and a password.</summary>
[EnableRateLimiting("sign-in")]
[OpenToAll("the door")]
public sealed class EnterModel(SignInManager<MellowRivet.Store.Account> signIn, RivetDb db, RivetSettings settings) : ShopPage<EnterView>
{
    [BindProperty, MaxLength(100)]
    public string? Name { get; set; }

    [BindProperty, MaxLength(200)]
    public string? Password { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? ReturnUrl { get; set; }

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    public async Task<IActionResult> OnPostAsync(CancellationToken stop)
    {
        var answer = await signIn.PasswordSignInAsync(Name ?? "", Password ?? "", isPersistent: true, lockoutOnFailure: true);
        return answer.Succeeded ? Onward() : await AgainAsync(new("door", answer.IsLockedOut
            ? "Five wrong passwords: this sign-in rests for five minutes."
            : "That name and password don't go together."), stop);
    }

    /// <summary>Enters as one of the demo's people, without their password. Only the demo has this.</summary>
    public async Task<IActionResult> OnPostAsAsync(string name)
    {
        if (!settings.Demo || await signIn.UserManager.FindByNameAsync(name ?? "") is not { } account)
            return NotFound();
        await signIn.SignInAsync(account, isPersistent: true);
        return Onward();
    }

    private LocalRedirectResult Onward() => LocalRedirect(Url.IsLocalUrl(ReturnUrl) ? ReturnUrl : "/");

    protected override async Task<EnterView?> ViewAsync(Refused refused, CancellationToken stop) => new(settings.Demo
        ? [.. (await db.AccountsAsync(stop)).Select(account => new DemoPerson(account.SignInName, account.Person.Name,
            string.Join(", ", account.Person.Roles.Select(role => role.InWords())))).OrderBy(person => DemoShop.Order(person.SignInName))]
        : []);
}
