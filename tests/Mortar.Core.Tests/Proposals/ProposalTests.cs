using Mortar.Core.Events;
using Mortar.Core.Proposals;
using Mortar.Core.Words;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Proposals;

public class ProposalTests
{
    private static readonly Instant Now = Instant.FromUtc(2026, 3, 11, 12, 0);
    private static readonly ProposedTime First = new(Now + Duration.FromHours(24), Now + Duration.FromHours(25));
    private static readonly ProposedTime Second = new(Now + Duration.FromDays(30), Now + Duration.FromDays(30.5));

    private static readonly Proposal Open = new(
        Studio.Ines,
        "Glaze testing",
        "Room 2",
        string.Empty,
        [First, Second],
        Studio.London,
        ProposalState.Open
    );

    [Fact]
    public void Once_it_is_over_it_is_neither_answered_nor_settled_and_each_is_told_what_to_do()
    {
        Assert.Null(Open.WhyNotManage);
        Assert.Null(Open.WhyNotAnswer);
        foreach (var state in new[] { ProposalState.Settled, ProposalState.Withdrawn })
        {
            var over = Open with { State = state };
            var (answered, managed) = (
                Assert.IsType<Refusal.AgainstRule>(over.WhyNotAnswer),
                Assert.IsType<Refusal.AgainstRule>(over.WhyNotManage)
            );
            Assert.Equal(("settled", "settled"), (answered.Type, managed.Type));
            Assert.NotEqual(answered.Sentence, managed.Sentence);
        }
    }

    [Fact]
    public void Only_its_own_times_are_answered_and_settled()
    {
        Assert.Equal(Second, Assert.IsType<Outcome<ProposedTime>.Done>(Open.TimeAt(Second.Start)).Value);
        Assert.IsType<Refusal.Unfit>(Open.TimeAt(Second.End).WhyNot);

        Assert.Null(Open.WhyNotSay([First.Start]));
        Assert.Null(Open.WhyNotSay([]));
        Assert.IsType<Refusal.Unfit>(Open.WhyNotSay([First.Start, First.End]));
    }

    [Fact]
    public void The_event_is_kept_on_the_clock_it_was_proposed_on()
    {
        // Thirty days on, London's clock is an hour ahead (the last Sunday of March, EU directive 2000/84/EC's rule).
        var made = Open.At(Second, [Studio.Priya], Studio.Clock).Check(Studio.Clock);

        Assert.True(made.IsFit);
        Assert.Equal(Studio.Hours(new LocalDateTime(2026, 4, 10, 13, 0), 12 * 60), made.Value.Time);
        Assert.Equal(("Glaze testing", "Room 2"), (made.Value.Content.Title, made.Value.Content.Place));
        Assert.True(made.Value.Content.Attendees.Has(Studio.Priya));
    }

    [Fact]
    public void All_that_is_wrong_with_a_question_is_said_at_once()
    {
        var check = ProposalRules.CheckWish(
            (" ", "Room 2", null),
            [First],
            asked: 0,
            anyStranger: true,
            Now,
            Studio.Clock
        );

        Assert.Equal(["times", "personIds", "personIds", "title"], check.Problems.Select(problem => problem.Path));
        Assert.True(
            ProposalRules
                .CheckWish(
                    ("Glaze testing", null, null),
                    [First, Second],
                    asked: 1,
                    anyStranger: false,
                    Now,
                    Studio.Clock
                )
                .IsFit
        );
    }
}
