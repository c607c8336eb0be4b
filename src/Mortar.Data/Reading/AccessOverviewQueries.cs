using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Events;
using Mortar.Data.Groups;
using Mortar.Data.Noticeboards;
using Mortar.Data.Store;

namespace Mortar.Data.Reading;

/// <summary>Reads who reaches which calendars of a group.</summary>
public static class AccessOverviewQueries
{
    /// <summary>The overview for somebody in the group who coordinates some of its calendars.</summary>
    public static async Task<Outcome<AccessOverview>> AccessOverviewOf(
        this MortarDb db,
        GroupId groupId,
        PersonId reader,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        // Who is in a group is known to its members only, whatever somebody else coordinates in it.
        if (await db.PlaceIn(groupId, reader).AsNoTracking().FirstOrDefaultAsync(cancellationToken) is not { } me)
        {
            return new Refusal.NotThere("group");
        }

        var leftAlone = me.Coordinates
            ? (await db.KeepersIn(groupId, cancellationToken)).Where(one => one.IsLeft).ToList()
            : [];

        var mine = await db.StandingsOf(reader, cancellationToken);
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
        if (calendars.Count == 0 && leftAlone.Count == 0)
        {
            return new Refusal.NotAllowed(
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
        var boards = await db.ReadAmong(
            (await db.NoticeboardsOf(reader, groupId, cancellationToken)).Where(board =>
                ids.Exists(id => board.Calendars.Contains(id.Value))
            ),
            cancellationToken
        );

        var addresses = await db.AddressesKnownTo(reader, ids, cancellationToken);
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
        return new AccessOverview(
            await db.Groups.Where(row => row.Id == groupId).Select(row => row.Name).SingleAsync(cancellationToken),
            [.. calendars.Select(row => new OverviewCalendar(row.Id, row.Name, row.Hue, row.Mark, row.GroupDefault))],
            [
                .. names.Select(group => new OverviewGroup(
                    group.Key,
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
            [
                .. links.Select(one => new OverviewLink(
                    one.Link.Id,
                    one.Link.Name,
                    one.Link.MostUses,
                    one.Holders,
                    [Cell(one.Link.CalendarId, Standing.Of([new Grant(one.Link.Role, Way.Own, one.Link.EndsAt)], now))]
                )),
            ],
            [
                .. boards
                    .Select(row => (row.Id, Board: row.ToCore()))
                    .OrderBy(one => one.Board.Title, StringComparer.OrdinalIgnoreCase)
                    .Select(one => new OverviewNoticeboard(
                        one.Id,
                        one.Board.Title,
                        [
                            .. one
                                .Board.Layers.Where(layer => ids.Contains(layer.CalendarId))
                                .Select(layer =>
                                    Cell(
                                        layer.CalendarId,
                                        Standing.Of([new Grant(layer.Role, Way.Own, EndsAt: null)], now)
                                    )
                                ),
                        ]
                    )),
            ],
            [
                .. people.Select(one => new OverviewPerson(
                    one.Id,
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
                )),
            ],
            [.. leftAlone.Select(one => new LeftCalendar(one.Calendar, one.Name))]
        );

        OverviewCell Cell(CalendarId calendar, Standing standing) =>
            new(
                calendar,
                standing.Role,
                standing.Stays,
                [
                    .. standing.Grants.Select(grant => new OverviewWay(
                        grant.Way,
                        grant.Role,
                        grant.Through is { } group ? names.GetValueOrDefault(group) : null,
                        grant.EndsAt is { } end ? AccessEnd.LastDay(end, zoneOf[calendar]) : null
                    )),
                ]
            );
    }
}
