using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Accounts;

/// <summary>A way in for somebody who forgot their password: a link by mail, good once and not for long.</summary>
public static class PasswordReset
{
    /// <summary>How long the link is good.</summary>
    public static readonly Duration Lasts = Duration.FromMinutes(30);

    /// <summary>How many mails one address is sent in <see cref="Span"/>; who asks more often is told the same, and nothing is sent.</summary>
    public const int MostMails = 3;

    /// <summary>The time in which mails to one address are counted, and for which it is remembered that one was asked for.</summary>
    public static readonly Duration Span = Duration.FromHours(1);

    /// <summary>What is said where a link does not open.</summary>
    public static Refusal Ended { get; } =
        new Refusal.AgainstRule(
            "link-ended",
            "This link does not open any more: it is good for 30 minutes and once. Ask for another one."
        );

    /// <summary>Whether a link still opens.</summary>
    /// <param name="askedAt">When it was asked for.</param>
    /// <param name="usedAt">When it was used; <c>null</c> for not yet.</param>
    /// <param name="now">What o'clock it is; where the clock was put back before it was asked for, it does not open.</param>
    public static bool Opens(Instant askedAt, Instant? usedAt, Instant now) =>
        usedAt is null && now >= askedAt && now < askedAt + Lasts;
}
