using System.Globalization;
using System.Text;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Core.Recurrence;

/// <content>Reading and writing the text form.</content>
public sealed partial record RecurrenceRule
{
    private static readonly (string Code, IsoDayOfWeek Day)[] Weekdays =
    [
        ("MO", IsoDayOfWeek.Monday),
        ("TU", IsoDayOfWeek.Tuesday),
        ("WE", IsoDayOfWeek.Wednesday),
        ("TH", IsoDayOfWeek.Thursday),
        ("FR", IsoDayOfWeek.Friday),
        ("SA", IsoDayOfWeek.Saturday),
        ("SU", IsoDayOfWeek.Sunday),
    ];

    private static readonly LocalDatePattern DateText = LocalDatePattern.CreateWithInvariantCulture("uuuuMMdd");
    private static readonly LocalDateTimePattern TimeText = LocalDateTimePattern.CreateWithInvariantCulture(
        "uuuuMMdd'T'HHmmss"
    );
    private static readonly InstantPattern InstantText = InstantPattern.CreateWithInvariantCulture(
        "uuuuMMdd'T'HHmmss'Z'"
    );

    /// <summary>Reads the value of an RRULE property. Never throws, whatever the text.</summary>
    public static RuleParse Parse(string text)
    {
        var rule = new RecurrenceRule();
        var seen = new HashSet<string>(StringComparer.Ordinal);
        string? beyond = null;
        var column = 0;
        foreach (var part in text.Split(';'))
        {
            var equals = part.IndexOf('=', StringComparison.Ordinal);
            if (equals < 1)
            {
                return new RuleParse.Bad(column, "NAME=VALUE");
            }

            var name = part[..equals].ToUpperInvariant();
            var value = part[(equals + 1)..].ToUpperInvariant();
            var at = column + equals + 1;
            if (!seen.Add(name))
            {
                return new RuleParse.Bad(column, $"{name} once only");
            }

            switch (name)
            {
                case "FREQ" when value is "SECONDLY" or "MINUTELY" or "HOURLY":
                    beyond = $"FREQ={value}";
                    break;
                case "BYSECOND" or "BYMINUTE" or "BYHOUR" or "BYYEARDAY" or "BYWEEKNO" or "RSCALE" or "SKIP":
                    beyond ??= name;
                    break;
                default:
                    if (rule.With(name, value) is not { } next)
                    {
                        return new RuleParse.Bad(at, Expected(name));
                    }

                    rule = next;
                    break;
            }

            column += part.Length + 1;
        }

        if (!seen.Contains("FREQ"))
        {
            return new RuleParse.Bad(0, "FREQ");
        }

        if (seen.Contains("COUNT") && seen.Contains("UNTIL"))
        {
            return new RuleParse.Bad(
                text.IndexOf("UNTIL", StringComparison.OrdinalIgnoreCase),
                "COUNT or UNTIL, not both"
            );
        }

        return beyond is null ? new RuleParse.Ok(rule) : new RuleParse.NotShown(beyond);
    }

    /// <summary>The rule in canonical form: parts in the order of the standard, INTERVAL=1 and WKST=MO left out.</summary>
    public override string ToString()
    {
        var text = new StringBuilder("FREQ=").Append(Frequency.ToString().ToUpperInvariant());
        text.Append(
            End switch
            {
                SeriesEnd.After after => string.Create(CultureInfo.InvariantCulture, $";COUNT={after.Occurrences}"),
                SeriesEnd.Through through => ";UNTIL=" + DateText.Format(through.LastDay),
                SeriesEnd.ThroughTime through => ";UNTIL=" + TimeText.Format(through.Last),
                SeriesEnd.ThroughInstant through => ";UNTIL=" + InstantText.Format(through.Last),
                _ => string.Empty,
            }
        );
        if (Interval > 1)
        {
            text.Append(CultureInfo.InvariantCulture, $";INTERVAL={Interval}");
        }

        Append(text, "BYMONTH", ByMonth);
        Append(text, "BYMONTHDAY", ByMonthDay);
        Append(text, "BYDAY", ByDay.Select(day => $"{day.Ordinal}{Weekdays[(int)day.Day - 1].Code}"));
        Append(text, "BYSETPOS", BySetPos);
        if (WeekStart != IsoDayOfWeek.Monday)
        {
            text.Append(";WKST=").Append(Weekdays[(int)WeekStart - 1].Code);
        }

        return text.ToString();
    }

