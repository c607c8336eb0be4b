using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Undo;
using Mortar.Core.Words;
using Mortar.Data.Changes;
using Mortar.Data.Groups;
using Mortar.Data.Store;

namespace Mortar.Data.Kinds;

/// <summary>That somebody sees and answers for a member of a group.</summary>
internal sealed class GuardianKind : ChangeKind<GuardianRow>
{
    public override Subject Subject => Subject.Guardian;

    public override bool IsAccess => true;

    protected override Task<GuardianRow?> FindRow(MortarDb db, Guid id, CancellationToken cancellationToken) =>
        db.Guardians.IgnoreQueryFilters().FirstOrDefaultAsync(guardian => guardian.Id == id, cancellationToken);

    /// <summary>Both of them, and those who keep the group.</summary>
    protected override async Task Tell(Tellings tellings, ChangeRow change, CancellationToken cancellationToken)
    {
        var keepers = await tellings.MembersOf(GroupOf(change), onlyKeepers: true, cancellationToken);
        var concerned = keepers.Union(About(change)).ToList();
        tellings.Tell(concerned, Topic.Shelf, change);
        tellings.Tell(concerned, Topic.Inbox, change);
    }

    protected override async Task<Refusal?> WhyNotReturn(
        Undoing undoing,
        GuardianRow now,
        GuardianRow? then,
        CancellationToken cancellationToken
    )
    {
        var me = await undoing.PlaceIn(now.GroupId, cancellationToken);
        return UndoRules
            .OfPlace(
                now.WardId == undoing.Actor || now.GuardianId == undoing.Actor,
                me is not null,
                me?.Coordinates == true,
                then?.Place() ?? MemberPlace.Outside
            )
            .WhyNotOfGroup();
    }

    public override HistoryOf InHistory => HistoryOf.Group;

    /// <summary>It is about two people, of whom the log names one.</summary>
    public override bool NamesWhom => false;

    public override IEnumerable<PersonId> About(ChangeRow change) =>
        Read(change).After is var after ? [after.GuardianId, after.WardId] : [];

    public override string? History(ChangeRow change, HistoryFacts facts)
    {
        var (before, after) = (Read(change).Before, Read(change).After);
        return HistorySentence.OfGuardian(
            facts.Whom(after.GuardianId, change),
            facts.Whom(after.WardId, change),
            before?.Place() ?? MemberPlace.Outside,
            after.Place()
        );
    }

    public override Deed? Deed(ChangeRow change, DeedFacts facts) => AccessDeed(change, facts);
}
