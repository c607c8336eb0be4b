using Mortar.Core.Events;
using Mortar.Core.Time;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Events;

/// <summary>What is finer than a quarter of an hour is one band a day, with its number.</summary>
public class BandsTests
{
    private static readonly DateTimeZone London = Studio.Zone(Studio.London);
    private static readonly Window Week = new(new LocalDate(2026, 3, 9), new LocalDate(2026, 3, 15), London);

    private static List<Occurrence> Shown(string rule, int minutes = 0) =>
        [
            .. (
                Studio.Event(Studio.Hours(new LocalDateTime(2026, 3, 10, 9, 0), minutes)) with
                {
                    Series = Studio.Every(rule),
                }
            ).Shown(Week, Studio.Clock),
        ];

    [Theory]
    [InlineData("FREQ=DAILY", 6, 1)]
    [InlineData("FREQ=HOURLY", 15 + (5 * 24), 1)]
    [InlineData("FREQ=MINUTELY;INTERVAL=15", (15 * 4) + (5 * 96), 1)] // just as fine as is shown
    [InlineData("FREQ=MINUTELY;INTERVAL=14", 6, 103)] // from Wednesday on; 65 on Tuesday are shown one by one
    [InlineData("FREQ=MINUTELY", 6, 1_440)]
    [InlineData("FREQ=SECONDLY", 6, Bands.MostCounted)]
    [InlineData(
        "FREQ=DAILY;BYHOUR=9,10,11,12;BYMINUTE=0,1,2,3,4,5,6,7,8,9,10,11,12,13,14,15,16,17,18,19,20,21,22,23,24,25",
        6,
        104
    )]
    [InlineData("FREQ=SECONDLY;COUNT=90", 90, 1)]
    public void A_day_with_more_dates_than_quarters_is_one_band(string rule, int shown, int most)
    {
        var all = Shown(rule);

        if (rule.EndsWith("14", StringComparison.Ordinal))
        {
            Assert.Equal(65, all.Count(one => one.Dates == 1)); // 900 minutes from nine o'clock on
            Assert.Equal(5, all.Count(one => one.Dates > 1));
        }
        else
        {
            Assert.Equal(shown, all.Count);
        }

        Assert.InRange(all.Max(one => one.Dates), most - 1, most);
        Assert.Equal(all.OrderBy(one => one.Span.Start), all);
    }

    [Fact]
    public void A_band_reaches_from_the_first_of_its_dates_to_the_end_of_the_last_and_counts_as_that_long()
    {
        var band = Shown("FREQ=MINUTELY;UNTIL=20260310T115900Z", minutes: 3)[0];

        Assert.Equal(180, band.Dates);
        Assert.Equal(new Interval(Instant.FromUtc(2026, 3, 10, 9, 0), Instant.FromUtc(2026, 3, 10, 12, 2)), band.Span);
        Assert.Equal(Studio.Hours(new LocalDateTime(2026, 3, 10, 9, 0), 182), band.Time);
        Assert.Equal(Studio.Hours(new LocalDateTime(2026, 3, 10, 9, 0), 182), band.SeenIn(London));
    }

    [Fact]
    public void What_is_not_fine_is_shown_as_it_takes_place()
    {
        foreach (var rule in new[] { "FREQ=WEEKLY;BYDAY=TU,TH", "FREQ=HOURLY;INTERVAL=5", "FREQ=MINUTELY;INTERVAL=45" })
        {
            var whole = Studio.Event(Studio.Hours(new LocalDateTime(2026, 3, 3, 22, 30), 180)) with
            {
                Series = Studio.Every(rule),
            };

            Assert.Equal(whole.Occurrences(Week, Studio.Clock), whole.Shown(Week, Studio.Clock));
        }
    }

