using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Store;

namespace Mortar.Data.Calendars;

/// <summary>A calendar that waits in the bin.</summary>
/// <param name="GroupName">The group it is of.</param>
/// <param name="DeletedBy">The name of who put it there.</param>
/// <param name="Events">Events and series that come back with it.</param>
public sealed record BinnedCalendar(CalendarRow Row, string GroupName, string DeletedBy, int Events);

/// <summary>What is in the bin.</summary>
public static class BinQueries
{
    /// <summary>The calendars in the bin that a person coordinated and can bring back, the latest first.</summary>
    public static async Task<IReadOnlyList<BinnedCalendar>> InBin(
        this MortarDb db,
        PersonId person,
        CancellationToken cancellationToken
    )
    {
        var standings = await db.StandingsInBin(person, cancellationToken);
        var ids = standings
            .Where(one => AccessRules.ToCoordinate(one.Value.Role) == Verdict.Granted)
            .Select(one => one.Key)
            .ToList();
        var subjects = ids.ConvertAll(id => id.Value);
        var rows = await (
            from row in db.Calendars.AsNoTracking()
            where ids.Contains(row.Id)
            join home in db.Groups on row.GroupId equals home.Id
            select new { row, home.Name }
        ).ToListAsync(cancellationToken);
        var latest = db
            .Changes.Where(change => subjects.Contains(change.SubjectId))
            .GroupBy(change => change.SubjectId)
            .Select(changes => changes.Max(change => change.Sequence));
        var by = await (
            from change in db.Changes
            where latest.Contains(change.Sequence)
            join actor in db.People on change.Actor equals actor.Id
            select new { change.SubjectId, actor.Name }
        ).ToDictionaryAsync(one => one.SubjectId, one => one.Name, cancellationToken);
        var events = await db
            .Events.Where(one => ids.Contains(one.CalendarId) && one.DeletedAt == null)
            .GroupBy(one => one.CalendarId)
            .Select(same => new { same.Key, Count = same.Count() })
            .ToDictionaryAsync(one => one.Key, one => one.Count, cancellationToken);
        return
        [
            .. rows.Where(one => BinRules.IsKept(one.row.DeletedAt!.Value, db.Now))
                .OrderByDescending(one => one.row.DeletedAt)
                .Select(one => new BinnedCalendar(
                    one.row,
                    one.Name,
                    by.GetValueOrDefault(one.row.Id.Value, string.Empty),
                    events.GetValueOrDefault(one.row.Id)
                )),
        ];
    }
}
