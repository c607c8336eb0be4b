using NodaTime;

namespace Mortar.Core.Recurrence;

/// <summary>Lets a rule follow a series that moves as a whole: every Tuesday and Thursday, a day later, is every Wednesday and Friday.</summary>
internal static class RuleShift
{
    /// <summary>The rule that falls as much later as the new start is; <c>null</c> where no rule says that.</summary>
    public static RecurrenceRule? By(RecurrenceRule rule, LocalDateTime was, LocalDateTime now)
    {
        var days = Period.DaysBetween(was.Date, now.Date);
        if (was.TimeOfDay != now.TimeOfDay && !(rule.ByHour.IsEmpty && rule.ByMinute.IsEmpty && rule.BySecond.IsEmpty))
        {
            return null;
        }

        if (days == 0)
        {
            return rule;
        }

        return rule.Frequency switch
        {
            Frequency.Weekly when rule.ByMonth.IsEmpty => rule.OnWeekdays(rule.ByDay, days),
            Frequency.Daily when rule.ByMonth.IsEmpty && rule.ByMonthDay.IsEmpty => rule.OnWeekdays(rule.ByDay, days),
            Frequency.Monthly when rule.ByMonth.IsEmpty && rule.ByDay.IsEmpty => Days(rule, days),
            Frequency.Yearly when HasOnlyMonths(rule) => InMonth(rule, was, now),
            _ => HasNoDays(rule) ? rule : null,
        };
    }

    private static bool HasNoDays(RecurrenceRule rule) =>
        rule.ByDay.IsEmpty
        && rule.ByMonthDay.IsEmpty
        && rule.ByYearDay.IsEmpty
        && rule.ByWeekNo.IsEmpty
        && rule.ByMonth.IsEmpty;

    private static bool HasOnlyMonths(RecurrenceRule rule) =>
        rule.ByDay.IsEmpty && rule.ByYearDay.IsEmpty && rule.ByWeekNo.IsEmpty && !rule.ByMonth.IsEmpty;

    /// <summary>Days of the month that are still in every month it has had, counted from the same end.</summary>
    private static RecurrenceRule? Days(RecurrenceRule rule, int days)
    {
        var moved = rule.ByMonthDay.Select(day => (Was: day, Now: day + days)).ToList();
        var most = moved.Count == 1 ? 31 : 28;
        return moved.TrueForAll(day => day.Was > 0 == day.Now > 0 && day.Now != 0 && Math.Abs(day.Now) <= most)
            ? rule.OnMonthDays([.. moved.Select(day => day.Now)])
            : null;
    }

    private static RecurrenceRule? InMonth(RecurrenceRule rule, LocalDateTime was, LocalDateTime now)
    {
        if (was.Month == now.Month && rule.ByMonthDay.IsEmpty)
        {
            return rule;
        }

        return was.Month == now.Month && rule.ByMonthDay.Length == 1 && rule.ByMonthDay[0] == was.Day
            ? rule.OnMonthDays([now.Day])
            : null;
    }
}
