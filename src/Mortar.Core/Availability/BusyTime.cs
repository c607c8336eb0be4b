using System.Collections.Immutable;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Availability;

/// <summary>How the time of one person or place is taken over a window.</summary>
/// <remarks>
/// Each list is ordered, disjoint and cut to the window; stretches that touch are one. Tentative is what is only
/// tentative: where a busy event or an absence lies over it, it is that. Starts included, ends excluded (UTC).
/// </remarks>
public sealed class BusyTime
{
    private BusyTime(
        Interval window,
        ImmutableArray<Interval> busy,
        ImmutableArray<Interval> away,
        ImmutableArray<Interval> tentative
    )
    {
        (Window, Busy, Away) = (window, busy, away);
        Settled = Stretches.Merged(busy.Concat(away), window);
        Tentative = Stretches.Less(tentative, Settled);
        All = Stretches.Merged(Settled.Concat(Tentative), window);
    }

    /// <summary>The window.</summary>
    public Interval Window { get; }

    /// <summary>Taken by events.</summary>
    public ImmutableArray<Interval> Busy { get; }

    /// <summary>Taken by absences; may overlap <see cref="Busy"/>.</summary>
    public ImmutableArray<Interval> Away { get; }

    /// <summary>Taken by events or absences.</summary>
    public ImmutableArray<Interval> Settled { get; }

    /// <summary>Perhaps taken, and by nothing else.</summary>
    public ImmutableArray<Interval> Tentative { get; }

    /// <summary>Taken in any way.</summary>
    public ImmutableArray<Interval> All { get; }

    /// <summary>What is left of the window.</summary>
    public ImmutableArray<Interval> Free => Stretches.Less([Window], All);

    /// <summary>Nothing is taken.</summary>
    public static BusyTime None(Interval window) => new(window, [], [], []);

    /// <summary>Merges stretches that may overlap, in any order.</summary>
    public static BusyTime Of(Interval window, IEnumerable<(Interval Span, Taken How)> taken)
    {
        var by = taken.ToLookup(one => one.How, one => one.Span);
        return new BusyTime(
            window,
            Stretches.Merged(by[Taken.Busy], window),
            Stretches.Merged(by[Taken.Away], window),
            Stretches.Merged(by[Taken.Tentative], window)
        );
    }

    /// <summary>Everybody whose time the calendars take in the window.</summary>
    /// <param name="calendars">All calendars that count.</param>
    /// <param name="window">The window.</param>
    /// <param name="zones">The zone of each person, whose own day a whole day is; the window's zone for those not in it.</param>
    /// <param name="clock">Zone rules.</param>
    /// <returns>Only those of whom anything is taken; the others are free.</returns>
    public static IReadOnlyDictionary<Participant, BusyTime> Of(
        IEnumerable<CountedCalendar> calendars,
        Window window,
        IReadOnlyDictionary<PersonId, DateTimeZone> zones,
        ZoneClock clock
    ) =>
        TakenTimes
            .In(calendars, window, zones, clock)
            .GroupBy(takenTime => takenTime.Who)
            .ToDictionary(
                theirs => theirs.Key,
                theirs => Of(window.Span, theirs.Select(takenTime => (takenTime.Occurrence.Span, takenTime.How)))
            );
}
