using CsCheck;
using Mortar.Core.Access;
using Mortar.Core.Availability;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Words;
using NodaTime;
using Xunit;
using static Mortar.Core.Tests.Availability.Pottery;

namespace Mortar.Core.Tests.Availability;

public class ClashesTests
{
    [Fact]
    public void Two_series_that_collide_every_week_are_one_clash_with_its_times()
    {
        var class1 = Studio.Event(At(0, 9, 11), Studio.Every("FREQ=DAILY"), "Wheel basics");
        var class2 = Studio.Event(At(0, 10, 12), Studio.Every("FREQ=WEEKLY;BYDAY=MO,WE,FR"), "Glazing");

        var clash = Assert.Single(Find(Counted(class1, Comes(Studio.Priya)), Counted(class2, Comes(Studio.Priya))));

        Assert.Equal(Severity.Hard, clash.Severity);
        Assert.Equal([Priya], clash.Who);
        Assert.Equal([Span(0, 10, 11), Span(2, 10, 11), Span(4, 10, 11)], clash.Times.Select(time => time.Span));
    }

    [Fact]
    public void A_series_that_runs_into_itself_is_reported_once()
    {
        var long25 = Studio.Event(At(0, 0, 25), Studio.Every("FREQ=DAILY"));

        var clash = Assert.Single(Find(Counted(long25, Comes(Studio.Priya), Comes(Studio.Ines))));

        Assert.Equal(clash.First, clash.Second);
        Assert.Equal([Ines, Priya], clash.Who);
        Assert.Equal(6, clash.Times.Length); // after each midnight but the first, before which nothing lies
    }

    [Theory]
    [InlineData(ShowAs.Busy, 11, true, Severity.Hard)]
    [InlineData(ShowAs.Tentative, 11, true, Severity.Soft)]
    [InlineData(ShowAs.Free, 11, false, null)]
    [InlineData(ShowAs.Busy, 12, false, null)] // touches only
    public void A_clash_is_hard_or_soft_or_none(ShowAs showAs, double start, bool isOne, Severity? severity)
    {
        var firing = Studio.Event(At(1, 9, 12));
        var other = Studio.Event(At(1, start, 14), showAs: showAs);

        var found = Find(Counted(firing, Comes(Studio.Priya)), Counted(other, Comes(Studio.Priya)));

        Assert.Equal(isOne ? severity : null, found.Select(clash => (Severity?)clash.Severity).SingleOrDefault());
    }

    [Fact]
    public void Events_of_different_people_do_not_clash() =>
        Assert.Empty(
            Find(
                Counted(Studio.Event(At(1, 9, 12)), Comes(Studio.Priya)),
                Counted(Studio.Event(At(1, 9, 12)), Comes(Studio.Ines))
            )
        );

    [Fact]
    public void A_place_booked_twice_is_a_clash()
    {
        var bookings = Calendar(
            WhoseTime.Nobody,
            Purpose.Place,
            CountedEvent.Of(Studio.Event(At(1, 9, 12))),
            CountedEvent.Of(Studio.Event(At(1, 11, 13)))
        );

        var clash = Assert.Single(Clashes.Among(TakenTimes.In([bookings], Week, Zones, Studio.Clock)).Told);

        Assert.Equal([Participant.Of(Kiln)], clash.Who);
    }

    /// <summary>Whoever adds changes what they added; whoever edits, any of both.</summary>
    [Theory]
    [InlineData(Role.View, false, false)]
    [InlineData(Role.Add, false, false)]
    [InlineData(Role.Add, true, true)]
    [InlineData(Role.Edit, false, true)]
    public void It_is_marked_as_fine_by_who_may_change_one_of_the_two(Role role, bool addedOne, bool may)
    {
        var (first, second) = (Studio.Event(At(1, 9, 12)), Studio.Event(At(1, 11, 13)));
        var bookings = Calendar(
            WhoseTime.Nobody,
            Purpose.Place,
            CountedEvent.Of(first with { AddedBy = Studio.Ines }),
            CountedEvent.Of(second with { AddedBy = addedOne ? Studio.Priya : Studio.Ines })
        );
        var clash = Assert.Single(Clashes.Among(TakenTimes.In([bookings], Week, Zones, Studio.Clock)).Told);

        Assert.Equal(may, new ClashesOf(Studio.Priya, _ => role).MayMark(clash));
    }

