using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Groups;
using Mortar.Core.Letters;
using Mortar.Core.Undo;
using Mortar.Core.Words;
using Mortar.Data.Changes;
using Mortar.Data.Groups;
using Mortar.Data.Store;

namespace Mortar.Data.Kinds;

/// <summary>Somebody's place in a group.</summary>
internal sealed class MemberKind : ChangeKind<MemberRow>
{
    public override Subject Subject => Subject.Member;

    public override bool IsAccess => true;

    protected override Task<MemberRow?> FindRow(MortarDb db, Guid id, CancellationToken cancellationToken) =>
        db.Members.IgnoreQueryFilters().FirstOrDefaultAsync(member => member.Id == id, cancellationToken);

    /// <summary>They, and all who are in the group; who is asked and says no was never in it, and that is for those who keep it.</summary>
    protected override async Task Tell(Tellings tellings, ChangeRow change, CancellationToken cancellationToken)
    {
        var said = Read(change);
        var isSeen = said.Before?.Place() == MemberPlace.Member || said.After.Place() == MemberPlace.Member;
        var keepers = await tellings.MembersOf(GroupOf(change), onlyKeepers: true, cancellationToken);
        var seeing = isSeen
            ? await tellings.MembersOf(GroupOf(change), onlyKeepers: false, cancellationToken)
            : keepers;
        tellings.Tell(seeing.Union([said.After.PersonId]), Topic.Shelf, change);
        tellings.Tell(keepers.Union(Concerned(change)), Topic.Inbox, change);
    }

    protected override async Task<Refusal?> WhyNotReturn(
        Undoing undoing,
        MemberRow now,
        MemberRow? then,
        CancellationToken cancellationToken
    )
    {
        var me = await undoing.PlaceIn(now.GroupId, cancellationToken);
        return UndoRules
            .OfPlace(
                now.PersonId == undoing.Actor,
                me is not null,
                me?.Coordinates == true,
                then?.Place() ?? MemberPlace.Outside
            )
            .WhyNotOfGroup();
    }

    public override async Task<Refusal?> WhyNotLeft(
        MortarDb db,
        IReadOnlyList<Guid> returned,
        CancellationToken cancellationToken
    )
    {
        var groups = db
            .Members.IgnoreQueryFilters()
            .Where(member => returned.Contains(member.Id))
            .Select(member => member.GroupId);
        return await db.Groups.AnyAsync(
            group =>
                groups.Contains(group.Id)
                && !db.Members.Any(member => member.GroupId == group.Id && member.Coordinates),
            cancellationToken
        )
            ? MemberRules.WhyOneStays
            : null;
    }

    public override Mailed Mailed(IRecorded row) =>
        row is MemberRow one
            ? new Mailed(one.ClaimHash, one.InvitedAt, one.Address)
            : throw new ArgumentException("It is no place in a group.", nameof(row));

    /// <summary>A link to another address, or of who has left, leads nowhere.</summary>
    public override void KeepMailed(IRecorded row, Mailed mailed)
    {
        var one = (MemberRow)row;
        (one.ClaimHash, one.InvitedAt) =
            one.Address == mailed.Address && one.LeftAt is null ? (mailed.Hash, mailed.At) : (null, null);
    }

    /// <summary>What people did themselves about their place in the groups one coordinates.</summary>
    public override Task<IQueryable<ChangeRow>?> AlsoNoticed(
        MortarDb db,
        PersonId reader,
        CancellationToken cancellationToken
    )
    {
        var kept = db
            .Members.Where(member => member.PersonId == reader && member.Coordinates)
            .Select(member => member.GroupId);
        return Task.FromResult<IQueryable<ChangeRow>?>(
            db.Changes.Where(change =>
                change.Subject == Subject.Member
                && change.GroupId != null
                && kept.Contains(change.GroupId.Value)
                && change.Concerns != reader
            )
        );
    }

    public override void NeedForNotice(ChangeRow change, NoticeNeeds needs)
    {
        needs.Groups.Add(GroupOf(change));
        needs.People.UnionWith(Concerned(change));
    }

    protected override NoticeLine? Notice(Said<MemberRow> said, string actor, NoticeFacts facts)
    {
        var (before, after) = (said.Before, said.After);
        var group = facts.Groups[after.GroupId];
        var (then, now) = (before?.Place() ?? MemberPlace.Outside, after.Place());
        return after.PersonId == facts.Reader.Person
                ? NoticeRules.OfPlace(actor, group, (then, before?.Coordinates == true), (now, after.Coordinates))
            : before is { ClaimedBy: null } && after.ClaimedBy is not null
                ? NoticeRules.OfClaim(actor, facts.People[after.PersonId], group)
            : after.PersonId == said.Change.Actor ? NoticeRules.OfTheirPlace(actor, group, then, now)
            : null;
    }

    public override HistoryOf InHistory => HistoryOf.Group;

    public override IEnumerable<PersonId> About(ChangeRow change) => [Read(change).After.PersonId];

    public override string? History(ChangeRow change, HistoryFacts facts)
    {
        var (before, after) = (Read(change).Before, Read(change).After);
        return HistorySentence.OfMember(
            facts.Whom(after.PersonId, change),
            (before?.Place() ?? MemberPlace.Outside, before?.Coordinates == true),
            (after.Place(), after.Coordinates)
        );
    }

    public override Deed? Deed(ChangeRow change, DeedFacts facts) => AccessDeed(change, facts);
}
