using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.People;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Account;

/// <summary>The first account and what its shop is called, with the code, as they were typed.</summary>
public sealed record FirstForm(PersonForm Person, string? Shop, string? Code);

/// <summary>A shop in which nobody works yet.</summary>
public sealed record FirstRunView : PageView
{
    public PersonForm Form => Typed<FirstForm>()?.Person ?? new() { Roles = [Role.ShopAdmin] };
    public string? Code => Typed<FirstForm>()?.Code;
    public string? Shop => Typed<FirstForm>()?.Shop;
}

/// <summary>Makes the first account of a shop. Once there is one, the page is gone.</summary>
[EnableRateLimiting("door")]
[OpenToAll("the first account, while there is none")]
public sealed class FirstRunModel(RivetDb db, FirstRunCode code, UserManager<MellowRivet.Store.Account> users,
    SignInManager<MellowRivet.Store.Account> signIn)
    : ShopPage<FirstRunView>
{
    public async Task<IActionResult> OnGetAsync(CancellationToken stop) =>
        await db.HasAccountAsync(stop) ? Redirect("/") : await ShowAsync(stop);

    public async Task<IActionResult> OnPostAsync(PersonForm form, string? shop, string? typedCode, CancellationToken stop)
    {
        if (await db.HasAccountAsync(stop))
            return Redirect("/");
        var typed = new FirstForm(form, shop, typedCode);
        if (!code.Is(typedCode))
            return await ShowAsync(stop, new(typed,
                [new("typedCode", "That isn’t the code that was printed where the program was started.")]));
        if (!form.Roles.Contains(Role.ShopAdmin))
            form.Roles.Add(Role.ShopAdmin);
        if (new HouseRules(Name: shop?.Trim() ?? "") is var house && house.Check() is { } tooLong)
            return await ShowAsync(stop, new(typed, [tooLong with { Field = "shop" }]));
        if (await db.AddAsync(users, form, stop, house.Name) is [_, ..] wrong)
            return await ShowAsync(stop, new(typed, [.. wrong.Select(refusal => refusal.At("Form." + refusal.Field))]));
        await signIn.EnterAsync(db, (await users.FindByNameAsync(form.SignInName!.Trim()))!, stop);
        return Redirect("/");
    }

    protected override Task<FirstRunView?> ViewAsync(Refused refused, CancellationToken stop) =>
        Task.FromResult<FirstRunView?>(new());
}
