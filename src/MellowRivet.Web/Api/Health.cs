using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Hosting.Reliability;
using Microsoft.Data.Sqlite;

namespace MellowRivet.Web.Api;

/// <summary>
/// Whether the shop is up: its database is migrated and can be read, and its disk takes what is written. Nobody who writes waits for
/// the answer, and a thousand who ask cost one.
/// </summary>
public sealed class Health(DataFolder data)
{
    private static readonly TimeSpan Holds = TimeSpan.FromSeconds(1);

    private (DateTimeOffset At, string Status) last;

    public static void Map(WebApplication app) =>
        app.MapGet("/health", async (Health health, DailyBackup backup, FollowDesk follow, RivetDb db, CancellationToken stop) =>
        {
            var (status, now) = (await health.StatusAsync(db, stop), TimeProvider.System.GetUtcNow());
            // A backup that is late is somebody's to see to, and keeps nobody from working: the shop is up all the same.
            var last = backup.Last;
            return Results.Json(new { status, lastBackup = last?.At, backupIsLate = backup.IsLate(now), filesLost = last?.Lost?.Count ?? 0,
                    copyAsOf = follow.CopyAsOf, copyIsBehind = follow.IsBehind(now) },
                statusCode: status == "ok" ? StatusCodes.Status200OK : StatusCodes.Status503ServiceUnavailable);
        }).OpenToAll("whether the shop is up, and how its data is kept in figures; no more").WithName("Health")
            .WithSummary("Whether the database is migrated, and the disk takes what is written; when it was last backed up, how many "
                + "files the disk had lost by then, and as of when the second machine's copy is, where one follows.");

    public async Task<string> StatusAsync(RivetDb db, CancellationToken stop)
    {
        var now = TimeProvider.System.GetUtcNow();
        if (now - last.At < Holds)
            return last.Status;
        last = (now, await AskAsync(db, stop));
        return last.Status;
    }

    private async Task<string> AskAsync(RivetDb db, CancellationToken stop)
    {
        try
        {
            if (!await db.IsMigratedAsync(stop))
                return "migrating";
        }
        catch (SqliteException)
        {
            return "database can’t be read";
        }
        // A new file each time: one that is there already would be written over where nothing new has room.
        var probe = Path.Combine(data.Path, $"health-{Guid.NewGuid():N}");
        try
        {
            await File.WriteAllBytesAsync(probe, new byte[64 * 1024], CancellationToken.None);
            return "ok";
        }
        catch (Exception problem) when (problem is IOException or UnauthorizedAccessException)
        {
            return "disk is full, or takes nothing";
        }
        finally
        {
            if (File.Exists(probe))
                File.Delete(probe);
        }
    }
}
