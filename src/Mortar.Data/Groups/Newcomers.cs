using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Groups;
using Mortar.Core.Words;
using Mortar.Data.People;
using Mortar.Data.Store;

namespace Mortar.Data.Groups;

/// <summary>What a store knows of those who are to be added to a group: read once for all of them, whoever is added or only looked at.</summary>
public sealed class Newcomers
{
    private readonly MortarDb db;
    private readonly PersonId adder;
    private readonly GroupId group;

    private Newcomers(MortarDb db, PersonId adder, GroupId group) =>
        (this.db, this.adder, this.group) = (db, adder, group);

    private Dictionary<PersonId, PersonRow> KnownById { get; init; } = [];

    private Dictionary<string, PersonRow> KnownByAddress { get; init; } = [];

    private Dictionary<PersonId, MemberRow> Places { get; init; } = [];

    private HashSet<Guid> Accounts { get; init; } = [];

    private HashSet<string> Named { get; init; } = [];

    private HashSet<PersonId> Taken { get; init; } = [];

    private Dictionary<string, GuestRow> Guests { get; init; } = [];

    /// <summary>Reads what is known of some ids and addresses to the one who adds them.</summary>
    public static async Task<Newcomers> Read(
        MortarDb db,
        PersonId adder,
        GroupId group,
        IReadOnlyCollection<PersonId> ids,
        IReadOnlyCollection<Address> addresses,
        CancellationToken cancellationToken
    )
    {
        var written = addresses.Select(address => address.Value).Distinct(StringComparer.Ordinal).ToList();
        var byId = await db.KnownTo(adder)
            .Where(person => ids.Contains(person.Id))
            .ToDictionaryAsync(person => person.Id, cancellationToken);
        // Whose a further address is, is told to nobody: only by the one they are listed by are they found.
        var byAddress = await db.AddressedTo(adder)
            .Where(person => person.Address != null && written.Contains(person.Address))
            .ToDictionaryAsync(person => person.Address!, StringComparer.Ordinal, cancellationToken);
        var known = byId.Keys.Concat(byAddress.Values.Select(person => person.Id)).Distinct().ToList();
        var knownAccounts = known.ConvertAll(person => person.Value);
        return new Newcomers(db, adder, group)
        {
            KnownById = byId,
            KnownByAddress = byAddress,
            Places = await db
                .Members.IgnoreQueryFilters()
                .Where(member => member.GroupId == group && known.Contains(member.PersonId))
                .ToDictionaryAsync(member => member.PersonId, cancellationToken),
            Accounts = await db
                .Users.Where(account => knownAccounts.Contains(account.Id))
                .Select(account => account.Id)
                .ToHashSetAsync(cancellationToken),
            Named = await db
                .Members.Where(member =>
                    member.GroupId == group && member.Address != null && written.Contains(member.Address)
                )
                .Select(member => member.Address!)
                .ToHashSetAsync(StringComparer.Ordinal, cancellationToken),
            Taken = await db
                .People.Where(person => ids.Contains(person.Id))
                .Select(person => person.Id)
                .ToHashSetAsync(cancellationToken),
            // An address stands once among the guests of a group.
            Guests = await db
                .Guests.Where(guest => guest.GroupId == group && written.Contains(guest.Address))
                .ToDictionaryAsync(guest => guest.Address, StringComparer.Ordinal, cancellationToken),
        };
    }

    /// <summary>What becomes of one of them.</summary>
    /// <param name="id">The id they were chosen by, or are to have; <c>null</c> where there is none yet.</param>
    /// <param name="address">Their address; <c>null</c> for a name alone.</param>
    public Arrival Of(PersonId? id, Address? address) =>
        Arrivals.Of(
            Known(id, address) is { } person
                ? new Acquaintance(
                    Accounts.Contains(person.Id.Value),
                    PlaceOf(person.Id),
                    Places.GetValueOrDefault(person.Id)?.SaidNoAt
                )
                : null,
            address is { } reached && Named.Contains(reached.Value),
            id is { } wanted && Taken.Contains(wanted),
            db.Now
        );

    /// <summary>Somebody of another group of theirs, chosen by name, or by an address that they are told there.</summary>
    public PersonRow? Known(PersonId? id, Address? address) =>
        id is { } chosen && KnownById.TryGetValue(chosen, out var person) ? person
        : address is { } reached ? KnownByAddress.GetValueOrDefault(reached.Value)
        : null;

    /// <summary>Asks somebody known to be in the group.</summary>
    internal void Ask(PersonRow person)
    {
        if (!Places.TryGetValue(person.Id, out var row))
        {
            Places[person.Id] = row = new MemberRow { GroupId = group, PersonId = person.Id };
            db.Members.Add(row);
        }

        (row.LeftAt, row.Coordinates, row.AskedAt, row.AskedBy) = (null, false, db.Now, adder);
    }

    /// <summary>Puts a name into the group; a guest who becomes a member stays the one who is named on the group's events.</summary>
    internal MemberRow Name(PersonId id, string name, Address? address, string zone)
    {
        if (address is { } reached && Guests.TryGetValue(reached.Value, out var guest))
        {
            id = guest.PersonId;
            guest.EndedAt = db.Now;
        }
        else
        {
            db.People.Add(
                new PersonRow
                {
                    Id = id,
                    Name = name,
                    Zone = zone,
                }
            );
        }

        Taken.Add(id);
        if (address is { } its)
        {
            Named.Add(its.Value);
        }

        var row = new MemberRow
        {
            GroupId = group,
            PersonId = id,
            Address = address?.Value,
        };
        db.Members.Add(row);
        return row;
    }

    private MemberPlace PlaceOf(PersonId person) => Places.GetValueOrDefault(person)?.Place() ?? MemberPlace.Outside;
}
