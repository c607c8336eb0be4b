using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.WebCalendars;

/// <summary>When a calendar of the web is fetched again.</summary>
public static class FetchRhythm
{
    /// <summary>No calendar is fetched more often by itself.</summary>
    public static Duration Shortest { get; } = Duration.FromMinutes(15);

    /// <summary>Every calendar is fetched at least as often.</summary>
    public static Duration Longest { get; } = Duration.FromDays(1);

    /// <summary>How often one is fetched that asks for nothing.</summary>
    public static Duration Usual { get; } = Duration.FromHours(4);

    /// <summary>How long is waited at least between two times that people ask for it now.</summary>
    public static Duration BetweenNows { get; } = Duration.FromMinutes(1);

    /// <summary>From so many events that are others each time on, one is left alone for a while.</summary>
    public const int Much = 500;

    /// <summary>From so many on, for a day.</summary>
    public const int VeryMuch = 5_000;

    /// <summary>
    /// How long one is left alone in which so much was another that it cannot be people who changed it: each of its events is
    /// written, told and kept in a history.
    /// </summary>
    /// <param name="lost">How many events of the file before are others now, or gone; that there are more than before is no wonder.</param>
    public static Duration Rest(int lost) =>
        lost >= VeryMuch ? Longest
        : lost >= Much ? Usual
        : Duration.Zero;

    /// <summary>Why it is not fetched now for who asks for it; <c>null</c> where it is, and where the clock was put back.</summary>
    /// <param name="tried">When it was last asked for.</param>
    /// <param name="restsUntil">Until when it is left alone.</param>
    /// <param name="now">When somebody asks.</param>
    public static Refusal.TooOften? WhyNotNow(Instant? tried, Instant? restsUntil, Instant now) =>
        Left(restsUntil, now, Longest) is { } rest
            ? new Refusal.TooOften(
                "So much of it is another each time that it is left alone for some hours. It is fetched by itself then.",
                rest
            )
        : Left(tried + BetweenNows, now, BetweenNows) is { } wait
            ? new Refusal.TooOften("It was asked for just now. Ask again in a minute.", wait)
        : null;

    private static Duration? Left(Instant? until, Instant now, Duration most) =>
        until - now is { } left && left > Duration.Zero && left <= most ? left : null;

    /// <summary>How often: as it asks for (REFRESH-INTERVAL, RFC 7986, 5.7), within bounds.</summary>
    public static Duration Every(Duration? asked) =>
        asked is { } wish && wish > Duration.Zero ? Duration.Min(Longest, Duration.Max(Shortest, wish)) : Usual;

    /// <summary>When next.</summary>
    /// <param name="now">Just fetched, or tried to.</param>
    /// <param name="every">How often it is fetched where all is well.</param>
    /// <param name="failures">How many times in a row it could not be; each doubles the wait, from a quarter of an hour up to a day.</param>
    /// <param name="asked">How long the host asks to be left alone (Retry-After, RFC 9110, 10.2.3); believed up to a day.</param>
    public static Instant Next(Instant now, Duration every, int failures, Duration? asked = null)
    {
        if (failures == 0)
        {
            return now + every;
        }

        var doubled = Shortest * (1L << Math.Min(failures - 1, 10));
        var wait = asked is { } wish && wish > doubled ? wish : doubled;
        return now + Duration.Min(Longest, wait);
    }
}
