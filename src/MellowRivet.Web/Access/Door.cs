using MellowRivet.Core.People;
using MellowRivet.Store;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Access;

/// <summary>
/// The door. A name that nobody has, one that rests after wrong passwords, one of somebody who left, and a wrong password get the same
/// words and cost the same: one look-up, one hash, one write.
/// </summary>
public sealed class Door(RivetDb db, SignInManager<Account> signIn, IPasswordHasher<Account> hasher, TimeProvider clock)
{
    private const int MostWrong = 5;
    private static readonly TimeSpan Rests = TimeSpan.FromMinutes(5);
    public const string Refused = "That name and password don’t go together. After five wrong ones a name rests for five minutes.";

    // What the password of nobody is checked against.
    private static string? nobodys;

    /// <summary>Wrong ones so far, and until when it rests, after one more.</summary>
    internal static (int Wrong, DateTimeOffset? RestsUntil) Count(int wrong, DateTimeOffset now) =>
        wrong + 1 < MostWrong ? (wrong + 1, null) : (0, now + Rests);

    /// <summary>Enters; or says why not.</summary>
    public async Task<string?> EnterAsync(string? name, string? password, CancellationToken stop)
    {
        var nobody = nobodys ??= hasher.HashPassword(new(), $"{Guid.NewGuid()}");
        var key = signIn.UserManager.NormalizeName(name ?? "") ?? "";
        Account? entered = null;
        // Before its turn: nobody who writes waits for a hash.
        var there = await db.Users.AsNoTracking().FirstOrDefaultAsync(row => row.NormalizedUserName == key, stop);
        var right = hasher.VerifyHashedPassword(there ?? new(), there?.PasswordHash ?? nobody, password ?? "")
            != PasswordVerificationResult.Failed;
        // In its turn: guesses sent at once are counted one by one.
        var written = await db.OnceAsync(Guid.CreateVersion7(), clock, async () =>
        {
            var now = TimeProvider.System.GetUtcNow();
            var account = await db.Users.FirstOrDefaultAsync(row => row.NormalizedUserName == key, stop);
            var person = await db.People.FirstOrDefaultAsync(row => row.Id == (account == null ? default : account.PersonId), stop);
            var rests = account?.LockoutEnd > now;
            if (account is not null && account.PasswordHash == there?.PasswordHash && right && !rests && person is { IsHere: true })
            {
                (account.AccessFailedCount, account.LockoutEnd) = (0, null);
                entered = account;
                return null;
            }
            if (account is not null && !right && !rests)
                (account.AccessFailedCount, account.LockoutEnd) = Count(account.AccessFailedCount, now);
            // A name that nobody has may be a password, typed in the wrong field: it isn't kept.
            db.Tell(Deed.TurnedAway, person is null ? "a name that nobody has" : $"as {person.Name}");
            return null;
        }, stop);
        if (entered is not null)
            await signIn.EnterAsync(db, entered, stop);
        return entered is null ? written.Refusal?.Message ?? Refused : null;
    }
}
