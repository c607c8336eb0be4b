using CsCheck;
using Mortar.Core.Recurrence;
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
    [InlineData("FREQ=DAILY;UNTIL=20260101;COUNT=2", 26, "COUNT or UNTIL, not both")]
    [InlineData("FREQ=DAILY;BYHOUR=8,24", 20, "hours 0 to 23")]
    [InlineData("FREQ=DAILY;BYMINUTE=60", 20, "minutes 0 to 59")]
    [InlineData("FREQ=DAILY;BYSECOND=61", 20, "seconds 0 to 60")]
    [InlineData("FREQ=YEARLY;BYMONTH=1,13,2", 22, "months 1 to 12")] // the one that is wrong, not the list
    [InlineData("FREQ=YEARLY;BYYEARDAY=367", 22, "days 1 to 366 or -1 to -366")]
    [InlineData("FREQ=YEARLY;BYWEEKNO=54", 21, "weeks 1 to 53 or -1 to -53")]
    [InlineData("FREQ=MONTHLY;BYDAY=MO,54TU", 22, "weekdays MO to SU, with or without a number")]
    [InlineData("FREQ=MONTHLY;BYWEEKNO=20", 13, "BYWEEKNO with FREQ=YEARLY only")]
    [InlineData("FREQ=MONTHLY;BYYEARDAY=20", 13, "no BYYEARDAY with FREQ=MONTHLY")]
    [InlineData("FREQ=WEEKLY;BYMONTHDAY=20", 12, "no BYMONTHDAY with FREQ=WEEKLY")]
    [InlineData("FREQ=WEEKLY;BYDAY=1MO", 12, "weekdays without numbers with FREQ=WEEKLY")]
    [InlineData("FREQ=YEARLY;BYWEEKNO=20;BYDAY=1MO", 24, "weekdays without numbers beside BYWEEKNO")]
    [InlineData("FREQ=YEARLY;BYSETPOS=1", 12, "another BY… part beside BYSETPOS")]
    [InlineData("FREQ=MONTHLY;SKIP=BACKWARD", 13, "RSCALE=GREGORIAN beside SKIP")]
    [InlineData("RSCALE=GREGORIAN;FREQ=MONTHLY;SKIP=UP", 35, "OMIT, BACKWARD or FORWARD")]
    [InlineData("FREQ=DAILY;;COUNT=2", 11, "NAME=VALUE")]
    [InlineData("FREQ=DAILY;;", 11, "NAME=VALUE")]
    [InlineData(";", 0, "NAME=VALUE")]
    [InlineData("FREQ=DAILY;BYMOON=full", 11, "a part of RFC 5545, 3.3.10")]
    public void A_wrong_rule_says_where_and_what_was_expected(string text, int column, string expected) =>
        Assert.Equal(new RuleParse.Bad(column, expected), RecurrenceRule.Parse(text));

    [Theory]
    [InlineData("RSCALE=HEBREW;FREQ=YEARLY;BYMONTH=5L;BYMONTHDAY=8;SKIP=FORWARD", "RSCALE=HEBREW")]
    [InlineData("RSCALE=CHINESE;FREQ=YEARLY", "RSCALE=CHINESE")]
    [InlineData("FREQ=YEARLY;BYMONTH=5L;RSCALE=HEBREW", "RSCALE=HEBREW")]
    public void A_rule_in_another_calendar_is_told_apart_from_a_wrong_one(string text, string part) =>
        Assert.Equal(new RuleParse.NotShown(part), RecurrenceRule.Parse(text));

    [Theory]
    [InlineData("freq=weekly;byday=tu", "FREQ=WEEKLY;BYDAY=TU")]
    [InlineData("INTERVAL=1;FREQ=DAILY", "FREQ=DAILY")]
    [InlineData("FREQ=WEEKLY;BYDAY=MO;", "FREQ=WEEKLY;BYDAY=MO")] // common in files
    [InlineData("WKST=MO;FREQ=DAILY;UNTIL=19971224T000000Z", "FREQ=DAILY;UNTIL=19971224T000000Z")]
    [InlineData("FREQ=MONTHLY;BYDAY=+1FR,-1SU;WKST=SU", "FREQ=MONTHLY;BYDAY=1FR,-1SU;WKST=SU")]
    [InlineData("FREQ=DAILY;UNTIL=20260101T100000", "FREQ=DAILY;UNTIL=20260101T100000")]
    [InlineData("FREQ=DAILY;UNTIL=20260101", "FREQ=DAILY;UNTIL=20260101")]
    [InlineData("FREQ=YEARLY;BYMONTHDAY=-1,13,1,13;BYMONTH=10,3", "FREQ=YEARLY;BYMONTH=3,10;BYMONTHDAY=1,13,-1")]
    [InlineData("FREQ=DAILY;BYSECOND=0;BYHOUR=16,9", "FREQ=DAILY;BYHOUR=9,16;BYSECOND=0")]
    [InlineData("RSCALE=GREGORIAN;FREQ=DAILY;SKIP=OMIT", "FREQ=DAILY")]
    [InlineData("SKIP=FORWARD;FREQ=MONTHLY;RSCALE=GREGORIAN", "RSCALE=GREGORIAN;FREQ=MONTHLY;SKIP=FORWARD")]
    public void Writing_is_canonical(string text, string canonical) =>
        Assert.Equal(canonical, Assert.IsType<RuleParse.Ok>(RecurrenceRule.Parse(text)).Rule.ToString());

    [Fact]
    public void Reading_what_was_written_gives_the_same_rule() =>
        AnyRule.Any.Sample(text =>
        {
            var rule = RecurrenceRule.Of(text);
            return RecurrenceRule.Parse(rule.ToString()) is RuleParse.Ok again
                && again.Rule.Equals(rule)
                && again.Rule.ToString() == rule.ToString();
        });

    [Fact]
    public void No_text_makes_reading_throw() =>
        Gen.String[Gen.Char["FREQ=DAILYWKMOTUINTERVAL;,:+-0123456789\r\n\0é"], 0, 40]
            .Sample(text => RecurrenceRule.Parse(text) is not null);

    [Fact]
    public void A_rule_written_in_code_has_to_be_one() =>
        Assert.Throws<ArgumentException>(() => RecurrenceRule.Of("FREQ=FORTNIGHTLY"));
}
