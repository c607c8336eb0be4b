using System.Diagnostics;
using System.Globalization;
using CsCheck;
using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Recurrence;

/// <summary>The walk against the plain reading of the standard, and what always holds of it.</summary>
public class RuleWalkTests
{
    private static readonly Gen<LocalDateTime> AnyStart =
        from day in Gen.Int[0, 1_500]
        from second in Gen.Frequency((2, Gen.Int[0, 23].Select(hour => hour * 3600)), (1, Gen.Int[0, 86_399]))
        select new LocalDateTime(2023, 1, 1, 0, 0).PlusDays(day).PlusSeconds(second);

    [Fact]
    public void Days_and_longer_are_what_the_plain_reading_finds() =>
        Gen.Select(AnyRule.Times, AnyStart).Sample((text, start) => Same(text, start, start.PlusYears(7)), iter: 3_000);

    [Fact]
    public void Hours_minutes_and_seconds_are_what_the_plain_reading_finds() =>
        Gen.Select(AnyRule.WithinDays, AnyStart)
            .Sample((text, start) => Same(text, start, start.PlusHours(60)), iter: 300);

    [Fact]
    public void Whatever_is_drawn_also_falls_somewhere_often_enough_to_prove_something()
    {
        var (falling, all) = (0, 0);
        Gen.Select(AnyRule.Times, AnyStart)
            .Sample(
                (text, start) =>
                {
                    all++;
                    falling += RecurrenceRule.Of(text).Starts(start, start).Take(3).Count() == 3 ? 1 : 0;
                },
                iter: 500,
                threads: 1
            );

        Assert.True(falling > all / 2, $"{falling} of {all}");
    }

    /// <summary>
    /// A position that no step has: the first set of RFC 5545's BYSETPOS that is empty is as all others. Looked for step by
    /// step, the first of these took 336 s to be found not to be there.
    /// </summary>
    [Theory]
    [InlineData("FREQ=MINUTELY;COUNT=366;BYDAY=MO;BYSETPOS=-283,32")]
    [InlineData("FREQ=HOURLY;COUNT=10;BYMINUTE=58;BYSETPOS=206")]
    [InlineData("FREQ=SECONDLY;COUNT=1940;BYMONTHDAY=18;BYSETPOS=13,-230,119")]
    [InlineData("FREQ=DAILY;COUNT=3;BYHOUR=9,10;BYSETPOS=3")]
    public void What_no_step_has_is_known_without_looking(string text)
    {
        var start = new LocalDateTime(2026, 3, 11, 9, 0);

        Assert.Empty(RecurrenceRule.Of(text).Starts(start, start));
    }

    [Theory]
    [InlineData("FREQ=HOURLY;COUNT=3;BYMINUTE=10,58;BYSETPOS=2", "09:58 10:58")] // the start is the first
    [InlineData("FREQ=DAILY;COUNT=2;BYHOUR=9,10;BYSETPOS=-2", "09:00 09:00")]
    public void What_each_step_has_is_picked(string text, string times)
    {
        var start = new LocalDateTime(2026, 3, 11, 9, 0);

        Assert.Equal(
            times,
            string.Join(
                ' ',
                RecurrenceRule
                    .Of(text)
                    .Starts(start, start)
                    .Take(times.Split(' ').Length)
                    .Select(at => at.ToString("HH:mm", CultureInfo.InvariantCulture))
            )
        );
    }

    [Fact]
    public void A_late_window_is_the_rest_of_the_whole() =>
        Gen.Select(AnyRule.Times, AnyStart, Gen.Int[0, 4_000])
            .Sample(
                (text, start, days) =>
                {
                    var rule = RecurrenceRule.Of(text);
                    var from = start.PlusDays(days).PlusHours(5);
                    return rule.Starts(start, from)
                        .Take(12)
                        .SequenceEqual(rule.Starts(start, start).SkipWhile(one => one < from).Take(12));
                },
                iter: 2_000
            );

    /// <summary>Counts that end in a later step, at its edges, and far away, for rules with equal and unequal steps.</summary>
    [Fact]
    public void A_count_stops_where_counting_stops() =>
        Gen.Select(AnyRule.Times, AnyStart, Gen.OneOf(Gen.Int[1, 12], Gen.Int[1, 300]))
            .Sample(
                (text, start, count) =>
                {
                    var rule = RecurrenceRule.Of(text).Ending(new SeriesEnd.Never());
                    var counted = rule.Ending(new SeriesEnd.After(count)).Starts(start, start).ToList();
                    var all = rule.Starts(start, start).Take(count).ToList();
                    return counted.SequenceEqual(all.FirstOrDefault() == start ? all : all.Take(count - 1));
                },
                iter: 1_500
            );

