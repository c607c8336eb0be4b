using CsCheck;
using Mortar.Core.Events;
using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Events;

/// <summary>Changes that reach one date, this and later ones, or all.</summary>
public class EventEditsTests
{
    private static readonly LocalDateTime Thursday19 = new(2026, 2, 19, 19, 0);

    private static readonly EventId Later = new(Guid.NewGuid());

    private static readonly Event Throwing = Studio.Event(
        Studio.Hours(Thursday19, 150),
        Studio.Every("FREQ=WEEKLY;COUNT=11"),
        "Thursday throwing"
    );

    [Fact]
    public void Only_this_one_is_changed_and_the_others_stay()
    {
        var done = Done(Throwing.Changed(Wish(2, Reach.OnlyThis, hours: 1), Later, Studio.Clock));

        Assert.Null(done.Later);
        Assert.Equal(
            Starts(Throwing),
            Starts(done.Event).Select((start, place) => place == 2 ? start.PlusHours(-1) : start)
        );
    }

    [Fact]
    public void This_and_later_become_a_series_of_their_own_and_nothing_is_lost()
    {
        var done = Done(Throwing.Changed(Wish(4, Reach.AndLater, hours: 1), Later, Studio.Clock));

        Assert.Equal(Starts(Throwing).Take(4), Starts(done.Event));
        Assert.Equal(Later, done.Later!.Id);
        Assert.Equal(Throwing.Id, done.Later.Series!.ContinuedFrom);
        Assert.Equal(Starts(Throwing).Skip(4).Select(start => start.PlusHours(1)), Starts(done.Later));
    }

    [Fact]
    public void From_its_first_date_on_is_the_whole_series()
    {
        var done = Done(Throwing.Changed(Wish(0, Reach.AndLater, hours: 1), Later, Studio.Clock));

        Assert.Null(done.Later);
        Assert.Equal(Starts(Throwing).Select(start => start.PlusHours(1)), Starts(done.Event));
    }

    [Fact]
    public void The_whole_series_moves_by_as_much_as_the_one_that_was_carried()
    {
        var done = Done(Throwing.Changed(Wish(7, Reach.Whole, hours: -2), Later, Studio.Clock));

        Assert.Equal(Starts(Throwing).Select(start => start.PlusHours(-2)), Starts(done.Event));
    }

    [Theory]
    [InlineData(Reach.OnlyThis)]
    [InlineData(Reach.AndLater)]
    [InlineData(Reach.Whole)]
    public void What_does_not_take_place_cannot_be_changed(Reach reach)
    {
        var nowhere = Wish(0, reach, hours: 0) with { Key = Thursday19.PlusDays(1) };

        Assert.IsType<EventEdit.NotThere>(Throwing.Changed(nowhere, Later, Studio.Clock));
    }

    [Fact]
    public void A_single_event_can_be_let_repeat_and_its_last_day_is_meant_where_it_lives()
    {
        var once = Throwing with { Series = null };
        var wish = new EventChange(
            null,
            Reach.Whole,
            once.Time,
            once.Content,
            new RepeatWish.By(RecurrenceRule.Of("FREQ=WEEKLY;INTERVAL=2;UNTIL=20260402"))
        );

        var done = Done(once.Changed(wish, Later, Studio.Clock));

        // The last day is 2 April in London, after the clocks went forward: 22:59:59 UTC.
        Assert.Equal("FREQ=WEEKLY;UNTIL=20260402T225959Z;INTERVAL=2", done.Event.Series!.Rule!.ToString());
        Assert.Equal(4, Starts(done.Event).Count);
    }

    [Fact]
    public void A_series_can_be_let_happen_once_and_says_what_was_changed_by_itself_in_it()
    {
        var changed = Done(Throwing.Changed(Wish(2, Reach.OnlyThis, hours: 1), Later, Studio.Clock)).Event;

        var done = Done(
            changed.Changed(
                Wish(0, Reach.Whole, hours: 0) with
                {
                    Repeats = new RepeatWish.Once(),
                },
                Later,
                Studio.Clock
            )
        );

        Assert.Null(done.Event.Series);
        Assert.Single(done.Lost);
    }

