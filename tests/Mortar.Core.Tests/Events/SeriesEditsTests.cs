using CsCheck;
using Mortar.Core.Events;
using Mortar.Core.Recurrence;
using Mortar.Core.Tests.Recurrence;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Events;

public class SeriesEditsTests
{
    private static readonly LocalDateTime Thursday19 = new(2026, 2, 19, 19, 0);

    private static readonly EventId New = new(Guid.NewGuid());

    private static readonly Event Throwing = Studio.Event(Studio.Hours(Thursday19, 150), Studio.Every("FREQ=WEEKLY"));

    [Theory]
    [InlineData("FREQ=WEEKLY", 1, "FREQ=WEEKLY")]
    [InlineData("FREQ=WEEKLY;BYDAY=TU,TH", 1, "FREQ=WEEKLY;BYDAY=WE,FR")]
    [InlineData("FREQ=WEEKLY;BYDAY=TH,SU", 1, "FREQ=WEEKLY;BYDAY=MO,FR")]
    [InlineData("FREQ=WEEKLY;INTERVAL=2;BYDAY=TH,SU", 1, "FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,FR;WKST=TU")] // each stays in its week
    [InlineData("FREQ=WEEKLY;BYDAY=TH", -5, "FREQ=WEEKLY;BYDAY=SA")]
    [InlineData("FREQ=DAILY;BYDAY=TH,FR", 2, "FREQ=DAILY;BYDAY=SA,SU")]
    [InlineData("FREQ=DAILY;INTERVAL=3", 1, "FREQ=DAILY;INTERVAL=3")]
    [InlineData("FREQ=MONTHLY", 3, "FREQ=MONTHLY")]
    [InlineData("FREQ=MONTHLY;BYMONTHDAY=19", 3, "FREQ=MONTHLY;BYMONTHDAY=22")]
    [InlineData("FREQ=MONTHLY;BYMONTHDAY=5,19", 3, "FREQ=MONTHLY;BYMONTHDAY=8,22")]
    [InlineData("FREQ=MONTHLY;BYMONTHDAY=-10", -2, "FREQ=MONTHLY;BYMONTHDAY=-12")]
    [InlineData("FREQ=YEARLY", 40, "FREQ=YEARLY")]
    [InlineData("FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=19", 2, "FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=21")]
    [InlineData("FREQ=MONTHLY;BYDAY=3TH", 1, null)] // the day after the third Thursday is no rule
    [InlineData("FREQ=MONTHLY;BYMONTHDAY=5,19", 13, null)]
    [InlineData("FREQ=MONTHLY;BYMONTHDAY=-10", 10, null)]
    [InlineData("FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=19", 12, null)]
    [InlineData("FREQ=YEARLY;BYWEEKNO=8", 1, null)]
    [InlineData("FREQ=WEEKLY;BYMONTH=2,3", 1, null)]
    public void A_rule_follows_a_series_to_other_days_or_says_that_it_cannot(string rule, int days, string? moved)
    {
        var series = Throwing with { Series = Studio.Every(rule) };

        var change = series.Moved(
            null,
            series.Time.StartingAt(Thursday19.PlusDays(days)),
            series.Content,
            Studio.Clock
        );

        Assert.Equal(moved, (change as SeriesChange.Done)?.Event.Series!.Rule!.ToString());
        Assert.Equal(
            moved is null,
            change is SeriesChange.Refused refused
                && refused.Sentence.Contains("Change how it repeats", StringComparison.Ordinal)
        );
    }

    [Fact]
    public void A_whole_series_moved_by_one_of_its_dates_moves_by_as_much()
    {
        var moved = Done(
            Throwing.Moved(
                Thursday19.PlusWeeks(3),
                Throwing.Time.StartingAt(Thursday19.PlusWeeks(3).PlusDays(1).PlusHours(-1)),
                Throwing.Content,
                Studio.Clock
            )
        );

        Assert.Equal(Throwing.Time.StartingAt(Thursday19.PlusDays(1).PlusHours(-1)), moved.Time);
    }

