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

    /// <summary>The first two bookings that take the place at once, one of them new; <c>null</c> where none do. Those that only touch do not.</summary>
    /// <param name="added">What is new or changed.</param>
    /// <param name="all">All bookings of the place that can touch the window, with or without the new ones.</param>
    /// <param name="window">The days that are looked at.</param>
    /// <param name="clock">Zone rules.</param>
    public static (Occurrence Added, Occurrence Other)? FirstOverlap(
        IReadOnlyCollection<Event> added,
        IEnumerable<Event> all,
        Window window,
        ZoneClock clock
    )
    {
        var isNew = added.Select(one => one.Id).ToHashSet();
        var taken = all.Where(one => !isNew.Contains(one.Id))
            .Concat(added)
            .SelectMany(one => one.Occurrences(window, clock))
            .Where(one =>
                one.Content is { ShowAs: not ShowAs.Free, Cancelled: false } && one.Span.Duration > Duration.Zero
            )
            .OrderBy(one => one.Span.Start);
        var open = new List<Occurrence>();
        foreach (var one in taken)
        {
            open.RemoveAll(other => other.Span.End <= one.Span.Start);
            foreach (var other in open)
            {
                if (isNew.Contains(one.Event.Id))
                {
                    return (one, other);
                }

                if (isNew.Contains(other.Event.Id))
                {
                    return (other, one);
                }
            }

            open.Add(one);
        }

        return null;
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
