using Microsoft.AspNetCore.SignalR;
using Mortar.Core.Changes;
using Mortar.Data.Reminders;
using Mortar.Server.Live;
using NodaTime;

namespace Mortar.Server.Features.Reminders;

/// <summary>Looks every half a minute whether somebody is to be written at once what others did.</summary>
internal sealed class NoticeSender(
    IServiceScopeFactory scopes,
    IHubContext<LiveHub> hub,
    IClock clock,
    TimeProvider time,
    ILogger<NoticeSender> log
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
                var given = await scope
                    .ServiceProvider.GetRequiredService<NoticeCommands>()
                    .Give(clock.GetCurrentInstant(), stoppingToken);
                if (given.Mails > 0)
                {
                    log.LogInformation("Wrote to {Count} people what others did", given.Mails);
                }

                if (given.Awake.Count > 0)
                {
                    await hub.Tell(given.Awake, Topic.Inbox, stoppingToken);
                }
            }
            catch (Exception bad) when (bad is not OperationCanceledException)
            {
                // A store that is busy must not end the telling: the next look tries again.
                log.LogError(bad, "What others did could not be written; trying again");
            }
        }
    }
}
