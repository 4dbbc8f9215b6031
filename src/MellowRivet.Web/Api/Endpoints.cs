using MellowRivet.Store;
using MellowRivet.Store.Photos;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Api;

/// <summary>The few addresses that aren't pages: photos, and whether the shop is up.</summary>
internal static class Endpoints
{
    public static void MapPhotos(this WebApplication app) =>
        app.MapGet("/photos/{sha256}/{size}", (string sha256, string size, PhotoFiles photos, HttpContext context) =>
        {
            if (!Enum.TryParse<PhotoSize>(size, ignoreCase: true, out var wanted) || photos.PathOf(sha256, wanted) is not { } path)
                return Results.NotFound();
            // The name is the content's hash: what it names never changes.
            context.Response.Headers.CacheControl = "private, max-age=31536000, immutable";
            return Results.File(path, "image/jpeg");
        }).RequireAuthorization().ExcludeFromDescription();

    public static void MapHealth(this WebApplication app) =>
        app.MapGet("/health", async (RivetDb db, CancellationToken stop) =>
        {
            // Taking the write lock and letting go proves that the database is migrated, reachable and writable.
            if ((await db.Database.GetPendingMigrationsAsync(stop)).Any())
                return Results.Json(new { status = "migrating" }, statusCode: StatusCodes.Status503ServiceUnavailable);
            await using var transaction = await db.Database.BeginTransactionAsync(stop);
            await db.Database.ExecuteSqlAsync($"DELETE FROM Postings WHERE 0", stop);
            await transaction.RollbackAsync(stop);
            return Results.Json(new { status = "ok" });
        }).AllowAnonymous().WithName("Health").WithSummary("Whether the database is migrated and writable.");
}
