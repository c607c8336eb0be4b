using Mortar.Core.Access;
using Mortar.Core.Availability;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Words;
using Xunit;
using static Mortar.Core.Tests.Availability.Pottery;

namespace Mortar.Core.Tests.Availability;

/// <summary>What collides with what is not told.</summary>
public class UntoldClashesTests
{
    private static readonly HashSet<string> NothingFine = [];

    [Theory]
    [InlineData(ShowAs.Busy, ShowAs.Busy, Severity.Hard)]
    [InlineData(ShowAs.Tentative, ShowAs.Busy, Severity.Soft)]
    [InlineData(ShowAs.Busy, ShowAs.Tentative, Severity.Soft)]
    public void It_is_what_both_share_and_hard_where_both_are_settled(ShowAs showAs, ShowAs hidden, Severity severity)
    {
        var seen = Of(Studio.Event(At(1, 10, 12), showAs: showAs));
        var unseen = Of(Studio.Event(At(1, 11, 13), showAs: hidden));

        var one = Assert.Single(Find(seen, unseen, Role.Edit));

        Assert.Equal((Priya, Span(1, 11, 12), severity), (one.Who, one.Span, one.Severity));
    }

    [Fact]
    public void How_many_things_are_not_told_is_not_told_either()
    {
        var seen = Of(Studio.Event(At(1, 10, 16)));
        var unseen = Of(Studio.Event(At(1, 11, 13)), Studio.Event(At(1, 12, 14)), Studio.Event(At(1, 15, 18)));

        Assert.Equal([Span(1, 11, 14), Span(1, 15, 16)], Find(seen, unseen, Role.Edit).Select(one => one.Span));
    }

    [Fact]
    public void What_is_seen_what_only_touches_and_what_one_may_not_change_is_none()
    {
        var shift = Studio.Event(At(1, 10, 12));
        var both = Of(shift, Studio.Event(At(1, 11, 13)));

        Assert.Empty(Find(both, both, Role.Edit));
        Assert.Empty(Find(Of(shift), Of(Studio.Event(At(1, 12, 13))), Role.Edit));
        Assert.Empty(Find(Of(shift), Of(Studio.Event(At(1, 11, 13))), Role.View));
    }

    [Fact]
    public void One_that_is_fine_stays_so_until_what_is_shared_is_another()
    {
        var (shift, other) = (Studio.Event(At(1, 10, 12)), Studio.Event(At(1, 11, 13)));
        var fine = Find(Of(shift), Of(other), Role.Edit).Select(one => one.Key).ToHashSet();

        Assert.Empty(Find(Of(shift), Of(other), Role.Edit, fine));
        Assert.Single(Find(Of(shift with { Time = At(1, 10, 11.5) }), Of(other), Role.Edit, fine));
    }

    private static List<TakenTime> Of(params Event[] events) =>
        [
            .. TakenTimes.In(
                [
                    Calendar(
                        WhoseTime.Named,
                        Purpose.Events,
                        [.. events.Select(one => Counted(one, Comes(Studio.Priya)))]
                    ),
                ],
                Week,
                Zones,
                Studio.Clock
            ),
        ];

    private static IReadOnlyList<UntoldClash> Find(
        List<TakenTime> seen,
        List<TakenTime> unseen,
        Role role,
        HashSet<string>? fine = null
    ) =>
        UntoldClashes.Among(
            seen,
            new Dictionary<Participant, Untold> { [Priya] = Untold.Of(seen, seen.Concat(unseen), Week) },
            new ClashesOf(new PersonId(Guid.NewGuid()), _ => role),
            fine ?? NothingFine
        );
}
