namespace Mortar.Server.Hosting;

/// <summary>Does something every half a minute, in a scope of its own.</summary>
/// <param name="scopes">Where its parts come from.</param>
/// <param name="time">By which it waits.</param>
/// <param name="log">Where it says what went wrong.</param>
internal abstract class EveryHalfMinute(IServiceScopeFactory scopes, TimeProvider time, ILogger log) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(30);

    /// <summary>What it does, as it is said where it could not be done.</summary>
    protected abstract string Work { get; }

    protected abstract Task Do(IServiceProvider services, CancellationToken cancellationToken);

    protected sealed override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(Every, time);
        while (await timer.WaitForNextTickAsync(stoppingToken))
        {
            try
            {
                await using var scope = scopes.CreateAsyncScope();
                await Do(scope.ServiceProvider, stoppingToken);
            }
            catch (Exception bad) when (bad is not OperationCanceledException)
            {
                // A store that is busy must not end it: the next look tries again.
                log.LogError(bad, "{Work} could not be done; trying again", Work);
            }
        }
    }
}
