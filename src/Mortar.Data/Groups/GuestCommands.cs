using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Groups;
using Mortar.Core.Words;
using Mortar.Data.People;
using Mortar.Data.Store;

namespace Mortar.Data.Groups;

/// <summary>Takes note of people outside a group who can be named on its events, by their address.</summary>
public sealed class GuestCommands(MortarDb db)
{
    /// <summary>
    /// Adds somebody by what was typed, an address with or without a name. Where that address is known in the group, it is
    /// the one who has it; whether it belongs to an account elsewhere is told to nobody.
    /// </summary>
    /// <param name="act">By a member of the group.</param>
    /// <param name="groupId">The group.</param>
    /// <param name="id">The id of the new person, made by the client so that sending twice adds once.</param>
    /// <param name="text">What was typed.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public Task<Outcome<PersonRow>> Add(
        Act act,
        GroupId groupId,
        PersonId id,
        string? text,
        CancellationToken cancellationToken
    ) =>
        db.Write<PersonRow>(
            act,
            async () =>
            {
                var me = await db
                    .Members.AsNoTracking()
                    .FirstOrDefaultAsync(
                        member => member.GroupId == groupId && member.PersonId == act.Actor,
                        cancellationToken
                    );
                if (me is null)
                {
                    return new Refusal.NotThere("group");
                }

                if (
                    PeopleList.Read(text, []) is not [{ Address: { } address, Name: var typed }]
                    || PersonName.Check(typed) is not { IsFit: true, Value: var name }
                )
                {
                    return new Refusal.Unfit([
                        new FieldProblem(
                            "text",
                            "Write one mail address, as nina@example.org or Nina Bell <nina@example.org>."
                        ),
                    ]);
                }

                if (await Known(groupId, me.Coordinates, address, cancellationToken) is { } known)
                {
                    return known;
                }

                var before = await db
                    .Guests.IgnoreQueryFilters()
                    .FirstOrDefaultAsync(
                        guest => guest.GroupId == groupId && guest.Address == address.Value,
                        cancellationToken
                    );
                if (before is not null)
                {
                    before.EndedAt = null;
                    return await db.People.SingleAsync(one => one.Id == before.PersonId, cancellationToken);
                }

                if (await db.People.AnyAsync(one => one.Id == id, cancellationToken))
                {
                    return new Refusal.AgainstRule("already-there", "This is somebody else. Write it again.");
                }

                if (
                    await db.Guests.CountAsync(guest => guest.GroupId == groupId, cancellationToken)
                    >= MemberRules.MostGuests
                )
                {
                    return new Refusal.AgainstRule(
                        "too-many",
                        $"A group can have up to {MemberRules.MostGuests} guests. Take out some among its people first."
                    );
                }

                var zone = await db
                    .Groups.Where(row => row.Id == groupId)
                    .Select(row => row.Zone)
                    .SingleAsync(cancellationToken);
                var added = new PersonRow
                {
                    Id = id,
                    Name = name,
                    Zone = zone,
                };
                db.People.Add(added);
                db.Guests.Add(
                    new GuestRow
                    {
                        GroupId = groupId,
                        PersonId = id,
                        Address = address.Value,
                        AddedBy = act.Actor,
                    }
                );
                return added;
            },
            cancellationToken
        );

    /// <summary>Takes somebody out again: they stay named where they are, and are asked nothing more.</summary>
    public Task<Outcome<int>> Remove(Act act, GroupId groupId, PersonId whose, CancellationToken cancellationToken) =>
        db.Write<int>(
            act,
            async () =>
            {
                var me = await db
                    .Members.AsNoTracking()
                    .FirstOrDefaultAsync(
                        member => member.GroupId == groupId && member.PersonId == act.Actor,
                        cancellationToken
                    );
                var guest = await db.Guests.FirstOrDefaultAsync(
                    one => one.GroupId == groupId && one.PersonId == whose,
                    cancellationToken
                );
                var verdict = MemberRules.ToEndGuest(
                    me is not null,
                    me?.Coordinates == true,
                    act.Actor,
                    guest?.AddedBy
                );
                if (verdict.WhyNotOfGroup() is { } refusal)
                {
                    return refusal;
                }

                if (guest is null)
                {
                    return new Refusal.NotThere("guest");
                }

                guest.EndedAt = db.Now;
                return 1;
            },
            cancellationToken
        );

    /// <summary>The guest of the group who has the address; for coordinators, who are told the addresses of members, also the member.</summary>
    private async Task<PersonRow?> Known(
        GroupId groupId,
        bool coordinates,
        Address address,
        CancellationToken cancellationToken
    )
    {
        var members = db.Members.Where(member => member.GroupId == groupId);
        var found = db
            .Guests.Where(guest => guest.GroupId == groupId && guest.Address == address.Value)
            .Select(guest => guest.PersonId);
        if (coordinates)
        {
            var accounts = db.At(db.People, address).Select(person => person.Id);
            found = found.Union(
                members
                    .Where(member => member.Address == address.Value || accounts.Contains(member.PersonId))
                    .Select(member => member.PersonId)
            );
        }

        return await db
            .People.Where(person => found.Contains(person.Id))
            .OrderBy(person => person.Id)
            .FirstOrDefaultAsync(cancellationToken);
    }
}
