using MellowRivet.Store;
using MellowRivet.Store.Files;
using MellowRivet.Store.Following;

namespace MellowRivet.Web.Hosting.Reliability;

/// <summary>
/// What a start does beside the requests: nobody but the shop reads its folder, as a folder from an earlier release or another machine may
/// have let them; and what belongs to nobody is swept away.
/// </summary>
public sealed class Housekeeping(DataFolder data, ILogger<Housekeeping> log) : BackgroundService
{
    // Whoever comes first isn't held up by it.
    private static readonly TimeSpan After = TimeSpan.FromMinutes(1);

    /// <summary>What was swept; null before it was.</summary>
    public Swept? Swept { get; private set; }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await Task.Yield();
        try
        {
            Disk.TakeFromOthers(data.Path);
            // What was made for a second machine that isn't any more.
            if (!FollowerKey.IsThere(data) && Directory.Exists(data.Following))
                Directory.Delete(data.Following, recursive: true);
            await Task.Delay(After, stoppingToken);
            await using var db = RivetDb.Of(data);
            Swept = await Sweeping.SweepAsync(db, data, TimeProvider.System.GetUtcNow(), stoppingToken);
        }
        catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
        {
            // The next start does it.
        }
#pragma warning disable CA1031 // Whatever the disk says: the shop is open.
        catch (Exception problem)
#pragma warning restore CA1031
        {
            log.LogWarning(problem, "The shop's folder could not be put in order.");
        }
    }
}
