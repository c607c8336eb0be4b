using System.Collections.Immutable;
using System.Globalization;
using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Events;

/// <summary>Says when a rule falls, without its end: "every month on the last Friday at 18:00".</summary>
internal static class RuleSentence
{
    /// <summary>The most times of day that are named one by one.</summary>
    private const int MostTimes = 6;

    private static readonly ImmutableArray<IsoDayOfWeek> Weekdays =
    [
        IsoDayOfWeek.Monday,
        IsoDayOfWeek.Tuesday,
        IsoDayOfWeek.Wednesday,
        IsoDayOfWeek.Thursday,
        IsoDayOfWeek.Friday,
    ];

    public static string Of(EventTime time, RecurrenceRule rule)
    {
        var start = time.LocalStart;
        if (rule.Frequency < Frequency.Daily)
        {
            return WithinDay(rule) + Picked(rule);
        }

        var days = rule.Frequency switch
        {
            Frequency.Daily => Daily(rule),
            Frequency.Weekly => Weekly(rule, start.Date),
            Frequency.Monthly => Monthly(rule, start.Date),
            _ => Yearly(rule, start.Date),
        };
        var times = time is EventTime.AllDay ? string.Empty : Times(rule, start.TimeOfDay);
        return days
            + times
            + Missing(rule, start.Date)
            + (rule.Frequency == Frequency.Weekly ? Picked(rule) : string.Empty);
    }

    private static string Daily(RecurrenceRule rule)
    {
        var months = InMonths(rule);
        if (rule.ByDay.IsEmpty)
        {
            return Every(rule.Interval, "day") + OnDays(rule, "day", " if it is ") + months;
        }

        return rule.Interval == 1
            ? $"every {WeekdayNames(rule)}{OnDays(rule, "day", " that is ")}{months}"
            : $"{Every(rule.Interval, "day")} if it is a {Or(WeekdayList(rule))}{OnDays(rule, "day", " and ")}{months}";
    }

    private static string Weekly(RecurrenceRule rule, LocalDate start)
    {
        var names = rule.ByDay.IsEmpty ? start.DayOfWeek.ToString() : WeekdayNames(rule);
        var each = rule.Interval switch
        {
            1 => $"every {names}",
            2 when !names.Contains(' ', StringComparison.Ordinal) => $"every second {names}",
            _ => $"{Every(rule.Interval, "week")} on {names}",
        };
        return each + InMonths(rule);
    }

    private static string Monthly(RecurrenceRule rule, LocalDate start) =>
        $"{Every(rule.Interval, "month")}{InMonths(rule)} on {DaysOfMonth(rule, start)}";

    private static string Yearly(RecurrenceRule rule, LocalDate start)
    {
        var every = Every(rule.Interval, "year");
        var months = Wording.List(rule.ByMonth.Select(Wording.Month));
        if (!rule.ByWeekNo.IsEmpty)
        {
            var days =
                rule.ByDay.IsEmpty && rule.ByMonthDay.IsEmpty && rule.ByYearDay.IsEmpty ? start.DayOfWeek.ToString()
                : rule.ByDay.IsEmpty ? "the days"
                : Wording.List(WeekdayList(rule));
            return $"{every} on {Chosen(rule, days)} of {Weeks(rule)}{OnDays(rule, "day", " that are ")}{InMonths(rule)}";
        }

        if (!rule.ByYearDay.IsEmpty)
        {
            var days = Wording.List(
                rule.ByYearDay.Select(day => $"the {(day > 0 ? Wording.Nth(day) : Wording.Position(day))} day")
            );
            var weekdays = rule.ByDay.IsEmpty ? string.Empty : $" if it is a {Or(WeekdayList(rule))}";
            return $"{every} on {Chosen(rule, days)} of the year{weekdays}{InMonths(rule)}";
        }

        if (rule.ByMonthDay.IsEmpty && rule.ByDay.IsEmpty)
        {
            var named = rule.ByMonth.IsEmpty ? [start.Month] : rule.ByMonth;
            return $"{every} on {Chosen(rule, Wording.List(named.Select(month => $"{start.Day.ToString(CultureInfo.InvariantCulture)} {Wording.Month(month)}")))}";
        }

        return months.Length > 0 ? $"{every} on {DaysOfMonth(rule, start)} of {months}"
            : rule.ByMonthDay.IsEmpty ? $"{every} on {DaysOfMonth(rule, start)} of the year"
            : $"{every} on {DaysOfMonth(rule, start)} of every month";
    }

