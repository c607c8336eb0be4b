using Mortar.Data.Reminders;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Reminders;

/// <summary>Looks every half a minute whether somebody is to be written what changed in their calendars.</summary>
internal sealed class DigestSender(
    IServiceScopeFactory scopes,
    IClock clock,
    TimeProvider time,
    ILogger<DigestSender> log
) : EveryHalfMinute(scopes, time, log)
{
    protected override string Work => "Writing digests";

    protected override async Task Do(IServiceProvider services, CancellationToken cancellationToken)
    {
        var written = await services
            .GetRequiredService<DigestCommands>()
            .Give(clock.GetCurrentInstant(), cancellationToken);
        if (written > 0)
        {
            log.LogInformation("Wrote {Count} digests", written);
        }
    }
}
