using System.Globalization;
using NodaTime;

namespace Mortar.Core.Time;

/// <summary>Says a time as people say it: "Mon 16 to Fri 20 March".</summary>
public static class RangeSentence
{
    /// <summary>A time in words. Whole days name the last of them, not the day after; hours are of 24.</summary>
    /// <param name="time">The time, on the reader's clock.</param>
    /// <param name="year">The year the reader is in, which is not said.</param>
    public static string For(EventTime time, int year)
    {
        if (time is EventTime.AllDay days)
        {
            return Days(days.First, days.Last, year);
        }

        var (start, end) = (time.LocalStart, time.LocalEnd);
        return start == end ? $"{Day(start.Date, year)}, {Hour(start)}"
            : start.Date == end.Date || (end.Date == start.Date.PlusDays(1) && end.TimeOfDay == LocalTime.Midnight)
                ? $"{Day(start.Date, year)}, {Hour(start)} to {Hour(end)}"
            : $"{Day(start.Date, year)}, {Hour(start)} to {Day(end.Date, year)}, {Hour(end)}";
    }

    private static string Days(LocalDate first, LocalDate last, int year) =>
        first == last ? Day(first, year)
        : first.Year == last.Year && first.Month == last.Month ? $"{Short(first)} to {Day(last, year)}"
        : first.Year == last.Year ? $"{Text(first, "ddd d MMMM")} to {Day(last, year)}"
        : $"{Day(first, year)} to {Text(last, "ddd d MMMM uuuu")}";

    private static string Day(LocalDate day, int year) =>
        Text(day, day.Year == year ? "ddd d MMMM" : "ddd d MMMM uuuu");

    private static string Short(LocalDate day) => Text(day, "ddd d");

    private static string Text(LocalDate day, string pattern) => day.ToString(pattern, CultureInfo.InvariantCulture);

    private static string Hour(LocalDateTime time) =>
        time.ToString(time.Second == 0 ? "HH:mm" : "HH:mm:ss", CultureInfo.InvariantCulture);
}
