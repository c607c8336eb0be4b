using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Groups;
using Mortar.Core.Words;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Groups;

/// <summary>What a new group takes over from another.</summary>
public class GroupLikeTests
{
    private static readonly CalendarSettings Classes = new(
        "Classes",
        string.Empty,
        Hue.Lake,
        Mark.Drop,
        Studio.London,
        Purpose.Events,
        Role.View
    );

    [Fact]
    public void How_it_works_and_neither_its_people_nor_its_address()
    {
        var model = new GroupSettings("Spring term", GroupSort.Class, Studio.London, IsoDayOfWeek.Monday)
        {
            Address = "spring",
            DaysOff = Studio.GlazeTests,
            Cover = [CoverNeed.OnWorkingDays(2) with { Name = "Front desk", People = [Studio.Priya] }],
        };
        var holidays = new CalendarId(Guid.NewGuid());

        var like = GroupLike.Settings(model, "Summer term", holidays);

        Assert.Equal(("Summer term", string.Empty, holidays), (like.Name, like.Address, like.DaysOff));
        Assert.Equal((model.Sort, model.Zone, model.DayEnds), (like.Sort, like.Zone, like.DayEnds));
        var need = Assert.Single(like.Cover);
        Assert.Equal("Front desk", need.Name);
        Assert.Equal([2, 2, 2, 2, 2, 0, 0], need.FromMonday);
        Assert.Empty(need.People);
    }

    [Theory]
    [InlineData(Role.Coordinate, true)]
    [InlineData(Role.View, true)]
    [InlineData(Role.Outline, false)]
    [InlineData(Role.Times, false)]
    [InlineData(Role.None, false)]
    public void The_calendars_that_its_maker_reads(Role role, bool isTaken) =>
        Assert.Equal(isTaken, GroupLike.Takes(Classes, role));

    [Fact]
    public void No_more_calendars_than_one_act_may_make()
    {
        Assert.Null(GroupLike.WhyNotTake(GroupLike.MostCalendars));
        Assert.NotNull(GroupLike.WhyNotTake(GroupLike.MostCalendars + 1));
    }

    [Fact]
    public void Not_the_time_of_one_person() =>
        Assert.False(
            GroupLike.Takes(Classes with { Takes = WhoseTime.Person, Person = Studio.Priya }, Role.Coordinate)
        );

    [Theory]
    [InlineData("nina@example.org", false, false, InviteeFate.Invited)]
    [InlineData("nina@example.org", false, true, InviteeFate.InvitedAlready)]
    [InlineData("nina@example.org", true, true, InviteeFate.HasStep)]
    [InlineData("Nina", false, false, InviteeFate.NoAddress)]
    [InlineData("nina@@example", false, false, InviteeFate.Unreadable)]
    public void What_comes_of_an_entry_of_a_list_that_is_invited(
        string text,
        bool isIn,
        bool isInvited,
        InviteeFate fate
    ) => Assert.Equal(fate, InviteeRules.FateOf(Assert.Single(PeopleList.Read(text, [])), isIn, isInvited));

    [Fact]
    public void One_that_stands_there_twice_is_invited_once() =>
        Assert.Equal(
            [InviteeFate.Invited, InviteeFate.Again],
            PeopleList
                .Read("nina@example.org\nNina <NINA@example.org>", [])
                .Select(entry => InviteeRules.FateOf(entry, isIn: false, isInvited: false))
        );
}
