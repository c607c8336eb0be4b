using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Calendars;
using Mortar.Data.Groups;
using Mortar.Data.Links;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Access;

/// <summary>Finds every grant that leads somebody to a calendar, and lets Core say where they stand.</summary>
public static class Standings
{
    private sealed record Found(
        CalendarId CalendarId,
        GroupId InGroup,
        PersonId PersonId,
        Role Role,
        Instant? EndsAt,
        GroupId? Through
    );

    /// <summary>Where a person stands with one calendar; outside where it is deleted or was never there.</summary>
    public static async Task<Standing> StandingOf(
        this MortarDb db,
        PersonId person,
        CalendarId calendar,
        CancellationToken cancellationToken
    ) =>
        (await db.Of(person, Kept(db).Where(row => row.Id == calendar), cancellationToken)).GetValueOrDefault(
            calendar,
            Standing.Outside
        );

    /// <summary>Where a person stands with every calendar they reach.</summary>
    public static async Task<IReadOnlyDictionary<CalendarId, Standing>> StandingsOf(
        this MortarDb db,
        PersonId person,
        CancellationToken cancellationToken
    ) => await db.Of(person, Kept(db), cancellationToken);

    /// <summary>Where some people stand with every calendar they reach.</summary>
    public static async Task<IReadOnlyDictionary<(CalendarId Calendar, PersonId Person), Standing>> StandingsOf(
        this MortarDb db,
        IReadOnlyList<PersonId> people,
        CancellationToken cancellationToken
    ) => people.Count == 0 ? [] : Resolve(await db.Ways(Kept(db), people, cancellationToken), db.Now);

