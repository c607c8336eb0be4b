using CsCheck;
using Mortar.Core.Binned;
using Mortar.Core.Events;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Binned;

/// <summary>What a change took out of a series comes back as it was.</summary>
public class TakenOutTests
{
    private static readonly LocalDateTime First = new(2026, 3, 12, 19, 0);

    private static readonly Event Weekly = Studio.Event(Studio.Hours(First, 120), series: Studio.Every("FREQ=WEEKLY"));

    private static LocalDateTime Week(int number) => First.PlusWeeks(number);

    private static Event Without(Event whole, int week, Reach reach = Reach.OnlyThis) =>
        ((EventEdit.Done)whole.Without(Week(week), reach, default, Studio.Clock)).Event;

    private static TakenOut? Between(Event before, Event after) => TakenOut.Between(before, after, Studio.Clock);

    [Fact]
    public void A_date_comes_back()
    {
        var after = Without(Weekly, 2);

        var taken = Between(Weekly, after)!;

        Assert.Equal([Week(2)], taken.Dates);
        Assert.Null(taken.From);
        Assert.Equal(Weekly, taken.BringBack(Weekly, after, after, Studio.Clock));
    }

    [Fact]
    public void A_date_that_had_been_changed_comes_back_as_it_was()
    {
        var changed = new Override(
            Week(2),
            Studio.Hours(Week(2).PlusHours(1), 60),
            Weekly.Content with
            {
                Title = "Raku",
            }
        );
        var before = Weekly with { Series = Weekly.Series!.With(changed) };
        var after = Without(before, 2);

        Assert.Equal(before, Between(before, after)!.BringBack(before, after, after, Studio.Clock));
    }

    [Theory]
    [InlineData("FREQ=WEEKLY")]
    [InlineData("FREQ=WEEKLY;COUNT=10")]
    [InlineData("FREQ=WEEKLY;UNTIL=20260601T180000Z")]
    [InlineData("FREQ=DAILY;INTERVAL=7")]
    public void All_later_ones_come_back_with_what_was_changed_among_them(string rule)
    {
        var series = Studio.Every(rule).Without(Week(5));
        series = series.With(new Override(Week(6), Studio.Hours(Week(6).PlusHours(1), 60), Weekly.Content));
        var before = Weekly with { Series = series };
        var after = Without(before, 3, Reach.AndLater);

        var taken = Between(before, after)!;

        Assert.Equal(Week(3), taken.From);
        Assert.Equal(before, taken.BringBack(before, after, after, Studio.Clock));
    }

    [Fact]
    public void Across_a_change_of_clocks_the_first_later_date_is_the_right_one()
    {
        // Clocks went forward in London on 29 March 2026.
        for (var week = 1; week < 6; week++)
        {
            Assert.Equal(Week(week), Between(Weekly, Without(Weekly, week, Reach.AndLater))!.From);
        }
    }

    [Fact]
    public void What_was_changed_about_the_series_since_stays()
    {
        var after = Without(Weekly, 2);
        var now = Without(after, 4) with { Content = Weekly.Content with { Title = "Renamed" } };

        var back = Between(Weekly, after)!.BringBack(Weekly, after, now, Studio.Clock)!;

        Assert.Equal("Renamed", back.Content.Title);
        Assert.Equal([Week(4)], back.Series!.Excluded);
    }

    [Fact]
    public void A_date_moves_along_with_its_series()
    {
        var after = Without(Weekly, 2);
        var moved = (
            (SeriesChange.Done)after.Moved(null, Studio.Hours(First.PlusDays(1), 120), after.Content, Studio.Clock)
        ).Event;

        var still = Between(Weekly, after)!.Still(after, moved, Studio.Clock)!;

        Assert.Equal([Week(2).PlusDays(1)], still.Dates);
        Assert.Empty(Between(Weekly, after)!.BringBack(Weekly, after, moved, Studio.Clock)!.Series!.Excluded);
    }

    public static TheoryData<string, Event> Nothing() =>
        new()
        {
            { "it was brought back since", Weekly },
            { "it is no series any more", Weekly with { Series = null } },
            {
                "the series has no such date any more",
                Weekly with
                {
                    Series = Studio.Every("FREQ=MONTHLY").Without(Week(2)),
                }
            },
        };

    [Theory]
    [MemberData(nameof(Nothing))]
    public void Nothing_is_out_any_more(string why, Event now)
    {
        var after = Without(Weekly, 2);

        Assert.True(Between(Weekly, after)!.Still(after, now, Studio.Clock) is null, why);
        Assert.Null(Between(Weekly, after)!.BringBack(Weekly, after, now, Studio.Clock));
    }

    [Fact]
    public void Later_dates_do_not_come_back_into_a_series_that_repeats_otherwise_by_now()
    {
        var after = Without(Weekly, 3, Reach.AndLater);
        var now = after with { Series = Studio.Every("FREQ=WEEKLY;INTERVAL=2") };

        Assert.Null(Between(Weekly, after)!.Still(after, now, Studio.Clock));
    }

    public static TheoryData<string, Event> NothingTaken() =>
        new()
        {
            { "the same", Weekly },
            { "renamed", Weekly with { Content = Weekly.Content with { Title = "Renamed" } } },
            { "once only", Weekly with { Series = null } },
            { "otherwise", Weekly with { Series = Studio.Every("FREQ=MONTHLY") } },
            {
                "longer",
                Weekly with
                {
                    Series = Studio
                        .Every("FREQ=WEEKLY")
                        .With(new Override(Week(1), Studio.Hours(Week(1), 30), Weekly.Content)),
                }
            },
            { "moved", Weekly with { Time = Studio.Hours(First.PlusHours(1), 120) } },
        };

    [Theory]
    [MemberData(nameof(NothingTaken))]
    public void What_took_no_date_out_is_not_in_the_bin(string why, Event after) =>
        Assert.True(Between(Weekly, after) is null, why);

    /// <summary>Whatever is deleted of a series in whatever order: each comes back, and in the end it is as it was.</summary>
    [Fact]
    public void Drawn_deletions_all_come_back() =>
        Gen.Int[1, 12]
            .Array[1, 6]
            .Sample(weeks =>
            {
                var changed = new Override(Week(5), Studio.Hours(Week(5).PlusHours(2), 90), Weekly.Content);
                var start = Weekly with { Series = Weekly.Series!.With(changed) };
                var steps = new List<(Event Before, Event After)>();
                var now = start;
                foreach (var week in weeks.Distinct())
                {
                    var after = Without(now, week);
                    steps.Add((now, after));
                    now = after;
                }

                foreach (var (before, after) in steps)
                {
                    now = Between(before, after)!.BringBack(before, after, now, Studio.Clock)!;
                }

                Assert.Equal(start, now);
            });
}
