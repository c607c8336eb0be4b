using Microsoft.EntityFrameworkCore;
using Mortar.Core.Calendars;
using Mortar.Core.Roster;
using Mortar.Core.Words;
using Mortar.Data.Reading;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Roster;

/// <summary>Reads the roster of a group.</summary>
public sealed class RosterReading(MortarDb db, LaidReading laid)
{
    /// <summary>That of some days; <c>null</c> where the reader is not in the group.</summary>
    /// <param name="reader">Who reads.</param>
    /// <param name="groupId">Whose members are its rows.</param>
    /// <param name="from">The first day.</param>
    /// <param name="to">The last day.</param>
    /// <param name="some">The calendars that lie on it; <c>null</c> for those of the group.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public async Task<GroupRoster?> Read(
        PersonId reader,
        GroupId groupId,
        LocalDate from,
        LocalDate to,
        IReadOnlySet<CalendarId>? some,
        CancellationToken cancellationToken
    )
    {
        var members = await (
            from member in db.Members
            where member.GroupId == groupId
            join person in db.People on member.PersonId equals person.Id
            select new { person.Id, person.Name }
        ).ToListAsync(cancellationToken);
        if (!members.Exists(one => one.Id == reader))
        {
            return null;
        }

        var (window, calendars, lying) = await laid.Read(
            reader,
            from,
            to,
            LaidReading.Wanted(groupId, some),
            cancellationToken
        );
        var rows = RosterTable.Rows(
            members.OrderBy(one => one.Name, StringComparer.OrdinalIgnoreCase).Select(one => (one.Id, one.Name)),
            calendars
                .Values.Where(one => one.Seen.Purpose == Purpose.Place)
                .OrderBy(one => one.Seen.Name, StringComparer.OrdinalIgnoreCase)
                .Select(one => (one.Row.Id, one.Seen.Name))
        );
        var seen = calendars.ToDictionary(one => one.Key, one => one.Value.Seen);
        return new GroupRoster(
            await db.Groups.Where(row => row.Id == groupId).Select(row => row.Name).SingleAsync(cancellationToken),
            window,
            RosterTable.Lay(
                rows,
                lying.Select(one => RosterEntry.Of(one.Calendar, one.What, window.Reader)),
                seen,
                window
            ),
            seen
        );
    }
}