    /// <summary>Where a person would stand with the calendars in the bin, were they brought back.</summary>
    public static async Task<IReadOnlyDictionary<CalendarId, Standing>> StandingsInBin(
        this MortarDb db,
        PersonId person,
        CancellationToken cancellationToken
    ) => await db.Of(person, db.Calendars.Where(row => row.DeletedAt != null), cancellationToken);

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
            await db.Ways(db.Calendars.Where(row => calendars.Contains(row.Id)), people: null, cancellationToken),
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
        var byLinks =
            from holder in db.LinkHolders
            where holder.CalendarId == calendar && holder.LeftAt == null
            join link in db.Links on holder.LinkId equals link.Id
            where link.EndedAt == null && (link.EndsAt == null || link.EndsAt > now)
            select holder.PersonId;
        var wards = own.Union(byGroups).Union(members);
        var guardians =
            from row in db.Calendars
            where row.Id == calendar
            join guardian in db.Guardians on row.GroupId equals guardian.GroupId
            where wards.Contains(guardian.WardId)
            join ward in db.Members
                on new { guardian.GroupId, PersonId = guardian.WardId } equals new { ward.GroupId, ward.PersonId }
            select guardian.GuardianId;
        return await wards.Union(byLinks).Union(guardians).ToListAsync(cancellationToken);
    }

    /// <summary>When the next access that was given for a time ends; <c>null</c> where none does.</summary>
    public static async Task<Instant?> NextEnd(this MortarDb db, Instant after, CancellationToken cancellationToken)
    {
        var own = await db
            .Grants.Where(grant => grant.Role != Role.None && grant.EndsAt > after)
            .MinAsync(grant => grant.EndsAt, cancellationToken);
        var group = await db
            .GroupGrants.Where(grant => grant.Role != Role.None && grant.EndsAt > after)
            .MinAsync(grant => grant.EndsAt, cancellationToken);
        var link = await db
            .Links.Where(one => one.EndedAt == null && one.EndsAt > after)
            .MinAsync(one => one.EndsAt, cancellationToken);
        return new[] { own, group, link }.Min();
    }

    private static IQueryable<CalendarRow> Kept(MortarDb db) => db.Calendars.Where(row => row.DeletedAt == null);

    private static async Task<Dictionary<CalendarId, Standing>> Of(
        this MortarDb db,
        PersonId person,
        IQueryable<CalendarRow> calendars,
        CancellationToken cancellationToken
    )
    {
        var ways = await db.Ways(calendars, [person], cancellationToken);
        return Resolve(ways, db.Now).ToDictionary(found => found.Key.Calendar, found => found.Value);
    }

    /// <summary>All that leads some people, or everybody, to some calendars.</summary>
    private static async Task<List<(Found Found, Grant Grant)>> Ways(
        this MortarDb db,
        IQueryable<CalendarRow> calendars,
        IReadOnlyList<PersonId>? people,
        CancellationToken cancellationToken
    )
    {
        var guardians = await (
            from guardian in db.Guardians.AsNoTracking()
            where people == null || people.Contains(guardian.GuardianId)
            join ward in db.Members
                on new { guardian.GroupId, PersonId = guardian.WardId } equals new { ward.GroupId, ward.PersonId }
            select guardian
        ).ToListAsync(cancellationToken);
        var wards = guardians.ConvertAll(guardian => guardian.WardId);
        var found = await db.Ways(
            calendars,
            db.Grants.Where(one => people == null || people.Contains(one.PersonId) || wards.Contains(one.PersonId)),
            db.Members.Where(one => people == null || people.Contains(one.PersonId) || wards.Contains(one.PersonId)),
            db.LinkHolders.Where(one => people == null || people.Contains(one.PersonId)),
            cancellationToken
        );
        var ofWards =
            from guardian in guardians
            from way in found
            where
                way.Found.PersonId == guardian.WardId
                && way.Found.InGroup == guardian.GroupId
                && way.Grant.Way != Way.Link
            select (way.Found with { PersonId = guardian.GuardianId }, GuardianRules.OfWard(way.Grant));
        return [.. found.Where(way => people is null || people.Contains(way.Found.PersonId)), .. ofWards];
    }

    /// <summary>All that leads from some grants, memberships and links to some calendars.</summary>
    private static async Task<List<(Found Found, Grant Grant)>> Ways(
        this MortarDb db,
        IQueryable<CalendarRow> calendars,
        IQueryable<GrantRow> grants,
        IQueryable<MemberRow> members,
        IQueryable<LinkHolderRow> holders,
        CancellationToken cancellationToken
    )
    {
        var own = await (
            from grant in grants
            where grant.Role != Role.None
            join row in calendars on grant.CalendarId equals row.Id
            select new Found(row.Id, row.GroupId, grant.PersonId, grant.Role, grant.EndsAt, null)
        ).ToListAsync(cancellationToken);
        var byGroups = await (
            from member in members
            join grant in db.GroupGrants on member.GroupId equals grant.GroupId
            where grant.Role != Role.None
            join row in calendars on grant.CalendarId equals row.Id
            select new Found(row.Id, row.GroupId, member.PersonId, grant.Role, grant.EndsAt, member.GroupId)
        ).ToListAsync(cancellationToken);
        var byDefault = await (
            from member in members
            join row in calendars on member.GroupId equals row.GroupId
            where row.GroupDefault != Role.None
            select new Found(row.Id, row.GroupId, member.PersonId, row.GroupDefault, null, null)
        ).ToListAsync(cancellationToken);
        var byLinks = await (
            from holder in holders
            where holder.LeftAt == null
            join link in db.Links on holder.LinkId equals link.Id
            where link.EndedAt == null
            join row in calendars on holder.CalendarId equals row.Id
            select new Found(row.Id, row.GroupId, holder.PersonId, link.Role, link.EndsAt, null)
        ).ToListAsync(cancellationToken);
        return
        [
            .. own.Select(found => Reached(found, Way.Own)),
            .. byGroups.Select(found => Reached(found, Way.Group)),
            .. byDefault.Select(found => Reached(found, Way.Default)),
            .. byLinks.Select(found => Reached(found, Way.Link)),
        ];

        static (Found Found, Grant Grant) Reached(Found found, Way way) =>
            (found, new Grant(found.Role, way, found.EndsAt, found.Through));
    }

    private static Dictionary<(CalendarId Calendar, PersonId Person), Standing> Resolve(
        IEnumerable<(Found Found, Grant Grant)> ways,
        Instant now
    ) =>
        ways.GroupBy(one => (one.Found.CalendarId, one.Found.PersonId), one => one.Grant)
            .Select(grants => (grants.Key, Standing: Standing.Of(grants, now)))
            .Where(found => found.Standing.Role > Role.None)
            .ToDictionary(found => found.Key, found => found.Standing);
}
