using System.Collections.Immutable;
using CsCheck;
using Mortar.Core.Availability;
using Mortar.Core.Words;
using NodaTime;
using Xunit;
using static Mortar.Core.Tests.Availability.Pottery;

namespace Mortar.Core.Tests.Availability;

/// <summary>"Two of these three": the same two from the beginning to the end.</summary>
public class GapPoolTests
{
    private static readonly Duration Hour = Duration.FromHours(1);

    private static readonly Interval Tuesday = Span(1, 9, 17);

    private static readonly Participant DeleAsOne = Participant.Of(Dele);

    private static readonly Participant AstridAsOne = Participant.Of(Astrid);

    private static ImmutableArray<Gap> Find(GapQuestion question, GapPool pool) =>
        GapPools.Find(question, pool, cancellationToken: TestContext.Current.CancellationToken);

    [Fact]
    public void Any_two_of_three_are_found_with_those_who_are_free()
    {
        var pool = new GapPool(
            [
                Invited(Ines, Need.Optional, null, Span(1, 9, 12)),
                Invited(DeleAsOne, Need.Optional, null, Span(1, 12, 17)),
                Invited(AstridAsOne, Need.Optional, null, Span(1, 14, 17)),
            ],
            2
        );

        var gaps = Find(new GapQuestion([Invited(Priya, Need.Required, null, Span(1, 9, 10))], Tuesday, Hour), pool);

        Assert.Equal([Span(1, 10, 12), Span(1, 12, 14)], gaps.Select(gap => gap.Span));
        Assert.Equal([DeleAsOne, AstridAsOne], gaps[0].Any);
        Assert.Equal(2, gaps[1].Any.Length);
        Assert.Contains(Ines, gaps[1].Any);
    }

    [Fact]
    public void One_who_leaves_half_way_is_not_replaced_by_another()
    {
        var pool = new GapPool(
            [
                Invited(Ines, Need.Optional, null, Span(1, 10, 17)),
                Invited(DeleAsOne, Need.Optional, null, Span(1, 9, 10)),
            ],
            1
        );
        var question = new GapQuestion([], Span(1, 9, 11), Duration.FromMinutes(90));

        Assert.Empty(Find(question, pool));
        Assert.Equal(2, Find(question with { Length = Hour }, pool).Length);
    }

    [Theory]
    [InlineData(0)]
    [InlineData(3)]
    public void More_than_there_are_cannot_be_asked_for(int count)
    {
        var pool = new GapPool([Invited(Ines, Need.Optional, null), Invited(DeleAsOne, Need.Optional, null)], count);

        Assert.Throws<ArgumentOutOfRangeException>(() => Find(new GapQuestion([], Tuesday, Hour), pool));
    }

    /// <summary>Against the plain definition, looked at for every quarter of an hour.</summary>
    [Fact]
    public void Everywhere_one_can_begin_lies_in_a_gap_and_nowhere_else()
    {
        var quarter = Duration.FromMinutes(15);
        var taken = Gen.Select(Gen.Int[0, 31], Gen.Int[1, 8]).Array[0, 4];
        Gen.Select(taken.Array[5], Gen.Int[1, 4], Gen.Int[1, 6])
            .Sample(
                (people, count, quarters) =>
                {
                    var invitees = people
                        .Select(
                            (theirs, number) =>
                                Invited(
                                    Participant.Of(new PersonId(new Guid(number + 1, 0, 0, new byte[8]))),
                                    Need.Required,
                                    null,
                                    [
                                        .. theirs.Select(one => new Interval(
                                            Tuesday.Start + (quarter * one.Item1),
                                            Tuesday.Start + (quarter * (one.Item1 + one.Item2))
                                        )),
                                    ]
                                )
                        )
                        .ToList();
                    var (required, pool) = (invitees[0], invitees[1..]);
                    var length = quarter * quarters;

                    var gaps = Find(new GapQuestion([required], Tuesday, length), new GapPool(pool, count));

                    for (var at = 0; at + quarters <= 32; at++)
                    {
                        var span = new Interval(
                            Tuesday.Start + (quarter * at),
                            Tuesday.Start + (quarter * (at + quarters))
                        );
                        var fits = IsFree(required, span) && pool.Count(one => IsFree(one, span)) >= count;
                        Assert.Equal(fits, gaps.Any(gap => gap.Span.Start <= span.Start && span.End <= gap.Span.End));
                    }
                },
                iter: 2_000
            );

        static bool IsFree(Invitee one, Interval span) =>
            !one.Busy.All.Any(busy => busy.Start < span.End && span.Start < busy.End);
    }

    [Fact]
    public void Who_stands_in_the_way_is_said_with_what_would_make_room()
    {
        var question = new GapQuestion(
            [
                Invited(Priya, Need.Required, null, Span(1, 9, 13)),
                Invited(Ines, Need.Required, null, Span(1, 13.5, 17)),
                Invited(DeleAsOne, Need.Required, null, Span(1, 9, 10)),
                Invited(AstridAsOne, Need.Required, null),
            ],
            Tuesday,
            Hour
        );
        Assert.Empty(Gaps.Find(question));

        var why = WhyNoGap.Of(question);

        Assert.Equal(
            [(Priya, (Interval?)Span(1, 10, 13.5)), (Ines, Span(1, 13, 17)), (DeleAsOne, null)],
            why.Obstacles.Select(one => (one.Who, one.First))
        );
        Assert.Equal(Duration.FromHours(4), why.Obstacles[0].Taken);
        Assert.Equal(Span(1, 13, 13.5), why.Longest);
    }

    [Fact]
    public void What_is_suggested_begins_at_a_quarter_of_an_hour_where_that_fits()
    {
        var gap = new Gap(Span(1, 10.1, 12), [], 0, null);

        Assert.Equal(Span(1, 10.25, 11.25), gap.Suggested(Hour));
        Assert.Equal(gap.Span, gap.Suggested(gap.Span.Duration));
        Assert.Equal(Span(1, 11, 12), (gap with { InHours = Span(1, 11, 12) }).Suggested(Hour));
    }
}
