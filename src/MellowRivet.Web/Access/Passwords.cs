using System.Collections.Frozen;
using System.Text.Json;
using MellowRivet.Core.People;
using MellowRivet.Store;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Access;

/// <summary>Whether a password will do here: not a common one, and not made of words of this place.</summary>
public static class Passwords
{
    // The list ships with the program, from npm by lock file; it is read when the first password is set.
    private static readonly Lazy<FrozenSet<string>> Common = new(() =>
    {
        using var list = typeof(Passwords).Assembly.GetManifestResourceStream("common-passwords.json")!;
        return JsonSerializer.Deserialize<string[]>(list)!.ToFrozenSet();
    });

    /// <summary>What is wrong with a password; null where it will do.</summary>
    /// <param name="db">The shop, whose people and aircraft anybody would try.</param>
    /// <param name="password">As it is typed.</param>
    /// <param name="words">More words that anybody would try: what is typed beside it.</param>
    /// <param name="stop">Stops waiting.</param>
    public static async Task<string?> CheckAsync(RivetDb db, string? password, IEnumerable<string?> words, CancellationToken stop) =>
        PasswordRule.Check(password, Common.Value,
        [
            "Mellow Rivet", (await db.HouseRulesAsync(stop)).Name, .. words.OfType<string>(),
            .. await db.People.Select(person => person.Name).ToListAsync(stop),
            .. await db.Users.Select(account => account.UserName!).ToListAsync(stop),
            .. (await db.FleetAsync(stop)).SelectMany(row => new[] { row.Registration, row.Type }),
        ]);
}
