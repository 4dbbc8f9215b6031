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
/// <param name="Shop">What the shop is called; empty where nobody has said.</param>
/// <param name="DemoPeople">Whom one may enter as; nobody outside the demo.</param>
public sealed record EnterView(string Shop, IReadOnlyList<DemoPerson> DemoPeople) : PageView;

/// <summary>The door: a name and a password.</summary>
[EnableRateLimiting("door")]
[OpenToAll("the door")]
public sealed class EnterModel(Door door, SignInManager<MellowRivet.Store.Account> signIn, RivetDb db, RivetSettings settings)
    : ShopPage<EnterView>
{
    [BindProperty, MaxLength(100)]
    public string? Name { get; set; }

    [BindProperty, MaxLength(200)]
    public string? Password { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? ReturnUrl { get; set; }

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    public async Task<IActionResult> OnPostAsync(CancellationToken stop) =>
        await door.EnterAsync(Name, Password, stop) is { } refused ? await AgainAsync(new("door", refused), stop) : Onward();

    /// <summary>Enters as one of the demo's people, without their password. Only the demo has this.</summary>
    public async Task<IActionResult> OnPostAsAsync(string name, CancellationToken stop)
    {
        if (!settings.Demo || await signIn.UserManager.FindByNameAsync(name ?? "") is not { } account)
            return NotFound();
        if (!(await db.PersonAsync(account.PersonId, stop)).IsHere)
            return NotFound();
        await signIn.EnterAsync(db, account, stop);
        return Onward();
    }

    private LocalRedirectResult Onward() => LocalRedirect(Url.IsLocalUrl(ReturnUrl) ? ReturnUrl : "/");

    protected override async Task<EnterView?> ViewAsync(Refused refused, CancellationToken stop) => new(
        (await db.HouseRulesAsync(stop)).Name, settings.Demo
        ? [.. (await db.AccountsAsync(stop)).Where(account => account.Person.IsHere)
            .Select(account => new DemoPerson(account.SignInName, account.Person.Name,
            string.Join(", ", account.Person.Roles.Select(role => role.InWords())))).OrderBy(person => DemoShop.Order(person.SignInName))]
        : []);
}
