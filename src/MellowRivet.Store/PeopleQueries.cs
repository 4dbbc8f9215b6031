using MellowRivet.Core;
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

    /// <summary>Whether somebody is still one of the shop's people.</summary>
    public static Task<bool> StaysAsync(this RivetDb db, Guid id, CancellationToken stop) =>
        db.People.AnyAsync(person => person.Id == id && person.LeftAt == null, stop);

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

    /// <summary>
    /// Says that an aircraft is theirs from now on, of owners whose pilot's certificate was bound to its serial before there was a
    /// better way to say so.
    /// </summary>
    public static async Task OwnersFromCertificatesAsync(this RivetDb db, DateOnly today, CancellationToken stop)
    {
        var serials = await db.Aircraft.AsNoTracking().Select(row => new { row.Id, row.SerialNumber }).ToListAsync(stop);
        foreach (var owner in (await db.People.ToListAsync(stop)).Where(person => person.Roles.Contains(Role.Owner)))
            foreach (var aircraft in serials.Where(row => owner.Certificates.Any(
                held => held.Kind == CertificateKind.Pilot && held.OnlySerial == row.SerialNumber)))
                owner.Own(new(aircraft.Id, today, null));
        await db.SaveChangesAsync(stop);
    }

    /// <summary>Changes somebody, in its turn and once; a refusal leaves everything as it was.</summary>
    /// <param name="db">The shop.</param>
    /// <param name="person">Who.</param>
    /// <param name="post">The id the form carried.</param>
    /// <param name="clock">The time.</param>
    /// <param name="change">Changes them, with everybody at hand, or says why not.</param>
    /// <param name="stop">Stops waiting.</param>
    public static Task<Written> ChangePersonAsync(this RivetDb db, Guid person, Guid post, TimeProvider clock,
        Func<Person, IReadOnlyList<Person>, Task<Refusal?>> change, CancellationToken stop) => db.OnceAsync(post, clock, async () =>
        {
            var everybody = await db.People.ToListAsync(stop);
            return everybody.Find(row => row.Id == person) switch
            {
                null => new("person", "There is no such person."),
                // As a passport says: a certificate or a role that this shop gave them would be this shop's word.
                { Elsewhere: { } shop } => new("person", $"They work at {shop}: nothing of them is changed here."),
                var found => await change(found, everybody),
            };
        }, stop);

    /// <summary>
    /// Closes the door to somebody, within a write: they are signed out wherever they are, and their calendar address and the owner's
    /// links that they made end.
    /// </summary>
    public static async Task<Refusal?> CloseDoorAsync(this RivetDb db, Person person, IEnumerable<Person> everybody, DateTimeOffset at,
        CancellationToken stop)
    {
        if (person.Leave(at, everybody) is { } refusal)
            return refusal;
        await db.EndSessionsAsync(person.Id, null, stop);
        foreach (var link in await db.OwnerLinks.Where(link => link.By == person.Id && link.RevokedAt == null).ToListAsync(stop))
            link.Revoke(at);
        return null;
    }

    /// <summary>The sign-in of a person; null where they have none.</summary>
    public static Task<Account?> AccountOfAsync(this RivetDb db, Guid person, CancellationToken stop) =>
        db.Users.FirstOrDefaultAsync(account => account.PersonId == person, stop);

    /// <summary>The name that somebody signs in by; null where they can't.</summary>
    public static Task<string?> SignInNameOfAsync(this RivetDb db, Guid person, CancellationToken stop) =>
        db.Users.Where(account => account.PersonId == person).Select(account => account.UserName).FirstOrDefaultAsync(stop);

    /// <summary>Signs somebody out wherever they are, but for one browser; within a write.</summary>
    public static async Task EndSessionsAsync(this RivetDb db, Guid person, Guid? butFor, CancellationToken stop)
    {
        var account = await db.Users.Where(row => row.PersonId == person).Select(row => row.Id).FirstOrDefaultAsync(stop);
        db.Sessions.RemoveRange(await db.Sessions.Where(row => row.AccountId == account && row.Id != butFor).ToListAsync(stop));
    }

    /// <summary>Somebody enters with a browser; what ended long ago goes.</summary>
    public static async Task<Guid> BeginSessionAsync(this RivetDb db, Guid account, DateTimeOffset now, CancellationToken stop)
    {
        await db.Sessions.Where(row => row.Ends < now).ExecuteDeleteAsync(stop);
        var session = db.Put(new Session { Id = Guid.NewGuid(), AccountId = account, Ends = now + Session.Longest });
        await db.SaveChangesAsync(stop);
        return session.Id;
    }

    /// <summary>Ends the session of one browser.</summary>
    public static async Task EndSessionAsync(this RivetDb db, Guid session, CancellationToken stop)
    {
        await db.Sessions.Where(row => row.Id == session).ExecuteDeleteAsync(stop);
        await db.SaveChangesAsync(stop);
    }

    /// <summary>
    /// The stamp of whoever is in with a browser, which changes with what they may do; null where it was signed out, or the person can't
    /// enter any more.
    /// </summary>
    public static Task<string?> StampOfAsync(this RivetDb db, Guid session, DateTimeOffset now, CancellationToken stop) =>
        (from row in db.Sessions
         where row.Id == session && row.Ends > now
         join account in db.Users on row.AccountId equals account.Id
         join person in db.People on account.PersonId equals person.Id
         where person.LeftAt == null
         select account.SecurityStamp).FirstOrDefaultAsync(stop);

    /// <summary>What of the fleet somebody sees now.</summary>
    public static async Task<Sight> SightOfAsync(this RivetDb db, Guid person, DateOnly today, CancellationToken stop) =>
        await db.People.AsNoTracking().FirstOrDefaultAsync(row => row.Id == person, stop) is { } who ? Sight.Of(who, today) : Sight.Nothing;

    /// <summary>Whose key of a calendar address it is, and what of the fleet they see; null where it is nobody's.</summary>
    public static async Task<Sight?> SightOfKeyAsync(this RivetDb db, string hash, DateOnly today, CancellationToken stop) =>
        await db.PersonOfKeyAsync(hash, stop) is { } who ? Sight.Of(who, today) : null;

    /// <summary>Whose calendar a key opens; null for nobody's.</summary>
    public static Task<Person?> PersonOfKeyAsync(this RivetDb db, string hash, CancellationToken stop) =>
        db.People.AsNoTracking().FirstOrDefaultAsync(person => person.CalendarKeyHash == hash && person.LeftAt == null, stop);

    public static Task<bool> HasCalendarKeyAsync(this RivetDb db, Guid person, CancellationToken stop) =>
        db.People.AnyAsync(row => row.Id == person && row.CalendarKeyHash != null, stop);

    /// <summary>Gives somebody a new calendar address; the one before stops working.</summary>
    public static async Task HandOutCalendarKeyAsync(this RivetDb db, Guid person, string hash, CancellationToken stop)
    {
        (await db.People.SingleAsync(row => row.Id == person, stop)).HandOutCalendarKey(hash);
        await db.SaveChangesAsync(stop);
    }
}
