using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Store;

namespace Mortar.Data.Access;

/// <summary>Finds every grant that leads somebody to a calendar, and lets Core say where they stand.</summary>
public static class Standings
{
    private sealed record Way(CalendarId CalendarId, PersonId PersonId, Role Role, Core.Access.Way Kind);

    /// <summary>Where a person stands with one calendar; outside where it is deleted or was never there.</summary>
    public static async Task<Standing> StandingOf(this MortarDb db, PersonId person, CalendarId calendar, CancellationToken cancellationToken) =>
        Standing.Of(
            (await db.Ways(person).Where(way => way.CalendarId == calendar).ToListAsync(cancellationToken)).Select(way => new Grant(way.Role, way.Kind))
        );

    /// <summary>Where a person stands with every calendar they reach.</summary>
    public static async Task<IReadOnlyDictionary<CalendarId, Standing>> StandingsOf(this MortarDb db, PersonId person, CancellationToken cancellationToken) =>
        (await db.Ways(person).ToListAsync(cancellationToken))
            .GroupBy(way => way.CalendarId)
            .ToDictionary(ways => ways.Key, ways => Standing.Of(ways.Select(way => new Grant(way.Role, way.Kind))));

    /// <summary>Everybody who reaches a calendar, deleted or not, at least to see when it is busy.</summary>
    public static async Task<IReadOnlyList<PersonId>> ReadersOf(this MortarDb db, CalendarId calendar, CancellationToken cancellationToken)
    {
        var own = db.Grants.Where(grant => grant.CalendarId == calendar && grant.Role != Role.None).Select(grant => grant.PersonId);
        var members =
            from row in db.Calendars
            where row.Id == calendar && row.GroupDefault != Role.None
            join member in db.Members on row.GroupId equals member.GroupId
            select member.PersonId;
        return await own.Union(members).ToListAsync(cancellationToken);
    }

    private static IQueryable<Way> Ways(this MortarDb db, PersonId person)
    {
        var own =
            from grant in db.Grants.AsNoTracking()
            where grant.PersonId == person && grant.Role != Role.None
            join calendar in db.Calendars on grant.CalendarId equals calendar.Id
            where calendar.DeletedAt == null
            select new Way(grant.CalendarId, person, grant.Role, Core.Access.Way.Own);
        var byDefault =
            from member in db.Members.AsNoTracking()
            where member.PersonId == person
            join calendar in db.Calendars on member.GroupId equals calendar.GroupId
            where calendar.DeletedAt == null && calendar.GroupDefault != Role.None
            select new Way(calendar.Id, person, calendar.GroupDefault, Core.Access.Way.Default);
        return own.Concat(byDefault);
    }
}
