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
            Studio.Ines,
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
        var plan = UndoPlan.Plan(
            [Change(1, One, null, "a"), Change(2, Two, "x", "y")],
            Studio.Ines,
            Latest((One, 1), (Two, 5))
        );

        var refused = Assert.IsType<UndoPlan.Refused>(plan);
        Assert.Equal("changed-since", refused.Type);
        Assert.StartsWith("1 of 2 were changed again", refused.Sentence, StringComparison.Ordinal);
    }

    [Fact]
    public void Only_ones_own_acts_can_be_undone()
    {
        Assert.Equal(
            "not-found",
            Assert
                .IsType<UndoPlan.Refused>(
                    UndoPlan.Plan([Change(1, One, null, "a", Studio.Priya)], Studio.Ines, Latest((One, 1)))
                )
                .Type
        );
        Assert.Equal("not-found", Assert.IsType<UndoPlan.Refused>(UndoPlan.Plan([], Studio.Ines, Latest())).Type);
    }

    private static Dictionary<Guid, long> Latest(params (Guid Subject, long Sequence)[] latest) =>
        latest.ToDictionary(one => one.Subject, one => one.Sequence);
}