    /// <summary>What a rule remembers of its counting must not depend on who asked before, for what.</summary>
    [Fact]
    public void A_count_does_not_depend_on_what_was_asked_before() =>
        Gen.Select(AnyRule.Times, AnyStart, Gen.Int[1, 60], Gen.Int[0, 1_500].Array[1, 6])
            .Sample(
                (text, start, count, asked) =>
                {
                    var counting = RecurrenceRule.Of(text).Ending(new SeriesEnd.After(count));
                    return asked.All(days =>
                        Until(counting, days).SequenceEqual(Until(RecurrenceRule.Of(counting.ToString()), days))
                    );

                    List<long> Until(RecurrenceRule rule, int days)
                    {
                        var walk = new RuleWalk(rule.Plan, CivilDays.Second(start), wholeDays: false);
                        walk.Seek(
                            CivilDays.Second(start.PlusDays(days - 30)),
                            CivilDays.Second(start.PlusDays(days)),
                            clock: null
                        );
                        var found = new List<long>();
                        while (found.Count < 40 && walk.MoveNext())
                        {
                            found.Add(walk.Current);
                        }

                        return found;
                    }
                },
                iter: 1_500
            );

    [Theory]
    [InlineData("FREQ=MONTHLY;BYMONTHDAY=31")]
    [InlineData("FREQ=MONTHLY")]
    [InlineData("FREQ=YEARLY;BYMONTH=1,3,5,7,8,10,12;BYMONTHDAY=31")]
    public void Backward_is_the_last_day_of_every_month_it_names(string rule)
    {
        var start = new LocalDateTime(2024, 1, 31, 18, 0);
        var months = RecurrenceRule.Of(rule).ByMonth;

        var found = RecurrenceRule.Of($"RSCALE=GREGORIAN;{rule};SKIP=BACKWARD").Starts(start, start).Take(200);

        var last = RecurrenceRule.Of("FREQ=MONTHLY;BYMONTHDAY=-1").Starts(start, start);
        Assert.Equal(last.Where(one => months.IsEmpty || months.Contains(one.Month)).Take(200), found);
    }

    [Theory]
    [InlineData("FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30")]
    [InlineData("FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30")]
    [InlineData("FREQ=MONTHLY;INTERVAL=12;BYMONTHDAY=31")] // from April on
    [InlineData("FREQ=HOURLY;INTERVAL=2;BYHOUR=9")] // from ten o'clock on
    [InlineData("FREQ=SECONDLY;INTERVAL=2;BYSECOND=1")]
    [InlineData("FREQ=SECONDLY;INTERVAL=7200;BYHOUR=9")]
    [InlineData("FREQ=SECONDLY;BYMONTH=2;BYMONTHDAY=30;BYHOUR=1,3,5;BYMINUTE=7")]
    [InlineData("FREQ=MINUTELY;INTERVAL=86400;BYMONTH=3;BYDAY=TU")] // every 60 days, and so on
    [InlineData("FREQ=DAILY;BYHOUR=1;BYSETPOS=50")]
    public void A_rule_that_never_matches_or_hardly_ends_promptly(string rule)
    {
        var start = new LocalDateTime(2026, 4, 30, 10, 0);
        var watch = Stopwatch.StartNew();

        var found = RecurrenceRule.Of(rule).Starts(start, start).Take(2_000).Count();

        // Eight thousand years are looked through; a bound that even a busy machine keeps, where a scan of seconds takes hours.
        Assert.True(watch.Elapsed < TimeSpan.FromSeconds(20), $"{found} after {watch.Elapsed}");
    }

    [Fact]
    public void Every_second_without_end_costs_what_is_consumed()
    {
        var start = new LocalDateTime(1997, 9, 2, 9, 0);
        var late = new LocalDateTime(2026, 3, 9, 0, 0);

        var found = RecurrenceRule.Of("FREQ=SECONDLY").Starts(start, late).Take(3).ToList();

        Assert.Equal([late, late.PlusSeconds(1), late.PlusSeconds(2)], found);
    }

    [Fact]
    public void A_rule_ends_with_the_calendar()
    {
        var start = new LocalDateTime(9998, 12, 31, 9, 0);

        var found = RecurrenceRule.Of("FREQ=YEARLY").Starts(start, start).ToList();

        Assert.Equal([start, start.PlusYears(1)], found);
    }

    [Fact]
    public void Starts_come_in_order_and_once() =>
        Gen.Select(AnyRule.Any, AnyStart)
            .Sample(
                (text, start) =>
                {
                    var starts = RecurrenceRule.Of(text).Starts(start, start).Take(60).ToList();
                    return starts.Zip(starts.Skip(1)).All(pair => pair.First < pair.Second);
                },
                iter: 1_000
            );

    private static bool Same(string text, LocalDateTime start, LocalDateTime until)
    {
        var rule = RecurrenceRule.Of(text);
        if (rule.End is not SeriesEnd.After and not SeriesEnd.Never)
        {
            rule = rule.Ending(new SeriesEnd.Never());
        }

        return rule.Starts(start, start)
            .TakeWhile(one => one <= until)
            .SequenceEqual(PlainRule.Starts(rule, start, until));
    }
}
