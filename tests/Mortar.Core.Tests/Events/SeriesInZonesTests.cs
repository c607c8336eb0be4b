using CsCheck;
using Mortar.Core.Events;
using Mortar.Core.Time;
using NodaTime;
using NodaTime.Text;
using Xunit;

namespace Mortar.Core.Tests.Events;

/// <summary>Series across clock changes. Instants are worked out from the IANA database (release 2025b).</summary>
public class SeriesInZonesTests
{
    /// <summary>A daily series at that time of day, a week old; so each case is reached by walking, not by its own start.</summary>
    [Theory]
    [InlineData("Europe/Berlin", "2026-03-29T02:30", "2026-03-29T01:30:00Z")] // does not exist: shown as 3:30
    [InlineData("Europe/Berlin", "2026-10-25T02:30", "2026-10-25T00:30:00Z")] // twice: the first
    [InlineData("America/New_York", "2026-03-08T02:30", "2026-03-08T07:30:00Z")]
    [InlineData("America/New_York", "2026-11-01T01:30", "2026-11-01T05:30:00Z")]
    [InlineData("Australia/Lord_Howe", "2026-04-05T01:45", "2026-04-04T14:45:00Z")] // the half hour from 01:30 twice
    [InlineData("Australia/Lord_Howe", "2026-10-04T02:15", "2026-10-03T15:45:00Z")] // the half hour from 02:00 never
    [InlineData("Africa/Casablanca", "2026-02-14T09:00", "2026-02-14T08:00:00Z")]
    [InlineData("Africa/Casablanca", "2026-02-15T02:30", "2026-02-15T01:30:00Z")] // an hour back for Ramadan
    [InlineData("Africa/Casablanca", "2026-02-16T09:00", "2026-02-16T09:00:00Z")]
    [InlineData("Africa/Casablanca", "2026-03-23T09:00", "2026-03-23T08:00:00Z")] // and forward after it
    [InlineData("Pacific/Apia", "2011-12-29T10:00", "2011-12-29T20:00:00Z")]
    [InlineData("Pacific/Apia", "2012-01-01T10:00", "2011-12-31T20:00:00Z")]
    [InlineData("Asia/Kathmandu", "2026-03-12T09:00", "2026-03-12T03:15:00Z")] // five hours and three quarters
    [InlineData("Asia/Kathmandu", "1985-12-31T09:00", "1985-12-31T03:30:00Z")]
    [InlineData("Asia/Kathmandu", "1986-01-02T09:00", "1986-01-02T03:15:00Z")] // changed by law at new year
    [InlineData("Europe/Istanbul", "2015-12-01T09:00", "2015-12-01T07:00:00Z")]
    [InlineData("Europe/Istanbul", "2016-12-06T09:00", "2016-12-06T06:00:00Z")] // summer time for good, by law
    [InlineData("America/New_York", "2006-03-20T09:00", "2006-03-20T14:00:00Z")]
    [InlineData("America/New_York", "2007-03-20T09:00", "2007-03-20T13:00:00Z")] // three weeks earlier, by law
    public void A_daily_series_takes_place_at_its_wall_clock_time(string zone, string local, string expected)
    {
        var at = Time(local);
        var series = Studio.Event(Studio.Hours(at.PlusDays(-7), 60, zone), Studio.Every("FREQ=DAILY"));
        var window = new Window(at.Date.PlusDays(-1), at.Date.PlusDays(1), Studio.Zone(zone));

        var found = series.Occurrences(window, Studio.Clock).Single(one => one.Start == at);

        Assert.Equal(expected, found.Span.Start.ToString());
        Assert.Equal(Duration.FromHours(1), found.Span.Duration);
    }

    /// <summary>Apia had no 30 December 2011: what was to be on it would fall on the 31st, where the series is already.</summary>
    [Fact]
    public void On_the_day_Apia_left_out_nothing_takes_place_twice()
    {
        var series = Studio.Event(
            Studio.Hours(new LocalDateTime(2011, 12, 26, 10, 0), 60, "Pacific/Apia"),
            Studio.Every("FREQ=DAILY")
        );
        var window = new Window(new LocalDate(2011, 12, 29), new LocalDate(2012, 1, 1), Studio.Zone("Pacific/Apia"));

        var found = series.Occurrences(window, Studio.Clock).Select(one => one.Span.Start);

        Assert.Equal(
            ["2011-12-29T20:00:00Z", "2011-12-30T20:00:00Z", "2011-12-31T20:00:00Z"],
            found.Select(one => one.ToString())
        );
    }

    [Fact]
    public void An_hour_that_is_left_out_does_not_take_place_twice()
    {
        var hourly = Studio.Event(Studio.Hours(new LocalDateTime(2026, 3, 28, 0, 0), 30), Studio.Every("FREQ=HOURLY"));
        var sunday = new Window(new LocalDate(2026, 3, 29), new LocalDate(2026, 3, 29), Studio.Zone(Studio.London));

        var starts = hourly.Occurrences(sunday, Studio.Clock).Select(one => one.Span.Start).ToList();

        Assert.Equal(23, starts.Count);
        Assert.Equal(starts.Distinct().Order(), starts);
    }

    [Fact]
    public void A_start_that_the_clock_leaves_out_stands_where_it_really_is()
    {
        var series = Studio.Event(
            Studio.Hours(new LocalDateTime(2026, 3, 29, 1, 45), 10),
            new Series { Extra = [new(2026, 3, 29, 2, 15)] }
        );
        var sunday = new Window(new LocalDate(2026, 3, 29), new LocalDate(2026, 3, 29), Studio.Zone(Studio.London));

        var found = series.Occurrences(sunday, Studio.Clock).Select(one => one.Span.Start.ToString());

        Assert.Equal(["2026-03-29T01:15:00Z", "2026-03-29T01:45:00Z"], found); // a quarter past two, and 01:45 as a quarter to three
    }

