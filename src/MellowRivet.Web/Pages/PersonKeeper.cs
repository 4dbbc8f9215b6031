using MellowRivet.Core;
using MellowRivet.Store;
using Microsoft.AspNetCore.Identity;

namespace MellowRivet.Web.Pages;

/// <summary>Adds a person and their sign-in, both or neither.</summary>
public static class PersonKeeper
{
    public static async Task<IReadOnlyList<Refusal>> AddAsync(this RivetDb db, UserManager<MellowRivet.Store.Account> users, PersonForm form, CancellationToken stop)
    {
        List<Refusal> problems = [.. form.Check()];
        if (problems.Count > 0)
            return problems;
        var person = form.ToPerson();
        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        db.People.Add(person);
        var made = await users.CreateAsync(new() { Id = Guid.CreateVersion7(), UserName = form.SignInName!.Trim(), PersonId = person.Id }, form.Password ?? "");
        if (!made.Succeeded)
            return [.. made.Errors.Select(error => new Refusal(error.Code.StartsWith("Password", StringComparison.Ordinal) ? "Password" : "SignInName", error.Description))];
        await db.SaveChangesAsync(stop);
        await transaction.CommitAsync(stop);
        return [];
    }
}
