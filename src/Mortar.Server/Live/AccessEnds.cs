using Microsoft.AspNetCore.SignalR;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Changes;
using Mortar.Data.Access;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Server.Live;

/// <summary>
/// Tells open screens when access that was given for a time is over. Nothing is written then: a grant with an end counts
/// no more by itself, so no screen gets anything past it; this only has what is shown fetched anew.
/// </summary>
internal sealed class AccessEnds(
    IServiceScopeFactory scopes,
    IHubContext<LiveHub> hub,
    ChangeSignal signal,
    IClock clock,
    TimeProvider time,
    ILogger<AccessEnds> log
) : BackgroundService
{
    /// <summary>How often the clock is looked at: the longest that something ended stays in sight of an open screen.</summary>
    private static readonly TimeSpan Every = TimeSpan.FromMilliseconds(500);

    /// <summary>Set by every commit, since it may have set an end before the one that is waited for.</summary>
    private volatile bool isStale = true;

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        signal.Committed += TakeNote;
        try
        {
            using var timer = new PeriodicTimer(Every, time);
            var (told, next) = (clock.GetCurrentInstant(), Instant.MaxValue);
            while (await timer.WaitForNextTickAsync(stoppingToken))
            {
                try
                {
                    var now = clock.GetCurrentInstant();
                    if (now < told)
                    {
                        (told, isStale) = (now, true); // the clock was put back
                    }

                    if (isStale)
                    {
                        isStale = false;
                        next = await Next(told, stoppingToken);
                    }

                    if (next <= now)
                    {
                        await Tell(told, now, stoppingToken);
                        (told, isStale) = (now, true);
                    }
                }
                catch (Exception bad) when (bad is not OperationCanceledException)
                {
                    // A store that is busy must not end the telling, and with it the whole server: the next tick tries again.
                    log.LogError(bad, "Ends of access after {Told} could not be told; trying again", told);
                    isStale = true;
                }
            }
        }
        finally
        {
            signal.Committed -= TakeNote;
        }
    }

    private void TakeNote(object? sender, EventArgs e) => isStale = true;

    private async Task<Instant> Next(Instant after, CancellationToken cancellationToken)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<MortarDb>();
        return await db.NextEnd(after, cancellationToken) ?? Instant.MaxValue;
    }

    private async Task Tell(Instant after, Instant upTo, CancellationToken cancellationToken)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<MortarDb>();
        var people = await db.EndedBetween(after, upTo).ToListAsync(cancellationToken);
        await hub.Tell(people, Topic.Shelf, cancellationToken);
        await hub.Tell(people, Topic.Inbox, cancellationToken);
    }
}
