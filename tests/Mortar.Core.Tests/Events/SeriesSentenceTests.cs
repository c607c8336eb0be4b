using Mortar.Core.Events;
using Mortar.Core.Time;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Events;

public class SeriesSentenceTests
{
    private static readonly LocalDateTime Thursday19 = new(2026, 2, 19, 19, 0);

    [Theory]
    [InlineData("FREQ=WEEKLY", "every Thursday at 19:00")]
    [InlineData("FREQ=WEEKLY;INTERVAL=2;UNTIL=20260618", "every second Thursday at 19:00 until 18 June")]
    [InlineData("FREQ=WEEKLY;INTERVAL=2;UNTIL=20270618", "every second Thursday at 19:00 until 18 June 2027")]
    [InlineData("FREQ=WEEKLY;UNTIL=20260618T180000Z", "every Thursday at 19:00 until 18 June")] // 19:00 in London
    [InlineData("FREQ=WEEKLY;UNTIL=20260618T233000Z", "every Thursday at 19:00 until 18 June")] // over before 19:00 of the 19th
    [InlineData("FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR", "every weekday at 19:00")]
    [InlineData("FREQ=WEEKLY;INTERVAL=2;BYDAY=TU,TH", "every second week on Tuesday and Thursday at 19:00")]
    [InlineData("FREQ=WEEKLY;INTERVAL=3;BYDAY=TU,TH", "every 3 weeks on Tuesday and Thursday at 19:00")]
    [InlineData("FREQ=WEEKLY;BYDAY=TH;BYMONTH=6,7,8", "every Thursday in June, July and August at 19:00")]
    [InlineData(
        "FREQ=WEEKLY;BYDAY=TU,TH;BYSETPOS=-1",
        "every Tuesday and Thursday at 19:00, only the last of each week"
    )]
    [InlineData("FREQ=DAILY;COUNT=10", "every day at 19:00, 10 times")]
    [InlineData("FREQ=DAILY;COUNT=1", "every day at 19:00, once")]
    [InlineData("FREQ=DAILY;BYMONTH=1", "every day in January at 19:00")]
    [InlineData("FREQ=DAILY;BYDAY=MO,WE", "every Monday and Wednesday at 19:00")]
    [InlineData("FREQ=DAILY;INTERVAL=3;BYDAY=SA,SU", "every 3 days if it is a Saturday or Sunday at 19:00")]
    [InlineData("FREQ=DAILY;BYDAY=FR;BYMONTHDAY=13", "every Friday that is the 13th of the month at 19:00")]
    [InlineData("FREQ=DAILY;BYMONTHDAY=1,-1", "every day if it is the 1st or last day of the month at 19:00")]
    [InlineData("FREQ=DAILY;BYHOUR=9,14;BYMINUTE=0,30", "every day at 09:00, 09:30, 14:00 and 14:30")]
    [InlineData(
        "FREQ=DAILY;BYHOUR=9,10,11,12,13,14,15,16;BYMINUTE=0,20,40",
        "every day at 24 times from 09:00 to 16:40"
    )]
    [InlineData("FREQ=MONTHLY", "every month on the 19th at 19:00")]
    [InlineData("FREQ=MONTHLY;INTERVAL=2;BYMONTHDAY=31", "every second month on the 31st at 19:00")]
    [InlineData(
        "RSCALE=GREGORIAN;FREQ=MONTHLY;BYMONTHDAY=31;SKIP=BACKWARD",
        "every month on the 31st at 19:00, or the last day of a shorter month"
    )]
    [InlineData(
        "RSCALE=GREGORIAN;FREQ=MONTHLY;BYMONTHDAY=31;SKIP=FORWARD",
        "every month on the 31st at 19:00, or the first day after a shorter month"
    )]
    [InlineData("FREQ=MONTHLY;BYDAY=-1FR", "every month on the last Friday at 19:00")]
    [InlineData(
        "FREQ=MONTHLY;BYDAY=1SU,-2SU",
        "every month on the first Sunday and the second-to-last Sunday at 19:00"
    )]
    [InlineData("FREQ=MONTHLY;BYDAY=TU", "every month on every Tuesday at 19:00")]
    [InlineData("FREQ=MONTHLY;BYMONTHDAY=1,-1", "every month on the 1st and last day at 19:00")]
    [InlineData("FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13", "every month on the 13th if it is a Friday at 19:00")]
    [InlineData("FREQ=MONTHLY;BYDAY=MO,TU;BYSETPOS=-1", "every month on the last Monday or Tuesday at 19:00")]
    [InlineData("FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-2", "every month on the second-to-last weekday at 19:00")]
    [InlineData("FREQ=MONTHLY;BYMONTH=3,10;BYMONTHDAY=1", "every month in March and October on the 1st at 19:00")]
    [InlineData("FREQ=YEARLY", "every year on 19 February at 19:00")]
    [InlineData("FREQ=YEARLY;BYMONTH=6,7", "every year on 19 June and 19 July at 19:00")]
    [InlineData("FREQ=YEARLY;BYMONTH=3;BYDAY=TH", "every year on every Thursday of March at 19:00")]
    [InlineData("FREQ=YEARLY;BYDAY=20MO", "every year on the 20th Monday of the year at 19:00")]
    [InlineData("FREQ=YEARLY;BYMONTHDAY=13", "every year on the 13th of every month at 19:00")]
    [InlineData("FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO", "every year on Monday of week 20 at 19:00")]
    [InlineData("FREQ=YEARLY;BYWEEKNO=20", "every year on Thursday of week 20 at 19:00")]
    [InlineData(
        "FREQ=YEARLY;INTERVAL=3;BYYEARDAY=1,100,-1",
        "every 3 years on the 1st day, the 100th day and the last day of the year at 19:00"
    )]
    [InlineData("FREQ=HOURLY;INTERVAL=3", "every 3 hours")]
    [InlineData("FREQ=MINUTELY;INTERVAL=20;BYHOUR=9,10", "every 20 minutes in the hours from 09:00 and 10:00")]
    [InlineData(
        "FREQ=HOURLY;BYMINUTE=0,30;BYDAY=MO,TU;BYMONTH=5",
        "every hour at minutes 0 and 30 on Mondays and Tuesdays in May"
    )]
    [InlineData("FREQ=SECONDLY", "every second")]
    public void A_rule_is_said_as_people_say_it(string rule, string sentence) =>
        Assert.Equal(sentence, Sentence(Studio.Every(rule)));

