using System.Security.Claims;
using MellowRivet.Core.People;
using MellowRivet.Store;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Access;

/// <summary>
/// The password, asked for again where something is signed. It counts wrong ones for itself: who is turned away at the door, by
/// whomever, goes on signing at the aircraft.
/// </summary>
public sealed class PasswordAgain(RivetDb db, IPasswordHasher<Account> hasher, TimeProvider clock)
{
    /// <summary>What is wrong with it; null where it is right.</summary>
    /// <param name="user">Whoever is in.</param>
    /// <param name="password">As it is typed.</param>
    /// <param name="stop">Stops waiting.</param>
    /// <param name="about">What it is asked for, as the log tells it.</param>
    /// <param name="undone">What a wrong one leaves undone, in words.</param>
    public async Task<string?> CheckAsync(ClaimsPrincipal user, string? password, CancellationToken stop, string about = "a signature",
        string undone = "Nothing was signed.")
    {
        string? wrong = null;
        // Before its turn: nobody who writes waits for a hash.
        var there = await db.Users.AsNoTracking().FirstOrDefaultAsync(row => row.PersonId == user.PersonId(), stop);
        var right = there is not null
            && hasher.VerifyHashedPassword(there, there.PasswordHash!, password ?? "") != PasswordVerificationResult.Failed;
        // In its turn: guesses sent at once are counted one by one.
        var written = await db.OnceAsync(Guid.CreateVersion7(), clock, async () =>
        {
            var now = TimeProvider.System.GetUtcNow();
            if (await db.AccountOfAsync(user.PersonId(), stop) is not { } account || account.SigningRestsUntil > now)
                wrong = "Five wrong passwords: signing rests for five minutes.";
            else if (right && account.PasswordHash == there?.PasswordHash)
                (account.SigningFailures, account.SigningRestsUntil) = (0, null);
            else
            {
                (account.SigningFailures, account.SigningRestsUntil) = Door.Count(account.SigningFailures, now);
                wrong = $"That is not your password. {undone}";
                db.Tell(Deed.SignatureRefused, about);
            }
            return null;
        }, stop);
        return written.Refusal?.Message ?? wrong;
    }
}
