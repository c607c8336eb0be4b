using Mortar.Core.Access;
using Mortar.Core.Availability;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Time;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Availability;

public class RibbonTests
{
    private static readonly ClashesFound Nothing = new([], 0);

    private static Core.Time.Window Week(LocalDate first) => new(first, first.PlusDays(6), Studio.Zone(Studio.London));

    private static RibbonWeek Of(LocalDate first, Role role, params Event[] events) =>
        Ribbon.Of(
            Week(first),
            VisibleEvent.Through(
                role,
                Studio.Priya,
                events.SelectMany(one => one.Occurrences(Week(first), Studio.Clock)),
                Week(first)
            ),
            Nothing,
            Studio.Clock
        );

    [Theory]
    [InlineData(Role.Times)]
    [InlineData(Role.View)]
    public void Overlapping_times_count_once_and_each_week_has_its_own(Role role)
    {
        Event[] events =
        [
            Studio.Event(Pottery.At(0, 9, 12)),
            Studio.Event(Pottery.At(0, 11, 13)),
            Studio.Event(Pottery.At(8, 9, 10)),
        ];

        var weeks = new[] { Of(Pottery.Monday, role, events), Of(Pottery.Monday.PlusDays(7), role, events) };

        Assert.Equal([Duration.FromHours(4), Duration.FromHours(1)], weeks.Select(week => week.Busy));
        Assert.Equal([Pottery.Monday, Pottery.Monday.PlusDays(7)], weeks.Select(week => week.First));
    }

    [Fact]
    public void A_time_over_the_edge_is_parted_between_the_weeks()
    {
        var night = Studio.Event(Pottery.At(6, 22, 26));

        Assert.Equal(Duration.FromHours(2), Of(Pottery.Monday, Role.View, night).Busy);
        Assert.Equal(Duration.FromHours(2), Of(Pottery.Monday.PlusDays(7), Role.View, night).Busy);
    }

    [Fact]
    public void Whole_days_and_what_takes_no_time_fill_no_week()
    {
        var free = Studio.Event(Pottery.At(1, 9, 10));

        var week = Of(
            Pottery.Monday,
            Role.View,
            Studio.Event(EventTime.Days(Pottery.Monday, Pottery.Monday.PlusDays(2))),
            free with
            {
                Content = free.Content with { ShowAs = ShowAs.Free },
            },
            free with
            {
                Content = free.Content with { Cancelled = true },
            }
        );

        Assert.Equal(Duration.Zero, week.Busy);
    }

    [Fact]
    public void A_week_of_the_clock_change_is_as_long_as_it_is()
    {
        var all = Studio.Event(
            EventTime.InZone(new LocalDateTime(2026, 3, 1, 0, 0), new LocalDateTime(2026, 4, 30, 0, 0), Studio.London)
        );

        Assert.Equal(Duration.FromHours((7 * 24) - 1), Of(new LocalDate(2026, 3, 23), Role.View, all).Busy);
    }

    [Fact]
    public void Pairs_that_collide_are_counted_once_a_week_however_often_they_do()
    {
        var daily = Studio.Every("FREQ=DAILY;COUNT=10");
        Event Every(string title) => Studio.Event(Pottery.At(0, 9, 10), daily, title);
        var calendar = Pottery.Calendar(
            WhoseTime.Group,
            Purpose.Events,
            CountedEvent.Of(Every("Firing")),
            CountedEvent.Of(Every("Glazing"))
        );

        var weeks = Enumerable
            .Range(0, 3)
            .Select(week => Week(Pottery.Monday.PlusDays(week * 7)))
            .Select(week =>
                Ribbon.Of(
                    week,
                    [],
                    Clashes.Among(TakenTimes.In([calendar], week, Pottery.Zones, Studio.Clock)),
                    Studio.Clock
                )
            );

        Assert.Equal([1, 1, 0], weeks.Select(week => week.Clashes));
    }

    [Fact]
    public void What_is_too_much_to_tell_is_counted_as_well() =>
        Assert.Equal(7, Ribbon.Of(Week(Pottery.Monday), [], Nothing with { More = 7 }, Studio.Clock).Clashes);

    [Fact]
    public void Those_named_on_one_date_alone_are_taken_on_that_date_alone()
    {
        var series = Studio.Event(Pottery.At(0, 9, 10), Studio.Every("FREQ=DAILY;COUNT=3"));
        var changed = series with
        {
            Series = series.Series!.With(
                new Override(
                    Pottery.Monday.PlusDays(1).At(new LocalTime(9, 0)),
                    Pottery.At(1, 9, 10),
                    series.Content with
                    {
                        Attendees = Attendees.Of([Pottery.Dele]),
                    }
                )
            ),
        };

        var takenTime = Assert.Single(
            TakenTimes.In(
                [Pottery.Calendar(WhoseTime.Named, Purpose.Events, CountedEvent.Of(changed))],
                Pottery.Week,
                Pottery.Zones,
                Studio.Clock
            )
        );

        Assert.Equal(Participant.Of(Pottery.Dele), takenTime.Who);
        Assert.Equal(Pottery.Span(1, 9, 10), takenTime.Occurrence.Span);
    }

    [Fact]
    public void A_calendar_of_one_person_takes_their_time_and_that_of_those_named()
    {
        var talk = Studio.Event(Pottery.At(0, 9, 10));
        var calendar = Pottery.Calendar(
            WhoseTime.Person,
            Purpose.Events,
            CountedEvent.Of(talk with { Content = talk.Content with { Attendees = Attendees.Of([Pottery.Dele]) } })
        ) with
        {
            Person = Studio.Priya,
        };

        var takenTimes = TakenTimes.In([calendar], Pottery.Week, Pottery.Zones, Studio.Clock);

        Assert.Equal(
            [Pottery.Priya, Participant.Of(Pottery.Dele)],
            takenTimes.Select(takenTime => takenTime.Who).Order()
        );
    }
}
