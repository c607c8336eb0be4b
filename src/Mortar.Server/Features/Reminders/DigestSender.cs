using Mortar.Data.Reminders;
using NodaTime;

namespace Mortar.Server.Features.Reminders;

/// <summary>Looks every half a minute whether somebody is to be written what changed in their calendars.</summary>
internal sealed class DigestSender(
    IServiceScopeFactory scopes,
    IClock clock,
    TimeProvider time,
    ILogger<DigestSender> log
) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(30);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(Every, time);
        while (await timer.WaitForNextTickAsync(stoppingToken))
        {
            try
            {
                await using var scope = scopes.CreateAsyncScope();
                var written = await scope
                    .ServiceProvider.GetRequiredService<DigestCommands>()
                    .Give(clock.GetCurrentInstant(), stoppingToken);
                if (written > 0)
                {
                    log.LogInformation("Wrote {Count} digests", written);
                }
            }
            catch (Exception bad) when (bad is not OperationCanceledException)
            {
                // A store that is busy must not end the telling: the next look tries again.
                log.LogError(bad, "Digests could not be written; trying again");
            }
        }
    }
}