    private static string DaysOfMonth(RecurrenceRule rule, LocalDate start)
    {
        if (!rule.ByMonthDay.IsEmpty)
        {
            var days = "the " + Wording.List(rule.ByMonthDay.Select(DayOfMonth));
            var weekdays = rule.ByDay.IsEmpty ? string.Empty : $" if it is {Or(NumberedWeekdays(rule, "a"))}";
            return Chosen(rule, days + weekdays);
        }

        if (rule.ByDay.IsEmpty)
        {
            return Chosen(rule, $"the {Wording.Nth(start.Day)}");
        }

        return rule.BySetPos.IsEmpty
            ? Wording.List(NumberedWeekdays(rule, "every"))
            : Chosen(rule, IsWorkweek(rule) ? "weekday" : Or(NumberedWeekdays(rule, string.Empty)));
    }

    /// <summary>"the last weekday": BYSETPOS before what it picks from.</summary>
    private static string Chosen(RecurrenceRule rule, string from) =>
        rule.BySetPos.IsEmpty ? from
        : from.StartsWith("the ", StringComparison.Ordinal)
            ? $"the {Wording.List(rule.BySetPos.Select(Wording.Position))} of {from}"
        : $"the {Wording.List(rule.BySetPos.Select(Wording.Position))} {from}";

    private static string Picked(RecurrenceRule rule) =>
        rule.BySetPos.IsEmpty
            ? string.Empty
            : $", only the {Wording.List(rule.BySetPos.Select(Wording.Position))} of each {Unit(rule.Frequency)}";

    private static string WithinDay(RecurrenceRule rule)
    {
        var text = Every(rule.Interval, Unit(rule.Frequency));
        if (!rule.ByMinute.IsEmpty)
        {
            text += rule.ByMinute.Length == 1 ? " at minute " : " at minutes ";
            text += Wording.List(rule.ByMinute.Select(Number));
        }

        if (!rule.BySecond.IsEmpty)
        {
            text += rule.BySecond.Length == 1 ? " at second " : " at seconds ";
            text += Wording.List(rule.BySecond.Select(Number));
        }

        if (!rule.ByHour.IsEmpty)
        {
            text +=
                $" in the hour{(rule.ByHour.Length == 1 ? string.Empty : "s")} from {Wording.List(rule.ByHour.Select(hour => $"{hour:00}:00"))}";
        }

        if (!rule.ByDay.IsEmpty)
        {
            text += $" on {Wording.List(WeekdayList(rule).Select(day => day + "s"))}";
        }

        if (!rule.ByYearDay.IsEmpty)
        {
            text +=
                $" on {Wording.List(rule.ByYearDay.Select(day => $"the {(day > 0 ? Wording.Nth(day) : Wording.Position(day))} day"))} of the year";
        }

        return text + OnDays(rule, "day", " on ") + InMonths(rule);
    }

    private static string Times(RecurrenceRule rule, LocalTime start)
    {
        int[] hours = rule.ByHour.IsEmpty ? [start.Hour] : [.. rule.ByHour];
        int[] minutes = rule.ByMinute.IsEmpty ? [start.Minute] : [.. rule.ByMinute];
        int[] seconds = rule.BySecond.IsEmpty ? [start.Second] : [.. rule.BySecond];
        var all = (
            from hour in hours
            from minute in minutes
            from second in seconds
            select second == 0 ? $"{hour:00}:{minute:00}" : $"{hour:00}:{minute:00}:{second:00}"
        ).ToList();
        return all.Count <= MostTimes
            ? $" at {Wording.List(all)}"
            : $" at {all.Count} times from {all[0]} to {all[^1]}";
    }

