using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Events;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Access;

/// <summary>
/// GET /api/groups/{id}/access: who reaches which of the group's calendars that one coordinates, at which step and by
/// which way. Calendars that one does not coordinate are not in it, and neither is who reaches only those.
/// </summary>
internal static class AccessTable
{
    /// <param name="GroupName">The group's name.</param>
    /// <param name="Calendars">Across, by name.</param>
    /// <param name="Groups">Down, first: whole groups that were given a step.</param>
    /// <param name="Links">Down, then: links to whole calendars that lead somewhere.</param>
    /// <param name="People">Down: everybody who reaches one of the calendars, and every member, by name.</param>
    internal sealed record Body(
        string GroupName,
        IReadOnlyList<CalendarBody> Calendars,
        IReadOnlyList<GroupBody> Groups,
        IReadOnlyList<LinkBody> Links,
        IReadOnlyList<PersonBody> People
    );

    internal sealed record CalendarBody(Guid CalendarId, string Name, Hue Hue, Mark Mark, Role GroupDefault);

    /// <summary>A link to hand round, which gives a step on one calendar.</summary>
    /// <param name="MostUses">How many people may use it; <c>null</c> for any number.</param>
    /// <param name="Holders">How many have the calendar on their wall by it.</param>
    internal sealed record LinkBody(
        Guid LinkId,
        string Name,
        int? MostUses,
        int Holders,
        IReadOnlyList<CellBody> Cells
    );

    internal sealed record GroupBody(Guid GroupId, string Name, int Members, IReadOnlyList<CellBody> Cells);

    /// <param name="Address">Told to coordinators of the group, and of whom was invited there or asked with it.</param>
    /// <param name="IsMember">Whether they are in the group; others come from outside.</param>
    /// <param name="HasLeft">Whether they were in it once and are no longer.</param>
    /// <param name="HasAccount">Whether they can sign in.</param>
    /// <param name="WasHere">Whether they have been here at all.</param>
    /// <param name="EventsAlone">How many events are given to them by themselves, of calendars that nothing else leads them to.</param>
    /// <param name="IsUnseen">Whether they have not been here for long; when just is theirs.</param>
    internal sealed record PersonBody(
        Guid PersonId,
        string Name,
        ToldAddress? Address,
        bool IsMember,
        bool HasLeft,
        bool HasAccount,
        bool WasHere,
        bool IsUnseen,
        int EventsAlone,
        IReadOnlyList<CellBody> Cells
    );

    /// <param name="Role">The step: the highest of all ways.</param>
    /// <param name="Stays">The step that stays where what was given to it alone ends, as <see cref="Standing.Stays"/>.</param>
    /// <param name="Ways">Every way that counts, highest first.</param>
    internal sealed record CellBody(Guid CalendarId, Role Role, Role Stays, IReadOnlyList<WayBody> Ways);

    /// <param name="Group">The name of the group it was given to, for that way.</param>
    internal sealed record WayBody(Way Way, Role Role, string? Group, LocalDate? LastDay);

    internal static void Map(RouteGroupBuilder api) =>
        api.MapGet("/groups/{groupId:guid}/access", Handle).WithName(nameof(AccessTable));

