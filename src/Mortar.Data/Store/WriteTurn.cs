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

    /// <summary>Waits for one's turn.</summary>
    /// <returns>To be disposed of when one has written.</returns>
    /// <exception cref="StoreBusyException">It did not come.</exception>
    public async Task<IDisposable> Enter(CancellationToken cancellationToken)
    {
        if (!await line.WaitAsync(Longest, cancellationToken))
        {
            throw new StoreBusyException($"The store was written by others for {Longest.TotalSeconds} seconds.");
        }

        return new Turn(line);
    }

    /// <inheritdoc />
    public void Dispose() => line.Dispose();

    private sealed class Turn(SemaphoreSlim line) : IDisposable
    {
        private bool isOver;

        public void Dispose()
        {
            if (!isOver)
            {
                isOver = true;
                line.Release();
            }
        }
    }
}
