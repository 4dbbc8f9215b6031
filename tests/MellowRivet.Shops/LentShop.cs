using MellowRivet.Core.Inspections;
using MellowRivet.Store;
using MellowRivet.Web.Hosting;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Shops;

/// <summary>A copy of the made shop, served on a free port of the loopback address until it is thrown away.</summary>
public sealed class LentShop : IAsyncDisposable
{
    private readonly WebApplication app;
    private readonly DataFolder data;

    private LentShop(WebApplication app, DataFolder data) => (this.app, this.data) = (app, data);

    public IServiceProvider Services => app.Services;
    public DataFolder Data => data;
    public string Address => app.Urls.First();
    public int Port => new Uri(Address).Port;

    /// <summary>The inspection of each aircraft that was begun last, and each aircraft's file, by registration.</summary>
    public required IReadOnlyDictionary<string, string> Walks { get; init; }
    public required IReadOnlyDictionary<string, string> Files { get; init; }

    /// <summary>Opens a copy of the made shop.</summary>
    /// <param name="lockSeconds">How long a write waits for its turn there; null for as long as in any shop.</param>
    /// <param name="idle">The registration of an aircraft whose inspection in work was never begun there; null for none.</param>
    public static async Task<LentShop> OpenAsync(int? lockSeconds = null, string? idle = null)
    {
        var folder = Path.Combine(Path.GetTempPath(), $"rivet-shop-{Guid.NewGuid():N}");
        Copy(new(await MadeShop.FolderAsync()), folder);
        if (idle is not null)
            await NeverBegunAsync(new(folder), idle);
        return await ServeAsync(lockSeconds is { } seconds
            ? new(folder) { LockSeconds = seconds }
            : new(folder), new SetClock(MadeShop.Now));
    }

    /// <summary>Serves a shop, with what limits a stranger's calls out of the way; where its folder is empty, the demo is made.</summary>
    public static async Task<LentShop> ServeAsync(DataFolder data, TimeProvider clock,
        double pictureScale = RivetSettings.UsualPictureScale)
    {
        var settings = new RivetSettings(data)
        {
            Port = 0, Demo = true, Clock = clock, PictureScale = pictureScale, SignInsPerMinute = 10_000, BenchCallsPerMinute = 100_000,
            OwnersCallsPerMinute = 100_000, UploadsPerMinute = 100_000,
        };
        var app = await RivetApp.OpenAsync(settings, default);
        await app.StartAsync();
        await using var scope = app.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<RivetDb>();
        var aircraft = await db.Aircraft.AsNoTracking().ToDictionaryAsync(row => row.Id, row => row.Registration);
        var begun = await db.Inspections.AsNoTracking().OrderBy(row => row.OpenedOn).Select(row => new { row.Id, row.AircraftId })
            .ToListAsync();
        return new(app, data)
        {
            Walks = begun.GroupBy(row => row.AircraftId).ToDictionary(rows => aircraft[rows.Key], rows => $"/walk/{rows.Last().Id}"),
            Files = aircraft.ToDictionary(row => row.Value, row => $"/aircraft/{row.Key}"),
        };
    }

    /// <summary>Asks for every page once, as a start does.</summary>
    public Task<(int Asked, IReadOnlyList<string> Failed)> WarmUpAsync() => WarmUp.RunAsync(app, default);

    public async ValueTask DisposeAsync()
    {
        await app.StopAsync(new CancellationToken(canceled: true));
        await app.DisposeAsync();
        using (var connection = new SqliteConnection(data.ConnectionString))
            SqliteConnection.ClearPool(connection);
        Directory.Delete(data.Path, recursive: true);
    }

    private static async Task NeverBegunAsync(DataFolder data, string registration)
    {
        await using var db = RivetDb.Of(data);
        var work = await db.Inspections.Where(row => row.State == InspectionState.InWork
            && db.Aircraft.Any(aircraft => aircraft.Id == row.AircraftId && aircraft.Registration == registration)).SingleAsync();
        await db.Readings.Where(row => row.InspectionId == work.Id).ExecuteDeleteAsync();
        await db.Discrepancies.Where(row => row.InspectionId == work.Id).ExecuteDeleteAsync();
        await db.OrderedParts.Where(row => row.InspectionId == work.Id).ExecuteDeleteAsync();
        db.Inspections.Remove(work);
        await db.SaveChangesAsync();
    }

    private static void Copy(DirectoryInfo from, string to)
    {
        Directory.CreateDirectory(to);
        foreach (var file in from.EnumerateFiles())
            file.CopyTo(Path.Combine(to, file.Name));
        foreach (var folder in from.EnumerateDirectories())
            Copy(folder, Path.Combine(to, folder.Name));
    }
}
