using MellowRivet.Store;

namespace MellowRivet.Web.Hosting;

/// <summary>Asks the bulletin service by itself, again and again.</summary>
internal sealed class BulletinRound(IServiceScopeFactory scopes, RivetSettings settings, TimeProvider clock, ILogger<BulletinRound> log) : BackgroundService
{
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(TimeSpan.FromMinutes(settings.AskServiceEveryMinutes), clock);
        while (await timer.WaitForNextTickAsync(stoppingToken))
            try
            {
                await using var scope = scopes.CreateAsyncScope();
                await scope.ServiceProvider.GetRequiredService<BulletinPost>().AskAsync(stoppingToken);
            }
            catch (Exception problem) when (problem is IOException or UnauthorizedAccessException or Microsoft.EntityFrameworkCore.DbUpdateException or Microsoft.Data.Sqlite.SqliteException)
            {
                // The next round asks again, from the same day on.
                log.LogWarning(problem, "The bulletin service could not be asked.");
            }
    }
}
