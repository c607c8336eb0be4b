using NodaTime;

namespace Mortar.Core.Recurrence;

/// <summary>
/// The last day of a series as people name and choose it, in whichever of its three forms UNTIL is kept (RFC 5545,
/// 3.3.10). What is said, what a form shows and what moves along with a series is this day.
/// </summary>
internal static class LastDays
{
    /// <summary>Whether a rule falls on a day at one time only, that of its start.</summary>
    public static bool IsByDay(this RecurrenceRule rule) =>
        rule.Frequency >= Frequency.Daily && rule.ByHour.IsEmpty && rule.ByMinute.IsEmpty && rule.BySecond.IsEmpty;

    /// <summary>The last day on which the rule can still fall; <c>null</c> where no day ends it.</summary>
    /// <param name="rule">The rule.</param>
    /// <param name="start">The start of its series.</param>
    /// <param name="zone">The zone of the series' clock, for an end that is kept in UTC.</param>
    public static LocalDate? LastDay(this RecurrenceRule rule, LocalDateTime start, DateTimeZone zone)
    {
        return rule.End switch
        {
            SeriesEnd.Through through => through.LastDay,
            SeriesEnd.ThroughTime through => Of(through.Last),
            SeriesEnd.ThroughInstant through => Of(through.Last.InZone(zone).LocalDateTime),
            _ => null,
        };

        // An end in the morning leaves out what begins in the evening of that day.
        LocalDate Of(LocalDateTime last) =>
            rule.IsByDay() && last.TimeOfDay < start.TimeOfDay ? last.Date.PlusDays(-1) : last.Date;
    }

    /// <summary>The same rule with its end as a day.</summary>
    public static RecurrenceRule EndingByDay(this RecurrenceRule rule, LocalDateTime start, DateTimeZone zone) =>
        rule.LastDay(start, zone) is { } day ? rule.Ending(new SeriesEnd.Through(day)) : rule;
}
