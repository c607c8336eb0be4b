using Microsoft.Net.Http.Headers;
using NodaTime;

namespace Mortar.Server.Hosting;

/// <summary>Whether who asks has what would be sent already (RFC 9110, 13.1.2 and 13.1.3).</summary>
internal static class Preconditions
{
    /// <param name="request">What was asked.</param>
    /// <param name="tag">The tag of what would be sent.</param>
    /// <param name="changedAt">When that was last changed; <c>null</c> where it is not known. It is looked at only where no tag was named.</param>
    public static bool IsKnown(HttpRequest request, EntityTagHeaderValue tag, Instant? changedAt = null)
    {
        var asked = request.GetTypedHeaders();
        return asked.IfNoneMatch.Count > 0
            ? asked.IfNoneMatch.Any(one =>
                one.Equals(EntityTagHeaderValue.Any) || one.Compare(tag, useStrongComparison: false)
            )
            : changedAt is { } at
                && asked.IfModifiedSince is { } since
                && at.ToUnixTimeSeconds() <= since.ToUnixTimeSeconds();
    }
}
