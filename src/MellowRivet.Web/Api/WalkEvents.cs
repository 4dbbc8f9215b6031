using System.Runtime.CompilerServices;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;

namespace MellowRivet.Web.Api;

/// <summary>What others do on an inspection, as it happens, as server-sent events.</summary>
internal static class WalkEvents
{
    public static void MapWalkEvents(this WebApplication app) =>
        app.MapGet("/walk/{id:guid}/events",
            async (Guid id, string? zone, string? task, HttpContext context, RivetDb db, WalkFeed feed, IHostApplicationLifetime life,
                TimeProvider clock, CancellationToken stop) =>
        {
            if (await db.StateOfAsync(id, stop) is not { } state)
                return Results.NotFound();
            // Signed while the page was on its way here: nothing comes any more, and "no content" tells the browser not to ask again.
            if (state != InspectionState.InWork)
                return Results.NoContent();
            var user = context.User;
            if (Guid.TryParse(task, out var here) && await db.PlaceOfAsync(user.PersonId(), id, stop) != here)
                db.RememberPlace(user.PersonId(), id, here, clock.GetUtcNow());
            // The stream stays open for hours and asks for nothing more: the connection goes back.
            await db.GiveBackAsync();
            context.Response.Headers.CacheControl = "no-store";
            return TypedResults.ServerSentEvents(
                Listen(feed, id, new(user.PersonId(), user.Initials(), string.IsNullOrEmpty(zone) ? null : zone), life.ApplicationStopping,
                    stop));
        }).Needs(Right.Look).OwnersSee(Through.Walk).ExcludeFromDescription();

    private static async IAsyncEnumerable<WalkNews> Listen(WalkFeed feed, Guid id, Present who, CancellationToken stopping,
        [EnumeratorCancellation] CancellationToken stop)
    {
        using var either = CancellationTokenSource.CreateLinkedTokenSource(stopping, stop);
        await using var news = feed.ListenAsync(id, who, either.Token).GetAsyncEnumerator(either.Token);
        while (true)
        {
            try
            {
                if (!await news.MoveNextAsync())
                    yield break;
            }
            catch (OperationCanceledException)
            {
                yield break;
            }
            yield return news.Current;
        }
    }
}
