using Mortar.Core.Time;

namespace Mortar.Core.Recurrence;

/// <content>The days of one step, by the table of RFC 5545, 3.3.10, and SKIP of RFC 7529, 4.1.</content>
internal sealed partial class RuleWalk
{
    /// <summary>The year with which steps are counted: that of the start, or under BYWEEKNO that of the start's week.</summary>
    private int FirstYear()
    {
        if (rule.ByWeekNo.IsEmpty)
        {
            return startDate.Year;
        }

        return startDay >= FirstWeek(startDate.Year + 1) ? startDate.Year + 1
            : startDay < FirstWeek(startDate.Year) ? startDate.Year - 1
            : startDate.Year;
    }

    /// <summary>The first day of a year's week 1: the first week with at least four days in the year (RFC 5545, 3.3.10).</summary>
    private int FirstWeek(int year)
    {
        var first = CivilDays.Of(year, 1, 1);
        var week = WeekOf(first);
        return first - week <= 3 ? week : week + 7;
    }

    private void DaysOfYear(int year)
    {
        if (!rule.ByWeekNo.IsEmpty)
        {
            WeeksOfYear(year);
        }
        else if (!rule.ByYearDay.IsEmpty)
        {
            foreach (var number in rule.ByYearDay)
            {
                AddPlace(number, CivilDays.Of(year, 1, 1), CivilDays.InYear(year));
            }

            Keep(day => InNamedMonth(day) && IsNamedMonthDay(day) && IsNamedWeekday(day));
        }
        else if (rule.ByMonthDay.IsEmpty && plan.Weekdays != 0 && plan.Months == 0)
        {
            AddWeekdays(CivilDays.Of(year, 1, 1), CivilDays.InYear(year));
        }
        else
        {
            var months =
                plan.Months != 0 ? plan.Months
                : rule.ByMonthDay.IsEmpty ? 1 << startDate.Month
                : 0b1_1111_1111_1110;
            for (var month = 1; month <= 12; month++)
            {
                if ((months >> month & 1) != 0)
                {
                    AddDaysOfMonth(year, month);
                }
            }
        }
    }

    private void WeeksOfYear(int year)
    {
        var first = FirstWeek(year);
        var count = (FirstWeek(year + 1) - first) / 7;

        // The weekday comes from the start where nothing in the rule names a day.
        var days =
            plan.Weekdays != 0 || !rule.ByMonthDay.IsEmpty || !rule.ByYearDay.IsEmpty
                ? plan.Weekdays
                : 1 << CivilDays.Weekday(startDay);
        foreach (var number in rule.ByWeekNo)
        {
            var week = number > 0 ? number - 1 : count + number;
            for (var day = first + (week * 7); week >= 0 && week < count && day < first + (week * 7) + 7; day++)
            {
                if (days == 0 || (days >> CivilDays.Weekday(day) & 1) != 0)
                {
                    Add(day);
                }
            }
        }

        Keep(day => InNamedMonth(day) && IsNamedYearDay(day) && IsNamedMonthDay(day));
    }

    private void DaysOfMonth(long units)
    {
        var number = (startDate.Year * 12L) + startDate.Month - 1 + units;
        var month = (int)(number % 12) + 1;
        if (plan.Months == 0 || (plan.Months >> month & 1) != 0)
        {
            AddDaysOfMonth((int)(number / 12), month);
        }
    }

    /// <summary>Notes 1 and 2 of the table: beside BYMONTHDAY, BYDAY limits; without it, it expands.</summary>
    private void AddDaysOfMonth(int year, int month)
    {
        var first = CivilDays.Of(year, month, 1);
        var length = CivilDays.InMonth(year, month);
        if (!rule.ByMonthDay.IsEmpty)
        {
            var before = baseCount;
            foreach (var number in rule.ByMonthDay)
            {
                AddPlace(number, first, length);
            }

            if (plan.Weekdays != 0)
            {
                Keep(IsNamedWeekday, before);
            }
        }
        else if (plan.Weekdays != 0)
        {
            AddWeekdays(first, length);
        }
        else
        {
            AddPlace(startDate.Day, first, length);
        }
    }

