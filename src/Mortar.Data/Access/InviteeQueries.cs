using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Groups;
using Mortar.Core.Words;
using Mortar.Data.People;
using Mortar.Data.Store;

namespace Mortar.Data.Access;

/// <summary>One entry of a list that is to be invited.</summary>
/// <param name="Entry">How it was understood.</param>
/// <param name="Name">The name; of somebody the reader knows, the one they gave themselves.</param>
/// <param name="Fate">What would come of it.</param>
public sealed record ListedInvitee(ListedPerson Entry, string Name, InviteeFate Fate);

/// <summary>Reads lists of people who are to be invited to a calendar.</summary>
public static class InviteeQueries
{
    /// <summary>How a pasted list is understood. Whether an address has an account is told of nobody whom the reader does not know.</summary>
    /// <param name="db">The store.</param>
    /// <param name="calendar">The calendar.</param>
    /// <param name="reader">Who coordinates it.</param>
    /// <param name="text">The list.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public static async Task<IReadOnlyList<ListedInvitee>> InviteesIn(
        this MortarDb db,
        CalendarId calendar,
        PersonId reader,
        string text,
        CancellationToken cancellationToken
    )
    {
        var familiar = await db.AddressedTo(reader)
            .Where(person => person.Address != null)
            .Select(person => person.Address!)
            .ToListAsync(cancellationToken);
        var entries = PeopleList.Read(text, [.. familiar.Select(PeopleList.DomainOf).Distinct()]);
        var addresses = entries.Select(entry => entry.Address?.Value).OfType<string>().Distinct().ToList();
        var names = await db.KnownTo(reader)
            .Where(person => person.Address != null && addresses.Contains(person.Address))
            .ToDictionaryAsync(person => person.Address!, person => person.Name, cancellationToken);
        var isIn = await (
            from grant in db.Grants.CountingAt(db.Now)
            where grant.CalendarId == calendar
            join person in db.People on grant.PersonId equals person.Id
            where person.Address != null && addresses.Contains(person.Address)
            select person.Address
        ).ToHashSetAsync(cancellationToken);
        var isInvited = await db
            .Invitations.Where(row =>
                row.CalendarId == calendar && row.State == InvitationState.Waiting && addresses.Contains(row.Address)
            )
            .Select(row => row.Address)
            .ToHashSetAsync(cancellationToken);
        return
        [
            .. from entry in entries
            let address = entry.Address?.Value
            select new ListedInvitee(
                entry,
                address is null ? entry.Name : names.GetValueOrDefault(address, entry.Name),
                InviteeRules.FateOf(
                    entry,
                    address is not null && isIn.Contains(address),
                    address is not null && isInvited.Contains(address)
                )
            ),
        ];
    }
}
