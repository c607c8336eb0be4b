using Microsoft.AspNetCore.SignalR;
using Mortar.Core.Changes;
using Mortar.Data.Reminders;
using Mortar.Data.Store;
using Mortar.Server.Live;
using NodaTime;

namespace Mortar.Server.Features.Reminders;

/// <summary>
/// Gives reminders when they are due. It knows the next one and waits for it; a commit has it look anew, since anything
/// may have been moved. After a restart it goes on where it had looked up to.
/// </summary>
internal sealed class ReminderSender(
    IServiceScopeFactory scopes,
    IHubContext<LiveHub> hub,
    ChangeSignal signal,
    IClock clock,
    TimeProvider time,
    IHostApplicationLifetime lifetime,
    ILogger<ReminderSender> log
) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromMilliseconds(500);

    /// <summary>How far ahead the next one is looked for; also how old the note of a crashed server can be.</summary>
    private static readonly Duration Ahead = Duration.FromMinutes(5);

    /// <summary>No more often than this is looked anew, however much is written.</summary>
    private static readonly TimeSpan Rest = TimeSpan.FromSeconds(3);

    /// <summary>Longer than anything is announced ahead nothing is dug up.</summary>
    private static readonly Duration Furthest = Duration.FromDays(56);

    private volatile bool isStale = true;

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        signal.Committed += TakeNote;
        try
        {
            var from = clock.GetCurrentInstant();
            var next = from; // what came due while nobody was here is given at once
            long? looked = null;
            using var timer = new PeriodicTimer(Every, time);

            // What links in mails begin with is known once Mortar listens.
            while (!lifetime.ApplicationStarted.IsCancellationRequested)
            {
                await timer.WaitForNextTickAsync(stoppingToken);
            }

            from = await Begin(from, stoppingToken);
            do
            {
                var now = clock.GetCurrentInstant();
                if (now < from)
                {
                    // The clock was put back: what comes due from here on is looked for, and what was given is known.
                    (from, next) = (now, now);
                }

                try
                {
                    if (now >= next)
                    {
                        await Give(from, now, stoppingToken);
                        (from, isStale) = (now, true);
                    }

                    if (isStale && (looked is not { } at || time.GetElapsedTime(at) >= Rest))
                    {
                        (isStale, looked) = (false, time.GetTimestamp());
                        next = await Next(from, now + Ahead, stoppingToken);
                    }
                }
                catch (Exception bad) when (bad is not OperationCanceledException)
                {
                    // A store that is busy must not end the reminding: the next tick tries again from where it was.
                    log.LogError(bad, "Reminders due after {From} could not be given; trying again", from);
                    isStale = true;
                }
            } while (await timer.WaitForNextTickAsync(stoppingToken));
        }
        finally
        {
            signal.Committed -= TakeNote;
        }
    }

    private void TakeNote(object? sender, EventArgs e) => isStale = true;

    private async Task<Instant> Begin(Instant now, CancellationToken cancellationToken)
    {
        await using var scope = scopes.CreateAsyncScope();
        var before = await scope.ServiceProvider.GetRequiredService<ReminderCommands>().LookedUpTo(cancellationToken);
        return before is { } there && there < now ? Instant.Max(there, now - Furthest) : now;
    }

    /// <summary>When the next one is due; at the latest when it has to be looked again.</summary>
    private async Task<Instant> Next(Instant after, Instant upTo, CancellationToken cancellationToken)
    {
        await using var scope = scopes.CreateAsyncScope();
        var due = await scope.ServiceProvider.GetRequiredService<ReminderReader>().Due(after, upTo, cancellationToken);
        return due.Count > 0 ? due[0].DueAt : upTo;
    }

    private async Task Give(Instant after, Instant now, CancellationToken cancellationToken)
    {
        await using var scope = scopes.CreateAsyncScope();
        var told = await scope
            .ServiceProvider.GetRequiredService<ReminderCommands>()
            .Give(after, now, cancellationToken);
        if (told.Count > 0)
        {
            log.LogInformation("Reminded {Count} people", told.Count);
            await hub.Tell(told, Topic.Reminders, cancellationToken);
        }
    }
}