    private static async Task<Results<Ok<Body>, ProblemHttpResult>> Handle(
        GroupId groupId,
        Acting acting,
        MortarDb db,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        var me = await db.Members.FirstOrDefaultAsync(
            member => member.GroupId == groupId && member.PersonId == acting.Person,
            cancellationToken
        );
        if (me is null)
        {
            // Who is in a group is known to its members only, whatever somebody else coordinates in it.
            return Problems.NotThere("group");
        }

        var mine = await db.StandingsOf(acting.Person, cancellationToken);
        var calendars = (
            await db
                .Calendars.Where(row => row.GroupId == groupId && row.DeletedAt == null)
                .OrderBy(row => row.Name)
                .ToListAsync(cancellationToken)
        )
            .Where(row =>
                AccessRules.ToCoordinate(mine.GetValueOrDefault(row.Id, Standing.Outside).Role) == Verdict.Granted
            )
            .ToList();
        if (calendars.Count == 0)
        {
            return Problems.Of(
                StatusCodes.Status403Forbidden,
                "not-allowed",
                "You coordinate none of this group’s calendars. A coordinator can make you one."
            );
        }

        var ids = calendars.ConvertAll(row => row.Id);
        var zoneOf = calendars.ToDictionary(row => row.Id, row => zones.Zone(row.Zone));
        var standings = await db.StandingsOn(ids, cancellationToken);
        var now = db.Now;
        var given = await (
            from grant in db.GroupGrants.CountingAt(now)
            where ids.Contains(grant.CalendarId)
            join row in db.Groups on grant.GroupId equals row.Id
            orderby row.Name
            select new { Grant = grant, row.Name }
        ).ToListAsync(cancellationToken);
        var names = given.DistinctBy(one => one.Grant.GroupId).ToDictionary(one => one.Grant.GroupId, one => one.Name);
        var sizes = await db
            .Members.Where(member => names.Keys.Contains(member.GroupId))
            .GroupBy(member => member.GroupId)
            .Select(members => new { members.Key, Count = members.Count() })
            .ToDictionaryAsync(members => members.Key, members => members.Count, cancellationToken);
        var members = await db
            .Members.Where(member => member.GroupId == groupId)
            .Select(member => member.PersonId)
            .ToHashSetAsync(cancellationToken);
        var left = await db
            .Members.IgnoreQueryFilters()
            .Where(member => member.GroupId == groupId && member.LeftAt != null)
            .Select(member => member.PersonId)
            .ToHashSetAsync(cancellationToken);
        var links = await db
            .Links.CountingAt(now)
            .AsNoTracking()
            .Where(link => ids.Contains(link.CalendarId) && link.EventId == null)
            .OrderBy(link => link.Name)
            .Select(link => new
            {
                Link = link,
                Holders = db.LinkHolders.Count(holder => holder.LinkId == link.Id && holder.LeftAt == null),
            })
            .ToListAsync(cancellationToken);
        var addresses = await db.AddressesKnownTo(acting.Person, ids, cancellationToken);
        var alone = await db.GivenAlone(
            ids,
            (calendar, person) => standings.ContainsKey((calendar, person)),
            cancellationToken
        );
        var who = standings
            .Keys.Select(key => key.Person)
            .Union(members)
            .Union(alone.Select(person => person.Key))
            .ToList();
        var people = await db
            .People.Where(person => who.Contains(person.Id))
            .OrderBy(person => person.Name)
            .ToListAsync(cancellationToken);
        var numbers = who.ConvertAll(person => person.Value);
        var accounts = await db
            .Users.Where(account => numbers.Contains(account.Id))
            .Select(account => account.Id)
            .ToHashSetAsync(cancellationToken);
        return TypedResults.Ok(
            new Body(
                await db.Groups.Where(row => row.Id == groupId).Select(row => row.Name).SingleAsync(cancellationToken),
                calendars.ConvertAll(row => new CalendarBody(
                    row.Id.Value,
                    row.Name,
                    row.Hue,
                    row.Mark,
                    row.GroupDefault
                )),
                [
                    .. names.Select(group => new GroupBody(
                        group.Key.Value,
                        group.Value,
                        sizes.GetValueOrDefault(group.Key),
                        [
                            .. given
                                .Where(one => one.Grant.GroupId == group.Key)
                                .Select(one =>
                                    Cell(
                                        one.Grant.CalendarId,
                                        Standing.Of([new Grant(one.Grant.Role, Way.Own, one.Grant.EndsAt)], now)
                                    )
                                ),
                        ]
                    )),
                ],
                links.ConvertAll(one => new LinkBody(
                    one.Link.Id.Value,
                    one.Link.Name,
                    one.Link.MostUses,
                    one.Holders,
                    [Cell(one.Link.CalendarId, Standing.Of([new Grant(one.Link.Role, Way.Own, one.Link.EndsAt)], now))]
                )),
                people.ConvertAll(one => new PersonBody(
                    one.Id.Value,
                    one.Name,
                    addresses.GetValueOrDefault(one.Id),
                    members.Contains(one.Id),
                    left.Contains(one.Id),
                    accounts.Contains(one.Id.Value),
                    one.SeenAt is not null,
                    AccessReview.IsUnseen(one.SeenAt, now),
                    alone[one.Id].Sum(given => given.Events),
                    [
                        .. ids.Where(calendar => standings.ContainsKey((calendar, one.Id)))
                            .Select(calendar => Cell(calendar, standings[(calendar, one.Id)])),
                    ]
                ))
            )
        );

        CellBody Cell(CalendarId calendar, Standing standing) =>
            new(
                calendar.Value,
                standing.Role,
                standing.Stays,
                [
                    .. standing.Grants.Select(grant => new WayBody(
                        grant.Way,
                        grant.Role,
                        grant.Through is { } group ? names.GetValueOrDefault(group) : null,
                        grant.EndsAt is { } end ? AccessEnd.LastDay(end, zoneOf[calendar]) : null
                    )),
                ]
            );
    }
}
