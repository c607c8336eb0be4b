using Microsoft.EntityFrameworkCore;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.People;

/// <summary>Finds people: by address, and those whom somebody knows.</summary>
public static class PeopleQueries
{
    /// <summary>The person whom mail to an address reaches; <c>null</c> where nobody has it.</summary>
    public static Task<PersonRow?> PersonAt(this MortarDb db, Address address, CancellationToken cancellationToken) =>
        db.At(db.People, address).FirstOrDefaultAsync(cancellationToken);

    /// <summary>Those of some people whom mail to an address reaches, by their first or a further address.</summary>
    public static IQueryable<PersonRow> At(this MortarDb db, IQueryable<PersonRow> people, Address address)
    {
        var further = db
            .Addresses.Where(row => row.Address == address.Value && row.ConfirmedAt != null)
            .Select(row => row.PersonId);
        return people.Where(one => one.Address == address.Value || further.Contains(one.Id));
    }

    /// <summary>The guests of groups who are somebody with an account, known there by an address of theirs and not by who they are.</summary>
    public static IQueryable<GuestRow> GuestsWhoAre(this MortarDb db, PersonId person) =>
        db.Guests.Where(guest =>
            guest.PersonId != person
            && (
                db.People.Any(one => one.Id == person && one.Address == guest.Address)
                || db.Addresses.Any(row =>
                    row.PersonId == person && row.Address == guest.Address && row.ConfirmedAt != null
                )
            )
        );

    /// <summary>The zone on whose clock somebody sees everything.</summary>
    public static async Task<DateTimeZone> ZoneOf(
        this MortarDb db,
        PersonId person,
        ZoneClock clock,
        CancellationToken cancellationToken
    ) =>
        clock.Zone(
            await db.People.Where(one => one.Id == person).Select(one => one.Zone).SingleAsync(cancellationToken)
        );

    /// <summary>Those who share a group with a person, and so are known to them by name.</summary>
    public static IQueryable<PersonRow> KnownTo(this MortarDb db, PersonId person)
    {
        var groups = db.Members.Where(member => member.PersonId == person).Select(member => member.GroupId);
        return db.People.Where(other =>
            db.Members.Any(member => member.PersonId == other.Id && groups.Contains(member.GroupId))
        );
    }

    /// <summary>Those whose mail address a person is told, since they coordinate a group with them: by it they can be found.</summary>
    public static IQueryable<PersonRow> AddressedTo(this MortarDb db, PersonId person)
    {
        var groups = db
            .Members.Where(member => member.PersonId == person && member.Coordinates)
            .Select(member => member.GroupId);
        return db.People.Where(other =>
            db.Members.Any(member => member.PersonId == other.Id && groups.Contains(member.GroupId))
        );
    }
}
