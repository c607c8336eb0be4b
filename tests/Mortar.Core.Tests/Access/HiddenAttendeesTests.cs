using Mortar.Core.Access;
using Mortar.Core.Availability;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using NodaTime;
using Xunit;
using static Mortar.Core.Tests.Availability.Pottery;

namespace Mortar.Core.Tests.Access;

/// <summary>An event that keeps to those who may change it who is named on it.</summary>
public class HiddenAttendeesTests
{
    private static readonly Event Secretive = Studio.Event(At(1, 9, 10)) is var talk
        ? talk with
        {
            Content = talk.Content with
            {
                Attendees = Attendees.Of([Studio.Priya, Dele, Astrid]),
                HidesAttendees = true,
            },
        }
        : null!;

    [Theory]
    [InlineData(Role.Outline, 0)]
    [InlineData(Role.View, 1)] // herself
    [InlineData(Role.Add, 1)]
    [InlineData(Role.Edit, 3)]
    [InlineData(Role.Coordinate, 3)]
    public void A_reader_who_may_not_change_it_finds_at_most_themselves(Role role, int named)
    {
        var shown = VisibleEvent.Show(role, Studio.Priya, Occurs(), DateTimeZone.Utc)!;

        Assert.Equal(named, shown.Attendees.Count);
        Assert.Equal(named > 0, shown.Attendees.Has(Studio.Priya));
        Assert.Equal(role >= Role.View, shown.HidesAttendees);
    }

    [Fact]
    public void Who_added_it_and_who_may_change_it_by_itself_see_the_list()
    {
        Assert.Equal(3, VisibleEvent.Show(Role.Add, Studio.Ines, Occurs(), DateTimeZone.Utc)!.Attendees.Count);
        var lent = Secretive with { Editors = Attendees.Of([Studio.Priya]) };
        Assert.Equal(3, VisibleEvent.Known(Role.View, Studio.Priya, lent)!.Content.Attendees.Count);
    }

    /// <summary>The same event names four different people on one of its dates: neither list is told.</summary>
    [Fact]
    public void Single_dates_keep_it_as_well()
    {
        var start = Secretive.Time.LocalStart;
        var whole = Secretive with
        {
            Series = Studio.Every("FREQ=DAILY") with
            {
                Overrides =
                [
                    new Override(
                        start,
                        Secretive.Time,
                        Secretive.Content with
                        {
                            Attendees = Attendees.Of([Dele]),
                        },
                        OverrideRange.One
                    ),
                ],
            },
        };

        Assert.Equal([Studio.Priya], VisibleEvent.WithNamesSeen(Role.View, Studio.Priya, whole).Named);
        Assert.Equal(3, VisibleEvent.WithNamesSeen(Role.Edit, Studio.Priya, whole).Named.Count());
    }

    [Theory]
    [InlineData(Role.View, false)]
    [InlineData(Role.Edit, true)]
    public void It_takes_nobodys_time_for_those_who_may_not_know_whose(Role role, bool named)
    {
        var calendar = new CountedCalendar(
            Studio.GlazeTests,
            Purpose.Events,
            WhoseTime.Named,
            [],
            [Counted(Secretive)]
        );

        var takenTimes = TakenTimes.In([calendar.SeenBy(role, Studio.Priya)], Week, Zones, Studio.Clock).ToList();

        Assert.Contains(takenTimes, takenTime => takenTime.Who == Priya); // her own time
        Assert.Equal(named, takenTimes.Exists(takenTime => takenTime.Who == Participant.Of(Dele)));
    }

    [Fact]
    public void What_it_came_from_may_name_them_and_stays_here()
    {
        Assert.False(VisibleEvent.ToExport(Role.View, Studio.Priya, Secretive).IsWhole);
        Assert.True(VisibleEvent.ToExport(Role.Edit, Studio.Priya, Secretive).IsWhole);
        Assert.Equal(Secretive.Uid, VisibleEvent.ToExport(Role.View, Studio.Priya, Secretive).Event!.Uid);
    }

    private static Occurrence Occurs() => Secretive.Occurrences(Week, Studio.Clock).Single();
}
