using MellowRivet.Store;

namespace MellowRivet.Web.Hosting;

/// <summary>Asks the bulletin service by itself, again and again.</summary>
internal sealed class BulletinRound(IServiceScopeFactory scopes, RivetSettings settings, TimeProvider clock, ILogger<BulletinRound> log)
    : BackgroundService
{
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(TimeSpan.FromMinutes(settings.AskServiceEveryMinutes), clock);
        while (!stoppingToken.IsCancellationRequested)
            try
            {
                if (!await timer.WaitForNextTickAsync(stoppingToken))
                    return;
                await using var scope = scopes.CreateAsyncScope();
                await scope.ServiceProvider.GetRequiredService<BulletinPost>().AskAsync(stoppingToken);
            }
            catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
            {
                return;
            }
#pragma warning disable CA1031 // Whatever a service sends or a disk does: the shop stays up.
            catch (Exception problem)
#pragma warning restore CA1031
            {
                // The next round asks again, from the same day on.
                log.LogWarning(problem, "The bulletin service could not be asked.");
            }
    }
}
