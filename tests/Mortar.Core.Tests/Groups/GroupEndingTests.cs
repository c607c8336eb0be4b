using Mortar.Core.Access;
using Mortar.Core.Groups;
using Mortar.Core.Letters;
using Mortar.Core.Preferences;
using Mortar.Core.Words;
using Xunit;

namespace Mortar.Core.Tests.Groups;

public class GroupEndingTests
{
    [Theory]
    [InlineData(GroupState.There, false, false)]
    [InlineData(GroupState.There, true, false)]
    [InlineData(GroupState.AtRest, false, true)]
    [InlineData(GroupState.AtRest, true, false)] // the time of one person stays theirs
    [InlineData(GroupState.InBin, false, true)]
    [InlineData(GroupState.InBin, true, true)]
    public void Calendars_go_with_their_group(GroupState state, bool isSomebodysOwn, bool goes) =>
        Assert.Equal(goes, GroupEnding.TakesAlong(state, isSomebodysOwn));

    [Theory]
    [InlineData(Role.None, Role.None)]
    [InlineData(Role.Times, Role.Times)]
    [InlineData(Role.Outline, Role.Outline)]
    [InlineData(Role.View, Role.View)]
    [InlineData(Role.Add, Role.View)]
    [InlineData(Role.Edit, Role.View)]
    [InlineData(Role.Coordinate, Role.View)]
    public void At_rest_the_most_is_to_read(Role role, Role atRest) => Assert.Equal(atRest, GroupEnding.AtRest(role));

    [Theory]
    [InlineData(GroupState.There, GroupState.AtRest, null)]
    [InlineData(GroupState.There, GroupState.InBin, null)]
    [InlineData(GroupState.There, GroupState.There, "at work already")]
    [InlineData(GroupState.AtRest, GroupState.AtRest, "at rest already")]
    [InlineData(GroupState.AtRest, GroupState.There, null)]
    [InlineData(GroupState.AtRest, GroupState.InBin, null)]
    [InlineData(GroupState.InBin, GroupState.There, "not there")]
    [InlineData(GroupState.InBin, GroupState.AtRest, "not there")]
    [InlineData(GroupState.InBin, GroupState.InBin, "not there")]
    public void From_state_to_state(GroupState from, GroupState to, string? whyNot) =>
        Assert.True(
            GroupEnding.WhyNotPut(from, to) switch
            {
                null => whyNot is null,
                Refusal.NotThere => whyNot == "not there",
                Refusal.AgainstRule refusal => whyNot is not null
                    && refusal.Sentence.Contains(whyNot, StringComparison.Ordinal),
                _ => false,
            }
        );

    [Fact]
    public void It_goes_to_the_bin_only_with_what_whoever_does_it_could_delete()
    {
        EndingCalendar mine = new("Mine", IsSomebodysOwn: false, Role.Coordinate, IsLeft: false);
        EndingCalendar left = new("Left", IsSomebodysOwn: false, Role.None, IsLeft: true);
        EndingCalendar hers = new("Hers", IsSomebodysOwn: false, Role.Edit, IsLeft: false);
        EndingCalendar herTime = new("Her time", IsSomebodysOwn: true, Role.Times, IsLeft: false);

        Assert.Null(GroupEnding.WhyNotBin([]));
        Assert.Null(GroupEnding.WhyNotBin([mine, left]));
        Assert.Equal(
            "“Hers” is coordinated by others, and would go with the group. Ask them to make you a coordinator there or to delete it, or put the group to rest instead.",
            Assert.IsType<Refusal.AgainstRule>(GroupEnding.WhyNotBin([mine, hers])).Sentence
        );
        Assert.StartsWith(
            "“Hers”, “Her time”, “Hers” and 1 more are",
            Assert.IsType<Refusal.AgainstRule>(GroupEnding.WhyNotBin([hers, herTime, hers, hers])).Sentence,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void What_they_do_not_see_is_named_to_nobody()
    {
        EndingCalendar secret = new("Surprise", IsSomebodysOwn: false, Role.None, IsLeft: false);
        EndingCalendar times = new("Busy", IsSomebodysOwn: false, Role.Times, IsLeft: false);
        EndingCalendar left = new("Left", IsSomebodysOwn: false, Role.None, IsLeft: true);

        Assert.Equal(
            ["Busy", "Left", "2 calendars that you do not see"],
            GroupEnding.Named([secret, times, left, secret])
        );
        Assert.DoesNotContain(
            "Surprise",
            Assert.IsType<Refusal.AgainstRule>(GroupEnding.WhyNotBin([secret, times])).Sentence,
            StringComparison.Ordinal
        );
    }

    [Theory]
    [InlineData(GroupState.There, GroupState.There, null, null)]
    [InlineData(GroupState.There, GroupState.AtRest, "put the group to rest", NoticeTopic.Calendars)]
    [InlineData(GroupState.There, GroupState.InBin, "put the group in the bin", NoticeTopic.Deleted)]
    [InlineData(GroupState.AtRest, GroupState.InBin, "put the group in the bin", NoticeTopic.Deleted)]
    [InlineData(GroupState.AtRest, GroupState.There, "woke the group", NoticeTopic.Calendars)]
    [InlineData(GroupState.InBin, GroupState.There, "brought the group back", NoticeTopic.Calendars)]
    [InlineData(GroupState.InBin, GroupState.AtRest, "brought the group back", NoticeTopic.Calendars)]
    public void What_became_of_it_is_said_in_history_and_told_once(
        GroupState before,
        GroupState after,
        string? said,
        NoticeTopic? topic
    )
    {
        Assert.Equal(said, GroupEnding.Said(before, after));
        var line = NoticeRules.OfGroup("Ines", "Spring term", before, after);
        Assert.Equal(topic, line?.Topic);
        Assert.Equal(said is not null, line?.Sentence.Contains("Ines", StringComparison.Ordinal) == true);
        Assert.DoesNotContain("  ", line?.Sentence ?? string.Empty, StringComparison.Ordinal);
    }

    [Fact]
    public void Nothing_of_one_that_has_ended_is_changed()
    {
        Assert.Null(GroupEnding.WhyNotChange(GroupState.There, "Spring term"));
        Assert.Contains("can wake it", Sentence(GroupState.AtRest), StringComparison.Ordinal);
        Assert.Contains("can bring it back", Sentence(GroupState.InBin), StringComparison.Ordinal);

        static string Sentence(GroupState state) =>
            Assert.IsType<Refusal.AgainstRule>(GroupEnding.WhyNotChange(state, "Spring term")).Sentence;
    }
}