    private static void Append<T>(StringBuilder text, string name, IEnumerable<T> values)
    {
        var list = string.Join(',', values);
        if (list.Length > 0)
        {
            text.Append(';').Append(name).Append('=').Append(list);
        }
    }

    private static string Expected(string name) =>
        name switch
        {
            "FREQ" => "SECONDLY to YEARLY",
            "INTERVAL" or "COUNT" => "a whole number from 1",
            "UNTIL" => "a date, or a date and time",
            "BYMONTH" => "months 1 to 12",
            "BYMONTHDAY" => "days 1 to 31 or -1 to -31",
            "BYDAY" => "weekdays MO to SU, with or without a number",
            "BYSETPOS" => "positions 1 to 366 or -1 to -366",
            "WKST" => "a weekday MO to SU",
            _ => "a part of RFC 5545, 3.3.10",
        };

    private RecurrenceRule? With(string name, string value) =>
        name switch
        {
            "FREQ" => value switch
            {
                "DAILY" => this with { Frequency = Frequency.Daily },
                "WEEKLY" => this with { Frequency = Frequency.Weekly },
                "MONTHLY" => this with { Frequency = Frequency.Monthly },
                "YEARLY" => this with { Frequency = Frequency.Yearly },
                _ => null,
            },
            "INTERVAL" => Number(value, 1, 100_000) is { } interval ? this with { Interval = interval } : null,
            "COUNT" => Number(value, 1, int.MaxValue) is { } count
                ? this with
                {
                    End = new SeriesEnd.After(count),
                }
                : null,
            "UNTIL" => Until(value) is { } end ? this with { End = end } : null,
            "BYMONTH" => Numbers(value, 1, 12, signed: false) is { } months ? this with { ByMonth = months } : null,
            "BYMONTHDAY" => Numbers(value, 1, 31, signed: true) is { } days ? this with { ByMonthDay = days } : null,
            "BYSETPOS" => Numbers(value, 1, 366, signed: true) is { } positions
                ? this with
                {
                    BySetPos = positions,
                }
                : null,
            "BYDAY" => Days(value) is { } weekdays ? this with { ByDay = weekdays } : null,
            "WKST" => Weekday(value) is { } first ? this with { WeekStart = first } : null,
            _ => null,
        };

    private static SeriesEnd? Until(string value)
    {
        if (DateText.Parse(value) is { Success: true } date)
        {
            return new SeriesEnd.Through(date.Value);
        }

        if (InstantText.Parse(value) is { Success: true } instant)
        {
            return new SeriesEnd.ThroughInstant(instant.Value);
        }

        return TimeText.Parse(value) is { Success: true } time ? new SeriesEnd.ThroughTime(time.Value) : null;
    }

    private static int? Number(string value, int least, int most) =>
        int.TryParse(value, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var number)
        && number >= least
        && number <= most
            ? number
            : null;

    private static int[]? Numbers(string value, int least, int most, bool signed)
    {
        var numbers = value.Split(',').Select(one => Number(one, signed ? -most : least, most)).ToArray();
        return numbers.All(number => number is { } n && Math.Abs(n) >= least)
            ? [.. numbers.Select(n => n!.Value)]
            : null;
    }

    private static IsoDayOfWeek? Weekday(string code) =>
        Array.FindIndex(Weekdays, day => day.Code == code) is var index and >= 0 ? Weekdays[index].Day : null;

    private static NthWeekday[]? Days(string value)
    {
        var days = new List<NthWeekday>();
        foreach (var one in value.Split(','))
        {
            if (one.Length < 2 || Weekday(one[^2..]) is not { } weekday)
            {
                return null;
            }

            if (one.Length == 2)
            {
                days.Add(new NthWeekday(null, weekday));
            }
            else if (Number(one[..^2], -53, 53) is { } ordinal and not 0)
            {
                days.Add(new NthWeekday(ordinal, weekday));
            }
            else
            {
                return null;
            }
        }

        return [.. days];
    }
}
