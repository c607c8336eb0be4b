using NodaTime;

namespace Mortar.Core.Recurrence;

/// <content>
/// The dates of a rule. Each step (day, week, month, year) yields the set of its days, in order; BYSETPOS picks from the
/// set. Steps are reached by multiplication from the start, so a window late in a long series costs no more than an
/// early one, except under COUNT, where what came before has to be counted.
/// </content>
public sealed partial record RecurrenceRule
{
    /// <summary>
    /// After this many steps in a row without a day the rule counts as one that never matches (30 February). The
    /// Gregorian calendar repeats after 400 years, so nothing later can match either.
    /// </summary>
    private const int LongestDrought = 4_800;

    /// <summary>The days on which the rule falls from <paramref name="from"/> on, in order, for a series that starts on <paramref name="start"/>.</summary>
    /// <remarks>
    /// Lazy; costs what is consumed. UNTIL is not applied here, since it may need the time of day and the zone. The
    /// start itself is included only where the rule falls on it.
    /// </remarks>
    public IEnumerable<LocalDate> Days(LocalDate start, LocalDate from)
    {
        var counted = End is SeriesEnd.After;
        var left = End is SeriesEnd.After after ? after.Occurrences : int.MaxValue;
        var drought = 0;
        for (var step = counted ? 0 : StepBefore(start, from); drought < LongestDrought; step++)
        {
            drought++;
            if (FirstOfStep(start, step) is not { } first)
            {
                yield break;
            }

            foreach (var day in Picked(DaysOfStep(start, first)))
            {
                if (day < start)
                {
                    continue;
                }

                drought = 0;
                if (day >= from)
                {
                    yield return day;
                }

                if (--left == 0)
                {
                    yield break;
                }
            }
        }
    }

    private long StepBefore(LocalDate start, LocalDate from)
    {
        if (from <= start)
        {
            return 0;
        }

        var units = Frequency switch
        {
            Frequency.Daily => Period.DaysBetween(start, from),
            Frequency.Weekly => Period.DaysBetween(WeekOf(start), from) / 7,
            Frequency.Monthly => ((from.Year - start.Year) * 12) + from.Month - start.Month,
            _ => from.Year - start.Year,
        };
        return Math.Max(0, (units / Interval) - 1);
    }

    /// <summary>The first day of a step; <c>null</c> past the end of the calendar.</summary>
    private LocalDate? FirstOfStep(LocalDate start, long step)
    {
        var units = step * Interval;
        var days = Frequency switch
        {
            Frequency.Daily => units,
            Frequency.Weekly => units * 7,
            Frequency.Monthly => units * 31,
            _ => units * 366,
        };
        if (days > Period.DaysBetween(start, LastDay))
        {
            return null;
        }

        return Frequency switch
        {
            Frequency.Daily => start.PlusDays((int)units),
            Frequency.Weekly => WeekOf(start).PlusDays((int)units * 7),
            Frequency.Monthly => new LocalDate(start.Year, start.Month, 1).PlusMonths((int)units),
            _ => new LocalDate(start.Year + (int)units, 1, 1),
        };
    }

    private static LocalDate LastDay => new(9990, 12, 31);

    private LocalDate WeekOf(LocalDate day) => day.PlusDays(-(((int)day.DayOfWeek - (int)WeekStart + 7) % 7));

    private IEnumerable<LocalDate> Picked(IEnumerable<LocalDate> days)
    {
        if (BySetPos.Count == 0)
        {
            return days;
        }

        var all = days.ToList();
        return BySetPos
            .Select(position => position > 0 ? position - 1 : all.Count + position)
            .Where(index => index >= 0 && index < all.Count)
            .Distinct()
            .Order()
            .Select(index => all[index]);
    }

    private IEnumerable<LocalDate> DaysOfStep(LocalDate start, LocalDate first) =>
        Frequency switch
        {
            Frequency.Daily => Limited([first]),
            Frequency.Weekly => DaysOfWeek(start, first),
            Frequency.Monthly => InMonths(ByMonth, first) ? DaysOfMonth(start, first) : [],
            _ => DaysOfYear(start, first),
        };

    private IEnumerable<LocalDate> DaysOfWeek(LocalDate start, LocalDate first)
    {
        var week = Enumerable.Range(0, 7).Select(first.PlusDays);
        return ByDay.Count == 0
            ? week.Where(day => day.DayOfWeek == start.DayOfWeek && InMonths(ByMonth, day))
            : week.Where(day => ByDay.Any(named => named.Day == day.DayOfWeek) && InMonths(ByMonth, day));
    }

    /// <summary>RFC 5545, 3.3.10, note 1: with BYMONTHDAY, BYDAY limits; without, it expands.</summary>
    private IEnumerable<LocalDate> DaysOfMonth(LocalDate start, LocalDate first)
    {
        var month = Enumerable.Range(0, DaysIn(first)).Select(first.PlusDays);
        if (ByMonthDay.Count > 0)
        {
            return month.Where(day =>
                IsNamedMonthDay(day)
                && (ByDay.Count == 0 || ByDay.Any(named => IsNth(named, day, first, DaysIn(first))))
            );
        }

        return ByDay.Count > 0
            ? month.Where(day => ByDay.Any(named => IsNth(named, day, first, DaysIn(first))))
            : month.Where(day => day.Day == start.Day);
    }

    /// <summary>RFC 5545, 3.3.10, note 2: under BYMONTH the n-th weekday is of the month, without it of the year.</summary>
    private IEnumerable<LocalDate> DaysOfYear(LocalDate start, LocalDate first)
    {
        if (ByMonth.Count == 0 && ByMonthDay.Count == 0 && ByDay.Count > 0)
        {
            var length = first.Calendar.GetDaysInYear(first.Year);
            return Enumerable
                .Range(0, length)
                .Select(first.PlusDays)
                .Where(day => ByDay.Any(named => IsNth(named, day, first, length)));
        }

        var months =
            ByMonth.Count > 0 ? ByMonth.Order()
            : ByMonthDay.Count > 0 ? Enumerable.Range(1, 12)
            : [start.Month];
        return months.SelectMany(month => DaysOfMonth(start, new LocalDate(first.Year, month, 1)));
    }

    private IEnumerable<LocalDate> Limited(IEnumerable<LocalDate> days) =>
        days.Where(day =>
            InMonths(ByMonth, day)
            && (ByMonthDay.Count == 0 || IsNamedMonthDay(day))
            && (ByDay.Count == 0 || ByDay.Any(named => named.Day == day.DayOfWeek))
        );

    private static bool InMonths(IReadOnlyList<int> months, LocalDate day) =>
        months.Count == 0 || months.Contains(day.Month);

    private bool IsNamedMonthDay(LocalDate day) =>
        ByMonthDay.Any(named => named > 0 ? named == day.Day : DaysIn(day) + named + 1 == day.Day);

    private static bool IsNth(NthWeekday named, LocalDate day, LocalDate first, int length)
    {
        if (named.Day != day.DayOfWeek)
        {
            return false;
        }

        var index = Period.DaysBetween(first, day);
        return named.Ordinal switch
        {
            null => true,
            > 0 => (index / 7) + 1 == named.Ordinal,
            _ => -(((length - 1 - index) / 7) + 1) == named.Ordinal,
        };
    }

    private static int DaysIn(LocalDate day) => day.Calendar.GetDaysInMonth(day.Year, day.Month);
}