    [Fact]
    public void An_absence_collides_with_what_it_lies_over()
    {
        var away = Calendar(
            WhoseTime.Named,
            Purpose.Away,
            Counted(Studio.Event(Core.Time.EventTime.Days(Monday, Monday.PlusDays(1))), Comes(Studio.Priya))
        );
        var events = Calendar(
            WhoseTime.Named,
            Purpose.Events,
            Counted(Studio.Event(At(1, 9, 12)), Comes(Studio.Priya))
        );

        Assert.Equal(
            Severity.Hard,
            Assert.Single(Clashes.Among(TakenTimes.In([away, events], Week, Zones, Studio.Clock)).Told).Severity
        );
    }

    [Fact]
    public void They_are_all_pairs_that_share_time_whatever_the_order() =>
        Gen.Select(Stretches(30), Gen.Shuffle(Enumerable.Range(0, 6).ToArray()))
            .Sample(
                (stretches, order) =>
                {
                    var events = stretches
                        .Select(one => Studio.Event(Core.Time.ZoneClock.Shown(one, DateTimeZone.Utc)))
                        .Select(one => Counted(one, Comes(Studio.Priya)))
                        .ToList();

                    var found = Pairs(Find([.. events]));

                    var shuffled = Find([.. order.Where(place => place < events.Count).Select(place => events[place])]);
                    var expected =
                        from first in events
                        from second in events
                        where first.Event.Id.Value.CompareTo(second.Event.Id.Value) < 0
                        where
                            Studio.Clock.Span(first.Event.Time, DateTimeZone.Utc) is var one
                            && Studio.Clock.Span(second.Event.Time, DateTimeZone.Utc) is var other
                            && one.Start < other.End
                            && other.Start < one.End
                        select (first.Event.Id, second.Event.Id);
                    return found.SetEquals(expected) && Pairs(shuffled).SetEquals(found);
                }
            );

    [Fact]
    public void What_is_fine_is_left_out_until_anything_of_it_changes()
    {
        var first = Studio.Event(At(1, 9, 11));
        var second = Studio.Event(At(1, 10, 12));
        var clash = Assert.Single(Between(first, second));
        var fine = new HashSet<string>(StringComparer.Ordinal) { clash.KeyOf(clash.Times[0]) };

        Assert.Empty(Between(first, second).Without(fine));
        Assert.Empty(Between(first with { Version = 9 }, second).Without(fine)); // another title, say
        Assert.Single(Between(first with { Time = At(1, 9, 10.5) }, second).Without(fine));
        Assert.Single(
            Between(second, first with { Content = first.Content with { ShowAs = ShowAs.Tentative } }).Without(fine)
        );
        Assert.Single(
            Among(Counted(first, Comes(Studio.Priya), Comes(Dele)), Counted(second, Comes(Studio.Priya), Comes(Dele)))
                .Without(fine)
        );

        static System.Collections.Immutable.ImmutableArray<Clash> Between(Event one, Event other) =>
            Among(Counted(one, Comes(Studio.Priya)), Counted(other, Comes(Studio.Priya)));

        static System.Collections.Immutable.ImmutableArray<Clash> Among(params CountedEvent[] events) =>
            Clashes
                .Among(TakenTimes.In([Calendar(WhoseTime.Named, Purpose.Events, events)], Week, Zones, Studio.Clock))
                .Told;
    }

