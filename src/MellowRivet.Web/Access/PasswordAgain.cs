using System.Security.Claims;
using Microsoft.AspNetCore.Identity;

namespace MellowRivet.Web.Access;

/// <summary>The password, asked for again where something is signed.</summary>
public static class PasswordAgain
{
    /// <summary>
    /// What is wrong with it; null where it is right. The same lock-out as at the door: a signature is worth guessing at.
    /// </summary>
    public static async Task<string?> CheckAgainAsync(this UserManager<Store.Account> users, ClaimsPrincipal user, string? password)
    {
        var account = await users.GetUserAsync(user);
        if (account is null || await users.IsLockedOutAsync(account))
            return "Five wrong passwords: signing rests for five minutes.";
        if (await users.CheckPasswordAsync(account, password ?? ""))
        {
            await users.ResetAccessFailedCountAsync(account);
            return null;
        }
        await users.AccessFailedAsync(account);
        return "That is not your password. Nothing was signed.";
    }
}
