using System.Globalization;
using System.Text.RegularExpressions;
using NodaTime;

namespace Mortar.Core.Spreadsheets;

/// <summary>Reads dates and times as people write them into spreadsheets.</summary>
public static partial class WrittenDates
{
    /// <summary>Years of two digits up to this are of this century (the pivot of <c>%y</c> in POSIX strptime is 68).</summary>
    private const int Pivot = 68;

    /// <summary>The longest text that is looked at; what is longer is no date.</summary>
    private const int Longest = 60;

    /// <summary>How long a form is tried, in milliseconds: none of them takes any with so short a text.</summary>
    private const int Patience = 1_000;

    /// <summary>The months by how their names begin, in the languages people bring: English, German, French, Spanish, Italian, Dutch (from memory).</summary>
    private static readonly (string Begins, int Month)[] Months =
    [
        ("jan", 1),
        ("gen", 1),
        ("ene", 1),
        ("feb", 2),
        ("fév", 2),
        ("fev", 2),
        ("mar", 3),
        ("mär", 3),
        ("maa", 3),
        ("mrt", 3),
        ("apr", 4),
        ("avr", 4),
        ("abr", 4),
        ("mai", 5),
        ("may", 5),
        ("mag", 5),
        ("mei", 5),
        ("juin", 6),
        ("jun", 6),
        ("giu", 6),
        ("juil", 7),
        ("jul", 7),
        ("lug", 7),
        ("aug", 8),
        ("aoû", 8),
        ("aou", 8),
        ("ago", 8),
        ("sep", 9),
        ("set", 9),
        ("oct", 10),
        ("okt", 10),
        ("ott", 10),
        ("out", 10),
        ("nov", 11),
        ("dec", 12),
        ("dez", 12),
        ("déc", 12),
        ("dic", 12),
    ];

    /// <summary>The day a cell names; <c>null</c> where it names none.</summary>
    /// <param name="cell">The cell.</param>
    /// <param name="order">In which order three numbers are read that could be either.</param>
    public static LocalDate? Day(IncomingCell cell, DateOrder order)
    {
        if (cell.Moment is { Year: > 1900 } moment)
        {
            return moment.Date;
        }

        var text = Short(cell);
        if (YearFirst().Match(text) is { Success: true } iso)
        {
            return Of(Number(iso, "y"), Number(iso, "m"), Number(iso, "d"));
        }

        if (Packed().Match(text) is { Success: true } packed)
        {
            return Of(Number(packed, "y"), Number(packed, "m"), Number(packed, "d"));
        }

        if (YearLast().Match(text) is { Success: true } three)
        {
            var (first, second, year) = (Number(three, "a"), Number(three, "b"), YearOf(three));
            var isDayFirst = first > 12 || (second <= 12 && order == DateOrder.DayFirst);
            return isDayFirst ? Of(year, second, first) : Of(year, first, second);
        }

        foreach (var form in (Regex[])[DayMonthName(), MonthNameDay()])
        {
            if (form.Match(text) is { Success: true } named && MonthOf(named.Groups["name"].Value) is { } month)
            {
                return Of(YearOf(named), month, Number(named, "d"));
            }
        }

        // A day that lost its format is a number: the days since the end of 1899 (ECMA-376, part 1, 18.17.4.1).
        return
            double.TryParse(text, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var serial)
            && serial is > 20_000 and < 80_000
            ? new LocalDate(1899, 12, 30).PlusDays((int)serial)
            : null;
    }

    /// <summary>Which order of three numbers a cell shows: a number over twelve is no month. <c>null</c> where it could be either.</summary>
    public static DateOrder? OrderOf(IncomingCell cell) =>
        cell.Moment is null && YearLast().Match(Short(cell)) is { Success: true } three
            ? (Number(three, "a") > 12, Number(three, "b") > 12) switch
            {
                (true, false) => DateOrder.DayFirst,
                (false, true) => DateOrder.MonthFirst,
                _ => null,
            }
            : null;

    /// <summary>Whether it is a date of three numbers whose order has to be known.</summary>
    public static bool HasOrder(IncomingCell cell) => cell.Moment is null && YearLast().IsMatch(Short(cell));

    /// <summary>The time of day a cell names, alone or after a day; <c>null</c> where it names none.</summary>
    public static LocalTime? Time(IncomingCell cell)
    {
        if (cell.Moment is { } moment)
        {
            return moment.Year <= 1900 || moment.TimeOfDay != LocalTime.Midnight ? moment.TimeOfDay : null;
        }

        var text = Short(cell);
        if (Clock().Match(text) is { Success: true } clock)
        {
            var hour = Number(clock, "h");
            var minute = clock.Groups["m"].Success ? Number(clock, "m") : 0;
            var half = clock.Groups["half"].Value.ToLowerInvariant();
            if (half.Length > 0 && hour is >= 1 and <= 12)
            {
                hour = (hour % 12) + (half[0] == 'p' ? 12 : 0);
            }

            return hour == 24 && minute == 0 ? LocalTime.Midnight
                : hour < 24 && minute < 60 ? new LocalTime(hour, minute)
                : null;
        }

        return
            double.TryParse(text, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var part)
            && part is > 0 and < 1
            ? LocalTime.FromMinutesSinceMidnight((int)Math.Round(part * 24 * 60) % (24 * 60))
            : null;
    }

