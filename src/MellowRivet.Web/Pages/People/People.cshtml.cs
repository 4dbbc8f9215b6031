using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.People;

/// <summary>The shop's people.</summary>
public sealed record PeopleView(IReadOnlyList<Person> People) : PageView
{
    public PersonForm Form => Typed<PersonForm>() ?? new();
}

/// <summary>The shop's people, and a new one.</summary>
[Needs(Right.Look)]
public sealed class PeopleModel(RivetDb db, UserManager<MellowRivet.Store.Account> users) : ShopPage<PeopleView>
{
    [Needs(Right.ManageShop)]
    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.ManageShop)]
    public async Task<IActionResult> OnPostAsync(PersonForm form, CancellationToken stop) =>
        await db.AddAsync(users, form, stop) is [_, ..] wrong
            ? await ShowAsync(stop, new(form, [.. wrong.Select(refusal => refusal with { Field = "Form." + refusal.Field })]))
            : RedirectToPage();

    protected override async Task<PeopleView?> ViewAsync(Refused refused, CancellationToken stop) => new(await db.PeopleAsync(stop));
}
