using System.Globalization;
using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Events;

/// <summary>Says how a series repeats: "every second Thursday until 18 June 2026".</summary>
public static class SeriesSentence
{
    private static readonly string[] Ordinals = ["", "first", "second", "third", "fourth", "fifth"];

    /// <summary>The sentence, begun in lower case and without a full stop.</summary>
    public static string For(EventTime time, Series series)
    {
        var main = series switch
        {
            { Rule: { } rule } => Of(time, rule),
            { IsBeyondUs: true } => "repeats by a rule that is kept but not shown yet; only the first is on the wall",
            _ => "on chosen dates",
        };
        var changed = series.Overrides.Count;
        var left = series.Excluded.Count;
        var notes = new List<string>();
        if (series.Extra.Count > 0)
        {
            notes.Add(Count(series.Extra.Count, "extra date", "extra dates"));
        }

        if (left > 0)
        {
            notes.Add(Count(left, "date left out", "dates left out"));
        }

        if (changed > 0)
        {
            notes.Add(Count(changed, "date changed", "dates changed"));
        }

        return notes.Count > 0 ? $"{main}, {string.Join(", ", notes)}" : main;
    }

    private static string Count(int number, string one, string many) =>
        string.Create(CultureInfo.InvariantCulture, $"{number} {(number == 1 ? one : many)}");

    private static string Of(EventTime time, RecurrenceRule rule)
    {
        var start = time.LocalStart.Date;
        var each = rule.Frequency switch
        {
            Frequency.Daily => Every(rule.Interval, "day") + Days(rule, " on "),
            Frequency.Weekly => Weekly(rule, start),
            Frequency.Monthly => $"{Every(rule.Interval, "month")} on {DaysOfMonth(rule, start)}",
            _ => Yearly(rule, start),
        };
        return rule.End switch
        {
            SeriesEnd.After after => string.Create(
                CultureInfo.InvariantCulture,
                $"{each}, {(after.Occurrences == 1 ? "once" : $"{after.Occurrences} times")}"
            ),
            SeriesEnd.Through through => $"{each} until {Day(through.LastDay)}",
            SeriesEnd.ThroughTime through => $"{each} until {Day(through.Last.Date)}",
            SeriesEnd.ThroughInstant through => $"{each} until {Day(through.Last.InUtc().Date)}",
            _ => each,
        };
    }

    private static string Weekly(RecurrenceRule rule, LocalDate start)
    {
        var days =
            rule.ByDay.Count == 0 ? [start.DayOfWeek] : rule.ByDay.Select(day => day.Day).Distinct().Order().ToList();
        var names = days.SequenceEqual([
            IsoDayOfWeek.Monday,
            IsoDayOfWeek.Tuesday,
            IsoDayOfWeek.Wednesday,
            IsoDayOfWeek.Thursday,
            IsoDayOfWeek.Friday,
        ])
            ? "weekday"
            : List(days.Select(day => day.ToString()));
        return rule.Interval switch
        {
            1 => $"every {names}",
            2 => $"every second {names}",
            var more => string.Create(CultureInfo.InvariantCulture, $"every {more} weeks on {names}"),
        };
    }

    private static string Yearly(RecurrenceRule rule, LocalDate start)
    {
        var every = Every(rule.Interval, "year");
        var months = List(
            rule.ByMonth.Select(month => CultureInfo.InvariantCulture.DateTimeFormat.GetMonthName(month))
        );
        if (rule.ByMonthDay.Count > 0 || rule.ByDay.Count > 0)
        {
            return months.Length > 0
                ? $"{every} on {DaysOfMonth(rule, start)} of {months}"
                : $"{every} on {DaysOfMonth(rule, start)}";
        }

        return $"{every} on {start.Day.ToString(CultureInfo.InvariantCulture)} {(months.Length > 0 ? months : start.ToString("MMMM", CultureInfo.InvariantCulture))}";
    }

    private static string DaysOfMonth(RecurrenceRule rule, LocalDate start)
    {
        if (rule.ByMonthDay.Count > 0)
        {
            return "the "
                + List(
                    rule.ByMonthDay.Select(day =>
                        day == -1 ? "last day"
                        : day < 0 ? $"{Nth(-day)} last day"
                        : Nth(day)
                    )
                )
                + Days(rule, " if a ");
        }

        if (rule.BySetPos.Count > 0)
        {
            return "the "
                + List(rule.BySetPos.Select(Position))
                + " of "
                + List(rule.ByDay.Select(day => day.Day.ToString()));
        }

        return rule.ByDay.Count > 0
            ? List(
                rule.ByDay.Select(day =>
                    day.Ordinal is { } ordinal ? $"the {Position(ordinal)} {day.Day}" : $"every {day.Day}"
                )
            )
            : $"the {Nth(start.Day)}";
    }

    private static string Position(int position) =>
        position switch
        {
            -1 => "last",
            < 0 => $"{Nth(-position)} last",
            <= 5 => Ordinals[position],
            _ => Nth(position),
        };

    private static string Nth(int number) =>
        number.ToString(CultureInfo.InvariantCulture)
        + (
            (number % 100) is >= 11 and <= 13
                ? "th"
                : (number % 10) switch
                {
                    1 => "st",
                    2 => "nd",
                    3 => "rd",
                    _ => "th",
                }
        );

    private static string Days(RecurrenceRule rule, string before) =>
        rule.ByDay.Count > 0 ? before + List(rule.ByDay.Select(day => day.Day.ToString())) : string.Empty;

    private static string Every(int interval, string unit) =>
        interval switch
        {
            1 => $"every {unit}",
            2 => $"every second {unit}",
            _ => string.Create(CultureInfo.InvariantCulture, $"every {interval} {unit}s"),
        };

    private static string Day(LocalDate day) => day.ToString("d MMMM uuuu", CultureInfo.InvariantCulture);

    private static string List(IEnumerable<string> items)
    {
        var all = items.ToList();
        return all.Count > 1 ? $"{string.Join(", ", all.Take(all.Count - 1))} and {all[^1]}" : string.Concat(all);
    }
}
