using Mortar.Core.Answers;
using Mortar.Core.Events;
using Mortar.Core.Words;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Answers;

public class AnswerRulesTests
{
    private static readonly Event Whole = Studio.Event(Studio.Hours(new LocalDateTime(2026, 3, 12, 19, 0), 60));

    private static readonly Event WithPriya = Whole with
    {
        Content = Whole.Content with { Attendees = Attendees.Of([Studio.Priya]) },
    };

    [Fact]
    public void What_has_just_changed_rests_before_it_is_told_and_so_does_the_bin_it_lies_in()
    {
        var (now, rest) = (Instant.FromUtc(2026, 3, 11, 12, 0), Duration.FromMinutes(2));
        var (before, just) = (now - rest, now - rest + Duration.Epsilon);

        Assert.True(AnswerRules.HasRested(before, binned: null, rest, now));
        Assert.False(AnswerRules.HasRested(just, binned: null, rest, now));
        Assert.False(AnswerRules.HasRested(before, just, rest, now));
        Assert.True(AnswerRules.HasRested(before, before, rest, now));
    }

    [Fact]
    public void No_time_is_suggested_that_ends_before_it_starts()
    {
        var start = Instant.FromUtc(2026, 3, 12, 9, 0);

        Assert.Null(AnswerRules.WhyNotSuggest(start, start + Duration.FromMinutes(1)));
        Assert.IsType<Refusal.Unfit>(AnswerRules.WhyNotSuggest(start, start));
    }

    [Fact]
    public void Only_who_is_named_is_asked_whether_they_come()
    {
        Assert.Null(AnswerRules.WhyNotAsk(WithPriya, [Studio.Priya]));
        Assert.Equal("personIds", Field(AnswerRules.WhyNotAsk(WithPriya, [Studio.Priya, Studio.Ines])));
        Assert.Equal("personIds", Field(AnswerRules.WhyNotAsk(WithPriya, [])));
        Assert.Equal("personIds", Field(AnswerRules.WhyNotAsk(Whole, [Studio.Priya])));
    }

    [Fact]
    public void What_is_said_with_an_answer_is_made_safe_and_has_a_bound()
    {
        Assert.Equal("One\ntwo", AnswerRules.Comment(" One\r\ntwo\u0007 ").Value);
        Assert.True(AnswerRules.Comment(null).IsFit);
        Assert.True(AnswerRules.Comment(new string('c', AnswerRules.LongestComment)).IsFit);
        Assert.Equal("comment", Field(AnswerRules.Comment(new string('c', AnswerRules.LongestComment + 1)).WhyNot));
    }

    private static string Field(Refusal? why) => Assert.Single(Assert.IsType<Refusal.Unfit>(why).Problems).Path;
}
