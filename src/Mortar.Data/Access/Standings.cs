using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Groups;
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
    private sealed record Found(CalendarId CalendarId, GroupId InGroup, PersonId PersonId, Grant Grant);

    /// <summary>Somebody as they stand now, read once for all that one request or command asks about them.</summary>
    public static async Task<Reader> ReaderOf(this MortarDb db, PersonId person, CancellationToken cancellationToken)
    {
        if (db.Readers.TryGetValue(person, out var known))
        {
            return known;
        }

        var guardians = await db.GuardiansAmong([person], cancellationToken);
        return db.Readers[person] = new Reader(
            person,
            Of(person, await db.Ways(Kept(db), [person], guardians, cancellationToken), db.Now),
            guardians.ConvertAll(guardian => new Ward(guardian.WardId, guardian.GroupId))
        );
    }

    /// <summary>Where a person stands with one calendar; outside where it is deleted or was never there.</summary>
    public static async Task<Standing> StandingOf(
        this MortarDb db,
        PersonId person,
        CalendarId calendar,
        CancellationToken cancellationToken
    ) => (await db.ReaderOf(person, cancellationToken)).StandingOn(calendar);

    /// <summary>Where a person stands with every calendar they reach.</summary>
    public static async Task<IReadOnlyDictionary<CalendarId, Standing>> StandingsOf(
        this MortarDb db,
        PersonId person,
        CancellationToken cancellationToken
    ) => (await db.ReaderOf(person, cancellationToken)).Standings;

    /// <summary>Where some people stand with every calendar they reach.</summary>
    public static async Task<IReadOnlyDictionary<(CalendarId Calendar, PersonId Person), Standing>> StandingsOf(
        this MortarDb db,
        IReadOnlyList<PersonId> people,
        CancellationToken cancellationToken
    ) =>
        people.Count == 0
            ? []
            : Resolve(
                await db.Ways(Kept(db), people, await db.GuardiansAmong(people, cancellationToken), cancellationToken),
                db.Now
            );

    /// <summary>Where a person would stand with the calendars in the bin, were they brought back; not with those that went with their group.</summary>
    public static async Task<IReadOnlyDictionary<CalendarId, Standing>> StandingsInBin(
        this MortarDb db,
        PersonId person,
        CancellationToken cancellationToken
    ) =>
        Of(
            person,
            await db.Ways(
                db.Calendars.Where(row => row.DeletedAt != null && !row.WithGroup),
                [person],
                await db.GuardiansAmong([person], cancellationToken),
                cancellationToken
            ),
            db.Now
        );

    /// <summary>Where a person stands with the calendars of a group that is at rest: they can read at most.</summary>
    public static async Task<IReadOnlyDictionary<CalendarId, Standing>> StandingsAtRest(
        this MortarDb db,
        PersonId person,
        GroupId group,
        CancellationToken cancellationToken
    ) =>
        (await db.StandingsBeforeRest(person, group, cancellationToken)).ToDictionary(
            one => one.Key,
            one => one.Value with { Role = GroupEnding.AtRest(one.Value.Role) }
        );

    /// <summary>Where a person stood with the calendars of a group that is at rest: what tells them how much of its past they may know.</summary>
    internal static async Task<IReadOnlyDictionary<CalendarId, Standing>> StandingsBeforeRest(
        this MortarDb db,
        PersonId person,
        GroupId group,
        CancellationToken cancellationToken
    ) =>
        await db.Groups.AnyAsync(
            row => row.Id == group && row.RestsSince != null && row.DeletedAt == null,
            cancellationToken
        )
            ? await db.StandingsWithGroup(person, db.Calendars.Where(row => row.GroupId == group), cancellationToken)
            : [];

    /// <summary>Where a person would stand with those of some calendars that went with their group, were it at work.</summary>
    internal static async Task<Dictionary<CalendarId, Standing>> StandingsWithGroup(
        this MortarDb db,
        PersonId person,
        IQueryable<CalendarRow> calendars,
        CancellationToken cancellationToken
    ) =>
        Of(
            person,
            await db.Ways(
                calendars.Where(row => row.WithGroup),
                [person],
                await db.GuardiansAmong([person], cancellationToken),
                cancellationToken
            ),
            db.Now
        );

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
                people: null,
                await db.GuardiansAmong(people: null, cancellationToken),
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
            .Grants.CountingAt(now)
            .Where(grant => grant.CalendarId == calendar)
            .Select(grant => grant.PersonId);
        var byGroups =
            from grant in db.GroupGrants.CountingAt(now)
            where grant.CalendarId == calendar
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
            join link in db.Links.CountingAt(now) on holder.LinkId equals link.Id
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

    /// <summary>Those whose access ended by its date after one moment and up to another.</summary>
    public static IQueryable<PersonId> EndedBetween(this MortarDb db, Instant after, Instant upTo)
    {
        var own = db
            .Grants.Where(grant => grant.Role != Role.None && grant.EndsAt > after && grant.EndsAt <= upTo)
            .Select(grant => grant.PersonId);
        var groups =
            from grant in db.GroupGrants
            where grant.Role != Role.None && grant.EndsAt > after && grant.EndsAt <= upTo
            join member in db.Members on grant.GroupId equals member.GroupId
            select member.PersonId;
        var links =
            from link in db.Links
            where link.EndedAt == null && link.EndsAt > after && link.EndsAt <= upTo
            join holder in db.LinkHolders on link.Id equals holder.LinkId
            select holder.PersonId;
        return own.Union(groups).Union(links);
    }

    private static IQueryable<CalendarRow> Kept(MortarDb db) => db.Calendars.Where(row => row.DeletedAt == null);

    private static Dictionary<CalendarId, Standing> Of(PersonId person, IEnumerable<Found> ways, Instant now) =>
        Resolve(ways, now)
            .Where(found => found.Key.Person == person)
            .ToDictionary(found => found.Key.Calendar, found => found.Value);

    /// <summary>What some people, or everybody, are as guardians of members.</summary>
    private static Task<List<GuardianRow>> GuardiansAmong(
        this MortarDb db,
        IReadOnlyList<PersonId>? people,
        CancellationToken cancellationToken
    ) =>
        (
            from guardian in db.Guardians.AsNoTracking()
            where people == null || people.Contains(guardian.GuardianId)
            join ward in db.Members
                on new { guardian.GroupId, PersonId = guardian.WardId } equals new { ward.GroupId, ward.PersonId }
            select guardian
        ).ToListAsync(cancellationToken);

    /// <summary>All that leads some people, or everybody, to some calendars.</summary>
    private static async Task<List<Found>> Ways(
        this MortarDb db,
        IQueryable<CalendarRow> calendars,
        IReadOnlyList<PersonId>? people,
        List<GuardianRow> guardians,
        CancellationToken cancellationToken
    )
    {
        var holders = people?.Concat(guardians.Select(guardian => guardian.WardId)).ToList();
        var found = await db.Ways(
            calendars,
            db.Grants.Where(one => holders == null || holders.Contains(one.PersonId)),
            db.Members.Where(one => holders == null || holders.Contains(one.PersonId)),
            db.LinkHolders.Where(one => people == null || people.Contains(one.PersonId)),
            cancellationToken
        );
        var ofWards =
            from guardian in guardians
            join way in found on (guardian.WardId, guardian.GroupId) equals (way.PersonId, way.InGroup)
            where way.Grant.Way != Way.Link
            select way with
            {
                PersonId = guardian.GuardianId,
                Grant = GuardianRules.OfWard(way.Grant),
            };
        return [.. found.Where(way => people is null || people.Contains(way.PersonId)), .. ofWards];
    }

    /// <summary>All that leads from some grants, memberships and links to some calendars, by one question.</summary>
    private static async Task<List<Found>> Ways(
        this MortarDb db,
        IQueryable<CalendarRow> calendars,
        IQueryable<GrantRow> grants,
        IQueryable<MemberRow> members,
        IQueryable<LinkHolderRow> holders,
        CancellationToken cancellationToken
    )
    {
        var own =
            from grant in grants
            where grant.Role != Role.None
            join row in calendars on grant.CalendarId equals row.Id
            select new
            {
                row.Id,
                row.GroupId,
                grant.PersonId,
                grant.Role,
                grant.EndsAt,
                Through = row.GroupId,
                Way = Way.Own,
            };
        var byGroups =
            from member in members
            join grant in db.GroupGrants on member.GroupId equals grant.GroupId
            where grant.Role != Role.None
            join through in db.Groups on grant.GroupId equals through.Id
            where through.DeletedAt == null
            join row in calendars on grant.CalendarId equals row.Id
            select new
            {
                row.Id,
                row.GroupId,
                member.PersonId,
                grant.Role,
                grant.EndsAt,
                Through = member.GroupId,
                Way = Way.Group,
            };
        var byDefault =
            from member in members
            join row in calendars on member.GroupId equals row.GroupId
            where row.GroupDefault != Role.None
            select new
            {
                row.Id,
                row.GroupId,
                member.PersonId,
                Role = row.GroupDefault,
                EndsAt = (Instant?)null,
                Through = row.GroupId,
                Way = Way.Default,
            };
        var byLinks =
            from holder in holders
            where holder.LeftAt == null
            join link in db.Links on holder.LinkId equals link.Id
            where link.EndedAt == null
            join row in calendars on holder.CalendarId equals row.Id
            select new
            {
                row.Id,
                row.GroupId,
                holder.PersonId,
                link.Role,
                link.EndsAt,
                Through = row.GroupId,
                Way = Way.Link,
            };
        var ways = await own.Concat(byGroups).Concat(byDefault).Concat(byLinks).ToListAsync(cancellationToken);
        return ways.ConvertAll(way => new Found(
            way.Id,
            way.GroupId,
            way.PersonId,
            new Grant(way.Role, way.Way, way.EndsAt, way.Way == Way.Group ? way.Through : null)
        ));
    }

    private static Dictionary<(CalendarId Calendar, PersonId Person), Standing> Resolve(
        IEnumerable<Found> ways,
        Instant now
    ) =>
        ways.GroupBy(way => (way.CalendarId, way.PersonId), way => way.Grant)
            .Select(grants => (grants.Key, Standing: Standing.Of(grants, now)))
            .Where(found => found.Standing.Role > Role.None)
            .ToDictionary(found => found.Key, found => found.Standing);
}