    [Fact]
    public void Another_rule_from_a_date_on_leaves_the_dates_before_as_they_were()
    {
        var wish = Wish(3, Reach.AndLater, hours: 0) with
        {
            Repeats = new RepeatWish.By(RecurrenceRule.Of("FREQ=WEEKLY;INTERVAL=2;COUNT=3")),
        };

        var done = Done(Throwing.Changed(wish, Later, Studio.Clock));

        Assert.Equal(3, Starts(done.Event).Count);
        Assert.Equal([Thursday19.PlusWeeks(3), Thursday19.PlusWeeks(5), Thursday19.PlusWeeks(7)], Starts(done.Later!));
    }

    [Fact]
    public void A_rule_that_cannot_follow_can_be_replaced_in_the_same_act()
    {
        var thirdThursday = Throwing with { Series = Studio.Every("FREQ=MONTHLY;BYDAY=3TH") };
        var toFriday = new EventChange(
            Thursday19,
            Reach.Whole,
            Studio.Hours(Thursday19.PlusDays(1), 150),
            Throwing.Content,
            new RepeatWish.AsBefore()
        );

        var refused = Assert.IsType<EventEdit.Refused>(thirdThursday.Changed(toFriday, Later, Studio.Clock));
        var done = Done(
            thirdThursday.Changed(
                toFriday with
                {
                    Repeats = new RepeatWish.By(RecurrenceRule.Of("FREQ=MONTHLY;BYDAY=3FR")),
                },
                Later,
                Studio.Clock
            )
        );

        Assert.Equal("series-time", refused.Type);
        Assert.Equal(IsoDayOfWeek.Friday, Starts(done.Event).Skip(1).First().DayOfWeek);
    }

    [Theory]
    [InlineData(2, Reach.OnlyThis, 10)]
    [InlineData(2, Reach.AndLater, 2)]
    public void Dates_are_taken_away_as_far_as_is_meant(int place, Reach reach, int left)
    {
        var done = Done(Throwing.Without(Thursday19.PlusWeeks(place), reach, Later, Studio.Clock));

        Assert.Equal(left, Starts(done.Event).Count);
    }

    [Theory]
    [InlineData("FREQ=WEEKLY;COUNT=11", 0, Reach.AndLater)]
    [InlineData("FREQ=WEEKLY;COUNT=11", 5, Reach.Whole)]
    [InlineData("FREQ=WEEKLY;COUNT=1", 0, Reach.OnlyThis)] // nothing would be left of it
    public void What_has_no_date_left_is_gone(string rule, int place, Reach reach)
    {
        var series = Throwing with { Series = Studio.Every(rule) };

        Assert.IsType<EventEdit.Gone>(series.Without(Thursday19.PlusWeeks(place), reach, Later, Studio.Clock));
    }

    [Fact]
    public void Whatever_the_reach_the_dates_before_never_change() =>
        Gen.Select(Gen.Int[0, 10], Gen.Enum<Reach>(), Gen.Int[-5, 5])
            .Sample(
                (place, reach, hours) =>
                {
                    var edit = Throwing.Changed(Wish(place, reach, hours), Later, Studio.Clock);
                    return edit is EventEdit.Done done
                        && (
                            reach == Reach.Whole
                            || Starts(done.Event).Take(place).SequenceEqual(Starts(Throwing).Take(place))
                        )
                        && Starts(done.Event).Count + (done.Later is { } later ? Starts(later).Count : 0) == 11;
                }
            );

    [Fact]
    public void Before_a_change_each_reach_says_what_it_comes_to()
    {
        var previews = ReachPreview.Of(Throwing, Wish(4, Reach.OnlyThis, hours: 1), Studio.Clock);

        Assert.Equal(
            [
                (Reach.OnlyThis, true, "Thu 19 March 2026 alone"),
                (Reach.AndLater, true, "7 dates from Thu 19 March 2026 on"),
                (Reach.Whole, true, "all 11 dates, past ones too"),
            ],
            previews.Select(one => (one.Reach, one.Possible, one.Sentence))
        );
    }

