using System.Globalization;
using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Events;

/// <summary>Says how a series repeats: "every second Thursday at 19:00 until 18 June, not on 2 April".</summary>
public static class SeriesSentence
{
    /// <summary>The most dates that are named one by one; more are counted.</summary>
    private const int MostNamed = 4;

    /// <summary>The sentence, begun in lower case and without a full stop.</summary>
    /// <param name="time">When the series begins.</param>
    /// <param name="series">How it repeats.</param>
    /// <param name="year">The year the reader is in: dates in it are said without it.</param>
    /// <param name="zone">The series' own zone, for an end that is given in UTC; the reader's where it has none.</param>
    public static string For(EventTime time, Series series, int year, DateTimeZone zone)
    {
        var rules = series.Rules.Select(rule => RuleSentence.Of(time, rule) + End(rule, time, year, zone)).ToList();
        if (series.NotShown is not null)
        {
            rules.Add("by a rule in another calendar that is kept but not shown");
        }

        var text =
            rules.Count > 0 ? string.Join(", and ", rules)
            : series.Extra.Count > 0
                ? $"on {Dates(series.Extra.Prepend(time.LocalStart).Distinct().Except(series.Excluded).Order(), year)}"
            : "on chosen dates";
        if (series.ExceptRules.Count > 0)
        {
            text +=
                $", but not {string.Join(", nor ", series.ExceptRules.Select(rule => RuleSentence.Of(time, rule) + End(rule, time, year, zone)))}";
        }

        if (rules.Count > 0 && series.Extra.Count > 0)
        {
            text += $", also on {Dates(series.Extra, year)}";
        }

        if (rules.Count > 0 && series.Excluded.Count > 0)
        {
            text += $", not on {Dates(series.Excluded, year)}";
        }

        return series.Overrides.Count == 0
            ? text
            : $"{text}, {Wording.Count(series.Overrides.Count, "date changed", "dates changed")}";
    }

    private static string End(RecurrenceRule rule, EventTime time, int year, DateTimeZone zone) =>
        rule.End switch
        {
            SeriesEnd.After { Occurrences: 1 } => ", once",
            SeriesEnd.After after => string.Create(CultureInfo.InvariantCulture, $", {after.Occurrences} times"),
            _ => rule.LastDay(time.LocalStart, zone) is { } last ? $" until {Day(last, year)}" : string.Empty,
        };

    private static string Dates(IEnumerable<LocalDateTime> starts, int year)
    {
        var days = starts.Select(start => start.Date).Distinct().ToList();
        var named = days.Take(days.Count > MostNamed + 1 ? MostNamed : days.Count)
            .Select(day => Day(day, year))
            .ToList();
        return days.Count > named.Count
            ? $"{string.Join(", ", named)} and {days.Count - named.Count} more dates"
            : Wording.List(named);
    }

    private static string Day(LocalDate day, int year) =>
        day.ToString(day.Year == year ? "d MMMM" : "d MMMM uuuu", CultureInfo.InvariantCulture);
}
