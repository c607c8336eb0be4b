using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Events;

/// <summary>The stretch of real time that follows from a local start, for occurrences of one length.</summary>
/// <remarks>
/// RFC 5545, 3.8.5.3: a length given by DTEND is the same exact time for all; of one given by DURATION, days are days of
/// the calendar. Whole days and floating times last as long on every clock.
/// </remarks>
internal sealed class SeriesClock
{
    private readonly ZoneWalk walk;
    private readonly bool timed;

    /// <summary>What is added to the local start, in local seconds, before <see cref="exact"/>.</summary>
    private readonly long nominal;

    private readonly long exact;

    public SeriesClock(EventTime time, int nominalDays, ZoneClock clock, DateTimeZone reader)
    {
        Time = time;
        timed = time is EventTime.Timed;
        walk = time is EventTime.Timed { Zone: var id } ? clock.Walk(id) : new ZoneWalk(reader);
        var (start, end) = (time.StartSecond, time.EndSecond);
        LongestLocal = end - start;
        if (timed)
        {
            nominal = Math.Min((long)nominalDays * CivilDays.SecondsPerDay, end - start);
            exact = Math.Max(0, walk.At(end) - walk.At(start + nominal));

            // The first occurrence may lie across a change that the others do not.
            LongestLocal = Math.Max(LongestLocal, nominal + exact);
        }
        else
        {
            nominal = end - start;
        }
    }

    public EventTime Time { get; }

    public DateTimeZone Zone => walk.Zone;

    /// <summary>The most that the local end can lie after the local start, but for clock changes.</summary>
    public long LongestLocal { get; }

    /// <summary>The zone of timed occurrences; <c>null</c> where the reader's is used.</summary>
    public ZoneWalk? OwnZone => timed ? walk : null;

    /// <summary>Start and end in seconds since 1970 in UTC.</summary>
    public (long Start, long End) Span(long local)
    {
        var start = walk.At(local);
        var end = nominal == 0 ? start + exact : walk.At(local + nominal) + exact;

        // A gap can shift the start past an end that exists; such an occurrence takes no time, but never less than none.
        return (start, Math.Max(start, end));
    }

    /// <summary>The local starts between which everything lies that can touch a window, both included.</summary>
    /// <param name="window">The window.</param>
    /// <param name="before">How long before the window a start can lie, in local seconds: the longest length, or none where only what starts in it is asked for.</param>
    /// <param name="isCalm">Whether the clock does not change there, so that local starts follow each other as in real time.</param>
    public (long First, long Last) Reach(Window window, long before, out bool isCalm)
    {
        var (from, to) = (window.StartSecond, window.EndSecond);
        isCalm = walk.IsCalm(from - before, to, out var offset);
        return isCalm ? (from + offset - before, to + offset) : (from - before - ZoneWalk.Margin, to + ZoneWalk.Margin);
    }
}
