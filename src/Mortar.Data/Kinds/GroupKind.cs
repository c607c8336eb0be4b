using Mortar.Core.Changes;
using Mortar.Core.Groups;
using Mortar.Core.Words;
using Mortar.Data.Changes;
using Mortar.Data.Groups;
using Mortar.Data.Store;

namespace Mortar.Data.Kinds;

/// <summary>A group and its settings.</summary>
internal sealed class GroupKind : ChangeKind<GroupRow>
{
    public override Subject Subject => Subject.Group;

    protected override async Task<GroupRow?> FindRow(MortarDb db, Guid id, CancellationToken cancellationToken) =>
        await db.Groups.FindAsync([new GroupId(id)], cancellationToken);

    /// <summary>All who are in it: its name and its hours are on their walls.</summary>
    protected override async Task Tell(Tellings tellings, ChangeRow change, CancellationToken cancellationToken)
    {
        var members = await tellings.MembersOf(GroupOf(change), onlyKeepers: false, cancellationToken);
        tellings.Tell(members, Topic.Shelf, change);
    }

    protected override async Task<Refusal?> WhyNotReturn(
        Undoing undoing,
        GroupRow now,
        GroupRow? then,
        CancellationToken cancellationToken
    ) =>
        then is null
            ? new Refusal.AgainstRule("kept", "A group that was made cannot be taken back.")
            : await undoing.Db.WhyNotKeep(undoing.Actor, now.Id, cancellationToken);

    /// <summary>For all who are in it.</summary>
    public override Deed? Deed(ChangeRow change, DeedFacts facts)
    {
        if (!facts.Groups.ContainsKey(GroupOf(change)) || change.After is null)
        {
            return null;
        }

        var said = Read(change);
        return new Deed(
            said.After.Name,
            said.Before is { } before
                ? GroupDifference.Between(before.ToSettings(), said.After.ToSettings())
                : ["made the group"]
        );
    }
}
