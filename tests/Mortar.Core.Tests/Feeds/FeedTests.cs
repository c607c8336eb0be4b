using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Feeds;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Feeds;

public class FeedTests
{
    private static readonly LocalDate Monday = new(2026, 3, 9);

    private static Feed Of(Role role) => new(FeedOf.Calendar, Studio.GlazeTests, null, role);

    private static readonly Feed Mine = new(FeedOf.Mine, null, null, Role.View);

    private static Event At(int hour, EventContent content) =>
        Studio.Event(Studio.Hours(Monday.AtMidnight().PlusHours(hour), 60)) with
        {
            Content = content,
        };

    private static List<VisibleEvent> Read(Feed feed, Role owners, params Event[] events) =>
        [
            .. feed.Through(
                Studio.Priya,
                owners,
                events.SelectMany(one => one.Occurrences(Studio.Week(Monday), Studio.Clock)),
                Studio.Week(Monday)
            ),
        ];

    [Theory]
    [InlineData(Role.View, Role.Coordinate, Role.Coordinate)]
    [InlineData(Role.View, Role.Outline, Role.Outline)]
    [InlineData(Role.Times, Role.View, Role.Times)]
    [InlineData(Role.Outline, Role.None, Role.None)]
    public void It_shows_its_step_and_never_more_than_its_owner_sees(Role role, Role owners, Role shown) =>
        Assert.Equal(shown, Of(role).On(owners));

    [Fact]
    public void At_view_it_is_ones_own_and_at_a_lower_step_it_is_for_others()
    {
        var hers = EventContent.Blank with
        {
            Title = "Dentist",
            Private = true,
            Attendees = Attendees.Of([Studio.Priya]),
        };

        Assert.Equal(
            "Dentist",
            Assert.IsType<VisibleEvent.Shown>(Assert.Single(Read(Of(Role.View), Role.View, At(9, hers)))).Title
        );
        Assert.IsType<VisibleEvent.Busy>(Assert.Single(Read(Of(Role.Outline), Role.View, At(9, hers))));
        Assert.IsType<VisibleEvent.Busy>(Assert.Single(Read(Of(Role.Times), Role.View, At(9, hers))));
        Assert.Empty(Read(Of(Role.View), Role.None, At(9, EventContent.Blank)));
    }

    [Fact]
    public void What_one_is_named_on_is_all_that_names_one_and_can_be_seen()
    {
        var named = EventContent.Blank with { Title = "Wheel", Attendees = Attendees.Of([Studio.Priya, Studio.Ines]) };
        var other = EventContent.Blank with { Title = "Kiln", Attendees = Attendees.Of([Studio.Ines]) };

        Assert.Equal(
            ["Wheel"],
            Read(Mine, Role.View, At(9, named), At(11, other)).Cast<VisibleEvent.Shown>().Select(one => one.Title)
        );
        // Handed on, it tells nothing that is private, to whomever that names.
        Assert.Empty(Read(Mine with { Role = Role.Outline }, Role.View, At(9, named with { Private = true })));
        Assert.Single(Read(Mine, Role.View, At(9, named with { Private = true })));
        Assert.Empty(Read(Mine, Role.None, At(9, named)));
        Assert.Empty(Read(Mine, Role.Times, At(9, named)));
    }

    [Fact]
    public void Busy_stretches_of_several_calendars_that_meet_are_one()
    {
        var busy = Read(
            Of(Role.Times),
            Role.View,
            At(9, EventContent.Blank),
            At(10, EventContent.Blank),
            At(13, EventContent.Blank)
        );

        Assert.Equal(
            ["2026-03-09T09:00:00Z/2026-03-09T11:00:00Z", "2026-03-09T13:00:00Z/2026-03-09T14:00:00Z"],
            VisibleEvent
                .Busy.Joined(busy.Concat(busy).Cast<VisibleEvent.Busy>(), Studio.Week(Monday))
                .Select(one => one.Span.ToString())
        );
    }

    [Fact]
    public void What_it_cannot_be_is_said_at_its_field()
    {
        Assert.True(Feed.Check(Of(Role.Times)).IsFit);
        Assert.Equal("role", Assert.Single(Feed.Check(Of(Role.Edit)).Problems).Path);
        Assert.Equal("role", Assert.Single(Feed.Check(Mine with { Role = Role.Times }).Problems).Path);
        Assert.Equal("of", Assert.Single(Feed.Check(Mine with { CalendarId = Studio.GlazeTests }).Problems).Path);
        Assert.Equal("of", Assert.Single(Feed.Check(new Feed(FeedOf.Set, null, null, Role.View)).Problems).Path);
    }
}
