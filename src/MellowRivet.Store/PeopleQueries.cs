using MellowRivet.Core.People;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>What is loaded of the shop's people and of how they sign in.</summary>
public static class PeopleQueries
{
    /// <summary>Everybody, by name.</summary>
    public static async Task<IReadOnlyList<Person>> PeopleAsync(this RivetDb db, CancellationToken stop) =>
        await db.People.AsNoTracking().OrderBy(person => person.Name).ToListAsync(stop);

    /// <summary>Somebody, as they are in the database now.</summary>
    /// <exception cref="InvalidOperationException">There is no such person.</exception>
    public static Task<Person> PersonAsync(this RivetDb db, Guid id, CancellationToken stop) =>
        db.People.AsNoTracking().SingleAsync(person => person.Id == id, stop);

    /// <summary>Everybody's name.</summary>
    public static Task<Dictionary<Guid, string>> NamesAsync(this RivetDb db, CancellationToken stop) =>
        db.People.AsNoTracking().ToDictionaryAsync(person => person.Id, person => person.Name, stop);

    /// <summary>Whether anybody can sign in yet.</summary>
    public static Task<bool> HasAccountAsync(this RivetDb db, CancellationToken stop) => db.Users.AnyAsync(stop);

    /// <summary>Who signs in by which name.</summary>
    public static async Task<IReadOnlyList<(string SignInName, Person Person)>> AccountsAsync(this RivetDb db, CancellationToken stop)
    {
        var people = await db.People.AsNoTracking().ToDictionaryAsync(person => person.Id, stop);
        return [.. (await db.Users.AsNoTracking().ToListAsync(stop)).Select(account => (account.UserName!, people[account.PersonId]))];
    }

    /// <summary>Keeps a person and their sign-in, both or neither.</summary>
    /// <param name="db">The shop.</param>
    /// <param name="person">The person.</param>
    /// <param name="makeAccount">Makes the sign-in; false where it can't be made.</param>
    /// <param name="stop">Stops waiting.</param>
    public static async Task<bool> AddAsync(this RivetDb db, Person person, Func<Task<bool>> makeAccount, CancellationToken stop)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        db.People.Add(person);
        if (!await makeAccount())
            return false;
        await db.SaveChangesAsync(stop);
        await transaction.CommitAsync(stop);
        return true;
    }

    /// <summary>Whether a key of a calendar address is anybody's.</summary>
    public static Task<bool> IsCalendarKeyAsync(this RivetDb db, string hash, CancellationToken stop) =>
        db.People.AnyAsync(person => person.CalendarKeyHash == hash, stop);

    public static Task<bool> HasCalendarKeyAsync(this RivetDb db, Guid person, CancellationToken stop) =>
        db.People.AnyAsync(row => row.Id == person && row.CalendarKeyHash != null, stop);

    /// <summary>Gives somebody a new calendar address; the one before stops working.</summary>
    public static async Task HandOutCalendarKeyAsync(this RivetDb db, Guid person, string hash, CancellationToken stop)
    {
        (await db.People.SingleAsync(row => row.Id == person, stop)).HandOutCalendarKey(hash);
        await db.SaveChangesAsync(stop);
    }
}
