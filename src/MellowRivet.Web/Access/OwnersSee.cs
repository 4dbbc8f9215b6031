using System.Security.Claims;
using MellowRivet.Core;
using MellowRivet.Core.People;
using MellowRivet.Store;
using Microsoft.AspNetCore.Authorization;

namespace MellowRivet.Web.Access;

/// <summary>
/// By what an address is bounded for somebody who only owns an aircraft: the aircraft, the inspection or the picture that stands in it;
/// the page itself, which shows what <see cref="Sight"/> sees; or nothing, since nothing of the shop stands on it.
/// </summary>
public enum Through { Aircraft = 1, Walk, Picture, Sight, Nothing }

/// <summary>Whoever only owns an aircraft may come, too. An address that doesn't say so is closed to them.</summary>
/// <param name="through">What bounds what they see.</param>
[AttributeUsage(AttributeTargets.Class)]
public sealed class OwnersSeeAttribute(Through through) : Attribute
{
    public Through Through => through;
}

/// <summary>
/// The one place where it is held that an owner sees their own aircraft and nothing else, for pages and every other address alike.
/// What is foreign isn't there: nobody learns whether it exists.
/// </summary>
public sealed class OwnersGate(RequestDelegate next)
{
    public async Task InvokeAsync(HttpContext context)
    {
        var what = context.GetEndpoint()?.Metadata;
        if (what is not null && what.GetMetadata<IAllowAnonymous>() is null && context.User.Identity?.IsAuthenticated == true
            && !context.User.SeesFleet()
            && await AnswerAsync(context, what.GetMetadata<OwnersSeeAttribute>()?.Through) is not StatusCodes.Status200OK and var refused)
            context.Response.StatusCode = refused;
        else
            await next(context);
    }

    private static async Task<int> AnswerAsync(HttpContext context, Through? through)
    {
        var (services, stop) = (context.RequestServices, context.RequestAborted);
        var db = services.GetRequiredService<RivetDb>();
        var sight = await services.GetRequiredService<Seen>().OfAsync(context.User, stop);
        return through switch
        {
            Through.Sight or Through.Nothing => StatusCodes.Status200OK,
            Through.Aircraft => Found(IdOf(context) is { } id && sight.Sees(id)),
            // What a buyer has surveyed is no business of whoever sells.
            Through.Walk => Found(IdOf(context) is { } id && await db.AircraftOfAsync(id, stop) is { } aircraft && sight.Sees(aircraft)
                && !await db.IsSurveyAsync(id, stop)),
            Through.Picture => Found(await db.IsOnAsync($"{context.GetRouteValue("sha256")}", sight.Aircraft, stop)),
            _ => StatusCodes.Status403Forbidden,
        };
    }

    private static int Found(bool seen) => seen ? StatusCodes.Status200OK : StatusCodes.Status404NotFound;

    private static Guid? IdOf(HttpContext context) => Guid.TryParse($"{context.GetRouteValue("id")}", out var id) ? id : null;
}

/// <summary>What of the fleet somebody sees, looked up once for a request.</summary>
public sealed class Seen(RivetDb db, TimeProvider clock)
{
    private Sight? sight;

    public async ValueTask<Sight> OfAsync(ClaimsPrincipal user, CancellationToken stop) =>
        sight ??= user.SeesFleet() ? Sight.Whole : await db.SightOfAsync(user.PersonId(), clock.Today(), stop);
}
