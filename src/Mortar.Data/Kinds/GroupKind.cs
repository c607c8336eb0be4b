using Mortar.Core.Changes;
using Mortar.Core.Groups;
using Mortar.Core.Letters;
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
        if (IsNoticed(Read(change)))
        {
            tellings.Tell(members, Topic.Inbox, change);
        }
    }

    protected override async Task<Refusal?> WhyNotReturn(
        Undoing undoing,
        GroupRow now,
        GroupRow? then,
        CancellationToken cancellationToken
    ) =>
        then is null
            ? new Refusal.AgainstRule(
                "kept",
                "A group that was made cannot be taken back. Put it in the bin: that is in its settings."
            )
            : await undoing.Db.WhyNotKeep(undoing.Actor, now.Id, cancellationToken)
                ?? (
                    then.State() == GroupState.InBin && now.State() != GroupState.InBin
                        ? GroupEnding.WhyNotBin(
                            await undoing.Db.CalendarsEnding(undoing.Actor, now.Id, cancellationToken)
                        )
                        : null
                );

    /// <summary>That one's group has ended, or is at work again.</summary>
    public override Task<IQueryable<ChangeRow>?> AlsoNoticed(
        MortarDb db,
        PersonId reader,
        CancellationToken cancellationToken
    )
    {
        var groups = db.Members.Where(member => member.PersonId == reader).Select(member => (GroupId?)member.GroupId);
        return Task.FromResult<IQueryable<ChangeRow>?>(
            db.Changes.Where(change =>
                change.Subject == Subject.Group && change.Before != null && groups.Contains(change.GroupId)
            )
        );
    }

    public override void NeedForNotice(ChangeRow change, NoticeNeeds needs)
    {
        if (change.Before is not null && IsNoticed(Read(change)))
        {
            needs.Groups.Add(GroupOf(change));
        }
    }

    /// <summary>Who came to it later is told nothing of it.</summary>
    protected override NoticeLine? Notice(Said<GroupRow> said, string actor, NoticeFacts facts) =>
        IsNoticed(said) && facts.MemberSince.TryGetValue(said.After.Id, out var since) && since <= said.Change.Sequence
            ? NoticeRules.OfGroup(actor, said.After.Name, said.Before!.State(), said.After.State())
            : null;

    private static bool IsNoticed(Said<GroupRow> said) =>
        said.Before is { } before && before.State() != said.After.State();

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
            said.Before is not { } before ? ["made the group"]
                : GroupEnding.Said(before.State(), said.After.State()) is { } ended ? [ended]
                : GroupDifference.Between(before.ToSettings(), said.After.ToSettings())
        );
    }
}