    /// <summary>Each of its dates reaches over all that follow for ten years: only those that start on a day are counted for it.</summary>
    [Theory]
    [InlineData("FREQ=SECONDLY")]
    [InlineData("FREQ=MINUTELY;COUNT=100000")]
    public void Dates_of_ten_years_every_second_are_a_band_a_day(string rule)
    {
        var whole = Studio.Event(Studio.Hours(new LocalDateTime(2026, 3, 1, 9, 0), 3_660 * 24 * 60)) with
        {
            Series = Studio.Every(rule),
        };

        var shown = whole.Shown(Week, Studio.Clock).ToList();

        Assert.Equal([1_440, 1_440, 1_440, 1_440, 1_440, 1_440, 1_440], shown.Select(one => one.Dates));
        Assert.Equal(
            Enumerable.Range(10, 6).Select(day => new LocalDate(2026, 3, day)),
            shown.Skip(1).Select(one => one.Span.Start.InZone(London).Date)
        );
    }

    /// <summary>A quarter of an hour is not too fine to be shown, but those of ten years before last into each day.</summary>
    [Fact]
    public void What_lasts_into_a_day_from_years_before_is_one_band_on_the_first_day()
    {
        var hours = string.Join(',', Enumerable.Range(0, 24));
        var whole = Studio.Event(Studio.Hours(new LocalDateTime(2016, 3, 1, 9, 0), 3_660 * 24 * 60)) with
        {
            Series = Studio.Every($"FREQ=DAILY;BYHOUR={hours};BYMINUTE=0,15,30,45"),
        };

        var shown = whole.Shown(Week, Studio.Clock).ToList();

        Assert.Equal(Bands.MostCounted, shown[0].Dates);
        Assert.Equal(6 * 96, shown.Skip(1).Count(one => one.Dates == 1));
        Assert.Equal(1 + (6 * 96), shown.Count);
    }

    /// <summary>A change that reaches on parts a series; the parts are walked as far as is asked too.</summary>
    [Fact]
    public void A_fine_series_that_changes_from_a_date_on_is_walked_as_far_as_is_asked()
    {
        var start = new LocalDateTime(2026, 3, 1, 9, 0);
        var whole = Studio.Event(Studio.Hours(start, 3_660 * 24 * 60));
        whole = whole with
        {
            Series = Studio.Every("FREQ=SECONDLY") with
            {
                Overrides =
                [
                    new Override(
                        new LocalDateTime(2026, 3, 11, 0, 0),
                        Studio.Hours(new LocalDateTime(2026, 3, 11, 0, 0), 3_660 * 24 * 60),
                        whole.Content with
                        {
                            Title = "Later",
                        },
                        OverrideRange.AndLater
                    ),
                ],
            },
        };

        var shown = whole.Shown(Week, Studio.Clock).ToList();

        Assert.Equal(7, shown.Count);
        Assert.All(shown, one => Assert.Equal(Bands.MostCounted, one.Dates));
        Assert.Equal(["Later"], shown.Skip(2).Select(one => one.Content.Title).Distinct());
        Assert.NotEqual("Later", shown[0].Content.Title);
    }

    /// <summary>Of a rule by hours, whole days take the day, however often it falls on it.</summary>
    [Theory]
    [InlineData("FREQ=SECONDLY", "FREQ=DAILY")]
    [InlineData("FREQ=MINUTELY;BYDAY=TU,SU", "FREQ=WEEKLY;BYDAY=TU,SU")]
    [InlineData("FREQ=HOURLY;INTERVAL=5", "FREQ=DAILY")]
    [InlineData("FREQ=HOURLY;INTERVAL=48", "FREQ=DAILY;INTERVAL=2")]
    [InlineData("FREQ=HOURLY;COUNT=49", "FREQ=DAILY;COUNT=3")] // the forty-ninth hour is on the third day
    public void Whole_days_of_a_fine_rule_are_days(string fine, string daily)
    {
        List<Occurrence> Days(string rule) =>
            [
                .. (
                    Studio.Event(EventTime.Days(new LocalDate(2026, 3, 10), new LocalDate(2026, 3, 11))) with
                    {
                        Series = Studio.Every(rule),
                    }
                ).Shown(Week, Studio.Clock),
            ];

        Assert.Equal(Days(daily).Select(one => one.Span), Days(fine).Select(one => one.Span));
    }
}
