using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Pages.Account;

[OpenToAll("leaving, for whoever is in")]
public sealed class LeaveModel(SignInManager<MellowRivet.Store.Account> signIn) : PageModel
{
    public IActionResult OnGet() => Redirect("/");

    public async Task<IActionResult> OnPostAsync()
    {
        await signIn.SignOutAsync();
        return Redirect("/enter");
    }
}
