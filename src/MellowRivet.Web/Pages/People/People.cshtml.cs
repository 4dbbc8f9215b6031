using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Pages.People;

[Needs(Right.Look)]
public sealed class PeopleModel(RivetDb db, UserManager<MellowRivet.Store.Account> users) : PageModel
{
    [BindProperty]
    public PersonForm Form { get; set; } = new();

    public IReadOnlyList<Person> People { get; private set; } = [];

    [Needs(Right.ManageShop)]
    public async Task OnGetAsync(CancellationToken stop) => People = await db.PeopleAsync(stop);

    [Needs(Right.ManageShop)]
    public async Task<IActionResult> OnPostAsync(CancellationToken stop)
    {
        foreach (var problem in await db.AddAsync(users, Form, stop))
            ModelState.AddModelError("Form." + problem.Field, problem.Message);
        if (ModelState.IsValid)
            return RedirectToPage();
        await OnGetAsync(stop);
        return Page();
    }
}
