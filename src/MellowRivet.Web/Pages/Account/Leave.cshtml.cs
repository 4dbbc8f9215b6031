using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Pages.Account;

[OpenToAll("leaving, for whoever is in")]
public sealed class LeaveModel(RivetDb db, SignInManager<MellowRivet.Store.Account> signIn) : PageModel
{
    public IActionResult OnGet() => Redirect("/");

    public async Task<IActionResult> OnPostAsync(CancellationToken stop)
    {
        if (User.Session() is { } session)
        {
            db.Tell(Deed.Left, "the shop");
            await db.EndSessionAsync(session, stop);
        }
        await signIn.SignOutAsync();
        return Redirect("/enter");
    }
}
