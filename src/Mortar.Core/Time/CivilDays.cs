using NodaTime;

namespace Mortar.Core.Time;

/// <summary>The Gregorian calendar in whole numbers: days and seconds since 1970-01-01T00:00:00 on some clock.</summary>
/// <remarks>
/// What a series is walked in: adding is one instruction and nothing is allocated, where a date type costs some
/// nanoseconds each time. Held against NodaTime for every day of its calendar in the tests.
/// </remarks>
internal static class CivilDays
{
    public const int SecondsPerDay = 86_400;

    /// <summary>The last second that a date can name: 9999-12-31T23:59:59.</summary>
    public const long LastSecond = 253_402_300_799;

    /// <summary>The first second that a rule can be asked for: 0001-01-01T00:00:00.</summary>
    public const long FirstSecond = -62_135_596_800;

    /// <summary>The number of a day. The months are counted from March, so that the leap day is the last of its year.</summary>
    public static int Of(int year, int month, int day)
    {
        var shifted = month <= 2 ? year - 1 : year;
        var era = FloorDiv(shifted, 400);
        var yearOfEra = shifted - (era * 400);
        var dayOfYear = (((153 * (month > 2 ? month - 3 : month + 9)) + 2) / 5) + day - 1;
        return (era * 146_097) + (yearOfEra * 365) + (yearOfEra / 4) - (yearOfEra / 100) + dayOfYear - 719_468;
    }

    /// <summary>The date of a day's number.</summary>
    public static (int Year, int Month, int Day) Date(int number)
    {
        var shifted = number + 719_468;
        var era = FloorDiv(shifted, 146_097);
        var dayOfEra = shifted - (era * 146_097);
        var yearOfEra = (dayOfEra - (dayOfEra / 1_460) + (dayOfEra / 36_524) - (dayOfEra / 146_096)) / 365;
        var dayOfYear = dayOfEra - ((365 * yearOfEra) + (yearOfEra / 4) - (yearOfEra / 100));
        var shiftedMonth = ((5 * dayOfYear) + 2) / 153;
        var day = dayOfYear - (((153 * shiftedMonth) + 2) / 5) + 1;
        var month = shiftedMonth < 10 ? shiftedMonth + 3 : shiftedMonth - 9;
        return (yearOfEra + (era * 400) + (month <= 2 ? 1 : 0), month, day);
    }

    /// <summary>Monday is 0, Sunday is 6.</summary>
    public static int Weekday(int number) => FloorMod(number + 3, 7);

    public static bool IsLeap(int year) => year % 4 == 0 && (year % 100 != 0 || year % 400 == 0);

    public static int InYear(int year) => IsLeap(year) ? 366 : 365;

    public static int InMonth(int year, int month) =>
        month switch
        {
            2 => IsLeap(year) ? 29 : 28,
            4 or 6 or 9 or 11 => 30,
            _ => 31,
        };

    public static int Of(LocalDate date) => Of(date.Year, date.Month, date.Day);

    /// <summary>The second at which a day begins on a clock that does not change.</summary>
    public static long Midnight(LocalDate date) => (long)Of(date) * SecondsPerDay;

    /// <summary>The second of a local time; what is below a second is dropped.</summary>
    public static long Second(LocalDateTime time) =>
        Midnight(time.Date) + (time.TimeOfDay.NanosecondOfDay / 1_000_000_000);

    public static LocalDate ToDate(int number)
    {
        var (year, month, day) = Date(number);
        return new LocalDate(year, month, day);
    }

    public static LocalDateTime ToTime(long second)
    {
        var number = DayOf(second);
        var (year, month, day) = Date(number);
        var rest = (int)(second - ((long)number * SecondsPerDay));
        return new LocalDateTime(year, month, day, rest / 3600, rest / 60 % 60, rest % 60);
    }

    public static int DayOf(long second) => (int)FloorDiv(second, SecondsPerDay);

    public static long FloorDiv(long value, long by)
    {
        var quotient = value / by;
        return value % by < 0 ? quotient - 1 : quotient;
    }

    public static int FloorDiv(int value, int by)
    {
        var quotient = value / by;
        return value % by < 0 ? quotient - 1 : quotient;
    }

    public static int FloorMod(int value, int by) => value - (FloorDiv(value, by) * by);
}