    [Theory]
    [InlineData(Role.View, false)]
    [InlineData(Role.Add, false)] // Ines added both
    [InlineData(Role.Edit, true)]
    public void It_is_theirs_to_resolve_whom_it_takes_and_who_may_change_one_of_the_two(Role role, bool concerns)
    {
        var clash = Assert.Single(
            Find(
                Counted(Studio.Event(At(1, 9, 11)), Comes(Studio.Priya)),
                Counted(Studio.Event(At(1, 10, 12)), Comes(Studio.Priya))
            )
        );

        Assert.True(clash.Concerns(Studio.Priya, _ => role));
        Assert.Equal(concerns, clash.Concerns(Dele, _ => role));
        Assert.Equal(role >= Role.Add, clash.Concerns(Studio.Ines, _ => role));
    }

    private static HashSet<(EventId, EventId)> Pairs(IEnumerable<Clash> clashes) =>
        [.. clashes.Select(clash => (clash.First.Id, clash.Second.Id))];

    private static IReadOnlyList<Clash> Find(params CountedEvent[] events) =>
        Clashes
            .Among(TakenTimes.In([Calendar(WhoseTime.Named, Purpose.Events, events)], Week, Zones, Studio.Clock))
            .Told;

    /// <summary>Three hundred events at one hour that all name 450 people: 44,850 pairs, each of 450.</summary>
    [Fact]
    public void What_collides_is_told_as_far_as_anybody_reads_and_the_rest_is_counted()
    {
        Attendance[] everybody = [.. Enumerable.Range(0, 450).Select(_ => Comes(new PersonId(Guid.NewGuid())))];
        CountedEvent[] events =
        [
            .. Enumerable.Range(0, 300).Select(_ => Counted(Studio.Event(At(1, 9, 10)), everybody)),
        ];

        var found = Clashes.Among(
            TakenTimes.In([Calendar(WhoseTime.Named, Purpose.Events, events)], Week, Zones, Studio.Clock)
        );

        Assert.Equal(300 * 299 / 2, found.Told.Length + found.More);
        Assert.InRange(found.Told.Length, 1, Clashes.MostTold);
        Assert.InRange(found.Told.Sum(clash => clash.Who.Length), 1, Clashes.MostTakersTold);
        Assert.All(found.Told, clash => Assert.Equal(450, clash.Who.Length));
    }

    [Fact]
    public void Whose_they_are_is_asked_before_they_are_bounded()
    {
        var mine = Comes(Studio.Priya);
        Attendance[] others = [.. Enumerable.Range(0, 3).Select(_ => Comes(new PersonId(Guid.NewGuid())))];
        CountedEvent[] events =
        [
            .. Enumerable.Range(0, 40).Select(_ => Counted(Studio.Event(At(1, 9, 10)), others)),
            Counted(Studio.Event(At(3, 9, 10)), mine),
            Counted(Studio.Event(At(3, 9, 10)), mine),
        ];
        var takenTimes = TakenTimes
            .In([Calendar(WhoseTime.Named, Purpose.Events, events)], Week, Zones, Studio.Clock)
            .ToList();

        var found = Clashes.Among(takenTimes, new ClashesOf(Studio.Priya, _ => Role.View));

        Assert.Equal([Participant.Of(Studio.Priya)], Assert.Single(found.Told).Who);
        Assert.Equal(0, found.More);
        Assert.True(Clashes.Among(takenTimes).More > 0);
    }

    [Fact]
    public void A_clash_is_made_by_who_takes_other_time_and_not_by_who_writes_a_note()
    {
        var before = Studio.Event(At(1, 9, 10));
        Event[] taking =
        [
            before with
            {
                Time = At(1, 9, 11),
            },
            before with
            {
                Series = Studio.Every("FREQ=DAILY"),
            },
            before with
            {
                Content = before.Content with { ShowAs = ShowAs.Tentative },
            },
            before with
            {
                Content = before.Content with { Cancelled = true },
            },
            before with
            {
                Content = before.Content with { Attendees = Attendees.Of([Dele]) },
            },
            before with
            {
                CalendarId = Kiln,
            },
        ];

        Assert.All(taking, after => Assert.True(Clashes.CanBeMadeBy(before, after)));
        Assert.True(Clashes.CanBeMadeBy(before: null, before));
        Assert.False(
            Clashes.CanBeMadeBy(before, before with { Content = before.Content with { Notes = "Wear gloves" } })
        );
    }
}
