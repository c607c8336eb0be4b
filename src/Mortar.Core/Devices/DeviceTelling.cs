using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Devices;

/// <summary>
/// What a calendar program of somebody's is told of a calendar: whole events, of which it works out the dates by itself, and
/// beside them the stretches of which it is told only that they are taken. Together they are what its reader sees on the
/// wall, and no more.
/// </summary>
public static class DeviceTelling
{
    /// <summary>How many days before today such stretches are told.</summary>
    public const int DaysBack = 62;

    /// <summary>How many days from today on they are told.</summary>
    public const int DaysAhead = 330;

    /// <summary>An event as its reader sees it, all its dates together.</summary>
    /// <param name="role">The reader's step on the calendar.</param>
    /// <param name="reader">Who reads.</param>
    /// <param name="whole">The event.</param>
    /// <returns>
    /// The event, and whether that is all of it, so that what it came from may go along. No event where they see at most
    /// that the calendar is busy. One of which some is kept back has a name that leads back to nothing.
    /// </returns>
    public static (Event? Event, bool IsWhole) Told(Role role, PersonId reader, Event whole) =>
        VisibleEvent.SeesEverything(role, reader, whole) ? VisibleEvent.ToExport(role, reader, whole)
        : VisibleEvent.IsThere(role, reader, whole) ? (Reduced(role, reader, whole), IsWhole: false)
        : (null, IsWhole: false);

    /// <summary>The stretches of which they see only that they are taken.</summary>
    /// <param name="role">The reader's step on the calendar.</param>
    /// <param name="reader">Who reads.</param>
    /// <param name="events">The calendar's events that can touch the window.</param>
    /// <param name="window">The days.</param>
    /// <param name="clock">Zone rules.</param>
    public static IEnumerable<VisibleEvent.Busy> Busy(
        Role role,
        PersonId reader,
        IEnumerable<Event> events,
        Window window,
        ZoneClock clock
    ) =>
        role == Role.None
            ? []
            : VisibleEvent.BusyStretches(
                from whole in events
                let isTold = Told(role, reader, whole).Event is not null
                from date in whole.Shown(window, clock)
                where !isTold || !VisibleEvent.IsShown(role, reader, date)
                select date,
                window
            );

    /// <summary>When a calendar is busy and when perhaps (RFC 4791, 7.10), of the dates that a reader sees.</summary>
    /// <param name="dates">The dates.</param>
    /// <param name="within">The stretch of which it is told.</param>
    public static IEnumerable<(Interval Span, bool Tentative)> Taken(IEnumerable<Occurrence> dates, Interval within)
    {
        var taken = dates
            .Where(date => date.Content is { Cancelled: false, ShowAs: not ShowAs.Free })
            .ToLookup(date => date.Content.ShowAs == ShowAs.Tentative, date => date.Span);
        return Alike(false).Concat(Alike(true));

        IEnumerable<(Interval, bool)> Alike(bool tentative) =>
            Stretches.Merged(taken[tentative], within).Select(span => (span, tentative));
    }

    /// <summary>Whether they may see that something became of an event, as it was and as it is: else nothing of it is told.</summary>
    /// <param name="role">The reader's step on the calendar.</param>
    /// <param name="reader">Who reads.</param>
    /// <param name="before">The event before; <c>null</c> where it was not in the calendar.</param>
    /// <param name="after">The event after; <c>null</c> where it is not in the calendar any more.</param>
    public static bool IsOther(Role role, PersonId reader, Event? before, Event? after)
    {
        return !Equals(Seen(before), Seen(after));

        Event? Seen(Event? whole) =>
            whole is not null && Told(role, reader, whole).Event is { } seen
                ? seen with
                {
                    Version = 1,
                    GivenTo = Attendees.None,
                    Editors = Attendees.None,
                }
                : null;
    }

    private static Event? Reduced(Role role, PersonId reader, Event whole)
    {
        var named = whole with
        {
            Id = default,
            Uid = whole.Id.Value.ToString("N"),
            AddedBy = default,
            GivenTo = Attendees.None,
            Editors = Attendees.None,
            Version = 1,
        };
        if (whole.Series is not { } series)
        {
            return named with { Content = Content(whole.Content) };
        }

        // What reaches on to all later dates and is kept back has no end that could be left out.
        if (series.Overrides.Any(one => one.Range == OverrideRange.AndLater && !Sees(one.Content)))
        {
            return null;
        }

        var seen = series
            .Overrides.Where(one => Sees(one.Content))
            .Select(one => one with { Content = Content(one.Content) })
            .ToList();
        if (Sees(whole.Content))
        {
            var kept = series.Overrides.Where(one => !Sees(one.Content)).Select(one => one.Replaces);
            return named with
            {
                Content = Content(whole.Content),
                Series = series with
                {
                    Overrides = seen,
                    Excluded = [.. series.Excluded.Concat(kept).Distinct().Order()],
                    ContinuedFrom = null,
                },
            };
        }

        // Only some dates are there for them: these and no rule.
        return seen.Count == 0 || seen.Exists(one => one.Range == OverrideRange.AndLater)
            ? null
            : named with
            {
                Time = whole.Time.StartingAt(seen[0].Replaces),
                Content = seen[0].Content,
                Series = new Series { Extra = [.. seen.Skip(1).Select(one => one.Replaces)], Overrides = seen },
            };

        bool Sees(EventContent content) => VisibleEvent.SeesContent(role, reader, whole, content);

        EventContent Content(EventContent content) =>
            AccessRules.OnEvent(role, reader, whole) >= Role.View
                ? content with
                {
                    Attendees = AccessRules.NamesSeen(role, reader, whole, content),
                }
                : EventContent.Blank with
                {
                    Title = content.Title,
                    Place = content.Place,
                    ShowAs = content.ShowAs,
                    Cancelled = content.Cancelled,
                };
    }
}
