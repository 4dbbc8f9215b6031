using MellowRivet.Core;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Store.Files;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Identity;

namespace MellowRivet.Web.Pages.People;

/// <summary>Keeps people and how they sign in.</summary>
public static class PersonKeeper
{
    /// <summary>Adds a person and their sign-in, both or neither; with the first one, what the shop is called.</summary>
    public static async Task<IReadOnlyList<Refusal>> AddAsync(this RivetDb db, UserManager<Store.Account> users, PersonForm form,
        CancellationToken stop, string shop = "")
    {
        List<Refusal> problems = [.. form.Check(await db.PeopleAsync(stop))];
        if (await Passwords.CheckAsync(db, form.Password, [form.Name, form.SignInName, shop], stop) is { } weak)
            problems.Add(new("password", weak));
        if (problems.Count > 0)
            return problems;
        var person = form.ToPerson();
        var made = IdentityResult.Success;
        try
        {
            await db.AddAsync(person,
                async () =>
                {
                    made = await users.CreateAsync(new()
                        { Id = Guid.CreateVersion7(), UserName = form.SignInName!.Trim(), PersonId = person.Id }, form.Password!);
                    if (made.Succeeded && shop.Length > 0)
                        await db.WorkByAsync(new(Name: shop), stop);
                    return made.Succeeded;
                },
                stop);
        }
        catch (Exception full) when (Disk.IsFull(full))
        {
            db.Forget();
            return [Disk.NoRoom];
        }
        return [.. made.Errors.Select(error => new Refusal("signInName", error.Description))];
    }

    /// <summary>
    /// Gives somebody a new password, within a write: they are signed out wherever they are, but for the browser it was set with.
    /// </summary>
    public static async Task<Refusal?> SetPasswordAsync(this RivetDb db, IPasswordHasher<Store.Account> hasher, Person person,
        string? password,
        Guid? butFor, CancellationToken stop)
    {
        if (await db.AccountOfAsync(person.Id, stop) is not { } account)
            return new("password", "They have no sign-in.");
        if (await Passwords.CheckAsync(db, password, [], stop) is { } weak)
            return new("password", weak);
        account.PasswordHash = hasher.HashPassword(account, password!);
        (account.AccessFailedCount, account.LockoutEnd) = (0, null);
        (account.SigningFailures, account.SigningRestsUntil) = (0, null);
        await db.EndSessionsAsync(person.Id, butFor, stop);
        return null;
    }

    /// <summary>What somebody may do changed: every browser of theirs learns of it with its next request.</summary>
    public static async Task TellBrowsersAsync(this RivetDb db, Person person, CancellationToken stop)
    {
        if (await db.AccountOfAsync(person.Id, stop) is { } account)
            account.SecurityStamp = $"{Guid.NewGuid()}";
    }
}
