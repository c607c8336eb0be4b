using System.Collections.Concurrent;

namespace Mortar.Data.Reading;

/// <summary>What was read from the store, kept as long as a count of what was written stands. That there is nothing is not kept.</summary>
/// <typeparam name="TKey">By what it is found.</typeparam>
/// <typeparam name="T">What was read; to be read, not changed.</typeparam>
/// <param name="writes">Counts what can make it untrue; counted before the write is answered.</param>
/// <param name="most">For how many it is kept; then all begin anew.</param>
public sealed class KeptWhile<TKey, T>(Func<long> writes, int most)
    where TKey : notnull
{
    private readonly ConcurrentDictionary<TKey, (T Value, long Writes)> kept = new();

    /// <summary>What was read, or is read now.</summary>
    public async Task<T> Get(TKey key, Func<Task<T>> read)
    {
        // Counted before it is read: what is written meanwhile makes it untrue.
        var count = writes();
        if (kept.TryGetValue(key, out var known) && known.Writes == count)
        {
            return known.Value;
        }

        var value = await read();
        if (value is null)
        {
            return value;
        }

        if (kept.Count >= most)
        {
            kept.Clear();
        }

        kept[key] = (value, count);
        return value;
    }
}
