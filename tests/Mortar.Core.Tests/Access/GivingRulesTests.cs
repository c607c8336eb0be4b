using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Groups;
using Mortar.Core.Links;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Access;

/// <summary>Links, guardians, the bin, what a sort of group begins with, and how the history says it.</summary>
public class GivingRulesTests
{
    private static readonly Instant Now = Instant.FromUtc(2026, 3, 11, 12, 0);

    private static LinkTerms Terms(Role role = Role.View, int? mostUses = null, Instant? endsAt = null) =>
        new("Door", role, mostUses, endsAt);

    [Fact]
    public void A_link_gives_up_to_Edit_and_one_to_an_event_is_only_read()
    {
        Assert.Empty(Problems(Terms(Role.Edit), isForOneEvent: false));
        Assert.Equal("role", Assert.Single(Problems(Terms(Role.Coordinate), isForOneEvent: false)));
        Assert.Equal("role", Assert.Single(Problems(Terms(Role.None), isForOneEvent: false)));
        Assert.Empty(Problems(Terms(Role.Outline), isForOneEvent: true));
        Assert.Equal("role", Assert.Single(Problems(Terms(Role.Times), isForOneEvent: true)));
        Assert.Equal("role", Assert.Single(Problems(Terms(Role.Add), isForOneEvent: true)));
        Assert.Equal("mostUses", Assert.Single(Problems(Terms(mostUses: 0), isForOneEvent: false)));
        Assert.Equal(
            "name",
            Assert.Single(Problems(Terms() with { Name = new string('n', 81) }, isForOneEvent: false))
        );

        static IEnumerable<string> Problems(LinkTerms terms, bool isForOneEvent) =>
            LinkTerms.Check(terms, isForOneEvent).Problems.Select(problem => problem.Path);
    }

    [Fact]
    public void A_link_leads_somewhere_until_it_is_ended_or_its_end_is_there()
    {
        Assert.True(Terms().IsOpen(endedAt: null, Now));
        Assert.False(Terms().IsOpen(Now, Now));
        Assert.True(Terms(endsAt: Now + Duration.Epsilon).IsOpen(null, Now));
        Assert.False(Terms(endsAt: Now).IsOpen(null, Now));
        Assert.True(Terms(mostUses: 3).HasUsesLeft(2));
        Assert.False(Terms(mostUses: 3).HasUsesLeft(3));
        Assert.True(Terms().HasUsesLeft(9_999));
    }

    [Theory]
    [InlineData(Role.Times, Role.Times)]
    [InlineData(Role.View, Role.View)]
    [InlineData(Role.Edit, Role.View)]
    public void Who_only_opens_a_link_changes_nothing(Role given, Role read) =>
        Assert.Equal(read, Terms(given).ToRead());

    [Fact]
    public void A_guardian_never_has_more_than_their_ward_and_never_more_than_View()
    {
        foreach (var role in Enum.GetValues<Role>())
        {
            var theirs = GuardianRules.OfWard(new Grant(role, Way.Own, Now));

            Assert.True(theirs.Role <= role);
            Assert.True(theirs.Role <= Role.View);
            Assert.Equal((Way.Guardian, Now), (theirs.Way, theirs.EndsAt));
        }
    }

    [Theory]
    [InlineData(GroupSort.Class, Purpose.Events, Role.View)]
    [InlineData(GroupSort.Family, Purpose.Away, Role.Edit)]
    [InlineData(GroupSort.Staff, Purpose.Away, Role.Add)]
    [InlineData(GroupSort.Staff, Purpose.Place, Role.View)]
    [InlineData(GroupSort.Club, Purpose.Events, Role.View)]
    public void A_sort_of_group_begins_with_what_such_groups_mostly_want(GroupSort sort, Purpose purpose, Role role) =>
        Assert.Equal(role, sort.DefaultStep(purpose));

    [Fact]
    public void The_history_says_what_was_done_and_nothing_where_nothing_was()
    {
        var friday = new LocalDate(2026, 3, 27);

        Assert.Equal("gave Priya View", Step("Priya", (Role.None, null), (Role.View, null)));
        Assert.Equal(
            "changed Priya from View to Edit until Fri 27 March 2026",
            Step("Priya", (Role.View, null), (Role.Edit, friday))
        );
        Assert.Equal("took the end off the access of Priya", Step("Priya", (Role.Edit, friday), (Role.Edit, null)));
        Assert.Equal("ended the access of Priya", Step("Priya", (Role.Edit, null), (Role.None, null)));
        Assert.Equal("left", Step(null, (Role.Edit, null), (Role.None, null)));
        Assert.Null(Step("Priya", (Role.Edit, friday), (Role.Edit, friday)));
        Assert.Null(Step("Priya", (Role.None, friday), (Role.None, null)));
        Assert.Equal(
            "sent the invitation to wren@example.org again",
            HistorySentence.OfInvitation(
                "wren@example.org",
                Role.View,
                InvitationState.Waiting,
                InvitationState.Waiting
            )
        );
        Assert.Equal(
            "said no to the request of Mei",
            HistorySentence.OfAsk("Mei", Role.Edit, AskState.Waiting, AskState.Refused)
        );

        static string? Step(string? whom, (Role, LocalDate?) before, (Role, LocalDate?) after) =>
            HistorySentence.OfStep(whom, before, after);
    }
}
