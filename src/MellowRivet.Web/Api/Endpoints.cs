using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Store.Files;
using MellowRivet.Web.Access;

namespace MellowRivet.Web.Api;

/// <summary>Photos, sounds and videos.</summary>
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
        }).Needs(Right.Look).OwnersSee(Through.Picture).ExcludeFromDescription();

    public static void MapSounds(this WebApplication app) =>
        app.MapGet("/sounds/{sha256}", (string sha256, string? type, SoundFiles sounds, HttpContext context) =>
        {
            if (sounds.Find(sha256) is not { } path)
                return Results.NotFound();
            context.Response.Headers.CacheControl = "private, max-age=31536000, immutable";
            // What the browser is told comes from the file's own first bytes, whatever the address says.
            using var file = File.OpenRead(path);
            var head = new byte[12];
            return Results.File(path, SoundFiles.TypeOf(head.AsSpan(0, file.ReadAtLeast(head, 12, throwOnEndOfStream: false)))
                ?? "application/octet-stream", enableRangeProcessing: true);
        }).Needs(Right.Look).OwnersSee(Through.Picture).ExcludeFromDescription();

    public static void MapVideos(this WebApplication app) =>
        app.MapGet("/videos/{sha256}", (string sha256, VideoFiles videos, HttpContext context) =>
        {
            if (videos.Find(sha256) is not var (path, type))
                return Results.NotFound();
            context.Response.Headers.CacheControl = "private, max-age=31536000, immutable";
            return Results.File(path, type, enableRangeProcessing: true);
        }).Needs(Right.Look).OwnersSee(Through.Picture).ExcludeFromDescription();

    /// <summary>The pictures of an owner's page: only those that stand on it.</summary>
    public static void MapOwnersPhotos(this WebApplication app) =>
        app.MapGet("/owner/{token}/photos/{sha256}/{size}",
            async (string token, string sha256, string size, RivetDb db, PhotoFiles photos, TimeProvider clock, HttpContext context,
                CancellationToken stop) =>
        {
            if (await db.OwnerLinkAsync(token, clock, stop) is not { } link
                || !Enum.TryParse<PhotoSize>(size, ignoreCase: true, out var wanted))
                return Results.NotFound();
            if (!await db.IsShownToOwnerAsync(link.InspectionId, sha256, stop) || photos.PathOf(sha256, wanted) is not { } path)
                return Results.NotFound();
            context.Response.Headers.CacheControl = "private, max-age=3600";
            return Results.File(path, "image/jpeg");
        }).OpenToAll("whoever has the link of a list").RequireRateLimiting("owner").ExcludeFromDescription();

    /// <summary>The pictures of a survey's report: only those of what was found at it.</summary>
    public static void MapSurveyPhotos(this WebApplication app) =>
        app.MapGet("/survey/{token}/photos/{sha256}/{size}",
            async (string token, string sha256, string size, RivetDb db, PhotoFiles photos, TimeProvider clock, HttpContext context,
                CancellationToken stop) =>
        {
            if (await db.OwnerLinkAsync(token, clock, stop, survey: true) is not { } link
                || !Enum.TryParse<PhotoSize>(size, ignoreCase: true, out var wanted)
                || !await db.IsInReportAsync(link.InspectionId, sha256, stop) || photos.PathOf(sha256, wanted) is not { } path)
                return Results.NotFound();
            context.Response.Headers.CacheControl = "private, max-age=3600";
            return Results.File(path, "image/jpeg");
        }).OpenToAll("whoever has the link of a survey's report").RequireRateLimiting("owner").ExcludeFromDescription();
}
