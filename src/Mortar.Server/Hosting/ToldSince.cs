using System.Collections.Concurrent;
using NodaTime;

namespace Mortar.Server.Hosting;

/// <summary>
/// Since when what is given out tells what it tells. Taken from what is told and not from the log, which also knows of changes
/// that who reads does not see. Forgotten when Mortar stops: then everybody fetches once more.
/// </summary>
internal sealed class ToldSince(IClock clock)
{
    private readonly ConcurrentDictionary<Guid, (string Hash, Instant At)> known = new();

    /// <summary>When something began to tell this, to the second.</summary>
    /// <param name="id">What tells: a noticeboard, a feed.</param>
    /// <param name="hash">Stands for all it tells.</param>
    public Instant Of(Guid id, string hash)
    {
        var now = Instant.FromUnixTimeSeconds(clock.GetCurrentInstant().ToUnixTimeSeconds());
        return known.AddOrUpdate(id, (hash, now), (_, before) => before.Hash == hash ? before : (hash, now)).At;
    }
}
