using System.Threading.Channels;
using Microsoft.AspNetCore.SignalR;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Mortar.Data.Kinds;
using Mortar.Data.Store;
using Mortar.Server.Hosting;

namespace Mortar.Server.Live;

/// <summary>Reads the change log after each commit and tells the screens of those whom it concerns.</summary>
internal sealed class ChangeReader(
    IServiceScopeFactory scopes,
    IHubContext<LiveHub> hub,
    ChangeSignal signal,
    TimeProvider time,
    SecurityLog security,
    ILogger<ChangeReader> log
) : BackgroundService
{
    private static readonly TimeSpan TryAgain = TimeSpan.FromMilliseconds(500);

    /// <summary>How often changes are tried that the store gives and nobody understands.</summary>
    private const int MostTries = 5;

    private int tries;

    /// <summary>One note is enough, however many commits it stands for.</summary>
    private readonly Channel<bool> notes = Channel.CreateBounded<bool>(
        new BoundedChannelOptions(1) { FullMode = BoundedChannelFullMode.DropWrite }
    );

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        signal.Committed += TakeNote;
        try
        {
            var read = await Latest(stoppingToken);
            await foreach (var _ in notes.Reader.ReadAllAsync(stoppingToken))
            {
                read = await TellOrWait(read, stoppingToken);
            }
        }
        finally
        {
            signal.Committed -= TakeNote;
        }
    }

    /// <summary>
    /// A store that is busy or a line that breaks must not end the telling: it is logged and tried again. Changes that cannot
    /// be understood are passed over in the end, and everybody asks anew; else nobody would be told of anything any more.
    /// </summary>
    private async Task<long> TellOrWait(long read, CancellationToken cancellationToken)
    {
        try
        {
            var told = await Tell(read, cancellationToken);
            tries = 0;
            return told;
        }
        catch (Exception bad) when (bad is not OperationCanceledException)
        {
            log.LogError(bad, "Changes after {Read} could not be told; trying again", read);
            if (bad is not SqliteException && ++tries >= MostTries)
            {
                tries = 0;
                return await PassOver(read, cancellationToken);
            }

            await Task.Delay(TryAgain, time, cancellationToken);
            notes.Writer.TryWrite(true);
            return read;
        }
    }

    private async Task<long> PassOver(long read, CancellationToken cancellationToken)
    {
        var latest = await Latest(cancellationToken);
        log.LogCritical("Changes {After} to {Latest} are passed over; all screens ask anew", read, latest);
        await hub.TellAll(cancellationToken);
        return latest;
    }

    private void TakeNote(object? sender, EventArgs e) => notes.Writer.TryWrite(true);

    private async Task<long> Latest(CancellationToken cancellationToken)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<MortarDb>();
        return await db.Changes.MaxAsync(change => (long?)change.Sequence, cancellationToken) ?? 0;
    }

    private async Task<long> Tell(long read, CancellationToken cancellationToken)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<MortarDb>();
        var changes = await db
            .Changes.AsNoTracking()
            .Where(change => change.Sequence > read)
            .OrderBy(change => change.Sequence)
            .ToListAsync(cancellationToken);
        foreach (var told in await db.ToldOf(changes, cancellationToken))
        {
            await hub.Tell(told, cancellationToken);
        }

        foreach (var change in changes.Where(change => change.IsAccess()))
        {
            security.AccessChanged(
                change.Actor.Value,
                change.Subject.ToString(),
                change.SubjectId,
                change.CalendarId?.Value,
                change.GroupId?.Value,
                change.Concerns?.Value
            );
        }

        log.LogDebug("Told of {Count} changes after {Read}", changes.Count, read);
        return changes.Count > 0 ? changes[^1].Sequence : read;
    }
}
