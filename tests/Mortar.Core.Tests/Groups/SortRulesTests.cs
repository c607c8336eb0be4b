using Mortar.Core.Groups;
using Mortar.Core.Words;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Groups;

public class SortRulesTests
{
    private static readonly GroupId Team = new(Guid.NewGuid());
    private static readonly GroupId Club = new(Guid.NewGuid());
    private static readonly IsoDayOfWeek[] Working =
    [
        IsoDayOfWeek.Monday,
        IsoDayOfWeek.Tuesday,
        IsoDayOfWeek.Wednesday,
        IsoDayOfWeek.Thursday,
        IsoDayOfWeek.Friday,
    ];
    private static readonly IsoDayOfWeek[] All = [.. Working, IsoDayOfWeek.Saturday, IsoDayOfWeek.Sunday];

    [Fact]
    public void The_week_of_the_group_in_question_counts_where_both_are_in_it()
    {
        Assert.Equal(Working, SortRules.WeekIn([(Team, GroupSort.Staff), (Club, GroupSort.Club)], Team));
        Assert.Equal(All, SortRules.WeekIn([(Team, GroupSort.Staff), (Club, GroupSort.Club)], Club));
    }

    [Fact]
    public void Else_the_weeks_of_all_groups_they_share_each_day_once()
    {
        Assert.Equal(All, SortRules.WeekIn([(Team, GroupSort.Staff), (Club, GroupSort.Club)], about: null));
        Assert.Equal(Working, SortRules.WeekIn([(Team, GroupSort.Staff)], Club));
        Assert.Empty(SortRules.WeekIn([], Team));
    }

    [Theory]
    [InlineData(GroupSort.Class, true)]
    [InlineData(GroupSort.Family, true)]
    [InlineData(GroupSort.Staff, false)]
    [InlineData(GroupSort.Club, false)]
    [InlineData(GroupSort.Other, false)]
    public void Guardians_are_offered_where_there_are_children(GroupSort sort, bool offers) =>
        Assert.Equal(offers, sort.HasGuardians());
}
