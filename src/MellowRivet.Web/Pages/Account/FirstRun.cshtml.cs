using MellowRivet.Web.Pages.People;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Account;

/// <summary>Makes the first account of a shop. Once there is one, the page is gone.</summary>
[EnableRateLimiting("sign-in")]
[OpenToAll("the first account, while there is none")]
public sealed class FirstRunModel(RivetDb db, UserManager<MellowRivet.Store.Account> users, SignInManager<MellowRivet.Store.Account> signIn)
    : PageModel
{
    [BindProperty]
    public PersonForm Form { get; set; } = new() { Roles = [Role.ShopAdmin] };

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await db.HasAccountAsync(stop) ? Redirect("/") : Page();

    public async Task<IActionResult> OnPostAsync(CancellationToken stop)
    {
        if (await db.HasAccountAsync(stop))
            return Redirect("/");
        if (!Form.Roles.Contains(Role.ShopAdmin))
            Form.Roles.Add(Role.ShopAdmin);
        foreach (var problem in await db.AddAsync(users, Form, stop))
            ModelState.AddModelError("Form." + problem.Field, problem.Message);
        if (!ModelState.IsValid)
            return Page();
        await signIn.SignInAsync((await users.FindByNameAsync(Form.SignInName!.Trim()))!, isPersistent: true);
        return Redirect("/");
    }
}
