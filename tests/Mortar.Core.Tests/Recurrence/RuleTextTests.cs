using CsCheck;
using Mortar.Core.Recurrence;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Recurrence;

public class RuleTextTests
{
    [Theory]
    [InlineData("", 0, "NAME=VALUE")]
    [InlineData("COUNT=3", 0, "FREQ")]
    [InlineData("FREQ=FORTNIGHTLY", 5, "SECONDLY to YEARLY")]
    [InlineData("FREQ=DAILY;INTERVAL=0", 20, "a whole number from 1")]
    [InlineData("FREQ=DAILY;INTERVAL=x", 20, "a whole number from 1")]
    [InlineData("FREQ=DAILY;COUNT=-1", 17, "a whole number from 1")]
    [InlineData("FREQ=DAILY;UNTIL=soon", 17, "a date, or a date and time")]
    [InlineData("FREQ=DAILY;UNTIL=20260230", 17, "a date, or a date and time")]
    [InlineData("FREQ=MONTHLY;BYMONTHDAY=0", 24, "days 1 to 31 or -1 to -31")]
    [InlineData("FREQ=MONTHLY;BYMONTHDAY=32", 24, "days 1 to 31 or -1 to -31")]
    [InlineData("FREQ=YEARLY;BYMONTH=13", 20, "months 1 to 12")]
    [InlineData("FREQ=YEARLY;BYMONTH=-1", 20, "months 1 to 12")]
    [InlineData("FREQ=WEEKLY;BYDAY=XX", 18, "weekdays MO to SU, with or without a number")]
    [InlineData("FREQ=MONTHLY;BYDAY=0MO", 19, "weekdays MO to SU, with or without a number")]
    [InlineData("FREQ=DAILY;FREQ=DAILY", 11, "FREQ once only")]
    [InlineData("FREQ=DAILY;COUNT=2;UNTIL=20260101", 19, "COUNT or UNTIL, not both")]
    [InlineData("FREQ=DAILY;;COUNT=2", 11, "NAME=VALUE")]
    [InlineData("FREQ=DAILY;BYMOON=full", 18, "a part of RFC 5545, 3.3.10")]
    public void A_wrong_rule_says_where_and_what_was_expected(string text, int column, string expected) =>
        Assert.Equal(new RuleParse.Bad(column, expected), RecurrenceRule.Parse(text));

    [Theory]
    [InlineData("FREQ=HOURLY;INTERVAL=3", "FREQ=HOURLY")]
    [InlineData("FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO", "BYWEEKNO")]
    [InlineData("FREQ=YEARLY;BYYEARDAY=1,100,200", "BYYEARDAY")]
    [InlineData("FREQ=DAILY;BYHOUR=9,10", "BYHOUR")]
    [InlineData("RSCALE=GREGORIAN;FREQ=MONTHLY;SKIP=BACKWARD", "RSCALE")]
    public void A_rule_that_is_not_computed_yet_is_told_apart_from_a_wrong_one(string text, string part) =>
        Assert.Equal(new RuleParse.NotShown(part), RecurrenceRule.Parse(text));

    [Theory]
    [InlineData("freq=weekly;byday=tu", "FREQ=WEEKLY;BYDAY=TU")]
    [InlineData("INTERVAL=1;FREQ=DAILY", "FREQ=DAILY")]
    [InlineData("WKST=MO;FREQ=DAILY;UNTIL=19971224T000000Z", "FREQ=DAILY;UNTIL=19971224T000000Z")]
    [InlineData("FREQ=MONTHLY;BYDAY=+1FR,-1SU;WKST=SU", "FREQ=MONTHLY;BYDAY=1FR,-1SU;WKST=SU")]
    [InlineData("FREQ=DAILY;UNTIL=20260101T100000", "FREQ=DAILY;UNTIL=20260101T100000")]
    [InlineData("FREQ=DAILY;UNTIL=20260101", "FREQ=DAILY;UNTIL=20260101")]
    public void Writing_is_canonical(string text, string canonical) =>
        Assert.Equal(canonical, Assert.IsType<RuleParse.Ok>(RecurrenceRule.Parse(text)).Rule.ToString());

    [Fact]
    public void Reading_what_was_written_gives_the_same_rule() =>
        AnyRule.Sample(text =>
        {
            var rule = ((RuleParse.Ok)RecurrenceRule.Parse(text)).Rule;
            return RecurrenceRule.Parse(rule.ToString()) is RuleParse.Ok again && again.Rule.Equals(rule);
        });

    [Fact]
    public void No_text_makes_reading_throw() =>
        Gen.String[Gen.Char["FREQ=DAILYWKMOTUINTERVAL;,:+-0123456789\r\n\0é"], 0, 40]
            .Sample(text => RecurrenceRule.Parse(text) is not null);

    [Fact]
    public void A_rule_that_never_matches_ends_promptly()
    {
        var rule = Assert.IsType<RuleParse.Ok>(RecurrenceRule.Parse("FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30")).Rule;

        var days = rule.Days(new LocalDate(2026, 1, 1), new LocalDate(2026, 1, 1));

        Assert.Empty(days);
    }

    [Fact]
    public void Days_come_in_order_and_once() =>
        AnyRule.Sample(text =>
        {
            var start = new LocalDate(2025, 1, 31);
            var days = ((RuleParse.Ok)RecurrenceRule.Parse(text)).Rule.Days(start, start).Take(60).ToList();
            return days.Zip(days.Skip(1)).All(pair => pair.First < pair.Second);
        });

    internal static readonly Gen<string> AnyRule =
        from frequency in Gen.OneOfConst("DAILY", "WEEKLY", "MONTHLY", "YEARLY")
        from interval in Gen.Int[1, 5]
        from end in Gen.OneOfConst(string.Empty, ";COUNT=7", ";UNTIL=20261224", ";UNTIL=20261224T100000Z")
        from days in Gen.OneOfConst(string.Empty, ";BYDAY=MO", ";BYDAY=TU,TH,SU")
        from monthDay in Gen.OneOfConst(string.Empty, ";BYMONTHDAY=1", ";BYMONTHDAY=13,-1")
        from month in Gen.OneOfConst(string.Empty, ";BYMONTH=2", ";BYMONTH=3,10")
        select $"FREQ={frequency};INTERVAL={interval}{end}{month}{(frequency == "WEEKLY" ? string.Empty : monthDay)}{days}";
}
