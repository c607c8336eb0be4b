using System.Collections.Concurrent;
using Microsoft.Extensions.Caching.Memory;

namespace Mortar.Server.Hosting;

/// <summary>
/// What was worked out for one who asked without an account, kept for the next as long as nothing in the store has changed: a
/// page that a hundred phones open, or a feed that is asked every second, is read once. Those who ask meanwhile wait for the
/// one that is under way.
/// </summary>
internal sealed class KeptAnswers : IDisposable
{
    /// <summary>How much is kept at most, in bytes; what was asked for the longest ago goes first.</summary>
    private const long Most = 32L * 1024 * 1024;

    /// <summary>For how long, if nobody asks again.</summary>
    private static readonly TimeSpan Idle = TimeSpan.FromMinutes(2);

    /// <summary>How many are worked out at a time: the walls of those who work here go first.</summary>
    private readonly SemaphoreSlim turn = new(2);
    private readonly MemoryCache kept = new(new MemoryCacheOptions { SizeLimit = Most });
    private readonly ConcurrentDictionary<string, Lazy<Task<byte[]>>> underWay = new(StringComparer.Ordinal);

    /// <summary>An answer by what it depends on.</summary>
    /// <param name="key">All that it depends on.</param>
    /// <param name="make">Works it out; it is not stopped by one of those who wait for it.</param>
    /// <param name="cancellationToken">Ends the waiting.</param>
    public async Task<byte[]> Get(string key, Func<Task<byte[]>> make, CancellationToken cancellationToken)
    {
        if (kept.TryGetValue(key, out byte[]? known))
        {
            return known!;
        }

        var mine = underWay.GetOrAdd(key, _ => new Lazy<Task<byte[]>>(() => Make(key, make)));
        return await mine.Value.WaitAsync(cancellationToken);
    }

    public void Dispose()
    {
        kept.Dispose();
        turn.Dispose();
    }

    private async Task<byte[]> Make(string key, Func<Task<byte[]>> make)
    {
        await turn.WaitAsync();
        try
        {
            var made = await make();
            kept.Set(
                key,
                made,
                new MemoryCacheEntryOptions { Size = made.Length + key.Length, SlidingExpiration = Idle }
            );
            return made;
        }
        finally
        {
            turn.Release();
            underWay.TryRemove(key, out _);
        }
    }
}