    /// <summary>How long a cell says; <c>null</c> where it says nothing of that.</summary>
    public static Duration? Length(IncomingCell cell)
    {
        if (cell.Moment is { } moment)
        {
            return moment - new LocalDateTime(1899, 12, 30, 0, 0) is var since && moment.Year <= 1900
                ? since.ToDuration()
                : null;
        }

        var text = Short(cell);
        if (HoursMinutes().Match(text) is { Success: true } long_)
        {
            return Duration.FromMinutes((Number(long_, "h") * 60) + Number(long_, "m"));
        }

        if (Spoken().Match(text) is { Success: true } spoken)
        {
            var amount = double.Parse(
                spoken.Groups["n"].Value.Replace(',', '.'),
                NumberStyles.AllowDecimalPoint,
                CultureInfo.InvariantCulture
            );
            return amount > 24_000 ? null
                : spoken.Groups["unit"].Value.StartsWith('m') ? Duration.FromMinutes(amount)
                : Duration.FromHours(amount);
        }

        return null;
    }

    private static string Short(IncomingCell cell) => cell.Text.Length > Longest ? string.Empty : cell.Text.Trim();

    private static LocalDate? Of(int year, int month, int day) =>
        year is >= 1600 and <= 2400
        && month is >= 1 and <= 12
        && day >= 1
        && day <= CalendarSystem.Iso.GetDaysInMonth(year, month)
            ? new LocalDate(year, month, day)
            : null;

    private static int YearOf(Match match)
    {
        var year = Number(match, "y");
        return match.Groups["y"].Length > 2 ? year
            : year <= Pivot ? 2000 + year
            : 1900 + year;
    }

    private static int? MonthOf(string name) =>
        Months
            .Where(one => name.StartsWith(one.Begins, StringComparison.OrdinalIgnoreCase))
            .Select(one => (int?)one.Month)
            .FirstOrDefault();

    private static int Number(Match match, string group) =>
        int.Parse(match.Groups[group].Value, NumberStyles.None, CultureInfo.InvariantCulture);

    [GeneratedRegex(
        @"^(?<y>\d{4})[-/.](?<m>\d{1,2})[-/.](?<d>\d{1,2})(?:$|[T\s])",
        RegexOptions.CultureInvariant,
        Patience
    )]
    private static partial Regex YearFirst();

    [GeneratedRegex(@"^(?<y>(?:19|20)\d\d)(?<m>\d\d)(?<d>\d\d)$", RegexOptions.CultureInvariant, Patience)]
    private static partial Regex Packed();

    [GeneratedRegex(
        @"^(?:\p{L}{2,12}\.?,?\s+)?(?<a>\d{1,2})\s?[-/.]\s?(?<b>\d{1,2})\s?[-/.]\s?(?<y>\d{4}|\d\d)(?:$|[T\s,])",
        RegexOptions.CultureInvariant,
        Patience
    )]
    private static partial Regex YearLast();

    [GeneratedRegex(
        @"^(?:\p{L}{2,12}\.?,?\s+)?(?<d>\d{1,2})(?:\.|st|nd|rd|th)?[\s-]+(?:of\s+|de\s+)?(?<name>\p{L}{3,12})\.?,?[\s-]+(?:de\s+)?(?<y>\d{4}|\d\d)(?:$|[\s,])",
        RegexOptions.CultureInvariant,
        Patience
    )]
    private static partial Regex DayMonthName();

    [GeneratedRegex(
        @"^(?:\p{L}{2,12}\.?,?\s+)?(?<name>\p{L}{3,12})\.?\s+(?<d>\d{1,2})(?:st|nd|rd|th)?,?\s+(?<y>\d{4})(?:$|[\s,])",
        RegexOptions.CultureInvariant,
        Patience
    )]
    private static partial Regex MonthNameDay();

    [GeneratedRegex(
        @"(?:^|[T\s,])(?<h>\d{1,2})(?:(?:[:.h])(?<m>\d\d)(?::\d\d)?|(?=\s?(?:[ap]\.?m|h$|Uhr)))\s?(?:(?<half>[ap])\.?m\.?|h|Uhr)?$",
        RegexOptions.CultureInvariant | RegexOptions.IgnoreCase,
        Patience
    )]
    private static partial Regex Clock();

    [GeneratedRegex(@"^(?<h>\d{1,4}):(?<m>[0-5]\d)(?::[0-5]\d)?$", RegexOptions.CultureInvariant, Patience)]
    private static partial Regex HoursMinutes();

    [GeneratedRegex(
        @"^(?<n>\d{1,4}(?:[.,]\d{1,2})?)\s*(?<unit>m|min|mins|minutes|h|hrs?|hours?)?$",
        RegexOptions.CultureInvariant | RegexOptions.IgnoreCase,
        Patience
    )]
    private static partial Regex Spoken();
}
