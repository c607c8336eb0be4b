using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Words;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Access;

/// <summary>An event that is given to somebody by itself, whatever they see of its calendar.</summary>
public class GivenEventTests
{
    private static readonly LocalDate Monday = new(2026, 3, 9);

    private static readonly PersonId Guest = new(Guid.NewGuid());

    private static readonly Event Talk = Studio.Event(Studio.Hours(Monday.At(new LocalTime(9, 0)), 60)) is var talk
        ? talk with
        {
            Content = talk.Content with { Attendees = Attendees.Of([Guest, Studio.Priya]) },
            GivenTo = Attendees.Of([Guest]),
            Editors = Attendees.Of([Studio.Priya]),
        }
        : null!;

    [Fact]
    public void The_step_on_it_is_the_higher_of_that_on_the_calendar_and_that_on_the_event()
    {
        foreach (var role in Enum.GetValues<Role>())
        {
            Assert.Equal(role > Role.View ? role : Role.View, AccessRules.OnEvent(role, Guest, Talk));
            Assert.Equal(role > Role.Edit ? role : Role.Edit, AccessRules.OnEvent(role, Studio.Priya, Talk));
            Assert.Equal(role, AccessRules.OnEvent(role, Studio.Ines, Talk));
        }
    }

    [Theory]
    [InlineData(Role.None)]
    [InlineData(Role.Times)]
    [InlineData(Role.Outline)]
    public void Those_it_is_given_to_see_all_of_it_even_where_it_is_private(Role role)
    {
        var secret = Talk with { Content = Talk.Content with { Private = true } };

        foreach (var reader in new[] { Guest, Studio.Priya })
        {
            var shown = Assert.IsType<VisibleEvent.Shown>(Assert.Single(See(role, reader, secret)));
            Assert.Equal(("Firing", "Cone 6"), (shown.Title, shown.Notes));
            Assert.Equal((reader == Studio.Priya, false), (shown.MayChange, shown.MayGiveAway));
            Assert.Empty(shown.Editors);
        }
    }

    [Fact]
    public void Other_events_of_the_calendar_are_not_even_busy_times_to_who_has_no_step()
    {
        var other = Studio.Event(Studio.Hours(Monday.At(new LocalTime(15, 0)), 60));

        Assert.Single(See(Role.None, Guest, Talk, other));
        Assert.Equal(2, See(Role.Times, Guest, Talk, other).Count);
    }

    [Theory]
    [InlineData(Role.None, Verdict.Denied)]
    [InlineData(Role.Times, Verdict.Denied)]
    [InlineData(Role.View, Verdict.Denied)]
    [InlineData(Role.Edit, Verdict.Granted)]
    public void Whoever_may_change_it_by_itself_may_not_give_it_away(Role role, Verdict verdict)
    {
        Assert.Equal(Verdict.Granted, AccessRules.ToChange(role, Studio.Priya, Talk));
        Assert.Equal(verdict, AccessRules.ToGiveAway(role, Studio.Priya, Talk));
        Assert.Equal(Verdict.Hidden, AccessRules.ToGiveAway(Role.None, Studio.Ines, Talk));
    }

    [Fact]
    public void It_is_given_to_nobody_who_is_not_named_on_it_any_more()
    {
        var alone = Talk.Content with { Attendees = Attendees.Of([Studio.Priya]) };
        var change = new EventChange(null, Reach.Whole, Talk.Time, alone, new RepeatWish.AsBefore());

        var done = Assert.IsType<EventEdit.Done>(Talk.Changed(change, new EventId(Guid.NewGuid()), Studio.Clock));

        Assert.Empty(done.Event.GivenTo);
        Assert.Equal([Studio.Priya], done.Event.Editors);
    }

    [Fact]
    public void Both_parts_of_a_parted_series_stay_given()
    {
        var series = Talk with { Series = Studio.Every("FREQ=DAILY;COUNT=6") };
        var change = new EventChange(
            Monday.PlusDays(3).At(new LocalTime(9, 0)),
            Reach.AndLater,
            Studio.Hours(Monday.PlusDays(3).At(new LocalTime(11, 0)), 60),
            series.Content,
            new RepeatWish.AsBefore()
        );

        var done = Assert.IsType<EventEdit.Done>(series.Changed(change, new EventId(Guid.NewGuid()), Studio.Clock));

        Assert.Equal([Studio.Priya], done.Event.Editors);
        Assert.Equal([Studio.Priya], done.Later!.Editors);
        Assert.Equal([Guest], done.Later.GivenTo);
    }

    private static IReadOnlyList<VisibleEvent> See(Role role, PersonId reader, params Event[] events) =>
        [
            .. VisibleEvent.Through(
                role,
                reader,
                events.SelectMany(one => one.Occurrences(Studio.Week(Monday), Studio.Clock)),
                Studio.Week(Monday)
            ),
        ];
}
