using NodaTime;

namespace Mortar.Core.Letters;

/// <summary>How often a mail is tried, and when it is given up.</summary>
public static class MailLife
{
    /// <summary>For how long a server that does not take a mail is asked again (RFC 5321, 4.5.4.1: generally four to five days).</summary>
    public static readonly Duration TriedFor = Duration.FromDays(5);

    /// <summary>How often one that cannot even be put together is tried: what is wrong with it may be put right meanwhile, but hardly will.</summary>
    public const int TriesOfUnfit = 3;

    /// <summary>For how long it is told that one was given up.</summary>
    public static readonly Duration ToldFor = Duration.FromDays(14);

    /// <summary>For how long it is kept that one went out; of its words nothing is.</summary>
    public static readonly Duration KeptFor = Duration.FromDays(30);

    /// <summary>The longest it waits until it is tried again; where one would wait longer, the clock was put back meanwhile.</summary>
    public static readonly Duration LongestPause = Duration.FromMinutes(10);

    /// <summary>When a mail that was tried is tried again: after 2, 4, 8 seconds and so on up to ten minutes.</summary>
    /// <param name="attempts">How often it was tried, this time included.</param>
    /// <param name="now">What o'clock it is.</param>
    public static Instant Next(int attempts, Instant now) =>
        now + Duration.Min(LongestPause, Duration.FromSeconds(1 << Math.Min(attempts, 10)));

    /// <summary>For how long a mail server that cannot be reached is left alone: half a second, one, two and so on up to a minute.</summary>
    /// <param name="failures">How often in a row it could not be reached.</param>
    public static Duration LinePause(int failures) =>
        Duration.FromSeconds(Math.Min(60, Math.ScaleB(0.25, Math.Clamp(failures, 1, 10))));

    /// <summary>Whether it is tried no more.</summary>
    /// <param name="writtenAt">When it was written.</param>
    /// <param name="attempts">How often it was tried.</param>
    /// <param name="isUnfit">Whether it could not be put together, or to send it broke something.</param>
    /// <param name="now">What o'clock it is.</param>
    public static bool IsGivenUp(Instant writtenAt, int attempts, bool isUnfit, Instant now) =>
        (isUnfit && attempts >= TriesOfUnfit) || now - writtenAt > TriedFor;
}