    private void DaysOfWeek(int first)
    {
        var days = plan.Weekdays != 0 ? plan.Weekdays : 1 << CivilDays.Weekday(startDay);
        var weekday = plan.WeekStart;
        for (var day = first; day < first + 7; day++)
        {
            if ((days >> weekday & 1) != 0 && InNamedMonth(day))
            {
                Add(day);
            }

            weekday = weekday == 6 ? 0 : weekday + 1;
        }
    }

    private bool DayPasses(int day) =>
        (plan.Weekdays == 0 || (plan.Weekdays >> CivilDays.Weekday(day) & 1) != 0)
        && InNamedMonth(day)
        && IsNamedYearDay(day)
        && IsNamedMonthDay(day);

    /// <summary>Adds the n-th day of a stretch, from its end where negative; where there is none, what SKIP says.</summary>
    private void AddPlace(int number, int first, int length)
    {
        var place = number > 0 ? number - 1 : length + number;
        if (place >= 0 && place < length)
        {
            Add(first + place);
        }
        else if (rule.Skip == Skip.Backward)
        {
            Add(place < 0 ? first - 1 : first + length - 1);
        }
        else if (rule.Skip == Skip.Forward)
        {
            Add(place < 0 ? first : first + length);
        }
    }

    private void AddWeekdays(int first, int length)
    {
        foreach (var named in rule.ByDay)
        {
            var day = first + CivilDays.FloorMod((int)named.Day - 1 - CivilDays.Weekday(first), 7);
            switch (named.Ordinal)
            {
                case null:
                    for (; day < first + length; day += 7)
                    {
                        Add(day);
                    }

                    break;
                case > 0 and var ordinal:
                    day += (ordinal - 1) * 7;
                    if (day < first + length)
                    {
                        Add(day);
                    }

                    break;
                case var ordinal:
                    var last = day + ((first + length - 1 - day) / 7 * 7);
                    if (last + ((ordinal.Value + 1) * 7) >= first)
                    {
                        Add(last + ((ordinal.Value + 1) * 7));
                    }

                    break;
            }
        }
    }

    private void Keep(Func<int, bool> passes, int from = 0)
    {
        var kept = from;
        for (var i = from; i < baseCount; i++)
        {
            if (passes((int)(bases[i] / CivilDays.SecondsPerDay)))
            {
                bases[kept++] = bases[i];
            }
        }

        baseCount = kept;
    }

    private bool InNamedMonth(int day) => plan.Months == 0 || (plan.Months >> CivilDays.Date(day).Month & 1) != 0;

    private bool IsNamedMonthDay(int day)
    {
        if (rule.ByMonthDay.IsEmpty)
        {
            return true;
        }

        var (year, month, number) = CivilDays.Date(day);
        return rule.ByMonthDay.Contains(number)
            || rule.ByMonthDay.Contains(number - CivilDays.InMonth(year, month) - 1);
    }

    private bool IsNamedYearDay(int day)
    {
        if (rule.ByYearDay.IsEmpty)
        {
            return true;
        }

        var year = CivilDays.Date(day).Year;
        var number = day - CivilDays.Of(year, 1, 1) + 1;
        return rule.ByYearDay.Contains(number) || rule.ByYearDay.Contains(number - CivilDays.InYear(year) - 1);
    }

    /// <summary>
    /// BYDAY where it limits. A number counts within the month for MONTHLY and beside BYMONTH, else within the year
    /// (RFC 5545, 3.3.10, on BYDAY).
    /// </summary>
    private bool IsNamedWeekday(int day)
    {
        var weekday = CivilDays.Weekday(day);
        if (plan.Weekdays == 0)
        {
            return true;
        }

        if ((plan.Weekdays >> weekday & 1) == 0)
        {
            return false;
        }

        if (!plan.HasOrdinals)
        {
            return true;
        }

        var (year, month, dayOfMonth) = CivilDays.Date(day);
        var ofMonth = rule.Frequency == Frequency.Monthly || plan.Months != 0;
        var index = ofMonth ? dayOfMonth - 1 : day - CivilDays.Of(year, 1, 1);
        var length = ofMonth ? CivilDays.InMonth(year, month) : CivilDays.InYear(year);
        foreach (var named in rule.ByDay)
        {
            if (
                (int)named.Day - 1 == weekday
                && (
                    named.Ordinal is not { } ordinal
                    || ordinal == (index / 7) + 1
                    || ordinal == -(((length - 1 - index) / 7) + 1)
                )
            )
            {
                return true;
            }
        }

        return false;
    }
}
