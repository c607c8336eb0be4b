using CsCheck;
using Mortar.Core.Access;
using Mortar.Core.Answers;
using Mortar.Core.Proposals;
using Mortar.Core.Words;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Proposals;

/// <summary>Several times put to people as one question: what may be asked, how it is counted, who settles it.</summary>
public class ProposalsTests
{
    private static readonly Instant Now = Instant.FromUtc(2026, 3, 11, 11, 0);
    private static readonly PersonId Ines = new(Guid.CreateVersion7());
    private static readonly PersonId Priya = new(Guid.CreateVersion7());
    private static readonly PersonId Tomasz = new(Guid.CreateVersion7());

    [Fact]
    public void Each_who_was_asked_is_in_one_list_of_each_time_and_nobody_else_counts()
    {
        var (first, second) = (At(24), At(30));

        var tallies = ProposalRules.Count(
            [second, first],
            [Priya, Tomasz],
            [
                Says(Priya, (first, Suiting.Suits), (second, Suiting.DoesNotSuit)),
                Says(Tomasz, (second, Suiting.WouldDo)),
                Says(Ines, (first, Suiting.DoesNotSuit)), // was not asked
            ]
        );

        Assert.Equal([first, second], tallies.Select(tally => tally.Time)); // in the order of time
        Assert.Equal([Priya], tallies[0].Suits);
        Assert.Equal([Tomasz], tallies[0].Silent);
        Assert.Empty(tallies[0].DoesNotSuit);
        Assert.Equal([Priya], tallies[1].DoesNotSuit);
        Assert.Equal([Tomasz], tallies[1].WouldDo);
    }

    [Fact]
    public void Nobody_is_lost_or_counted_twice() =>
        Gen.Select(Gen.Int[0, 3].Array[0, 12], Gen.Int[2, 6])
            .Sample(
                (said, times) =>
                {
                    var people = said.Select(_ => new PersonId(Guid.NewGuid())).ToList();
                    var proposed = Enumerable.Range(1, times).Select(At).ToList();
                    var answered = people.Select(
                        (person, i) =>
                            Says(
                                person,
                                [
                                    .. proposed
                                        .Where((_, at) => (said[i] + at) % 4 < 3)
                                        .Select((time, at) => (time, (Suiting)((said[i] + at) % 3))),
                                ]
                            )
                    );

                    return ProposalRules
                        .Count(proposed, people, answered)
                        .All(tally =>
                            tally
                                .Suits.Concat(tally.WouldDo)
                                .Concat(tally.DoesNotSuit)
                                .Concat(tally.Silent)
                                .Order(Comparer<PersonId>.Create((a, b) => a.Value.CompareTo(b.Value)))
                                .SequenceEqual(people.OrderBy(person => person.Value))
                        );
                }
            );

    [Fact]
    public void The_best_time_is_the_one_fewest_refuse_then_the_one_that_suits_most_then_the_first()
    {
        var (a, b, c) = (At(24), At(30), At(36));
        Assert.Null(Best([])); // nobody has said anything

        Assert.Equal(b, Best([Says(Priya, (a, Suiting.DoesNotSuit), (b, Suiting.WouldDo), (c, Suiting.DoesNotSuit))]));
        Assert.Equal(
            c,
            Best([
                Says(Priya, (a, Suiting.WouldDo), (b, Suiting.WouldDo), (c, Suiting.Suits)),
                Says(Tomasz, (a, Suiting.Suits), (b, Suiting.WouldDo), (c, Suiting.Suits)),
            ])
        );
        Assert.Equal(a, Best([Says(Priya, (a, Suiting.Suits), (b, Suiting.Suits), (c, Suiting.Suits))]));

        ProposedTime? Best(IEnumerable<Suitings> answered) =>
            ProposalRules.Best(ProposalRules.Count([a, b, c], [Priya, Tomasz], answered))?.Time;
    }

    public static TheoryData<string, ProposedTime[], int, string?> Asked =>
        new()
        {
            { "as it should be", [At(24), At(30)], 1, null },
            { "one time is no choice", [At(24)], 1, "times" },
            { "too many to answer", [.. Enumerable.Range(1, 13).Select(At)], 1, "times" },
            { "the same start twice", [At(24), At(24)], 1, "times" },
            { "it began already", [At(-1), At(24)], 1, "times" },
            {
                "it ends as it starts",
                [At(24), new ProposedTime(Now + Duration.FromHours(30), Now + Duration.FromHours(30))],
                1,
                "times"
            },
            {
                "it lasts for a month",
                [At(24), new ProposedTime(Now + Duration.FromHours(30), Now + Duration.FromDays(31))],
                1,
                "times"
            },
            { "nobody to ask", [At(24), At(30)], 0, "personIds" },
            { "a crowd", [At(24), At(30)], 501, "personIds" },
        };

    [Theory]
    [MemberData(nameof(Asked))]
    public void What_cannot_be_asked_is_named(string why, ProposedTime[] times, int asked, string? field)
    {
        var problems = ProposalRules.Check(times, asked, mostAsked: 500, Now).Problems;

        Assert.True(
            field is null ? problems.Count == 0 : problems is [var one] && one.Path == field,
            $"{why}: {string.Join(' ', problems)}"
        );
    }

    [Theory]
    [InlineData(Role.None, true, Verdict.Hidden)]
    [InlineData(Role.Outline, true, Verdict.Hidden)] // may not add any more
    [InlineData(Role.Add, true, Verdict.Granted)]
    [InlineData(Role.Add, false, Verdict.Hidden)]
    [InlineData(Role.Edit, false, Verdict.Granted)]
    [InlineData(Role.Coordinate, false, Verdict.Granted)]
    public void A_question_is_settled_by_who_put_it_and_by_those_who_change_any_event_there(
        Role role,
        bool isOwn,
        Verdict expected
    ) => Assert.Equal(expected, ProposalRules.ToSettle(role, Ines, isOwn ? Ines : Priya));

    [Theory]
    [InlineData(Suiting.Suits, Answer.Accepted)]
    [InlineData(Suiting.WouldDo, Answer.Tentative)]
    [InlineData(Suiting.DoesNotSuit, Answer.Declined)]
    [InlineData(null, Answer.NeedsAction)]
    public void What_was_said_to_the_time_is_the_answer_to_the_event(Suiting? said, Answer expected) =>
        Assert.Equal(expected, ProposalRules.AsAnswer(said));

    private static ProposedTime At(int hours) =>
        new(Now + Duration.FromHours(hours), Now + Duration.FromHours(hours + 1));

    private static Suitings Says(PersonId who, params (ProposedTime Time, Suiting Suits)[] said) =>
        new(who, said.ToDictionary(one => one.Time.Start, one => one.Suits));
}
