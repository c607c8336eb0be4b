using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Calendars;
using Mortar.Data.Store;

namespace Mortar.Data.Access;

/// <summary>Reads who of a group keeps its calendars.</summary>
public static class KeepersOfCalendars
{
    /// <summary>The group's calendars that are there, by name, each with those of the group who coordinate it for good.</summary>
    public static async Task<IReadOnlyList<CalendarKeepers>> KeepersIn(
        this MortarDb db,
        GroupId groupId,
        CancellationToken cancellationToken
    ) =>
        await db.KeepersAmong(
            groupId,
            await db
                .Calendars.AsNoTracking()
                .Where(row => row.GroupId == groupId && row.DeletedAt == null)
                .OrderBy(row => row.Name)
                .ToListAsync(cancellationToken),
            cancellationToken
        );

    /// <summary>Some calendars of a group, each with those of the group who coordinate it for good.</summary>
    internal static async Task<IReadOnlyList<CalendarKeepers>> KeepersAmong(
        this MortarDb db,
        GroupId groupId,
        List<CalendarRow> calendars,
        CancellationToken cancellationToken
    )
    {
        var ids = calendars.ConvertAll(one => one.Id);
        var kept = await (
            from grant in db.Grants
            where ids.Contains(grant.CalendarId) && grant.Role == Role.Coordinate && grant.EndsAt == null
            join member in db.Members on grant.PersonId equals member.PersonId
            where member.GroupId == groupId
            select new { grant.CalendarId, grant.PersonId }
        ).ToListAsync(cancellationToken);
        var numbers = kept.Select(one => one.PersonId.Value).Distinct().ToList();
        var accounts = await db
            .Users.Where(account => numbers.Contains(account.Id))
            .Select(account => account.Id)
            .ToHashSetAsync(cancellationToken);
        var keepers = kept.Where(one => accounts.Contains(one.PersonId.Value))
            .ToLookup(one => one.CalendarId, one => one.PersonId);
        return calendars.ConvertAll(one => new CalendarKeepers(
            one.Id,
            one.Name,
            one.Person is not null,
            keepers[one.Id].ToHashSet()
        ));
    }

    /// <summary>Makes somebody who keeps a calendar from now on one who does; part of a command that is under way.</summary>
    internal static async Task<GrantRow> MakeKeeper(
        this MortarDb db,
        CalendarId calendar,
        PersonId person,
        CancellationToken cancellationToken
    )
    {
        var grant = await db.GrantOf(calendar, person, cancellationToken);
        (grant.Role, grant.EndsAt) = (Role.Coordinate, null);
        return grant;
    }
}