    /// <summary>RFC 5545, 3.8.5.3: exact for DTEND; for DURATION, days are of the calendar and hours exact.</summary>
    [Theory]
    [InlineData(0, "2026-03-28T18:00:00Z", "2026-03-29T18:00:00Z")] // 24 hours
    [InlineData(1, "2026-03-28T18:00:00Z", "2026-03-29T17:00:00Z")] // the same time on the next day
    public void The_length_is_exact_unless_it_was_said_in_days(int nominalDays, string start, string end)
    {
        var series = Studio.Event(
            Studio.Hours(new LocalDateTime(2026, 3, 21, 18, 0), 24 * 60),
            Studio.Every("FREQ=WEEKLY") with
            {
                NominalDays = nominalDays,
            }
        );

        var found = series.Occurrences(Studio.Week(new LocalDate(2026, 3, 23)), Studio.Clock).Last();

        Assert.Equal((start, end), (found.Span.Start.ToString(), found.Span.End.ToString()));
        Assert.Equal(nominalDays == 0 ? 19 : 18, found.Time.LocalEnd.Hour);
    }

    [Fact]
    public void A_first_occurrence_across_the_change_does_not_lengthen_the_others()
    {
        var night = Studio.Event(
            Studio.Hours(new LocalDateTime(2026, 3, 28, 22, 0), 8 * 60),
            Studio.Every("FREQ=WEEKLY")
        );

        var found = night.Occurrences(Studio.Week(new LocalDate(2026, 3, 30)), Studio.Clock).ToList();

        Assert.All(found, one => Assert.Equal(Duration.FromHours(7), one.Span.Duration));
    }

    [Fact]
    public void Whole_days_and_floating_times_follow_the_reader()
    {
        var day = Studio.Event(
            EventTime.Days(new LocalDate(2026, 3, 9), new LocalDate(2026, 3, 9)),
            Studio.Every("FREQ=WEEKLY")
        );
        var floating = Studio.Event(
            EventTime.OnEveryClock(new LocalDateTime(2026, 3, 9, 8, 0), new LocalDateTime(2026, 3, 9, 9, 0)),
            Studio.Every("FREQ=WEEKLY")
        );
        var halifax = Studio.Week(new LocalDate(2026, 3, 16), "America/Halifax");

        Assert.Equal("2026-03-16T03:00:00Z/2026-03-17T03:00:00Z", Only(day, halifax).Span.ToString());
        Assert.Equal("2026-03-16T11:00:00Z/2026-03-16T12:00:00Z", Only(floating, halifax).Span.ToString());
    }

    /// <summary>The walk with its remembered offset against asking the zone each time, in every zone of the database.</summary>
    [Fact]
    public void Every_occurrence_is_where_the_zone_says() =>
        Gen.Select(
                Gen.OneOfConst([.. DateTimeZoneProviders.Tzdb.Ids]),
                Gen.Int[0, 25_000],
                Gen.Int[0, 1_439],
                Gen.OneOfConst("FREQ=DAILY", "FREQ=WEEKLY;INTERVAL=3", "FREQ=DAILY;INTERVAL=10;BYHOUR=1,2,3")
            )
            .Sample(
                (zone, day, minute, rule) =>
                {
                    var start = new LocalDateTime(1960, 1, 1, 0, 0).PlusDays(day).PlusMinutes(minute);
                    var series = Studio.Event(Studio.Hours(start, 90, zone), Studio.Every(rule));
                    var window = new Window(start.Date.PlusDays(10), start.Date.PlusDays(380), Studio.Zone(zone));
                    return series
                        .Occurrences(window, Studio.Clock)
                        .Skip(1)
                        .All(one => one.Span.Start == ZoneClock.At(one.Start!.Value, Studio.Zone(zone)));
                },
                iter: 1_000
            );

    [Fact]
    public void Two_windows_side_by_side_show_what_the_window_over_both_shows() =>
        Gen.Select(
                Recurrence.AnyRule.Any,
                Gen.OneOfConst("Europe/London", "America/New_York", "Asia/Kathmandu"),
                Gen.Int[0, 600],
                Gen.Int[1, 40],
                Gen.Int[1, 4_000]
            )
            .Sample(
                (rule, zone, offset, days, minutes) =>
                {
                    var series = Studio.Event(
                        Studio.Hours(new LocalDateTime(2025, 1, 31, 9, 0), minutes, zone),
                        Studio.Every(rule)
                    );
                    var first = new LocalDate(2025, 1, 27).PlusDays(offset);
                    var left = Shown(series, first, first.PlusDays(days - 1));
                    var right = Shown(series, first.PlusDays(days), first.PlusDays((2 * days) - 1));
                    var both = Shown(series, first, first.PlusDays((2 * days) - 1));
                    return left.Count == Most
                        || right.Count == Most
                        || both.Count == Most
                        || left.Union(right).Order().SequenceEqual(both.Order());
                },
                iter: 1_000
            );

    private const int Most = 3_000;

    private static HashSet<LocalDateTime> Shown(Event series, LocalDate first, LocalDate last) =>
        [
            .. series
                .Occurrences(new Window(first, last, Studio.Zone(Studio.London)), Studio.Clock)
                .Take(Most)
                .Select(one => one.Start!.Value),
        ];

    private static Occurrence Only(Event whole, Window window) =>
        Assert.Single(whole.Occurrences(window, Studio.Clock));

    private static LocalDateTime Time(string text) =>
        LocalDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd'T'HH:mm").Parse(text).Value;
}
