using System.Collections.Immutable;
using Mortar.Core.Availability;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Absences;

/// <summary>How long somebody is away, in half days of their own working days.</summary>
/// <param name="Person">Who.</param>
/// <param name="HalfDays">How many half days in each month from the first of the window, in order.</param>
public sealed record AbsenceTotal(PersonId Person, ImmutableArray<int> HalfDays)
{
    /// <summary>All of them, in days: 2.5 for five half days.</summary>
    public decimal Days => HalfDays.Sum() / 2m;
}

/// <summary>Adds up absences.</summary>
public static class AbsenceCount
{
    /// <summary>Each person's half days away, month by month: what counts as missing for cover, added up, so that both say the same.</summary>
    /// <param name="window">Whole months, on the group's clock.</param>
    /// <param name="people">Those who are counted, with their time over the window.</param>
    /// <param name="daysOff">Dates on which nobody works; an absence on them costs nothing.</param>
    public static IReadOnlyList<AbsenceTotal> Of(
        Window window,
        IEnumerable<CoverPerson> people,
        IReadOnlySet<LocalDate> daysOff
    )
    {
        var all = people.ToList();
        var months = Period.Between(window.First, window.Last.PlusDays(1), PeriodUnits.Months).Months;
        var away = Cover
            .Every(window, [DayPart.Morning, DayPart.Afternoon], all, daysOff)
            .SelectMany(half => half.Missing.Select(person => (Person: person, Month: MonthOf(half.Day))))
            .ToLookup(one => one.Person, one => one.Month);
        return
        [
            .. all.Select(one => new AbsenceTotal(
                one.Person,
                [.. Enumerable.Range(0, months).Select(month => away[one.Person].Count(its => its == month))]
            )),
        ];

        int MonthOf(LocalDate day) => ((day.Year - window.First.Year) * 12) + day.Month - window.First.Month;
    }

    /// <summary>The dates that the whole days of a calendar of days off cover; what has hours, is private or called off, is none.</summary>
    /// <param name="events">The calendar's events.</param>
    /// <param name="window">The dates that are asked for.</param>
    /// <param name="clock">Zone rules.</param>
    public static IReadOnlySet<LocalDate> DaysOff(IEnumerable<Event> events, Window window, ZoneClock clock) =>
        events
            .SelectMany(one => one.Occurrences(window, clock))
            .Where(one => !one.Content.Cancelled && !one.Content.Private)
            .Select(one => one.Time)
            .OfType<EventTime.AllDay>()
            .Where(days => !days.TimesToBeSet)
            .SelectMany(days => LocalDate.Max(days.First, window.First).Through(LocalDate.Min(days.Last, window.Last)))
            .ToHashSet();
}
