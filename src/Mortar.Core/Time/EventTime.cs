using System.Diagnostics;
using NodaTime;

namespace Mortar.Core.Time;

/// <summary>When something happens, in the terms in which it was agreed.</summary>
/// <remarks>
/// The three cases are the three forms of DTSTART in RFC 5545, 3.3.4 and 3.3.5: a date, a local time with a zone, and
/// a local time that follows the reader. The local form is the truth; instants are derived from it.
/// </remarks>
public abstract record EventTime
{
    // A series asks for these again and again, so they are worked out once.
    private EventTime(long start, long end) => (StartSecond, EndSecond) = (start, end);

    /// <summary><see cref="LocalStart"/> in seconds of its own clock; see <see cref="CivilDays"/>.</summary>
    internal long StartSecond { get; }

    /// <summary><see cref="LocalEnd"/> in the same.</summary>
    internal long EndSecond { get; }

    /// <summary>A local time in a named zone. It stays at that time on the clock when the zone's rules change.</summary>
    /// <remarks>Start included, end excluded. An end equal to the start is a moment that takes no time.</remarks>
    public sealed record Timed : EventTime
    {
        internal Timed(LocalDateTime start, LocalDateTime end, string zone)
            : base(CivilDays.Second(start), CivilDays.Second(end)) => (Start, End, Zone) = (start, end, zone);

        /// <summary>When it begins on the clock of <see cref="Zone"/>.</summary>
        public LocalDateTime Start { get; }

        /// <summary>When it ends on the clock of <see cref="Zone"/>.</summary>
        public LocalDateTime End { get; }

        /// <summary>The zone's name in the IANA database, for example <c>Europe/London</c>.</summary>
        public string Zone { get; }
    }

    /// <summary>Whole days, first and last included, the same dates for every reader.</summary>
    public sealed record AllDay : EventTime
    {
        internal AllDay(LocalDate first, LocalDate last, bool timesToBeSet)
            : base(CivilDays.Midnight(first), CivilDays.Midnight(last) + CivilDays.SecondsPerDay) =>
            (First, Last, TimesToBeSet) = (first, last, timesToBeSet);

        /// <summary>The first day.</summary>
        public LocalDate First { get; }

        /// <summary>The last day, included. Files carry the day after (RFC 5545, 3.6.1).</summary>
        public LocalDate Last { get; }

        /// <summary>Whether hours will follow that nobody knows yet, rather than the days being whole.</summary>
        public bool TimesToBeSet { get; }

        /// <summary>How many days; at least 1.</summary>
        public int DayCount => Period.DaysBetween(First, Last) + 1;
    }

    /// <summary>A local time without a zone: 8:00 wherever the reader is.</summary>
    public sealed record Floating : EventTime
    {
        internal Floating(LocalDateTime start, LocalDateTime end)
            : base(CivilDays.Second(start), CivilDays.Second(end)) => (Start, End) = (start, end);

        /// <summary>When it begins on the reader's clock.</summary>
        public LocalDateTime Start { get; }

        /// <summary>When it ends on the reader's clock.</summary>
        public LocalDateTime End { get; }
    }

    /// <summary>A local time with its zone.</summary>
    /// <exception cref="ArgumentOutOfRangeException"><paramref name="end"/> is before <paramref name="start"/>.</exception>
    public static EventTime InZone(LocalDateTime start, LocalDateTime end, string zone)
    {
        ArgumentException.ThrowIfNullOrEmpty(zone);
        InOrder(start <= end, nameof(end), end);
        return new Timed(start, end, zone);
    }

    /// <summary>Whole days, both included: <c>Days(Friday, Friday)</c> is one day.</summary>
    /// <exception cref="ArgumentOutOfRangeException"><paramref name="last"/> is before <paramref name="first"/>.</exception>
    public static EventTime Days(LocalDate first, LocalDate last)
    {
        InOrder(first <= last, nameof(last), last);
        return new AllDay(first, last, timesToBeSet: false);
    }

    /// <summary>Days, both included, whose hours are not known yet: "the fair, 14 to 16 May, times to be set".</summary>
    /// <remarks>They count as whole days until they are set.</remarks>
    /// <exception cref="ArgumentOutOfRangeException"><paramref name="last"/> is before <paramref name="first"/>.</exception>
    public static EventTime DaysToBeSet(LocalDate first, LocalDate last)
    {
        InOrder(first <= last, nameof(last), last);
        return new AllDay(first, last, timesToBeSet: true);
    }

    /// <summary>A local time that follows the reader.</summary>
    /// <exception cref="ArgumentOutOfRangeException"><paramref name="end"/> is before <paramref name="start"/>.</exception>
    public static EventTime OnEveryClock(LocalDateTime start, LocalDateTime end)
    {
        InOrder(start <= end, nameof(end), end);
        return new Floating(start, end);
    }

    /// <summary>Where it begins on its own clock; whole days begin at midnight. The key by which a series counts.</summary>
    public LocalDateTime LocalStart =>
        this switch
        {
            Timed timed => timed.Start,
            Floating floating => floating.Start,
            AllDay days => days.First.AtMidnight(),
            _ => throw new UnreachableException(),
        };

    /// <summary>Where it ends on its own clock, excluded; whole days end at the midnight after the last of them.</summary>
    public LocalDateTime LocalEnd =>
        this switch
        {
            Timed timed => timed.End,
            Floating floating => floating.End,
            AllDay days => days.Last.PlusDays(1).AtMidnight(),
            _ => throw new UnreachableException(),
        };

    /// <summary>The same time, begun at another local start and lasting as long on its own clock.</summary>
    /// <remarks>Whole days move by days; the time of day of <paramref name="start"/> means nothing to them.</remarks>
    public EventTime StartingAt(LocalDateTime start) =>
        this switch
        {
            Timed timed => new Timed(
                start,
                start + Period.Between(timed.Start, timed.End, PeriodUnits.Ticks),
                timed.Zone
            ),
            Floating floating => new Floating(
                start,
                start + Period.Between(floating.Start, floating.End, PeriodUnits.Ticks)
            ),
            AllDay days => new AllDay(start.Date, start.Date.PlusDays(days.DayCount - 1), days.TimesToBeSet),
            _ => throw new UnreachableException(),
        };

    private static void InOrder<T>(bool inOrder, string name, T value)
    {
        if (!inOrder)
        {
            throw new ArgumentOutOfRangeException(name, value, "An event cannot end before it starts.");
        }
    }
}
