using MellowRivet.Store;

namespace MellowRivet.Web.Hosting;

/// <summary>Reckons the plan of the hangar beside the requests, whenever somebody looks at one that isn't of now.</summary>
internal sealed class PlanRound(IServiceScopeFactory scopes, PlanKeeper keeper, TimeProvider clock, ILogger<PlanRound> log)
    : BackgroundService
{
    // What can't be reckoned now can't be in half a second either.
    private static readonly TimeSpan AfterFailure = TimeSpan.FromSeconds(30);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
            try
            {
                await keeper.AskedAsync(stoppingToken);
                await using var scope = scopes.CreateAsyncScope();
                await scope.ServiceProvider.GetRequiredService<PlanDesk>().ReckonAsync(stoppingToken);
            }
#pragma warning disable CA1031 // Whatever can't be planned: the plan that is kept stays, and says as of when it is.
            catch (Exception) when (stoppingToken.IsCancellationRequested)
            {
                // The shop closes while one is reckoned, and takes its database along.
                return;
            }
            catch (Exception problem)
#pragma warning restore CA1031
            {
                log.LogWarning(problem, "The plan of the hangar could not be reckoned.");
                keeper.Fail();
                await Task.Delay(AfterFailure, clock, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            }
    }
}