    [Fact]
    public void Whole_days_have_no_time_of_day() =>
        Assert.Equal(
            "every second Thursday",
            SeriesSentence.For(
                EventTime.Days(Thursday19.Date, Thursday19.Date),
                Studio.Every("FREQ=WEEKLY;INTERVAL=2"),
                2026,
                DateTimeZone.Utc
            )
        );

    [Fact]
    public void Dates_left_out_and_added_are_named()
    {
        var series = Studio.Every("FREQ=WEEKLY;INTERVAL=2;UNTIL=20260618").Without(Thursday19.PlusDays(42)) with
        {
            Extra = [Thursday19.PlusDays(44), Thursday19.PlusYears(1)],
        };

        Assert.Equal(
            "every second Thursday at 19:00 until 18 June, also on 4 April and 19 February 2027, not on 2 April",
            Sentence(series)
        );
    }

    [Fact]
    public void Many_dates_are_named_up_to_four_and_then_counted()
    {
        var series = Enumerable
            .Range(1, 6)
            .Aggregate(Studio.Every("FREQ=WEEKLY"), (series, week) => series.Without(Thursday19.PlusWeeks(week)));

        Assert.Equal(
            "every Thursday at 19:00, not on 26 February, 5 March, 12 March, 19 March and 2 more dates",
            Sentence(series)
        );
    }

    [Fact]
    public void A_series_of_chosen_dates_names_them() =>
        Assert.Equal(
            "on 19 February, 1 March and 5 March",
            Sentence(new Series { Extra = [new(2026, 3, 1, 19, 0), new(2026, 3, 5, 19, 0)] })
        );

    [Fact]
    public void Changed_dates_are_counted_and_rules_that_leave_out_are_said()
    {
        var changed = new Override(
            Thursday19,
            Studio.Hours(Thursday19, 60),
            Studio.Event(Studio.Hours(Thursday19, 1)).Content
        );
        var series = Studio.Every("FREQ=WEEKLY").With(changed) with
        {
            ExceptRules = [Core.Recurrence.RecurrenceRule.Of("FREQ=MONTHLY;BYDAY=1TH")],
        };

        Assert.Equal(
            "every Thursday at 19:00, but not every month on the first Thursday at 19:00, 1 date changed",
            Sentence(series)
        );
    }

    private static string Sentence(Series series) =>
        SeriesSentence.For(Studio.Hours(Thursday19, 60), series, 2026, Studio.Zone(Studio.London));
}
