using System.Security.Cryptography;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.DataProtection;

namespace MellowRivet.Web.Api;

/// <summary>Who is in on a device now, and a token for what it kept while it couldn't reach the shop.</summary>
/// <param name="Me">The person.</param>
/// <param name="Token">What a form of theirs carries.</param>
/// <param name="Version">The program that the shop runs.</param>
/// <param name="Grant">By what the device asks, with nobody in, whether the person may still have anything on it.</param>
/// <param name="Minutes">After how long without a touch the device locks what is aboard, minutes.</param>
public sealed record AtDevice(Guid Me, string? Token, string Version, string Grant, int Minutes);

/// <summary>What a device asks that was taken to where there is no network.</summary>
internal static class DeviceApi
{
    private const string Grants = "rivet:device";

    /// <summary>Which program this is: what a device took along from another says so, and goes out all the same.</summary>
    public static string Version { get; } = $"{typeof(DeviceApi).Module.ModuleVersionId:N}";

    /// <summary>Lets the script that stands between pages and network serve all of them, though it lies beside the others.</summary>
    public static void UseWorkerOfAllPages(this WebApplication app) => app.Use(next => context =>
    {
        if (context.Request.Path == "/lib/worker.js")
            context.Response.Headers["Service-Worker-Allowed"] = "/";
        return next(context);
    });

    public static void MapDevice(this WebApplication app)
    {
        app.MapGet("/device/token", async (HttpContext context, IAntiforgery forms, IDataProtectionProvider protection, RivetDb db,
            CancellationToken stop) => new AtDevice(context.User.PersonId(), forms.GetAndStoreTokens(context).RequestToken, Version,
                protection.CreateProtector(Grants).Protect($"{context.User.PersonId():N}"),
                (await db.HouseRulesAsync(stop)).LockMinutes))
            .Needs(Right.RecordWork).ExcludeFromDescription();
        app.MapGet("/device/standing", async (string grant, RivetDb db, IDataProtectionProvider protection, CancellationToken stop) =>
            Read(protection, grant) is { } person ? Results.Ok(new { stays = await db.StaysAsync(person, stop) }) : Results.NotFound())
            .OpenToAll("whoever has the grant that a device was given: whether its person still enters, and no more")
            .RequireRateLimiting("bench").ExcludeFromDescription();
    }

    private static Guid? Read(IDataProtectionProvider protection, string grant)
    {
        try
        {
            return Guid.ParseExact(protection.CreateProtector(Grants).Unprotect(grant), "N");
        }
        catch (CryptographicException)
        {
            return null;
        }
    }
}
