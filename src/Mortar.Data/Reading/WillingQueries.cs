using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Availability;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Calendars;
using Mortar.Data.Store;

namespace Mortar.Data.Reading;

/// <summary>Reads whose time calendars may take.</summary>
public static class WillingQueries
{
    /// <summary>
    /// For each of some calendars those whose time it may take. Asked by a group: its members for its own calendars, and of
    /// others those who keep one and so gave it themselves. Asked by nobody's group: the members of each calendar's own
    /// group, and those who came to it by a yes of their own.
    /// </summary>
    public static Task<IReadOnlyDictionary<CalendarId, Willing>> WillingIn(
        this MortarDb db,
        IReadOnlyCollection<CalendarRow> calendars,
        GroupId? asking,
        CancellationToken cancellationToken
    ) =>
        db.Read(
            calendars,
            calendars.Select(row => row.GroupId).Where(group => asking is null || group == asking),
            asking is null ? db.CameThemselves() : db.Keep(),
            cancellationToken
        );

    /// <summary>
    /// For each of some calendars those who put it on their wall themselves, and so let its times be known where they let
    /// anything be known; of the asking group's also its members.
    /// </summary>
    public static Task<IReadOnlyDictionary<CalendarId, Willing>> BroughtThemselves(
        this MortarDb db,
        IReadOnlyCollection<CalendarRow> calendars,
        GroupId? asking,
        CancellationToken cancellationToken
    ) =>
        db.Read(
            calendars,
            calendars.Select(row => row.GroupId).Where(group => group == asking),
            db.CameThemselves()
                .Union(
                    db.Layers.Where(layer => layer.Shown)
                        .Select(layer => new Place { Calendar = layer.CalendarId, Person = layer.PersonId })
                ),
            cancellationToken
        );

    private sealed class Place
    {
        public required CalendarId Calendar { get; init; }

        public required PersonId Person { get; init; }
    }

    private static IQueryable<Place> Keep(this MortarDb db)
    {
        var now = db.Now;
        return db
            .Grants.CountingAt(now)
            .Where(grant => grant.Role == Role.Coordinate)
            .Select(grant => new Place { Calendar = grant.CalendarId, Person = grant.PersonId });
    }

    private static IQueryable<Place> CameThemselves(this MortarDb db)
    {
        var now = db.Now;
        return db
            .Grants.CountingAt(now)
            .Select(grant => new Place { Calendar = grant.CalendarId, Person = grant.PersonId })
            .Union(
                from holder in db.LinkHolders
                where holder.LeftAt == null
                join link in db.Links.CountingAt(now) on holder.LinkId equals link.Id
                select new Place { Calendar = holder.CalendarId, Person = holder.PersonId }
            );
    }

    private static async Task<IReadOnlyDictionary<CalendarId, Willing>> Read(
        this MortarDb db,
        IReadOnlyCollection<CalendarRow> calendars,
        IEnumerable<GroupId> whole,
        IQueryable<Place> themselves,
        CancellationToken cancellationToken
    )
    {
        var (ids, groups) = (calendars.Select(row => row.Id).ToList(), whole.Distinct().ToList());
        var members = await db
            .Members.Where(member => groups.Contains(member.GroupId))
            .Select(member => new { member.GroupId, member.PersonId })
            .Union(
                db.Guests.Where(guest => groups.Contains(guest.GroupId))
                    .Select(guest => new { guest.GroupId, guest.PersonId })
            )
            .ToListAsync(cancellationToken);
        var places = await themselves.Where(place => ids.Contains(place.Calendar)).ToListAsync(cancellationToken);
        var inGroups = members
            .GroupBy(one => one.GroupId)
            .ToDictionary(same => same.Key, same => same.Select(one => one.PersonId).ToHashSet());
        var own = places
            .GroupBy(one => one.Calendar)
            .ToDictionary(same => same.Key, same => same.Select(one => one.Person).ToHashSet());
        return calendars.ToDictionary(
            row => row.Id,
            row => new Willing(inGroups.GetValueOrDefault(row.GroupId, []), own.GetValueOrDefault(row.Id, []))
        );
    }
}
