using Mortar.Core.Recurrence;
using NodaTime;
using NodaTime.Calendars;

namespace Mortar.Core.Tests.Recurrence;

/// <summary>
/// The plain reading of RFC 5545, 3.3.10, against which the fast one is held: goes through every step from the start, looks
/// at every day of it (every one, not the ones that are expected) and asks each part of the rule in words of the table.
/// Without SKIP.
/// </summary>
internal static class PlainRule
{
    public static IEnumerable<LocalDateTime> Starts(RecurrenceRule rule, LocalDateTime start, LocalDateTime until)
    {
        var found = Steps(rule, start, until)
            .SelectMany(step => Picked(rule, step))
            .Where(one => one >= start && one <= until);
        if (rule.End is not SeriesEnd.After after)
        {
            return found;
        }

        // The start counts as the first, whether the rule falls on it or not.
        var all = found.ToList();
        return all.Take(all.FirstOrDefault() == start ? after.Occurrences : after.Occurrences - 1);
    }

    private static IEnumerable<LocalDateTime> Picked(RecurrenceRule rule, List<LocalDateTime> step) =>
        rule.BySetPos.IsEmpty
            ? step
            : step.Where((_, index) => rule.BySetPos.Contains(index + 1) || rule.BySetPos.Contains(index - step.Count));

    /// <summary>The sets of the steps, in order.</summary>
    private static IEnumerable<List<LocalDateTime>> Steps(RecurrenceRule rule, LocalDateTime start, LocalDateTime until)
    {
        for (var number = 0; ; number += rule.Interval)
        {
            if (rule.Frequency < Frequency.Daily)
            {
                var moment = rule.Frequency switch
                {
                    Frequency.Hourly => start.Date + new LocalTime(start.Hour, 0) + Period.FromHours(number),
                    Frequency.Minutely => start.Date
                        + new LocalTime(start.Hour, start.Minute)
                        + Period.FromMinutes(number),
                    _ => start + Period.FromSeconds(number),
                };
                if (moment > until)
                {
                    yield break;
                }

                yield return [.. Within(rule, start, moment)];
                continue;
            }

            var days = DaysOfStep(rule, start.Date, number).ToList();
            if (days[0] > until.Date)
            {
                yield break;
            }

            yield return
            [
                .. from day in days
                where Falls(rule, start.Date, day)
                from time in Times(rule, start.TimeOfDay)
                select day + time,
            ];
        }
    }

    private static IEnumerable<LocalDate> DaysOfStep(RecurrenceRule rule, LocalDate start, int number) =>
        rule.Frequency switch
        {
            Frequency.Daily => [start.PlusDays(number)],
            Frequency.Weekly => Days(WeekOf(rule, start).PlusWeeks(number), 7),
            Frequency.Monthly => new LocalDate(start.Year, start.Month, 1).PlusMonths(number) is var month
                ? Days(month, month.Calendar.GetDaysInMonth(month.Year, month.Month))
                : [],
            _ when !rule.ByWeekNo.IsEmpty => WeekYear(rule, Weeks(rule).GetWeekYear(start) + number),
            _ => Days(new LocalDate(start.Year + number, 1, 1), CalendarSystem.Iso.GetDaysInYear(start.Year + number)),
        };

    private static IEnumerable<LocalDate> WeekYear(RecurrenceRule rule, int year)
    {
        var first = Weeks(rule).GetLocalDate(year, 1, rule.WeekStart);
        return Days(first, Weeks(rule).GetWeeksInWeekYear(year) * 7);
    }

    private static IWeekYearRule Weeks(RecurrenceRule rule) => WeekYearRules.ForMinDaysInFirstWeek(4, rule.WeekStart);

    private static IEnumerable<LocalDate> Days(LocalDate first, int count) =>
        Enumerable.Range(0, count).Select(first.PlusDays);

    private static LocalDate WeekOf(RecurrenceRule rule, LocalDate day) =>
        day.DayOfWeek == rule.WeekStart ? day : day.Previous(rule.WeekStart);

