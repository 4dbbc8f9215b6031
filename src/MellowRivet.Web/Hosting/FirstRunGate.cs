using MellowRivet.Store;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Hosting;

/// <summary>Sends everyone to the first-run page until the shop has an account.</summary>
internal sealed class FirstRunGate(RequestDelegate next)
{
    private volatile bool hasAccount;

    public async Task InvokeAsync(HttpContext context, RivetDb db)
    {
        var path = context.Request.Path;
        var forPeople = !path.StartsWithSegments("/api") && !path.StartsWithSegments("/health") && !path.StartsWithSegments("/openapi")
            && !Path.HasExtension(path);
        if (!hasAccount && forPeople && !path.StartsWithSegments("/first-run"))
        {
            hasAccount = await db.Users.AnyAsync(context.RequestAborted);
            if (!hasAccount)
            {
                context.Response.Redirect("/first-run");
                return;
            }
        }
        await next(context);
    }
}
