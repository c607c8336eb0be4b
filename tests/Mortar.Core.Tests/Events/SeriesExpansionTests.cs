using CsCheck;
using Mortar.Core.Events;
using Mortar.Core.Tests.Recurrence;
using Mortar.Core.Time;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Events;

public class SeriesExpansionTests
{
    private static readonly LocalDate Monday = new(2026, 3, 9);
    private static readonly LocalDateTime Thursday19 = new(2026, 2, 19, 19, 0);

    [Fact]
    public void A_series_keeps_its_hour_across_the_clock_change()
    {
        var series = Studio.Event(Studio.Hours(Thursday19, 150), Studio.Every("FREQ=WEEKLY"));

        var before = Studio.Clock.Span(Single(series, new LocalDate(2026, 3, 23)).Time, DateTimeZone.Utc).Start;
        var after = Studio.Clock.Span(Single(series, new LocalDate(2026, 3, 30)).Time, DateTimeZone.Utc).Start;

        Assert.Equal("2026-03-26T19:00:00Z", before.ToString());
        Assert.Equal("2026-04-02T18:00:00Z", after.ToString());
    }

    [Fact]
    public void A_date_left_out_does_not_take_place()
    {
        var series = Studio.Every("FREQ=WEEKLY").Without(Thursday19.PlusDays(21));

        Assert.Empty(
            Studio.Event(Studio.Hours(Thursday19, 150), series).Occurrences(Studio.Week(Monday), Studio.Clock)
        );
    }

    [Fact]
    public void An_occurrence_moved_into_the_week_is_found_there_and_not_where_it_was()
    {
        var moved = new Override(
            Thursday19.PlusDays(28),
            Studio.Hours(new LocalDateTime(2026, 3, 10, 18, 0), 60),
            Studio.Event(Studio.Hours(Thursday19, 1)).Content
        );
        var series = Studio.Event(Studio.Hours(Thursday19, 150), Studio.Every("FREQ=WEEKLY").With(moved));

        Assert.Equal(
            [Thursday19.PlusDays(28), Thursday19.PlusDays(21)], // by when they take place: Tuesday, Thursday
            series.Occurrences(Studio.Week(Monday), Studio.Clock).Select(one => one.Start)
        );
        Assert.Empty(series.Occurrences(Studio.Week(Monday.PlusDays(7)), Studio.Clock));
    }

    [Fact]
    public void What_began_before_the_window_and_reaches_into_it_is_found()
    {
        var long8Days = Studio.Event(
            EventTime.Days(new LocalDate(2026, 3, 1), new LocalDate(2026, 3, 9)),
            Studio.Every("FREQ=MONTHLY")
        );

        Assert.Single(long8Days.Occurrences(Studio.Week(Monday), Studio.Clock));
    }

    [Theory]
    [InlineData("FREQ=WEEKLY;UNTIL=20260312", true)] // the day itself counts
    [InlineData("FREQ=WEEKLY;UNTIL=20260311", false)]
    [InlineData("FREQ=WEEKLY;UNTIL=20260312T190000Z", true)] // London is on UTC then
    [InlineData("FREQ=WEEKLY;UNTIL=20260312T185959Z", false)]
    [InlineData("FREQ=WEEKLY;UNTIL=20260312T190000", true)]
    [InlineData("FREQ=WEEKLY;COUNT=4", true)]
    [InlineData("FREQ=WEEKLY;COUNT=3", false)]
    public void A_series_ends_where_its_rule_says(string rule, bool expected) =>
        Assert.Equal(
            expected,
            Studio
                .Event(Studio.Hours(Thursday19, 150), Studio.Every(rule))
                .Occurrences(Studio.Week(Monday), Studio.Clock)
                .Any()
        );

    [Fact]
    public void A_rule_in_another_calendar_shows_its_first_and_says_so()
    {
        var series = new Series { NotShown = "RSCALE=HEBREW;FREQ=YEARLY" };
        var whole = Studio.Event(Studio.Hours(Thursday19, 60), series);

        var shown = Assert.Single(whole.Occurrences(Studio.Week(new LocalDate(2026, 2, 16)), Studio.Clock));

        Assert.Equal("by a rule in another calendar that is kept but not shown", shown.Repeats);
    }

    [Fact]
    public void A_window_shows_what_a_longer_one_shows_in_it() =>
        Gen.Select(AnyRule.Times, Gen.Int[0, 700])
            .Sample(
                (rule, offset) =>
                {
                    var series = Studio.Event(
                        Studio.Hours(new LocalDateTime(2025, 1, 31, 9, 0), 60),
                        Studio.Every(rule)
                    );
                    var week = Studio.Week(new LocalDate(2025, 1, 27).PlusDays(offset));
                    var year = new Window(week.First.PlusDays(-200), week.Last.PlusDays(200), week.Reader);
                    var narrow = series.Occurrences(week, Studio.Clock).Select(one => one.Start).Order();
                    var wide = series
                        .Occurrences(year, Studio.Clock)
                        .Where(one => week.Touches(one.Span))
                        .Select(one => one.Start)
                        .Order();
                    return narrow.SequenceEqual(wide);
                }
            );

    [Fact]
    public void Nothing_lies_outside_what_the_index_is_told() =>
        AnyRule.Times.Sample(rule =>
        {
            var series = Studio.Event(Studio.Hours(new LocalDateTime(2025, 1, 31, 9, 0), 60), Studio.Every(rule));
            var window = new Window(
                new LocalDate(2025, 1, 1),
                new LocalDate(2025, 1, 1).PlusDays(390),
                DateTimeZone.Utc
            );
            return series
                .Occurrences(window, Studio.Clock)
                .Select(one => one.Span)
                .All(span =>
                    span.Start >= series.FirstStart(Studio.Clock)
                    && (series.LastEnd(Studio.Clock) is not { } last || span.End <= last)
                );
        });

    [Fact]
    public void One_occurrence_is_found_by_its_start()
    {
        var moved = new Override(
            Thursday19.PlusDays(7),
            Studio.Hours(Thursday19.PlusDays(8), 60),
            Studio.Event(Studio.Hours(Thursday19, 1)).Content
        );
        var whole = Studio.Event(
            Studio.Hours(Thursday19, 150),
            Studio.Every("FREQ=WEEKLY").With(moved).Without(Thursday19.PlusDays(14))
        );

        Assert.Equal(whole.Time, At(whole, null)?.Time);
        Assert.Equal(moved.Time, At(whole, Thursday19.PlusDays(7))?.Time);
        Assert.Equal(Thursday19.PlusDays(21), At(whole, Thursday19.PlusDays(21))?.Time.LocalStart);
        Assert.Null(At(whole, Thursday19.PlusDays(14)));
        Assert.Null(At(Studio.Event(whole.Time), Thursday19));
    }

    private static Occurrence? At(Event whole, LocalDateTime? start) =>
        whole.OccurrenceAt(start, Studio.Clock, Studio.Zone(Studio.London));

    private static Occurrence Single(Event series, LocalDate monday) =>
        Assert.Single(series.Occurrences(Studio.Week(monday), Studio.Clock));
}