    [Fact]
    public void Exceptions_move_along_but_what_was_put_elsewhere_stays_there()
    {
        var elsewhere = new Override(
            Thursday19.PlusWeeks(1),
            Studio.Hours(Thursday19.PlusDays(9), 60),
            Throwing.Content
        );
        var renamed = new Override(
            Thursday19.PlusWeeks(2),
            Throwing.Time.StartingAt(Thursday19.PlusWeeks(2)),
            Throwing.Content with
            {
                Title = "Raku",
            }
        );
        var series = Throwing with
        {
            Series = Throwing.Series!.With(elsewhere).With(renamed).Without(Thursday19.PlusWeeks(3)),
        };

        var moved = Done(
            series.Moved(
                null,
                series.Time.StartingAt(Thursday19.PlusHours(1)),
                series.Content with
                {
                    Place = "Wheel room",
                },
                Studio.Clock
            )
        ).Series!;

        Assert.Equal([Thursday19.PlusWeeks(3).PlusHours(1)], moved.Excluded);
        Assert.Equal(
            [
                (Thursday19.PlusWeeks(1).PlusHours(1), elsewhere.Time),
                (Thursday19.PlusWeeks(2).PlusHours(1), series.Time.StartingAt(Thursday19.PlusWeeks(2).PlusHours(1))),
            ],
            moved.Overrides.Select(one => (one.Replaces, one.Time))
        );
        Assert.Equal(
            [("Firing", "Wheel room"), ("Raku", "Wheel room")],
            moved.Overrides.Select(one => (one.Content.Title, one.Content.Place))
        );
    }

    [Theory]
    [InlineData("FREQ=WEEKLY;UNTIL=20260312T190000Z", 60, "FREQ=WEEKLY;UNTIL=20260312T235959Z")]
    [InlineData("FREQ=WEEKLY;UNTIL=20260312", 24 * 60, "FREQ=WEEKLY;UNTIL=20260313")]
    [InlineData("FREQ=WEEKLY;UNTIL=20260312T190000", 60, "FREQ=WEEKLY;UNTIL=20260312T235959Z")]
    [InlineData("FREQ=WEEKLY;UNTIL=20260312T235959Z", 60, "FREQ=WEEKLY;UNTIL=20260312T235959Z")] // until the same day
    [InlineData("FREQ=WEEKLY;UNTIL=20260312T235959Z", 6 * 60, "FREQ=WEEKLY;UNTIL=20260313T235959Z")] // 1:00 of the next
    [InlineData("FREQ=HOURLY;UNTIL=20260219T220000Z", 60, "FREQ=HOURLY;UNTIL=20260219T230000Z")]
    [InlineData("FREQ=WEEKLY;COUNT=4", 60, "FREQ=WEEKLY;COUNT=4")]
    public void The_end_moves_along_so_that_none_is_lost(string rule, int minutes, string moved)
    {
        var series = Throwing with { Series = Studio.Every(rule) };

        var after = Done(
            series.Moved(null, series.Time.StartingAt(Thursday19.PlusMinutes(minutes)), series.Content, Studio.Clock)
        );

        Assert.Equal(moved, after.Series!.Rule!.ToString());
        Assert.Equal(4, after.StartsFrom(Thursday19.PlusDays(-1), Studio.Clock).Count());
    }

    [Fact]
    public void Hours_can_become_whole_days_and_days_hours()
    {
        var series = Throwing with
        {
            Series = Studio.Every("FREQ=WEEKLY;UNTIL=20260312T190000Z").Without(Thursday19.PlusWeeks(1)),
        };

        var days = Done(
            series.Moved(null, EventTime.Days(Thursday19.Date, Thursday19.Date), series.Content, Studio.Clock)
        );
        var hours = Done(days.Moved(null, series.Time, series.Content, Studio.Clock));

        Assert.Equal([Thursday19.PlusWeeks(1).Date.AtMidnight()], days.Series!.Excluded);
        Assert.Equal("FREQ=WEEKLY;UNTIL=20260312", days.Series.Rule!.ToString());
        Assert.Equal([Thursday19.PlusWeeks(1)], hours.Series!.Excluded);
        Assert.Equal(series.StartsFrom(Thursday19, Studio.Clock), hours.StartsFrom(Thursday19, Studio.Clock));
    }

    [Fact]
    public void A_new_rule_says_which_changed_dates_it_could_not_keep()
    {
        var kept = new Override(
            Thursday19.PlusWeeks(2),
            Throwing.Time.StartingAt(Thursday19.PlusWeeks(2)),
            Throwing.Content with
            {
                Title = "Raku",
            }
        );
        var lost = kept with { Replaces = Thursday19.PlusWeeks(1) };
        var series = Throwing with { Series = Throwing.Series!.With(kept).With(lost).Without(Thursday19.PlusWeeks(3)) };

        var change = Assert.IsType<SeriesChange.Done>(
            series.Repeating(RecurrenceRule.Of("FREQ=WEEKLY;INTERVAL=2"), Studio.Clock)
        );

        Assert.Equal([lost], change.Lost);
        Assert.Equal([kept], change.Event.Series!.Overrides);
        Assert.Empty(change.Event.Series.Excluded);
    }