    [Fact]
    public void A_reach_that_is_refused_says_why_and_one_that_loses_something_says_how_much()
    {
        var changed = Done(Throwing.Changed(Wish(6, Reach.OnlyThis, hours: 1), Later, Studio.Clock)).Event;
        var wish = Wish(4, Reach.OnlyThis, hours: 0) with
        {
            Repeats = new RepeatWish.By(RecurrenceRule.Of("FREQ=WEEKLY;INTERVAL=4")),
        };

        var previews = ReachPreview.Of(changed, wish, Studio.Clock);

        Assert.Equal([false, true, true], previews.Select(one => one.Possible));
        Assert.EndsWith("; 1 date changed by themselves would be lost", previews[1].Sentence, StringComparison.Ordinal);
    }

    [Fact]
    public void Without_end_no_number_is_made_up()
    {
        var endless = Throwing with { Series = Studio.Every("FREQ=WEEKLY") };

        var previews = ReachPreview.OfWithout(endless, Thursday19, Studio.Clock);

        Assert.Equal("every date from Thu 19 February 2026 on, without end", previews[1].Sentence);
    }

    [Fact]
    public void A_rule_is_shown_in_words_and_by_its_next_dates()
    {
        var time = Studio.Hours(new LocalDateTime(2026, 1, 31, 9, 0), 60);
        var preview = RulePreview.Of(
            Throwing with
            {
                Time = time,
                Series = null,
            },
            new EventChange(
                Key: null,
                Reach.Whole,
                time,
                Throwing.Content,
                new RepeatWish.By(RecurrenceRule.Of("RSCALE=GREGORIAN;FREQ=MONTHLY;SKIP=BACKWARD"))
            ),
            Studio.Clock
        );

        Assert.Equal(
            ["31 January", "28 February", "31 March", "30 April", "31 May"],
            preview.Next.Select(one => one.ToString("d MMMM", System.Globalization.CultureInfo.InvariantCulture))
        );
        Assert.Contains("31st", preview.Sentence, StringComparison.Ordinal);
    }

    private static EventChange Wish(int place, Reach reach, int hours)
    {
        var key = Thursday19.PlusWeeks(place);
        return new EventChange(
            key,
            reach,
            Studio.Hours(key.PlusHours(hours), 150),
            Throwing.Content,
            new RepeatWish.AsBefore()
        );
    }

    private static EventEdit.Done Done(EventEdit edit) => Assert.IsType<EventEdit.Done>(edit);

    /// <summary>The starts as they take place, changed ones where they are now.</summary>
    private static List<LocalDateTime> Starts(Event whole) =>
        [.. whole.Occurrences(Year, Studio.Clock).Select(one => ((EventTime.Timed)one.Time).Start)];

    private static readonly Window Year = new(
        new LocalDate(2026, 1, 1),
        new LocalDate(2026, 12, 31),
        Studio.Zone(Studio.London)
    );

    [Theory]
    [InlineData(true, true, Reach.OnlyThis, false)]
    [InlineData(true, true, Reach.AndLater, false)]
    [InlineData(true, true, Reach.Whole, true)]
    [InlineData(true, false, Reach.OnlyThis, true)] // the event as such is meant
    [InlineData(false, true, Reach.OnlyThis, true)]
    public void A_series_goes_to_another_calendar_only_as_a_whole(bool repeats, bool oneDate, Reach reach, bool goes)
    {
        var start = new LocalDateTime(2026, 3, 12, 19, 0);
        var whole = Studio.Event(Studio.Hours(start, 60), repeats ? Studio.Every("FREQ=WEEKLY") : null);

        var why = whole.WhyNotLeave(oneDate ? start : null, reach);

        Assert.Equal(goes ? null : "not-one-of-a-series", (why as Refusal.AgainstRule)?.Type);
    }
}
