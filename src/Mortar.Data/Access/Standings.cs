using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Calendars;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Access;

/// <summary>Finds every grant that leads somebody to a calendar, and lets Core say where they stand.</summary>
public static class Standings
{
    private sealed record Found(CalendarId CalendarId, PersonId PersonId, Role Role, Instant? EndsAt, GroupId? Through);

    /// <summary>Where a person stands with one calendar; outside where it is deleted or was never there.</summary>
    public static async Task<Standing> StandingOf(
        this MortarDb db,
        PersonId person,
        CalendarId calendar,
        CancellationToken cancellationToken
    ) =>
        (await db.Of(person, db.Calendars.Where(row => row.Id == calendar), cancellationToken)).GetValueOrDefault(
            calendar,
            Standing.Outside
        );

    /// <summary>Where a person stands with every calendar they reach.</summary>
    public static async Task<IReadOnlyDictionary<CalendarId, Standing>> StandingsOf(
        this MortarDb db,
        PersonId person,
        CancellationToken cancellationToken
    ) => await db.Of(person, db.Calendars, cancellationToken);

    /// <summary>Where somebody stands with those calendars that another person coordinates: all that those may look at through their eyes.</summary>
    public static async Task<IReadOnlyDictionary<CalendarId, Standing>> StandingsAsSeenBy(
        this MortarDb db,
        PersonId coordinator,
        PersonId whose,
        CancellationToken cancellationToken
    )
    {
        var mine = await db.StandingsOf(coordinator, cancellationToken);
        var theirs = await db.StandingsOf(whose, cancellationToken);
        return theirs
            .Where(one =>
                AccessRules.ToCoordinate(mine.GetValueOrDefault(one.Key, Standing.Outside).Role) == Verdict.Granted
            )
            .ToDictionary(one => one.Key, one => one.Value);
    }

    /// <summary>Where everybody stands who reaches one of some calendars that are there.</summary>
    public static async Task<IReadOnlyDictionary<(CalendarId Calendar, PersonId Person), Standing>> StandingsOn(
        this MortarDb db,
        IReadOnlyList<CalendarId> calendars,
        CancellationToken cancellationToken
    ) =>
        Resolve(
            await db.Ways(
                db.Calendars.Where(row => calendars.Contains(row.Id)),
                db.Grants,
                db.Members,
                cancellationToken
            ),
            db.Now
        );

    /// <summary>Everybody who reaches a calendar, deleted or not, at least to see when it is busy.</summary>
    public static async Task<IReadOnlyList<PersonId>> ReadersOf(
        this MortarDb db,
        CalendarId calendar,
        CancellationToken cancellationToken
    )
    {
        var now = db.Now;
        var own = db
            .Grants.Where(grant =>
                grant.CalendarId == calendar && grant.Role != Role.None && (grant.EndsAt == null || grant.EndsAt > now)
            )
            .Select(grant => grant.PersonId);
        var byGroups =
            from grant in db.GroupGrants
            where
                grant.CalendarId == calendar && grant.Role != Role.None && (grant.EndsAt == null || grant.EndsAt > now)
            join member in db.Members on grant.GroupId equals member.GroupId
            select member.PersonId;
        var members =
            from row in db.Calendars
            where row.Id == calendar && row.GroupDefault != Role.None
            join member in db.Members on row.GroupId equals member.GroupId
            select member.PersonId;
        return await own.Union(byGroups).Union(members).ToListAsync(cancellationToken);
    }

    private static async Task<Dictionary<CalendarId, Standing>> Of(
        this MortarDb db,
        PersonId person,
        IQueryable<CalendarRow> calendars,
        CancellationToken cancellationToken
    )
    {
        var ways = await db.Ways(
            calendars.Where(calendar => calendar.DeletedAt == null),
            db.Grants.Where(grant => grant.PersonId == person),
            db.Members.Where(member => member.PersonId == person),
            cancellationToken
        );
        return Resolve(ways, db.Now).ToDictionary(found => found.Key.Calendar, found => found.Value);
    }

    /// <summary>All that leads from some grants and memberships to some calendars.</summary>
    private static async Task<List<(Found Found, Way Way)>> Ways(
        this MortarDb db,
        IQueryable<CalendarRow> calendars,
        IQueryable<GrantRow> grants,
        IQueryable<MemberRow> members,
        CancellationToken cancellationToken
    )
    {
        var own = await (
            from grant in grants
            where grant.Role != Role.None
            join row in calendars on grant.CalendarId equals row.Id
            select new Found(row.Id, grant.PersonId, grant.Role, grant.EndsAt, null)
        ).ToListAsync(cancellationToken);
        var byGroups = await (
            from member in members
            join grant in db.GroupGrants on member.GroupId equals grant.GroupId
            where grant.Role != Role.None
            join row in calendars on grant.CalendarId equals row.Id
            select new Found(row.Id, member.PersonId, grant.Role, grant.EndsAt, member.GroupId)
        ).ToListAsync(cancellationToken);
        var byDefault = await (
            from member in members
            join row in calendars on member.GroupId equals row.GroupId
            where row.GroupDefault != Role.None
            select new Found(row.Id, member.PersonId, row.GroupDefault, null, null)
        ).ToListAsync(cancellationToken);
        return
        [
            .. own.Select(found => (found, Way.Own)),
            .. byGroups.Select(found => (found, Way.Group)),
            .. byDefault.Select(found => (found, Way.Default)),
        ];
    }

    private static Dictionary<(CalendarId Calendar, PersonId Person), Standing> Resolve(
        IEnumerable<(Found Found, Way Way)> ways,
        Instant now
    ) =>
        ways.GroupBy(
                one => (one.Found.CalendarId, one.Found.PersonId),
                one => new Grant(one.Found.Role, one.Way, one.Found.EndsAt, one.Found.Through)
            )
            .Select(grants => (grants.Key, Standing: Standing.Of(grants, now)))
            .Where(found => found.Standing.Role > Role.None)
            .ToDictionary(found => found.Key, found => found.Standing);
}
