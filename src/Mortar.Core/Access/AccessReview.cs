using NodaTime;

namespace Mortar.Core.Access;

/// <summary>What of a group's access is worth a look from time to time.</summary>
public static class AccessReview
{
    /// <summary>How long somebody can be away before their access is worth a look.</summary>
    public static readonly Duration Awhile = Duration.FromDays(90);

    /// <summary>Whether somebody has not been here for long.</summary>
    /// <param name="seenAt">When they were last here; <c>null</c> for never.</param>
    /// <param name="now">What o'clock it is.</param>
    public static bool IsUnseen(Instant? seenAt, Instant now) => seenAt is not { } seen || now - seen > Awhile;
}
