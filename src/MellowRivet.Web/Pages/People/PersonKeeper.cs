using MellowRivet.Core;
using MellowRivet.Store;
using Microsoft.AspNetCore.Identity;

namespace MellowRivet.Web.Pages.People;

/// <summary>Adds a person and their sign-in, both or neither.</summary>
public static class PersonKeeper
{
    public static async Task<IReadOnlyList<Refusal>> AddAsync(this RivetDb db, UserManager<MellowRivet.Store.Account> users,
        PersonForm form, CancellationToken stop)
    {
        List<Refusal> problems = [.. form.Check()];
        if (problems.Count > 0)
            return problems;
        var person = form.ToPerson();
        var made = IdentityResult.Success;
        await db.AddAsync(person,
            async () =>
                (made = await users.CreateAsync(new()
                    { Id = Guid.CreateVersion7(), UserName = form.SignInName!.Trim(), PersonId = person.Id }, form.Password
                        ?? "")).Succeeded, stop);
        if (!made.Succeeded)
            return [.. made.Errors.Select(error => new Refusal(error.Code.StartsWith("Password", StringComparison.Ordinal)
                ? "Password"
                : "SignInName", error.Description))];
        return [];
    }
}
