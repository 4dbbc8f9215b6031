using MellowRivet.Core;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.People;

/// <summary>The shop's people.</summary>
/// <param name="People">Everybody: who is here first, by name.</param>
/// <param name="Registrations">The shop's aircraft.</param>
/// <param name="Today">The day.</param>
public sealed record PeopleView(IReadOnlyList<Person> People, IReadOnlyDictionary<Guid, string> Registrations, DateOnly Today) : PageView
{
    public PersonForm Form => Typed<PersonForm>() ?? new();
}

/// <summary>The shop's people, and a new one.</summary>
[Needs(Right.ManageShop)]
public sealed class PeopleModel(RivetDb db, UserManager<MellowRivet.Store.Account> users, TimeProvider clock) : ShopPage<PeopleView>
{
    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.ManageShop)]
    public async Task<IActionResult> OnPostAsync(PersonForm form, CancellationToken stop) =>
        await db.AddAsync(users, form, stop) is [_, ..] wrong
            ? await ShowAsync(stop, new(form, [.. wrong.Select(refusal => refusal.At("Form." + refusal.Field))]))
            : RedirectToPage();

    protected override async Task<PeopleView?> ViewAsync(Refused refused, CancellationToken stop) =>
        new([.. (await db.PeopleAsync(stop)).Where(person => person.Elsewhere is null).OrderBy(person => !person.IsHere)],
            (await db.FleetAsync(stop)).ToDictionary(row => row.Id, row => row.Registration), clock.Today());
}
