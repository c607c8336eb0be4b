using System.Collections.Immutable;
using System.Globalization;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Core.Recurrence;

/// <content>Reading a rule's text: part by part, each value with its place, and then what the parts forbid each other.</content>
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

    private sealed class Reader(string text)
    {
        /// <summary>Where each part begins, by its name.</summary>
        private readonly Dictionary<string, int> places = new(StringComparer.Ordinal);

        private RecurrenceRule rule = new();
        private RuleParse.Bad? wrong;
        private string? foreignScale;

        public RuleParse Read()
        {
            var column = 0;
            // Files often end a rule with one “;” more than it has parts to part.
            var whole = text.Length > 1 && text[^1] == ';' ? text[..^1] : text;
            foreach (var part in whole.Split(';'))
            {
                ReadPart(part.ToUpperInvariant(), column);
                column += part.Length + 1;
            }

            if (foreignScale is not null)
            {
                return new RuleParse.NotShown($"RSCALE={foreignScale}");
            }

            return (wrong ?? Forbidden()) is { } bad ? bad : new RuleParse.Ok(rule);
        }

        private void ReadPart(string part, int column)
        {
            var equals = part.IndexOf('=', StringComparison.Ordinal);
            if (equals < 1)
            {
                wrong ??= new RuleParse.Bad(column, "NAME=VALUE");
                return;
            }

            var name = part[..equals];
            var value = part[(equals + 1)..];
            if (!places.TryAdd(name, column))
            {
                wrong ??= new RuleParse.Bad(column, $"{name} once only");
                return;
            }

            var at = column + equals + 1;
            rule = name switch
            {
                "FREQ" => rule with { Frequency = ReadFrequency(value, at) },
                "INTERVAL" => rule with { Interval = Number(value, at, 1, 1_000_000_000, "a whole number from 1") },
                "COUNT" => rule with
                {
                    End = new SeriesEnd.After(Number(value, at, 1, int.MaxValue, "a whole number from 1")),
                },
                "UNTIL" => rule with { End = Until(value, at) },
                "BYMONTH" => rule with { ByMonth = Numbers(value, at, 1, 12, "months 1 to 12") },
                "BYWEEKNO" => rule with { ByWeekNo = Signed(value, at, 53, "weeks 1 to 53 or -1 to -53") },
                "BYYEARDAY" => rule with { ByYearDay = Signed(value, at, 366, "days 1 to 366 or -1 to -366") },
                "BYMONTHDAY" => rule with { ByMonthDay = Signed(value, at, 31, "days 1 to 31 or -1 to -31") },
                "BYDAY" => rule with { ByDay = Days(value, at) },
                "BYHOUR" => rule with { ByHour = Numbers(value, at, 0, 23, "hours 0 to 23") },
                "BYMINUTE" => rule with { ByMinute = Numbers(value, at, 0, 59, "minutes 0 to 59") },
                "BYSECOND" => rule with { BySecond = Numbers(value, at, 0, 60, "seconds 0 to 60") },
                "BYSETPOS" => rule with { BySetPos = Signed(value, at, 366, "positions 1 to 366 or -1 to -366") },
                "WKST" => rule with { WeekStart = Weekday(value, at, "a weekday MO to SU") },
                "RSCALE" => Scale(value),
                "SKIP" => rule with { Skip = ReadSkip(value, at) },
                _ => Fail(rule, column, "a part of RFC 5545, 3.3.10"),
            };
        }

        /// <summary>What RFC 5545, 3.3.10 and RFC 7529, 4.1 say must not stand together, at the part that is too much.</summary>
        private RuleParse.Bad? Forbidden()
        {
            var frequency = rule.Frequency;
            if (!places.ContainsKey("FREQ"))
            {
                return new RuleParse.Bad(0, "FREQ");
            }

            if (places.ContainsKey("COUNT") && places.ContainsKey("UNTIL"))
            {
                return At(places["COUNT"] > places["UNTIL"] ? "COUNT" : "UNTIL", "COUNT or UNTIL, not both");
            }

            if (places.ContainsKey("SKIP") && !places.ContainsKey("RSCALE"))
            {
                return At("SKIP", "RSCALE=GREGORIAN beside SKIP");
            }

            if (!rule.ByWeekNo.IsEmpty && frequency != Frequency.Yearly)
            {
                return At("BYWEEKNO", "BYWEEKNO with FREQ=YEARLY only");
            }

            if (!rule.ByYearDay.IsEmpty && frequency is (Frequency.Daily or Frequency.Weekly or Frequency.Monthly))
            {
                return At("BYYEARDAY", $"no BYYEARDAY with FREQ={Name(frequency)}");
            }

            if (!rule.ByMonthDay.IsEmpty && frequency == Frequency.Weekly)
            {
                return At("BYMONTHDAY", "no BYMONTHDAY with FREQ=WEEKLY");
            }

            if (rule.ByDay.Any(day => day.Ordinal is not null))
            {
                if (frequency is not (Frequency.Monthly or Frequency.Yearly))
                {
                    return At("BYDAY", $"weekdays without numbers with FREQ={Name(frequency)}");
                }

                if (!rule.ByWeekNo.IsEmpty)
                {
                    return At("BYDAY", "weekdays without numbers beside BYWEEKNO");
                }
            }

            return
                !rule.BySetPos.IsEmpty
                && !places.Keys.Any(name => name is not "BYSETPOS" && name.StartsWith("BY", StringComparison.Ordinal))
                ? At("BYSETPOS", "another BY… part beside BYSETPOS")
                : null;
        }

        private RuleParse.Bad At(string part, string expected) => new(places[part], expected);

        private T Fail<T>(T value, int column, string expected)
        {
            wrong ??= new RuleParse.Bad(column, expected);
            return value;
        }

        private RecurrenceRule Scale(string value)
        {
            foreignScale = value == "GREGORIAN" ? null : value;
            return rule;
        }

        private Frequency ReadFrequency(string value, int at) =>
            Array.FindIndex(Enum.GetValues<Frequency>(), frequency => Name(frequency) == value) is var index and >= 0
                ? (Frequency)index
                : Fail(Frequency.Daily, at, "SECONDLY to YEARLY");

        private Skip ReadSkip(string value, int at) =>
            value switch
            {
                "OMIT" => Skip.Omit,
                "BACKWARD" => Skip.Backward,
                "FORWARD" => Skip.Forward,
                _ => Fail(Skip.Omit, at, "OMIT, BACKWARD or FORWARD"),
            };

        private SeriesEnd Until(string value, int at)
        {
            if (DateText.Parse(value) is { Success: true } date)
            {
                return new SeriesEnd.Through(date.Value);
            }

            if (InstantText.Parse(value) is { Success: true } instant)
            {
                return new SeriesEnd.ThroughInstant(instant.Value);
            }

            return TimeText.Parse(value) is { Success: true } time
                ? new SeriesEnd.ThroughTime(time.Value)
                : Fail<SeriesEnd>(new SeriesEnd.Never(), at, "a date, or a date and time");
        }

        private int Number(string value, int at, int least, int most, string expected) =>
            int.TryParse(value, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var number)
            && number >= least
            && number <= most
                ? number
                : Fail(least, at, expected);

        private ImmutableArray<int> Numbers(string value, int at, int least, int most, string expected) =>
            Items(value, at, (one, column) => Number(one, column, least, most, expected), Place);

        private ImmutableArray<int> Signed(string value, int at, int most, string expected) =>
            Items(
                value,
                at,
                (one, column) =>
                    Number(one, column, -most, most, expected) is var number && number != 0
                        ? number
                        : Fail(1, column, expected),
                Place
            );

        private ImmutableArray<NthWeekday> Days(string value, int at)
        {
            const string Expected = "weekdays MO to SU, with or without a number";
            return Items(value, at, Day, day => ((int)day.Day * 1_000) + Place(day.Ordinal ?? 0));

            NthWeekday Day(string one, int column)
            {
                if (one.Length < 2)
                {
                    return Fail(default(NthWeekday), column, Expected);
                }

                var weekday = Weekday(one[^2..], column, Expected);
                return one.Length == 2 ? new NthWeekday(null, weekday)
                    : Number(one[..^2], column, -53, 53, Expected) is var ordinal && ordinal != 0
                        ? new NthWeekday(ordinal, weekday)
                    : Fail(default(NthWeekday), column, Expected);
            }
        }

        private IsoDayOfWeek Weekday(string code, int at, string expected) =>
            Array.FindIndex(Weekdays, day => day.Code == code) is var index and >= 0
                ? Weekdays[index].Day
                : Fail(IsoDayOfWeek.Monday, at, expected);

        /// <summary>From 0 upwards, then the negative ones from -1 downwards.</summary>
        private static int Place(int number) => number >= 0 ? number : 500 - number;

        private static ImmutableArray<T> Items<T>(string list, int at, Func<string, int, T> read, Func<T, int> place)
        {
            var items = new List<T>();
            foreach (var one in list.Split(','))
            {
                items.Add(read(one, at));
                at += one.Length + 1;
            }

            return items.Count == 1 ? [items[0]] : [.. items.Distinct().OrderBy(place)];
        }
    }
}
