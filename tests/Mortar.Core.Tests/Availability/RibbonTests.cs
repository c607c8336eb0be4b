using Mortar.Core.Availability;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Availability;

public class RibbonTests
{
    [Fact]
    public void Overlapping_times_count_once_and_each_week_has_its_own()
    {
        var weeks = Ribbon.Of(
            Pottery.Monday,
            2,
            Studio.Zone(Studio.London),
            [Pottery.Span(0, 9, 12), Pottery.Span(0, 11, 13), Pottery.Span(8, 9, 10)],
            []
        );

        Assert.Equal([Duration.FromHours(4), Duration.FromHours(1)], weeks.Select(week => week.Busy));
        Assert.Equal([Pottery.Monday, Pottery.Monday.PlusDays(7)], weeks.Select(week => week.First));
    }

    [Fact]
    public void A_time_over_the_edge_is_parted_between_the_weeks()
    {
        var weeks = Ribbon.Of(Pottery.Monday, 2, Studio.Zone(Studio.London), [Pottery.Span(6, 22, 26)], []);

        Assert.Equal([Duration.FromHours(2), Duration.FromHours(2)], weeks.Select(week => week.Busy));
    }

    [Fact]
    public void A_week_of_the_clock_change_is_as_long_as_it_is()
    {
        var sunday = new LocalDate(2026, 3, 23);
        var all = new Interval(Instant.FromUtc(2026, 3, 1, 0, 0), Instant.FromUtc(2026, 4, 30, 0, 0));

        var week = Assert.Single(Ribbon.Of(sunday, 1, Studio.Zone(Studio.London), [all], []));

        Assert.Equal(Duration.FromHours((7 * 24) - 1), week.Busy);
    }

    [Fact]
    public void Pairs_that_collide_are_counted_once_a_week_however_often_they_do()
    {
        var daily = Studio.Every("FREQ=DAILY;COUNT=10");
        Event Every(string title) => Studio.Event(Pottery.At(0, 9, 10), daily, title);
        var claims = Claims.In(
            [
                Pottery.Calendar(
                    WhoseTime.Group,
                    Purpose.Events,
                    CountedEvent.Of(Every("Firing")),
                    CountedEvent.Of(Every("Glazing"))
                ),
            ],
            new Core.Time.Window(Pottery.Monday, Pottery.Monday.PlusDays(20), Studio.Zone(Studio.London)),
            Pottery.Zones,
            Studio.Clock
        );

        var weeks = Ribbon.Of(Pottery.Monday, 3, Studio.Zone(Studio.London), [], Clashes.Among(claims).Told);

        Assert.Equal([1, 1, 0], weeks.Select(week => week.Clashes));
    }

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

        var claim = Assert.Single(
            Claims.In(
                [Pottery.Calendar(WhoseTime.Named, Purpose.Events, CountedEvent.Of(changed))],
                Pottery.Week,
                Pottery.Zones,
                Studio.Clock
            )
        );

        Assert.Equal(Participant.Of(Pottery.Dele), claim.Who);
        Assert.Equal(Pottery.Span(1, 9, 10), claim.Occurrence.Span);
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

        var claims = Claims.In([calendar], Pottery.Week, Pottery.Zones, Studio.Clock);

        Assert.Equal([Pottery.Priya, Participant.Of(Pottery.Dele)], claims.Select(claim => claim.Who).Order());
    }
}
