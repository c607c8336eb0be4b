using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Store;

namespace Mortar.Data.Access;

/// <summary>Whose mail address a coordinator is told: it is theirs to know where the person, or they, wrote it.</summary>
public static class Contacts
{
    /// <summary>
    /// The addresses of people that somebody knows who coordinates some calendars: those an accepted invitation was sent to,
    /// those who asked for access gave with it, and those of members of groups that the reader coordinates. To be given a
    /// step tells nobody's address.
    /// </summary>
    public static async Task<IReadOnlyDictionary<PersonId, ToldAddress>> AddressesKnownTo(
        this MortarDb db,
        PersonId reader,
        IReadOnlyCollection<CalendarId> calendars,
        CancellationToken cancellationToken
    )
    {
        var invited = db
            .Invitations.Where(row =>
                calendars.Contains(row.CalendarId) && row.PersonId != null && row.State == InvitationState.Accepted
            )
            .Select(row => new { Person = row.PersonId!.Value, row.Address });
        var asked =
            from ask in db.Asks
            where calendars.Contains(ask.CalendarId)
            join person in db.People on ask.PersonId equals person.Id
            where person.Address != null
            select new { Person = person.Id, Address = person.Address! };
        var groups = db.Members.Where(me => me.PersonId == reader && me.Coordinates).Select(me => me.GroupId);
        var members =
            from member in db.Members
            where groups.Contains(member.GroupId)
            join person in db.People on member.PersonId equals person.Id
            where person.Address != null || member.Address != null
            select new { Person = person.Id, Address = (person.Address ?? member.Address)! };
        return (await invited.Union(asked).Union(members).ToListAsync(cancellationToken))
            .GroupBy(one => one.Person)
            .ToDictionary(same => same.Key, same => ToldAddress.AsWritten(same.Min(one => one.Address)!));
    }
}
