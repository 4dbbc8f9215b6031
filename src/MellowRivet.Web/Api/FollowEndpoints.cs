using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Store.Following;
using MellowRivet.Web.Access;

namespace MellowRivet.Web.Api;

/// <summary>
/// Gives the shop out to a second machine that follows it: its database by blocks, its files by name. The key of that machine opens it and
/// nothing else does, since all of the shop goes this way.
/// </summary>
public sealed class FollowDesk(DataFolder data) : IDisposable
{
    /// <summary>Where it is asked, without a slash at its end.</summary>
    public const string Path = "/follow";

    private readonly FollowedFolder shop = new(data, data.Following, TimeProvider.System);

    private static readonly TimeSpan MostBehind = TimeSpan.FromMinutes(1);

    /// <summary>A second machine has a key.</summary>
    public bool IsFollowed => FollowerKey.IsThere(data);

    /// <summary>When the second machine last asked; null where none did since the start.</summary>
    public DateTimeOffset? AskedAt { get; private set; }

    /// <summary>All that was kept until then is in its copy; null where it hasn't said so since the start.</summary>
    public DateTimeOffset? CopyAsOf => shop.CopyAsOf;

    /// <summary>A second machine has a key, and no copy as late as was promised.</summary>
    public bool IsBehind(DateTimeOffset now) => IsFollowed && !(now - CopyAsOf <= MostBehind);

    public void Dispose() => shop.Dispose();

    public static void Map(WebApplication app)
    {
        const string Why = "whoever has the key of the second machine";
        app.MapGet($"{Path}/database", (string? held, FollowDesk desk, HttpContext context, CancellationToken stop) =>
            desk.ForFollower(context, async () => Results.Json(await desk.shop.DatabaseAsync(held, stop))))
            .OpenToAll(Why).ExcludeFromDescription();
        app.MapGet($"{Path}/blocks", (string image, int from, int count, FollowDesk desk, HttpContext context, CancellationToken stop) =>
            desk.ForFollower(context, async () => await desk.shop.BlocksAsync(image, from, Math.Min(count, MostBlocks), stop) is { } blocks
                ? Results.Bytes(blocks)
                : Results.NotFound())).OpenToAll(Why).ExcludeFromDescription();
        app.MapGet($"{Path}/files", (FollowDesk desk, HttpContext context, CancellationToken stop) =>
            desk.ForFollower(context, async () => Results.Json(await desk.shop.FilesAsync(stop))))
            .OpenToAll(Why).ExcludeFromDescription();
        app.MapGet($"{Path}/file", (string path, FollowDesk desk, HttpContext context, CancellationToken stop) =>
            desk.ForFollower(context, async () => await desk.shop.OpenAsync(path, stop) is { } content
                ? Results.Stream(content, "application/octet-stream")
                : Results.NotFound())).OpenToAll(Why).ExcludeFromDescription();
    }

    private const int MostBlocks = 256;

    // Without the key it looks as if there were nothing.
    private async Task<IResult> ForFollower(HttpContext context, Func<Task<IResult>> answer)
    {
        if (context.Request.Headers.Authorization.ToString() is not { } shown || !shown.StartsWith("Bearer ", StringComparison.Ordinal)
            || !FollowerKey.Opens(data, shown["Bearer ".Length..].Trim()))
            return Results.NotFound();
        // Once for each start: whoever reads the log sees that a copy leaves all the time.
        if (AskedAt is null)
            await context.RequestServices.GetRequiredService<RivetDb>().TellNowAsync(Deed.Exported,
                "the whole shop, to the second machine that follows it", context.RequestAborted,
                actor => actor with { Name = "the second machine" });
        AskedAt = TimeProvider.System.GetUtcNow();
        context.Response.Headers.CacheControl = "no-store";
        return await answer();
    }
}
