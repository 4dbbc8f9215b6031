using MellowRivet.Store.Files;
using Microsoft.AspNetCore.Http.Features;

namespace MellowRivet.Web.Access;

/// <summary>
/// A body that is larger than may be sent here, or is no body, is refused as that: it is no fault of ours, and nobody reads on in it to
/// say so. Neither is a disk without room.
/// </summary>
public static class RefusedBodies
{
    public static IApplicationBuilder UseRefusedBodies(this IApplicationBuilder app) => app.Use(next => async context =>
    {
        // What says what went wrong is shown in the place of what was sent, and would look for its fields in the same body.
        if (context.Request.Path.StartsWithSegments("/problem"))
            context.Features.Set<IFormFeature>(new FormFeature(FormCollection.Empty));
        try
        {
            await next(context);
        }
        catch (BadHttpRequestException refused) when (!context.Response.HasStarted)
        {
            context.Response.StatusCode = refused.StatusCode;
        }
        // Even to read a form with pictures takes room.
        catch (Exception full) when (Disk.IsFull(full) && !context.Response.HasStarted)
        {
            context.Response.Clear();
            context.Response.StatusCode = StatusCodes.Status507InsufficientStorage;
            if (ReadableFields.IsByScript(context.Request))
                await context.Response.WriteAsync(Disk.NoRoom.Message, context.RequestAborted);
        }
    });
}