    /// <summary>What SKIP does, where one of the days can be missing from a month or year.</summary>
    private static string Missing(RecurrenceRule rule, LocalDate start)
    {
        var ofYear = !rule.ByYearDay.IsEmpty;
        var places =
            ofYear ? rule.ByYearDay
            : !rule.ByMonthDay.IsEmpty ? rule.ByMonthDay
            : rule.ByDay.IsEmpty && rule.ByWeekNo.IsEmpty ? [start.Day]
            : ImmutableArray<int>.Empty;
        var stretch = ofYear ? "year" : "month";
        return rule.Skip switch
        {
            _ when !places.Any(place => Math.Abs(place) > (ofYear ? 365 : 28)) => string.Empty,
            Skip.Backward => $", or the last day of a shorter {stretch}",
            Skip.Forward => $", or the first day after a shorter {stretch}",
            _ => string.Empty,
        };
    }

    private static string OnDays(RecurrenceRule rule, string of, string before) =>
        rule.ByMonthDay.IsEmpty
            ? string.Empty
            : $"{before}the {Or(rule.ByMonthDay.Select(day => day > 0 ? Wording.Nth(day) : $"{Wording.Position(day)} {of}"))} of the month";

    private static string DayOfMonth(int day) => day > 0 ? Wording.Nth(day) : $"{Wording.Position(day)} day";

    private static string Weeks(RecurrenceRule rule) =>
        Wording.List(
            rule.ByWeekNo.Select(week => week > 0 ? $"week {Number(week)}" : $"the {Wording.Position(week)} week")
        );

    private static string InMonths(RecurrenceRule rule) =>
        rule.ByMonth.IsEmpty ? string.Empty : $" in {Wording.List(rule.ByMonth.Select(Wording.Month))}";

    private static bool IsWorkweek(RecurrenceRule rule) =>
        rule.ByDay.All(day => day.Ordinal is null) && rule.ByDay.Select(day => day.Day).SequenceEqual(Weekdays);

    private static string WeekdayNames(RecurrenceRule rule) =>
        IsWorkweek(rule) ? "weekday" : Wording.List(WeekdayList(rule));

    private static IEnumerable<string> WeekdayList(RecurrenceRule rule) =>
        rule.ByDay.Select(day => day.Day.ToString()).Distinct();

    private static IEnumerable<string> NumberedWeekdays(RecurrenceRule rule, string unnumbered) =>
        rule.ByDay.Select(day =>
            day.Ordinal is { } ordinal ? $"the {Wording.Position(ordinal)} {day.Day}" : $"{unnumbered} {day.Day}".Trim()
        );

    private static string Or(IEnumerable<string> items)
    {
        var all = items.ToList();
        return all.Count > 1 ? $"{string.Join(", ", all.Take(all.Count - 1))} or {all[^1]}" : all[0];
    }

    private static string Every(int interval, string unit) =>
        interval switch
        {
            1 => $"every {unit}",
            2 => $"every second {unit}",
            _ => string.Create(CultureInfo.InvariantCulture, $"every {interval} {unit}s"),
        };

    private static string Unit(Frequency frequency) =>
        frequency switch
        {
            Frequency.Secondly => "second",
            Frequency.Minutely => "minute",
            Frequency.Hourly => "hour",
            Frequency.Daily => "day",
            Frequency.Weekly => "week",
            Frequency.Monthly => "month",
            _ => "year",
        };

    private static string Number(int number) => number.ToString(CultureInfo.InvariantCulture);
}