    [Fact]
    public void A_series_is_parted_with_its_count_and_exceptions_shared_out()
    {
        var series = Throwing with
        {
            Series = Studio
                .Every("FREQ=WEEKLY;COUNT=10")
                .Without(Thursday19.PlusWeeks(1))
                .Without(Thursday19.PlusWeeks(6)),
        };

        var split = Split(series, Thursday19.PlusWeeks(4));

        Assert.Equal("FREQ=WEEKLY;COUNT=4", split.Earlier.Series!.Rule!.ToString());
        Assert.Equal("FREQ=WEEKLY;COUNT=6", split.Later.Series!.Rule!.ToString());
        Assert.Equal([Thursday19.PlusWeeks(1)], split.Earlier.Series.Excluded);
        Assert.Equal([Thursday19.PlusWeeks(6)], split.Later.Series.Excluded);
        Assert.Equal((New, "later", series.Id), (split.Later.Id, split.Later.Uid, split.Later.Series.ContinuedFrom));
        Assert.Equal((series.Id, series.AddedBy), (split.Earlier.Id, split.Later.AddedBy));
    }

    [Fact]
    public void This_and_later_from_the_first_on_is_the_whole() =>
        Assert.IsType<SeriesSplit.IsWhole>(Throwing.SplitBefore(Thursday19, New, "later", Studio.Clock));

    [Fact]
    public void A_series_is_not_parted_where_it_does_not_take_place() =>
        Assert.IsType<SeriesSplit.NotThere>(Throwing.SplitBefore(Thursday19.PlusDays(1), New, "later", Studio.Clock));

    [Fact]
    public void The_31st_stays_the_31st_though_the_later_part_begins_in_February()
    {
        var series = Studio.Event(
            Studio.Hours(new LocalDateTime(2026, 1, 31, 9, 0), 60),
            Studio.Every("RSCALE=GREGORIAN;FREQ=MONTHLY;SKIP=BACKWARD")
        );

        var split = Split(series, new LocalDateTime(2026, 2, 28, 9, 0));

        Assert.Equal(
            new LocalDateTime(2026, 3, 31, 9, 0),
            split.Later.StartsFrom(new LocalDateTime(2026, 3, 1, 0, 0), Studio.Clock).First()
        );
    }

    [Fact]
    public void A_series_with_a_change_that_reaches_on_is_not_parted()
    {
        var series = Throwing with
        {
            Series = Throwing.Series!.With(
                new Override(
                    Thursday19.PlusWeeks(2),
                    Studio.Hours(Thursday19.PlusDays(15), 60),
                    Throwing.Content,
                    OverrideRange.AndLater
                )
            ),
        };

        Assert.IsType<SeriesSplit.Refused>(series.SplitBefore(Thursday19.PlusWeeks(4), New, "later", Studio.Clock));
    }

    [Fact]
    public void The_two_parts_take_place_when_the_one_did() =>
        Gen.Select(AnyRule.Times, Gen.Int[1, 12], Gen.Int[0, 4])
            .Sample(
                (text, place, left) =>
                {
                    var start = new LocalDateTime(2025, 1, 31, 9, 0);
                    var whole = Studio.Event(Studio.Hours(start, 60), Studio.Every(text));
                    var all = whole.StartsFrom(start, Studio.Clock).Take(40).ToList();
                    if (Math.Max(place, left) >= all.Count)
                    {
                        return true;
                    }

                    whole = whole with { Series = whole.Series!.Without(all[left]) };
                    if (all[left] == all[place])
                    {
                        return true;
                    }

                    var split = whole.SplitBefore(all[place], New, "later", Studio.Clock);
                    if (split is not SeriesSplit.Split parts)
                    {
                        // The start is left out and the next one is asked for: then nothing lies before it but that.
                        return split is SeriesSplit.IsWhole && place == 0;
                    }

                    var both = parts
                        .Earlier.StartsFrom(start, Studio.Clock)
                        .Concat(parts.Later.StartsFrom(start, Studio.Clock))
                        .Take(38);
                    return both.SequenceEqual(whole.StartsFrom(start, Studio.Clock).Take(38));
                },
                iter: 1_500
            );

    private static Event Done(SeriesChange change) => Assert.IsType<SeriesChange.Done>(change).Event;

    private static SeriesSplit.Split Split(Event series, LocalDateTime key) =>
        Assert.IsType<SeriesSplit.Split>(series.SplitBefore(key, New, "later", Studio.Clock));
}
