using Mortar.Core.Changes;
using Mortar.Core.Undo;
using Mortar.Core.Words;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Undo;

public class UndoTests
{
    private static readonly ChangeSetId Set = new(Guid.NewGuid());
    private static readonly Guid One = Guid.NewGuid();
    private static readonly Guid Two = Guid.NewGuid();
    private static readonly Guid Three = Guid.NewGuid();

    private static Change Change(long sequence, Guid subject, string? before, string? after, PersonId? actor = null) =>
        new(
            sequence,
            Set,
            Instant.FromUtc(2026, 3, 11, 11, 12),
            actor ?? Studio.Ines,
            Subject.Event,
            subject,
            before,
            after
        );

    [Fact]
    public void Everything_goes_back_to_its_state_before_the_act_last_touched_first()
    {
        var plan = UndoPlan.Plan(
            [Change(1, One, null, "a"), Change(2, One, "a", "b"), Change(3, Two, "x", "y")],
            Latest((One, 2), (Two, 3))
        );

        var possible = Assert.IsType<UndoPlan.Possible>(plan);
        Assert.Equal(
            [new UndoPlan.Return(Subject.Event, Two, "x"), new UndoPlan.Return(Subject.Event, One, null)],
            possible.Returns
        );
    }

    [Fact]
    public void What_was_changed_again_keeps_the_whole_act_from_being_undone()
    {
        var plan = UndoPlan.Plan([Change(1, One, null, "a"), Change(2, Two, "x", "y")], Latest((One, 1), (Two, 5)));

        var refused = Assert.IsType<UndoPlan.Refused>(plan);
        Assert.Equal("changed-since", refused.Type);
        Assert.StartsWith("1 of 2 were changed again", refused.Sentence, StringComparison.Ordinal);
    }

    [Fact]
    public void Of_what_was_changed_again_what_still_fits_goes_back_and_what_was_made_and_changed_stays()
    {
        var plan = UndoPlan.Plan(
            [Change(1, One, null, "a"), Change(2, Two, "x", "y"), Change(3, Three, "p", "q")],
            Latest((One, 9), (Two, 8), (Three, 3)),
            UndoReach.WhatFits
        );

        var possible = Assert.IsType<UndoPlan.Possible>(plan);
        Assert.Equal(
            [new UndoPlan.Return(Subject.Event, Three, "p"), new UndoPlan.Return(Subject.Event, Two, "x", "y")],
            possible.Returns
        );
        Assert.Equal(1, possible.Left);
    }

    [Fact]
    public void Where_all_was_made_and_changed_again_nothing_fits()
    {
        var plan = UndoPlan.Plan([Change(1, One, null, "a")], Latest((One, 2)), UndoReach.WhatFits);

        Assert.Equal("nothing-fits", Assert.IsType<UndoPlan.Refused>(plan).Type);
    }

    [Fact]
    public void An_act_that_changed_nothing_is_none() =>
        Assert.Equal("not-found", Assert.IsType<UndoPlan.Refused>(UndoPlan.Plan([], Latest())).Type);

    [Fact]
    public void The_making_of_a_calendar_is_undone_only_while_it_is_empty()
    {
        Assert.Null(UndoRules.WhyNotUnmake(hasEvents: false));
        Assert.IsType<Core.Words.Refusal.AgainstRule>(UndoRules.WhyNotUnmake(hasEvents: true));
    }

    /// <summary>What stands in calendars and how they are set up; what somebody said or decided about themselves is theirs.</summary>
    [Fact]
    public void Others_undo_what_they_could_do_themselves_and_nothing_that_is_somebodys_own()
    {
        Subject[] anybodys =
        [
            Subject.Event,
            Subject.Calendar,
            Subject.Group,
            Subject.GroupGrant,
            Subject.Proposal,
            Subject.Grant,
        ];

        Assert.Equal(
            anybodys.Order(),
            Enum.GetValues<Subject>().Where(one => UndoRules.CanBeUndoneByOthers(one, isTheirs: false)).Order()
        );
        Assert.Equal(
            anybodys.Except([Subject.Grant]).Order(),
            Enum.GetValues<Subject>().Where(one => UndoRules.CanBeUndoneByOthers(one, isTheirs: true)).Order()
        );
    }

    private static Dictionary<Guid, long> Latest(params (Guid Subject, long Sequence)[] latest) =>
        latest.ToDictionary(one => one.Subject, one => one.Sequence);
}
