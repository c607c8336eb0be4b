using Mortar.Core.Absences;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Xunit;
using static Mortar.Core.Tests.Availability.Pottery;

namespace Mortar.Core.Tests.Absences;

/// <summary>What somebody enters where a coordinator agrees: nothing is settled by who may not.</summary>
public class AgreementTests
{
    private static readonly CalendarSettings Away = new(
        "Away",
        string.Empty,
        Hue.Ochre,
        Mark.Shelf,
        Studio.London,
        Purpose.Away,
        Role.Add
    )
    {
        Agreed = true,
    };

    private static readonly Event Settled = Named(Studio.Event(EventTime.Days(Monday, Monday.PlusDays(2))));

    [Theory]
    [InlineData(Role.Add, ShowAs.Tentative)]
    [InlineData(Role.Edit, ShowAs.Tentative)]
    [InlineData(Role.Coordinate, ShowAs.Busy)]
    public void A_new_one_is_proposed_unless_a_coordinator_enters_it(Role role, ShowAs expected)
    {
        var written = Agreement.Written(Away, role, before: null, Settled);

        Assert.Equal(expected, written.Content.ShowAs);
        Assert.Equal(expected == ShowAs.Tentative, Agreement.Waits(Away, written.Content));
        Assert.Equal(ShowAs.Busy, Agreement.Agreed(written).Content.ShowAs);
    }

    [Fact]
    public void Without_the_setting_everything_counts_as_it_is_written()
    {
        var plain = Away with { Agreed = false };

        Assert.Equal(ShowAs.Busy, Agreement.Written(plain, Role.Add, before: null, Settled).Content.ShowAs);
        Assert.False(Agreement.Waits(plain, Settled.Content with { ShowAs = ShowAs.Tentative }));
        Assert.False(CalendarSettings.Check(Away with { Purpose = Purpose.Events }, Studio.Clock).Value.Agreed);
    }

    [Fact]
    public void What_was_agreed_to_stays_so_at_the_same_time_and_for_the_same_people()
    {
        var noted = Settled with { Content = Settled.Content with { Notes = "Back on Thursday" } };
        var longer = noted with { Time = EventTime.Days(Monday, Monday.PlusDays(3)) };
        var others = noted with { Content = noted.Content with { Attendees = Attendees.Of([Dele]) } };
        var again = noted with { Series = Studio.Every("FREQ=YEARLY") };
        var waiting = Settled with { Content = Settled.Content with { ShowAs = ShowAs.Tentative } };

        Assert.Equal(ShowAs.Busy, By(Settled, noted));
        Assert.All([longer, others, again], one => Assert.Equal(ShowAs.Tentative, By(Settled, one)));
        Assert.Equal(ShowAs.Tentative, By(waiting, noted)); // nobody agrees to their own
        Assert.Equal(ShowAs.Free, By(Settled, noted with { Content = noted.Content with { ShowAs = ShowAs.Free } }));

        static ShowAs By(Event before, Event after) => Agreement.Written(Away, Role.Add, before, after).Content.ShowAs;
    }

    [Fact]
    public void A_date_that_was_changed_by_itself_is_proposed_as_well()
    {
        var start = Settled.Time.LocalStart;
        var series = Studio.Every("FREQ=WEEKLY") with
        {
            Overrides =
            [
                new Override(start, Settled.Time, Settled.Content with { Title = "Half term" }, OverrideRange.One),
            ],
        };

        var written = Agreement.Written(Away, Role.Add, before: null, Settled with { Series = series });

        Assert.Equal(ShowAs.Tentative, Assert.Single(written.Series!.Overrides).Content.ShowAs);
        Assert.Equal(ShowAs.Busy, Assert.Single(Agreement.Agreed(written).Series!.Overrides).Content.ShowAs);
    }

    [Theory]
    [InlineData(Role.Times, Verdict.Hidden)]
    [InlineData(Role.Outline, Verdict.Denied)]
    [InlineData(Role.Edit, Verdict.Denied)]
    [InlineData(Role.Coordinate, Verdict.Granted)]
    public void Only_a_coordinator_agrees(Role role, Verdict expected) =>
        Assert.Equal(expected, Agreement.ToAgree(role));

    [Theory]
    [InlineData(Purpose.Away, Role.Add, false)]
    [InlineData(Purpose.Away, Role.Edit, true)]
    [InlineData(Purpose.Events, Role.Add, true)]
    public void With_the_step_Add_absences_are_ones_own(Purpose purpose, Role role, bool mayNameOthers)
    {
        Assert.Equal(mayNameOthers, purpose.MayName(role, [Studio.Ines], [Studio.Ines, Dele]));
        Assert.True(purpose.MayName(role, [Studio.Ines, Dele], [Dele])); // a guardian's ward
        Assert.True(purpose.MayName(role, [Studio.Ines], []));
    }

    private static Event Named(Event whole) =>
        whole with
        {
            Content = whole.Content with { Attendees = Attendees.Of([Studio.Priya]) },
        };
}
