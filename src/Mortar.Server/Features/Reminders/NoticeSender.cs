using Microsoft.AspNetCore.SignalR;
using Mortar.Core.Changes;
using Mortar.Data.Reminders;
using Mortar.Server.Hosting;
using Mortar.Server.Live;
using NodaTime;

namespace Mortar.Server.Features.Reminders;

/// <summary>
/// Looks every half a minute whether somebody is to be written at once what others did; screens of those whose quiet hours
/// are over ask anew.
/// </summary>
internal sealed class NoticeSender(
    IServiceScopeFactory scopes,
    IHubContext<LiveHub> hub,
    IClock clock,
    TimeProvider time,
    ILogger<NoticeSender> log
) : EveryHalfMinute(scopes, time, log)
{
    protected override string Work => "Writing what others did";

    protected override async Task Do(IServiceProvider services, CancellationToken cancellationToken)
    {
        var given = await services
            .GetRequiredService<NoticeCommands>()
            .Give(clock.GetCurrentInstant(), cancellationToken);
        if (given.Mails > 0)
        {
            log.LogInformation("Wrote to {Count} people what others did", given.Mails);
        }

        if (given.Awake.Count > 0)
        {
            await hub.Tell(given.Awake, Topic.Inbox, cancellationToken);
        }
    }
}
