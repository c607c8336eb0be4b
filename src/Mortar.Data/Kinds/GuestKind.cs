using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Groups;
using Mortar.Core.Words;
using Mortar.Data.Changes;
using Mortar.Data.Groups;
using Mortar.Data.Store;

namespace Mortar.Data.Kinds;

/// <summary>Somebody outside a group who can be named on its events.</summary>
internal sealed class GuestKind : ChangeKind<GuestRow>
{
    public override Subject Subject => Subject.Guest;

    protected override Task<GuestRow?> FindRow(MortarDb db, Guid id, CancellationToken cancellationToken) =>
        db.Guests.IgnoreQueryFilters().FirstOrDefaultAsync(guest => guest.Id == id, cancellationToken);

    /// <summary>Those in the group, who can name them. The guest is told by what they are named on.</summary>
    protected override async Task Tell(Tellings tellings, ChangeRow change, CancellationToken cancellationToken)
    {
        var members = await tellings.MembersOf(GroupOf(change), onlyKeepers: false, cancellationToken);
        tellings.Tell(members, Topic.Groups, change);
    }

    /// <summary>Anybody in the group names guests; who takes one out wrote them, or coordinates it.</summary>
    protected override async Task<Refusal?> WhyNotReturn(
        Undoing undoing,
        GuestRow now,
        GuestRow? then,
        CancellationToken cancellationToken
    )
    {
        var me = await undoing.PlaceIn(now.GroupId, cancellationToken);
        return (
            then is { EndedAt: null }
                ? MemberRules.ToNameGuest(me is not null)
                : MemberRules.ToEndGuest(me is not null, me?.Coordinates == true, undoing.Actor, now.AddedBy)
        ).WhyNotOfGroup();
    }

    /// <summary>For those who keep the group, and who did it.</summary>
    public override Deed? Deed(ChangeRow change, DeedFacts facts)
    {
        if ((!facts.Keeps(change) && !facts.IsOwn(change)) || change.After is null)
        {
            return null;
        }

        var (before, after) = (Read(change).Before, Read(change).After);
        var guest = facts.Access.NameOf(after.PersonId);
        return facts.Groups.TryGetValue(GroupOf(change), out var group)
            ? new Deed(
                group,
                [
                    after.EndedAt is not null ? $"took the guest {guest} out"
                    : before is null or { EndedAt: not null } ? $"named {guest} as a guest"
                    : $"changed the guest {guest}",
                ]
            )
            : null;
    }

    public override IEnumerable<PersonId> About(ChangeRow change) =>
        change.After is null ? [] : [Read(change).After.PersonId];
}
