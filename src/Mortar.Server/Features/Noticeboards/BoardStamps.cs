using System.Collections.Concurrent;
using System.Security.Cryptography;
using System.Text;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Server.Features.Noticeboards;

/// <summary>
/// Since when noticeboards tell what they tell. Taken from what is told and not from the log, which also knows of changes that
/// the world does not see. Forgotten when Mortar stops: then everybody fetches once more.
/// </summary>
internal sealed class BoardStamps(IClock clock)
{
    private readonly ConcurrentDictionary<NoticeboardId, (string Hash, Instant At)> known = new();

    /// <summary>When a noticeboard began to tell this, to the second.</summary>
    public Instant Of(NoticeboardId id, string told)
    {
        var hash = Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(told)));
        var now = Instant.FromUnixTimeSeconds(clock.GetCurrentInstant().ToUnixTimeSeconds());
        return known.AddOrUpdate(id, (hash, now), (_, before) => before.Hash == hash ? before : (hash, now)).At;
    }
}
