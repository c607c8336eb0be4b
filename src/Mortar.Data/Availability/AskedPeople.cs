using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Availability;
using Mortar.Core.Calendars;
using Mortar.Core.Groups;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Calendars;
using Mortar.Data.People;
using Mortar.Data.Reading;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Availability;

/// <summary>Somebody for whose time another one asks, or who asks.</summary>
/// <param name="Hours">Their usual hours, on the weekdays of a group that they share with who asks.</param>
/// <param name="IsOpen">Whether who asks may know all that takes their time.</param>
internal sealed record AskedPerson(PersonId Id, string Name, DateTimeZone Zone, UsualHours Hours, bool IsOpen);

/// <summary>A calendar that takes the time of one who lets it be known.</summary>
/// <param name="Members">Who is in its group, where it takes the time of all of them.</param>
/// <param name="Willing">Those who brought it before themselves.</param>
internal sealed record TakingCalendar(CalendarRow Row, IEnumerable<PersonId> Members, Willing Willing);

/// <summary>What the store knows of people for whose time somebody asks, whatever the days: read once, and asked for each stretch of days.</summary>
/// <param name="People">Those asked for whom the reader knows, and the reader.</param>
/// <param name="Reach">Where those of them stand whose time is open.</param>
/// <param name="Taking">All calendars those reach.</param>
internal sealed record AskedPeople(
    IReadOnlyDictionary<PersonId, AskedPerson> People,
    IReadOnlyDictionary<(CalendarId Calendar, PersonId Person), Standing> Reach,
    IReadOnlyList<TakingCalendar> Taking
)
{
    /// <param name="reader">Who asks.</param>
    /// <param name="asked">For whom.</param>
    /// <param name="group">The group whose week is meant; <c>null</c> for all they share.</param>
    public static async Task<AskedPeople> Of(
        MortarDb db,
        ZoneClock clock,
        PersonId reader,
        IReadOnlyCollection<PersonId> asked,
        GroupId? group,
        CancellationToken cancellationToken
    )
    {
        var people = await Known(db, clock, reader, [.. asked.Append(reader).Distinct()], group, cancellationToken);
        var reach = await db.StandingsOf(
            [.. asked.Where(one => people.TryGetValue(one, out var known) && known.IsOpen)],
            cancellationToken
        );
        var ids = reach.Keys.Select(key => key.Calendar).Distinct().ToList();
        if (ids.Count == 0)
        {
            return new AskedPeople(people, reach, []);
        }

        var rows = await db.Calendars.AsNoTracking().Where(row => ids.Contains(row.Id)).ToListAsync(cancellationToken);
        var groups = rows.Where(row => row.Takes == WhoseTime.Group).Select(row => row.GroupId).Distinct().ToList();
        var members =
            groups.Count == 0
                ? []
                : await db
                    .Members.Where(member => groups.Contains(member.GroupId))
                    .Select(member => new { member.GroupId, member.PersonId })
                    .ToListAsync(cancellationToken);
        var byGroup = members.ToLookup(member => member.GroupId, member => member.PersonId);
        var willing = await db.BroughtThemselves(rows, group, cancellationToken);
        return new AskedPeople(
            people,
            reach,
            rows.ConvertAll(row => new TakingCalendar(row, byGroup[row.GroupId], willing[row.Id]))
        );
    }

    /// <summary>Those who share a group with the reader. Who let others know their time is open, and so is the reader.</summary>
    private static async Task<Dictionary<PersonId, AskedPerson>> Known(
        MortarDb db,
        ZoneClock clock,
        PersonId reader,
        List<PersonId> people,
        GroupId? group,
        CancellationToken cancellationToken
    )
    {
        var known = db.KnownTo(reader).Select(person => person.Id);
        var rows = await db
            .People.AsNoTracking()
            .Where(person => people.Contains(person.Id) && (person.Id == reader || known.Contains(person.Id)))
            .ToListAsync(cancellationToken);
        var weeks = await WeeksOf(db, reader, people, group, cancellationToken);
        return rows.Select(row =>
            {
                var preferences = row.ToPreferences();
                var zone = clock.Zone(row.Zone);
                return new AskedPerson(
                    row.Id,
                    row.Name,
                    zone,
                    UsualHours.On(
                        zone,
                        new DayHours(preferences.DayBegins, preferences.DayEnds),
                        weeks.GetValueOrDefault(row.Id, SortRules.WeekOf(GroupSort.Other))
                    ),
                    KnownTimes.IsOpen(row.Id, preferences, reader)
                );
            })
            .ToDictionary(one => one.Id);
    }

    /// <summary>The weekdays on which people are usually there, as far as the reader shares a group with them.</summary>
    private static async Task<Dictionary<PersonId, IReadOnlyList<IsoDayOfWeek>>> WeeksOf(
        MortarDb db,
        PersonId reader,
        List<PersonId> people,
        GroupId? group,
        CancellationToken cancellationToken
    )
    {
        var shared = await (
            from member in db.Members
            where
                people.Contains(member.PersonId)
                && db.Members.Any(mine => mine.GroupId == member.GroupId && mine.PersonId == reader)
            join row in db.Groups on member.GroupId equals row.Id
            select new
            {
                member.PersonId,
                row.Id,
                row.Sort,
            }
        ).ToListAsync(cancellationToken);
        return shared
            .GroupBy(one => one.PersonId, one => (one.Id, one.Sort))
            .ToDictionary(theirs => theirs.Key, theirs => SortRules.WeekIn([.. theirs], group));
    }
}
