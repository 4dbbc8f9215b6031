using MellowRivet.Core;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Store.Backups;
using MellowRivet.Store.Files;

namespace MellowRivet.Web.Hosting.Reliability;

/// <summary>
/// Backs the shop up once a day, to the folder that it was started with: after two in the morning, or as soon as the machine is on. The
/// oldest goes once a new one was written and read again.
/// </summary>
public sealed class DailyBackup(RivetSettings settings, ILogger<DailyBackup> log) : BackgroundService
{
    private const int Hour = 2;

    private static readonly TimeSpan Looks = TimeSpan.FromMinutes(5), Again = TimeSpan.FromHours(1), Late = TimeSpan.FromHours(36);
    private static readonly Actor Itself = new(null, "the shop's daily backup", "");

    private readonly SemaphoreSlim asked = new(0);
    private readonly DateTimeOffset since = TimeProvider.System.GetUtcNow();
    private DateTimeOffset? failedAt;

    /// <summary>Where they go; null where nobody said so.</summary>
    public string? Folder => settings.BackupTo;

    public int Kept => settings.BackupsKept;

    /// <summary>How many are there.</summary>
    public int There { get; private set; }

    /// <summary>Why the last try didn't succeed, in words; null where it did.</summary>
    public string? Fault { get; private set; }

    /// <summary>One is being made.</summary>
    public bool IsUnderWay { get; private set; }

    /// <summary>The last that succeeded, of these and of those made by hand.</summary>
    public LastBackup? Last => LastBackup.Of(settings.Data);

    /// <summary>None succeeded for a day and a half.</summary>
    public bool IsLate(DateTimeOffset now) => now - (Last?.At ?? since) > Late;

    /// <summary>Makes one now, beside the requests.</summary>
    public void Ask()
    {
        if (Folder is not null && !IsUnderWay)
            asked.Release();
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        if (Folder is null)
            return;
        await Task.Yield();
        var wanted = false;
        while (!stoppingToken.IsCancellationRequested)
        {
            if (wanted || await IsDueAsync(stoppingToken))
                await TryAsync(stoppingToken);
            wanted = await asked.WaitAsync(Looks, stoppingToken).ConfigureAwait(false);
        }
    }

    private async Task<bool> IsDueAsync(CancellationToken stop)
    {
        try
        {
            await using var db = RivetDb.Of(settings.Data);
            var all = (await BackupFolder.OfAsync(Folder!, db, stop)).All();
            There = all.Count;
            return IsDue(all.Count > 0 ? all[0].At : null, Here, TimeProvider.System.GetUtcNow() - failedAt);
        }
        catch (Exception problem) when (problem is IOException or UnauthorizedAccessException)
        {
            return Fail(problem);
        }
    }

    private static DateTime Here => TimeProvider.System.Here(TimeProvider.System.GetUtcNow()).DateTime;

    /// <summary>Whether one is due.</summary>
    /// <param name="last">When the last one was made, by the time here; null for never.</param>
    /// <param name="here">The time here.</param>
    /// <param name="failed">How long ago a try failed; null where none did.</param>
    public static bool IsDue(DateTime? last, DateTime here, TimeSpan? failed) => !(failed < Again)
        && (last is not { } there || (there.Date < here.Date && (here.Hour >= Hour || here - there > TimeSpan.FromDays(1))));

    private async Task TryAsync(CancellationToken stop)
    {
        IsUnderWay = true;
        try
        {
            await using var db = RivetDb.Of(settings.Data, new(() => Itself, TimeProvider.System));
            Directory.CreateDirectory(Folder!);
            var folder = await BackupFolder.OfAsync(Folder!, db, stop);
            var file = folder.Next(Here);
            var manifest = await ShopBackup.WriteAsync(settings.Data, file, TimeProvider.System, stop);
            var last = await LastBackup.KeepAsync(settings.Data, db, manifest, file, folder.All().Select(one => one.File), stop);
            folder.KeepOnly(Kept, last.Lost!);
            There = folder.All().Count;
            (Fault, failedAt) = (null, null);
            await db.TellNowAsync(Deed.Exported, $"the whole shop to {Path.GetFileName(file)}", stop);
        }
        catch (OperationCanceledException) when (stop.IsCancellationRequested)
        {
            throw;
        }
#pragma warning disable CA1031 // Whatever it was: the page and the log say so, and it is tried again.
        catch (Exception problem)
#pragma warning restore CA1031
        {
            Fail(problem);
        }
        finally
        {
            IsUnderWay = false;
        }
    }

    private bool Fail(Exception problem)
    {
        failedAt = TimeProvider.System.GetUtcNow();
        Fault = Disk.IsFull(problem) ? "There is no room on the disk that the backups go to." : problem.Message;
        log.LogWarning(problem, "The daily backup didn't succeed.");
        return false;
    }
}
