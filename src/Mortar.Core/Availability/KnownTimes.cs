using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Preferences;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Availability;

/// <summary>How much of somebody's time a reader may know.</summary>
public enum Knowledge
{
    /// <summary>Only what lies on calendars the reader sees; whether they have others is not told.</summary>
    Seen,

    /// <summary>Whenever they are taken: it is the reader's own time, or they let the reader know it.</summary>
    Whole,
}

/// <summary>Somebody's time as far as a reader may know it.</summary>
/// <param name="Busy">Taken, as far as the reader may know.</param>
/// <param name="Seen">Taken by what lies on calendars the reader sees; a part of <paramref name="Busy"/>.</param>
/// <param name="Knowledge">How much that is.</param>
public sealed record KnownTime(BusyTime Busy, BusyTime Seen, Knowledge Knowledge)
{
    /// <summary>Taken by what lies on no calendar the reader sees, in order; what is tentative apart.</summary>
    public IEnumerable<(Interval Span, bool Tentative)> Unseen =>
        Stretches
            .Less(Busy.Settled, Seen.All)
            .Select(span => (span, false))
            .Concat(Stretches.Less(Busy.Tentative, Seen.All).Select(span => (span, true)))
            .OrderBy(one => one.span.Start);

    /// <summary>Away by what lies on no calendar the reader sees, in order.</summary>
    public IEnumerable<Interval> UnseenAway => Stretches.Less(Busy.Away, Seen.Away);
}

/// <summary>What may be known of people's time: the same rules as for what is seen of their calendars.</summary>
public static class KnownTimes
{
    /// <summary>Whether all that takes somebody's time may be known to one who knows them: they let it be, or it is their own.</summary>
    /// <param name="whose">Whose time it is.</param>
    /// <param name="theirs">What they prefer.</param>
    /// <param name="reader">Who asks.</param>
    public static bool IsOpen(PersonId whose, PersonPreferences theirs, PersonId reader) =>
        whose == reader || theirs.ShowsBusy;

    /// <summary>
    /// A calendar as it counts for a reader: what they see whole as it is, of the rest only that it takes its time. Who
    /// is named on that, or where that is kept to others, is not known, so it counts for those whose time the calendar as
    /// such takes.
    /// </summary>
    /// <param name="calendar">The calendar, with those of its group whom the reader may know to be in it.</param>
    /// <param name="role">The reader's step on it.</param>
    /// <param name="reader">Who asks.</param>
    public static CountedCalendar SeenBy(this CountedCalendar calendar, Role role, PersonId reader) =>
        calendar with
        {
            Events =
            [
                .. from one in calendar.Events
                let isSeen = VisibleEvent.SeesEverything(role, reader, one.Event)
                where isSeen || role >= Role.Times
                select isSeen
                    ? one with
                    {
                        Event = VisibleEvent.WithNamesSeen(role, reader, one.Event),
                    }
                    : CountedEvent.Of(one.Event.WithContents(WithoutNames)),
            ],
        };

    /// <summary>The same with nothing but what they see whole.</summary>
    public static CountedCalendar SeenWholeBy(this CountedCalendar calendar, Role role, PersonId reader) =>
        calendar with
        {
            Events =
            [
                .. from one in calendar.Events
                where VisibleEvent.SeesEverything(role, reader, one.Event)
                select one with
                {
                    Event = VisibleEvent.WithNamesSeen(role, reader, one.Event),
                },
            ],
        };

    /// <summary>One person's or place's time.</summary>
    /// <param name="seen">What takes it on calendars as the reader sees them.</param>
    /// <param name="all">All that takes it; <c>null</c> where the reader may not know.</param>
    /// <param name="window">The window.</param>
    public static KnownTime Of(IEnumerable<TakenTime> seen, IEnumerable<TakenTime>? all, Window window)
    {
        var known = Busy(seen);

        // They may be named on something that the reader sees and they do not.
        return all is null
            ? new KnownTime(known, known, Knowledge.Seen)
            : new KnownTime(Busy(all.Concat(seen)), known, Knowledge.Whole);

        BusyTime Busy(IEnumerable<TakenTime> takenTimes) =>
            BusyTime.Of(window.Span, takenTimes.Select(takenTime => (takenTime.Occurrence.Span, takenTime.How)));
    }

    private static EventContent WithoutNames(EventContent content) =>
        EventContent.Blank with
        {
            ShowAs = content.ShowAs,
            Cancelled = content.Cancelled,
        };
}
