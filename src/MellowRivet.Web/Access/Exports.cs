using MellowRivet.Core.People;
using MellowRivet.Store;
using Microsoft.Net.Http.Headers;

namespace MellowRivet.Web.Access;

/// <summary>
/// Whatever leaves the shop as a file is told to its log, whichever address gives it out. Where the log can't be written, as on a full
/// disk, the copy leaves all the same: a shop in trouble gets its data out.
/// </summary>
public sealed class Exports(RequestDelegate next, ILogger<Exports> log)
{
    public Task InvokeAsync(HttpContext context)
    {
        if (context.User.Identity?.IsAuthenticated == true)
            context.Response.OnStarting(TellAsync, context);
        return next(context);
    }

    private async Task TellAsync(object state)
    {
        var context = (HttpContext)state;
        if (context.Response.StatusCode != StatusCodes.Status200OK
            || !ContentDispositionHeaderValue.TryParse($"{context.Response.Headers.ContentDisposition}", out var file)
            || file.DispositionType != "attachment")
            return;
        try
        {
            // The request's own may still be reading what it sends.
            await using var scope = context.RequestServices.CreateAsyncScope();
            var db = scope.ServiceProvider.GetRequiredService<RivetDb>();
            db.Tell(Deed.Exported, $"{file.FileNameStar.Value ?? file.FileName.Value}".Trim('"'));
            await db.SaveChangesAsync(CancellationToken.None);
        }
#pragma warning disable CA1031 // Whatever the disk says: the copy leaves.
        catch (Exception problem)
#pragma warning restore CA1031
        {
            log.LogWarning(problem, "A copy left that the log doesn’t tell of: {Path}.", context.Request.Path);
        }
    }
}
