using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Mortar.Data.Store;

namespace Mortar.Data.Reading;

/// <summary>How far the log was read, and its newest entries.</summary>
/// <param name="Commits">How many commits are known to be in it.</param>
/// <param name="Version">The newest entry: what was read after this was known has everything up to it.</param>
/// <param name="Floor">Up to here entries are not kept.</param>
/// <param name="Entries">What came after that, in order.</param>
public sealed record TailState(long Commits, long Version, long Floor, TailEntry[] Entries)
{
    /// <summary>What changed since a version; <c>null</c> where that is not known any more, or comes from another store.</summary>
    public ArraySegment<TailEntry>? Since(long version)
    {
        if (version < Floor || version > Version)
        {
            return null;
        }

        var from = Entries.Length;
        while (from > 0 && Entries[from - 1].Sequence > version)
        {
            from--;
        }

        return new ArraySegment<TailEntry>(Entries, from, Entries.Length - from);
    }
}

/// <summary>
/// The newest entries of the change log, read once for everybody who keeps what they read: what changed since then, and so
/// whether it still holds, is answered from memory.
/// </summary>
public sealed class LogTail(IServiceScopeFactory scopes, ChangeSignal signal) : IDisposable
{
    /// <summary>How many entries are kept.</summary>
    public const int Longest = 1_000;

    /// <summary>How many are read at once; after more of them, as an import brings, everything is read anew.</summary>
    public const int MostAtOnce = 400;

    private readonly SemaphoreSlim turn = new(1, 1);
    private TailState state = new(Commits: -1, Version: 0, Floor: 0, []);

    private Action<IReadOnlyList<TailEntry>?> keepers = _ => { };

    /// <summary>Has somebody who keeps what they read told of new entries before anybody else learns of them; <c>null</c> stands for more than can be told.</summary>
    internal void TellFirst(Action<IReadOnlyList<TailEntry>?> keeper) => keepers += keeper;

    /// <summary>The log with everything in it that was committed before this was called.</summary>
    public async ValueTask<TailState> Now(CancellationToken cancellationToken)
    {
        if (Volatile.Read(ref state) is var known && known.Commits >= signal.Commits)
        {
            return known;
        }

        await turn.WaitAsync(cancellationToken);
        try
        {
            // Counted before it is read: what is committed meanwhile is read again by the next.
            var commits = signal.Commits;
            if (state.Commits < commits)
            {
                Volatile.Write(ref state, await ReadOn(commits, cancellationToken));
            }

            return state;
        }
        finally
        {
            turn.Release();
        }
    }

    /// <inheritdoc />
    public void Dispose() => turn.Dispose();

    private async Task<TailState> ReadOn(long commits, CancellationToken cancellationToken)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<MortarDb>();
        var from = state.Version;
        var newest = await db.Changes.MaxAsync(change => (long?)change.Sequence, cancellationToken) ?? 0;
        if (state.Commits < 0 || newest - from > MostAtOnce)
        {
            keepers(null);
            return new TailState(commits, newest, newest, []);
        }

        if (newest == from)
        {
            return state with { Commits = commits };
        }

        var rows = await db
            .Changes.AsNoTracking()
            .Where(change => change.Sequence > from && change.Sequence <= newest)
            .OrderBy(change => change.Sequence)
            .ToListAsync(cancellationToken);
        var entries = rows.ConvertAll(row => new TailEntry(row));
        keepers(entries);
        var kept = state.Entries.Concat(entries).ToArray();
        return kept.Length <= Longest
            ? new TailState(commits, newest, state.Floor, kept)
            : new TailState(commits, newest, kept[^(Longest + 1)].Sequence, kept[^Longest..]);
    }
}
