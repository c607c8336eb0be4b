using System.Diagnostics;

namespace Mortar.Data.Store;

/// <summary>Somebody else wrote for longer than anybody waits; nothing was written.</summary>
public sealed class StoreBusyException(string message) : TimeoutException(message);

/// <summary>
/// Whose turn it is to write, in the order they came. SQLite lets one write at a time and has the others try again and
/// again, each on a thread of its own; in line they wait without one, and the next begins as soon as the last is done.
/// </summary>
public sealed class WriteTurn : IDisposable
{
    /// <summary>How long somebody waits at most; the longest write holds the store for half a second (docs/benchmarks.md).</summary>
    public static readonly TimeSpan Longest = TimeSpan.FromSeconds(20);

    private readonly SemaphoreSlim line = new(1, 1);
    private long since;

    /// <summary>For how long the one whose turn it is has had it; <c>null</c> where it is nobody's.</summary>
    public TimeSpan? HeldFor => Volatile.Read(ref since) is var at and not 0 ? Stopwatch.GetElapsedTime(at) : null;

    /// <summary>Waits for one's turn.</summary>
    /// <returns>To be disposed of when one has written.</returns>
    /// <exception cref="StoreBusyException">It did not come.</exception>
    public async Task<IDisposable> Enter(CancellationToken cancellationToken)
    {
        var begun = Stopwatch.GetTimestamp();
        using var waiting = line.CurrentCount == 0 ? Measured.Source.StartActivity("wait to write") : null;
        if (!await line.WaitAsync(Longest, cancellationToken))
        {
            throw new StoreBusyException($"The store was written by others for {Longest.TotalSeconds} seconds.");
        }

        Measured.WriteWait.Record(Stopwatch.GetElapsedTime(begun).TotalSeconds);
        Volatile.Write(ref since, Stopwatch.GetTimestamp());
        return new Turn(this);
    }

    /// <inheritdoc />
    public void Dispose() => line.Dispose();

    private sealed class Turn(WriteTurn of) : IDisposable
    {
        private bool isOver;

        public void Dispose()
        {
            if (!isOver)
            {
                isOver = true;
                Measured.WriteHeld.Record(Stopwatch.GetElapsedTime(Volatile.Read(ref of.since)).TotalSeconds);
                Volatile.Write(ref of.since, 0);
                of.line.Release();
            }
        }
    }
}
