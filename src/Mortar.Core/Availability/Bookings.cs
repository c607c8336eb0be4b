using Mortar.Core.Events;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Availability;

/// <summary>The bookings of a place that takes one at a time.</summary>
public static class Bookings
{
    /// <summary>How far ahead a series without end is looked at.</summary>
    public static readonly Period Ahead = Period.FromYears(2);

    /// <summary>The days in which new bookings could overlap others: from the first of them, a series from today on, as far ahead as is looked.</summary>
    /// <param name="added">What is new or changed; at least one.</param>
    /// <param name="zone">The place's zone.</param>
    /// <param name="today">The day it is there.</param>
    public static Window Reach(IReadOnlyCollection<Event> added, DateTimeZone zone, LocalDate today)
    {
        var days = added.Select(one => DaysOf(one, today)).ToList();

        // A day more on both sides, for those that were agreed in another zone.
        return new Window(days.Min(one => one.First).PlusDays(-1), days.Max(one => one.Last).PlusDays(1), zone);
    }

    /// <summary>What is said where there are too many dates to look at.</summary>
    public static string TooMany(string place) =>
        FormattableString.Invariant(
            $"“{place}” takes one booking at a time, and this has too many dates to look at each: more than {MostLookedAt} with those that are there. Let it end sooner, or repeat less often."
        );

    private static (LocalDate First, LocalDate Last) DaysOf(Event one, LocalDate today)
    {
        var (first, last) = (one.Time.LocalStart.Date, one.Time.LocalEnd.Date);
        if (one.Series is not { } series)
        {
            return (first, last);
        }

        // What a long series overlapped before today can no longer be helped, and does not keep it from being changed.
        foreach (var moved in series.Overrides.Select(change => change.Time))
        {
            (first, last) = (LocalDate.Min(first, moved.LocalStart.Date), LocalDate.Max(last, moved.LocalEnd.Date));
        }

        first = LocalDate.Max(first, today);
        return (first, LocalDate.Max(last, first + Ahead));
    }

    /// <summary>How many dates are looked at before it is said that these are too many to look at: daily for years, with hundreds of others.</summary>
    public const int MostLookedAt = 100_000;

    /// <summary>Whether new bookings find the place free.</summary>
    /// <param name="added">What is new or changed.</param>
    /// <param name="all">All bookings of the place that can touch the window, with or without the new ones.</param>
    /// <param name="window">The days that are looked at.</param>
    /// <param name="clock">Zone rules.</param>
    /// <remarks>
    /// Those that only touch do not collide. The dates of all are walked together in the order of time and no further than
    /// to the first that collide: this is asked under the write lock, and a rule for every second has no end.
    /// </remarks>
    public static BookingCheck Check(
        IReadOnlyCollection<Event> added,
        IEnumerable<Event> all,
        Window window,
        ZoneClock clock
    )
    {
        var isNew = added.Select(one => one.Id).ToHashSet();
        // Of what began before, the last to end: where that is over, so is all the rest.
        Occurrence? old = null;
        Occurrence? fresh = null;
        var looked = 0;
        var events = all.Where(one => !isNew.Contains(one.Id)).Concat(added);
        foreach (var one in OccurrenceOrder.Together(events.Select(one => one.Occurrences(window, clock))))
        {
            if (++looked > MostLookedAt)
            {
                return new BookingCheck.TooMany();
            }

            if (one.Content is { Cancelled: true } or { ShowAs: ShowAs.Free } || one.Span.Duration <= Duration.Zero)
            {
                continue;
            }

            // Of what was there before and overlaps by itself, nothing is asked.
            if (isNew.Contains(one.Event.Id))
            {
                if ((StillOpen(old, one) ?? StillOpen(fresh, one)) is { } other)
                {
                    return new BookingCheck.Taken(one, other);
                }

                fresh = Later(fresh, one);
            }
            else
            {
                if (StillOpen(fresh, one) is { } booked)
                {
                    return new BookingCheck.Taken(booked, one);
                }

                old = Later(old, one);
            }
        }

        return new BookingCheck.Free();

        static Occurrence? StillOpen(Occurrence? before, Occurrence now) =>
            before?.Span.End > now.Span.Start ? before : null;

        static Occurrence Later(Occurrence? before, Occurrence now) =>
            before is { } other && other.Span.End >= now.Span.End ? other : now;
    }

    /// <summary>The nearest times to a booking's own at which its place is free for as long, none of them over.</summary>
    /// <param name="booking">A booking by hours, and no series.</param>
    /// <param name="all">All bookings of the place that can touch the window.</param>
    /// <param name="window">The days that are looked at.</param>
    /// <param name="now">Nothing before it is offered.</param>
    /// <param name="clock">Zone rules.</param>
    /// <returns>One before and one after, in the booking's own zone; <c>null</c> where there is none.</returns>
    public static (OfferedTime? Earlier, OfferedTime? Later) Nearest(
        Event booking,
        IEnumerable<Event> all,
        Window window,
        Instant now,
        ZoneClock clock
    )
    {
        if (booking is not { Time: EventTime.Timed timed, Series: null })
        {
            return (null, null);
        }

        var within = new Interval(Instant.Max(window.Span.Start, Instant.Min(now, window.Span.End)), window.Span.End);
        var zone = clock.Zone(timed.Zone);
        var (start, end) = (ZoneClock.At(timed.Start, zone), ZoneClock.At(timed.End, zone));
        if (end <= start || within.Duration <= Duration.Zero)
        {
            return (null, null);
        }

        var taken = BusyTime.Of(
            within,
            all.Where(one => one.Id != booking.Id)
                .SelectMany(one => one.Occurrences(window, clock))
                .Where(one => one.Content is { Cancelled: false, ShowAs: not ShowAs.Free })
                .Take(MostLookedAt)
                .Select(one => (one.Span, Taken.Busy))
        );
        var place = new Invitee(Participant.Of(booking.CalendarId), Need.Required, taken, Hours: null);
        var (earlier, later) = Gaps.Nearest(new GapQuestion([place], within, end - start), start);
        return (At(earlier), At(later == earlier ? null : later));

        OfferedTime? At(Instant? at) =>
            at is { } found ? new OfferedTime(found, timed.StartingAt(found.InZone(zone).LocalDateTime)) : null;
    }

    /// <summary>Says that a place is taken, and by what as far as the reader may know.</summary>
    /// <param name="place">The place's name.</param>
    /// <param name="when">When it is taken, on the reader's clock.</param>
    /// <param name="title">What takes it; <c>null</c> where that is not theirs to know.</param>
    /// <param name="year">The year the reader is in.</param>
    public static string Sentence(string place, EventTime when, string? title, int year)
    {
        var by = title is { Length: > 0 } ? $" by “{title}”" : string.Empty;
        return $"“{place}” is taken{by}: {RangeSentence.For(when, year)}. It takes one booking at a time; choose another time or place.";
    }
}

/// <summary>A time that is free for a booking.</summary>
/// <param name="Start">When it begins.</param>
/// <param name="Time">When it is, in the zone in which the booking was agreed.</param>
public sealed record OfferedTime(Instant Start, EventTime Time);

/// <summary>What becomes of new bookings of a place that takes one at a time.</summary>
public abstract record BookingCheck
{
    private BookingCheck() { }

    /// <summary>It is free for them.</summary>
    public sealed record Free : BookingCheck;

    /// <summary>The first two that take it at once, one of them new.</summary>
    public sealed record Taken(Occurrence Added, Occurrence Other) : BookingCheck;

    /// <summary>They have too many dates to look at.</summary>
    public sealed record TooMany : BookingCheck;
}
