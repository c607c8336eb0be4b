using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Calendars;
using Mortar.Data.Store;

namespace Mortar.Data.Access;

/// <summary>Finds every grant that leads somebody to a calendar, and lets Core say where they stand.</summary>
public static class Standings
{
    private sealed record Found(CalendarId CalendarId, Role Role);

    /// <summary>Where a person stands with one calendar; outside where it is deleted or was never there.</summary>
    public static async Task<Standing> StandingOf(
        this MortarDb db,
        PersonId person,
        CalendarId calendar,
        CancellationToken cancellationToken
    ) =>
        (await Resolve(db, person, db.Calendars.Where(row => row.Id == calendar), cancellationToken)).GetValueOrDefault(
            calendar,
            Standing.Outside
        );

    /// <summary>Where a person stands with every calendar they reach.</summary>
    public static async Task<IReadOnlyDictionary<CalendarId, Standing>> StandingsOf(
        this MortarDb db,
        PersonId person,
        CancellationToken cancellationToken
    ) => await Resolve(db, person, db.Calendars, cancellationToken);

    /// <summary>Everybody who reaches a calendar, deleted or not, at least to see when it is busy.</summary>
    public static async Task<IReadOnlyList<PersonId>> ReadersOf(
        this MortarDb db,
        CalendarId calendar,
        CancellationToken cancellationToken
    )
    {
        var own = db
            .Grants.Where(grant => grant.CalendarId == calendar && grant.Role != Role.None)
            .Select(grant => grant.PersonId);
        var members =
            from row in db.Calendars
            where row.Id == calendar && row.GroupDefault != Role.None
            join member in db.Members on row.GroupId equals member.GroupId
            select member.PersonId;
        return await own.Union(members).ToListAsync(cancellationToken);
    }

    private static async Task<Dictionary<CalendarId, Standing>> Resolve(
        MortarDb db,
        PersonId person,
        IQueryable<CalendarRow> calendars,
        CancellationToken cancellationToken
    )
    {
        var there = calendars.Where(calendar => calendar.DeletedAt == null);
        var own = await (
            from grant in db.Grants
            where grant.PersonId == person && grant.Role != Role.None
            join row in there on grant.CalendarId equals row.Id
            select new Found(grant.CalendarId, grant.Role)
        ).ToListAsync(cancellationToken);
        var byDefault = await (
            from member in db.Members
            where member.PersonId == person
            join row in there on member.GroupId equals row.GroupId
            where row.GroupDefault != Role.None
            select new Found(row.Id, row.GroupDefault)
        ).ToListAsync(cancellationToken);
        return own.Select(found => (found.CalendarId, Grant: new Grant(found.Role, Way.Own)))
            .Concat(byDefault.Select(found => (found.CalendarId, Grant: new Grant(found.Role, Way.Default))))
            .GroupBy(found => found.CalendarId, found => found.Grant)
            .ToDictionary(grants => grants.Key, Standing.Of);
    }
}
