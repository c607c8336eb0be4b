using System.Globalization;
using Microsoft.Net.Http.Headers;
using Mortar.Core.Noticeboards;
using Mortar.Core.Time;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Server.Features.Noticeboards;

/// <summary>Writes days and hours in a visitor's language; the words around them are English.</summary>
public sealed class BoardDates
{
    /// <summary>How many of the languages that somebody takes are looked at.</summary>
    private const int MostLanguages = 6;

    private static readonly InstantPattern Utc = InstantPattern.General;

    private readonly CultureInfo culture;
    private readonly DateTimeFormatInfo formats;

    public BoardDates(CultureInfo culture)
    {
        this.culture = (CultureInfo)culture.Clone();
        formats = this.culture.DateTimeFormat;
        if (formats.Calendar is not GregorianCalendar)
        {
            var other = this.culture.OptionalCalendars.OfType<GregorianCalendar>().FirstOrDefault();
            if (other is null)
            {
                this.culture = (CultureInfo)CultureInfo.GetCultureInfo("en-GB").Clone();
                formats = this.culture.DateTimeFormat;
            }
            else
            {
                formats.Calendar = other;
            }
        }
    }

    /// <summary>The language as a tag (BCP 47).</summary>
    public string Language => culture.Name;

    /// <summary>The first language that somebody takes and that dates can be written in (RFC 9110, 12.5.4); British English where there is none.</summary>
    public static BoardDates For(IEnumerable<StringWithQualityHeaderValue> taken)
    {
        foreach (
            var one in taken
                .Take(MostLanguages)
                .Where(one => one.Quality != 0)
                .OrderByDescending(one => one.Quality ?? 1)
        )
        {
            try
            {
                if (one.Value.Value is { Length: > 1 and <= 20 } tag && tag != "*")
                {
                    return new BoardDates(CultureInfo.GetCultureInfo(tag, predefinedOnly: true));
                }
            }
            catch (CultureNotFoundException)
            {
                // The next one, then.
            }
        }

        return new BoardDates(CultureInfo.GetCultureInfo("en-GB"));
    }

    public string Weekday(LocalDate day) => Text(day, "dddd");

    public string ShortWeekday(LocalDate day) => Text(day, "ddd");

    public string Month(LocalDate day) => Text(day, "MMMM");

    /// <summary>For example "Thursday 12 March 2026", in the order of the language.</summary>
    public string LongDay(LocalDate day) => Text(day, formats.LongDatePattern);

    /// <summary>For example "12 March".</summary>
    public string DayMonth(LocalDate day) => Text(day, formats.MonthDayPattern);

    /// <summary>For example "March 2026".</summary>
    public string YearMonth(LocalDate day) => Text(day, formats.YearMonthPattern);

    /// <summary>The hours of something on one of the days it touches.</summary>
    public string Hours(BoardEntry entry, LocalDate day)
    {
        if (entry.Time is EventTime.AllDay days)
        {
            return days.First == days.Last ? "all day" : $"{DayMonth(days.First)} – {DayMonth(days.Last)}";
        }

        var (start, end) = (entry.Time.LocalStart, entry.Time.LocalEnd);
        return start == end ? Hour(start)
            : entry.FirstDay == entry.LastDay ? $"{Hour(start)} – {Hour(end)}"
            : day <= entry.FirstDay ? $"{Hour(start)} – {DayMonth(entry.LastDay)}, {Hour(end)}"
            : day >= entry.LastDay ? $"– {Hour(end)}"
            : $"{DayMonth(entry.FirstDay)} – {DayMonth(entry.LastDay)}";
    }

    /// <summary>The same in the cell of a day, which says already which day it is: how long it lasts stands on the first of its days.</summary>
    public string HoursInCell(BoardEntry entry, LocalDate day) =>
        entry.Time is not EventTime.AllDay days ? Hours(entry, day)
        : days.First == days.Last || day > days.First ? string.Empty
        : $"– {DayMonth(days.Last)}";

    /// <summary>All of when something is.</summary>
    public string Whole(BoardEntry entry)
    {
        if (entry.Time is EventTime.AllDay days)
        {
            var text = days.First == days.Last ? LongDay(days.First) : $"{LongDay(days.First)} – {LongDay(days.Last)}";
            return days.TimesToBeSet ? $"{text}, times to be set" : text;
        }

        var (start, end) = (entry.Time.LocalStart, entry.Time.LocalEnd);
        return start == end ? $"{LongDay(start.Date)}, {Hour(start)}"
            : entry.FirstDay == entry.LastDay ? $"{LongDay(start.Date)}, {Hour(start)} – {Hour(end)}"
            : $"{LongDay(start.Date)}, {Hour(start)} – {LongDay(end.Date)}, {Hour(end)}";
    }

    /// <summary>When it starts, for programs (HTML, 4.5.14): a date, or an instant.</summary>
    public static string Machine(BoardEntry entry) =>
        entry.Time is EventTime.AllDay days ? LocalDatePattern.Iso.Format(days.First) : Utc.Format(entry.Span.Start);

    private string Hour(LocalDateTime time) => time.ToDateTimeUnspecified().ToString(formats.ShortTimePattern, culture);

    private string Text(LocalDate day, string pattern) => day.ToDateTimeUnspecified().ToString(pattern, culture);
}