    /// <summary>Whether a day of a step belongs to its set.</summary>
    private static bool Falls(RecurrenceRule rule, LocalDate start, LocalDate day)
    {
        var namesDays = !(rule.ByDay.IsEmpty && rule.ByMonthDay.IsEmpty && rule.ByYearDay.IsEmpty);
        var fromStart = rule.Frequency switch
        {
            _ when namesDays => true,
            Frequency.Weekly => day.DayOfWeek == start.DayOfWeek,
            Frequency.Monthly => day.Day == start.Day,
            Frequency.Yearly when !rule.ByWeekNo.IsEmpty => day.DayOfWeek == start.DayOfWeek,
            Frequency.Yearly => day.Day == start.Day && (!rule.ByMonth.IsEmpty || day.Month == start.Month),
            _ => true,
        };
        return fromStart && Passes(rule, day) && IsInWeek(rule, day);
    }

    private static bool IsInWeek(RecurrenceRule rule, LocalDate day)
    {
        if (rule.ByWeekNo.IsEmpty)
        {
            return true;
        }

        var week = Weeks(rule).GetWeekOfWeekYear(day);
        var weeks = Weeks(rule).GetWeeksInWeekYear(Weeks(rule).GetWeekYear(day));
        return rule.ByWeekNo.Contains(week) || rule.ByWeekNo.Contains(week - weeks - 1);
    }

    private static bool Passes(RecurrenceRule rule, LocalDate day)
    {
        var inMonth = day.Calendar.GetDaysInMonth(day.Year, day.Month);
        var inYear = day.Calendar.GetDaysInYear(day.Year);
        return (rule.ByMonth.IsEmpty || rule.ByMonth.Contains(day.Month))
            && (
                rule.ByMonthDay.IsEmpty
                || rule.ByMonthDay.Contains(day.Day)
                || rule.ByMonthDay.Contains(day.Day - inMonth - 1)
            )
            && (
                rule.ByYearDay.IsEmpty
                || rule.ByYearDay.Contains(day.DayOfYear)
                || rule.ByYearDay.Contains(day.DayOfYear - inYear - 1)
            )
            && (rule.ByDay.IsEmpty || rule.ByDay.Any(named => IsNth(rule, named, day)));
    }

    private static bool IsNth(RecurrenceRule rule, NthWeekday named, LocalDate day)
    {
        if (named.Day != day.DayOfWeek || named.Ordinal is not { } ordinal)
        {
            return named.Day == day.DayOfWeek;
        }

        var ofMonth = rule.Frequency == Frequency.Monthly || !rule.ByMonth.IsEmpty;
        bool Same(LocalDate other) => other.Year == day.Year && (!ofMonth || other.Month == day.Month);
        var before = 0;
        for (var other = day; Same(other); other = other.PlusWeeks(-1))
        {
            before++;
        }

        var after = 0;
        for (var other = day; Same(other); other = other.PlusWeeks(1))
        {
            after++;
        }

        return ordinal == before || ordinal == -after;
    }

    private static IEnumerable<LocalTime> Times(RecurrenceRule rule, LocalTime start) =>
        (
            from hour in rule.ByHour.DefaultIfEmpty(start.Hour)
            from minute in rule.ByMinute.DefaultIfEmpty(start.Minute)
            from second in rule.BySecond.DefaultIfEmpty(start.Second)
            select new LocalTime(hour, minute, Math.Min(second, 59))
        )
            .Distinct()
            .Order();

    private static IEnumerable<LocalDateTime> Within(RecurrenceRule rule, LocalDateTime start, LocalDateTime step)
    {
        if (
            !Passes(rule, step.Date)
            || !(rule.ByHour.IsEmpty || rule.ByHour.Contains(step.Hour))
            || !(rule.Frequency == Frequency.Hourly || rule.ByMinute.IsEmpty || rule.ByMinute.Contains(step.Minute))
            || !(
                rule.Frequency != Frequency.Secondly
                || rule.BySecond.IsEmpty
                || rule.BySecond.Any(second => Math.Min(second, 59) == step.Second)
            )
        )
        {
            return [];
        }

        int[] minutes =
            rule.Frequency == Frequency.Hourly ? [.. rule.ByMinute.DefaultIfEmpty(start.Minute)] : [step.Minute];
        int[] seconds =
            rule.Frequency == Frequency.Secondly
                ? [step.Second]
                : [.. rule.BySecond.DefaultIfEmpty(start.Second).Select(second => Math.Min(second, 59)).Distinct()];
        return from minute in minutes
            from second in seconds
            select step.Date + new LocalTime(step.Hour, minute, second);
    }
}
