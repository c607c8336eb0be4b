using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Store;

namespace Mortar.Data.Reading;

/// <summary>Somebody with whom a reader is in groups.</summary>
/// <param name="Groups">The groups that both are in.</param>
public sealed record KnownPerson(PersonId Id, string Name, IReadOnlyList<GroupId> Groups);

/// <summary>What was found of what somebody knows of, by its names; the first by name.</summary>
/// <param name="People">Who is in a group with them.</param>
/// <param name="Calendars">Calendars they reach, on their shelf or off it.</param>
/// <param name="Groups">Groups they are in, at work or at rest.</param>
public sealed record KnownFound(
    IReadOnlyList<KnownPerson> People,
    IReadOnlyList<CalendarId> Calendars,
    IReadOnlyList<GroupId> Groups
);

/// <summary>Finds people, calendars and groups among those that somebody knows of; of others nothing is read.</summary>
public static class KnownQueries
{
    /// <summary>How many of each are told.</summary>
    public const int Most = 20;

    /// <summary>What has some words in its names.</summary>
    /// <param name="db">The store.</param>
    /// <param name="person">Who looks.</param>
    /// <param name="words">What for; nothing is found by none.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public static async Task<KnownFound> FindKnown(
        this MortarDb db,
        PersonId person,
        string words,
        CancellationToken cancellationToken
    )
    {
        if (string.IsNullOrWhiteSpace(words))
        {
            return new KnownFound([], [], []);
        }

        var groups = await (
            from me in db.Members
            where me.PersonId == person
            join row in db.Groups on me.GroupId equals row.Id
            where row.DeletedAt == null
            select new { row.Id, row.Name }
        ).ToListAsync(cancellationToken);
        var mine = groups.ConvertAll(group => group.Id);
        var people = await (
            from member in db.Members
            where mine.Contains(member.GroupId) && member.PersonId != person
            join row in db.People on member.PersonId equals row.Id
            select new
            {
                row.Id,
                row.Name,
                member.GroupId,
            }
        ).ToListAsync(cancellationToken);
        var standings = await db.StandingsOf(person, cancellationToken);
        var reached = standings
            .Where(one => AccessRules.ToSee(one.Value.Role) == Verdict.Granted)
            .Select(one => one.Key)
            .ToList();
        var calendars = await (
            from row in db.Calendars
            where reached.Contains(row.Id)
            join home in db.Groups on row.GroupId equals home.Id
            join layer in db.Layers.Where(one => one.PersonId == person) on row.Id equals layer.CalendarId into layers
            from layer in layers.DefaultIfEmpty()
            select new
            {
                row.Id,
                row.Name,
                Own = layer.Name,
                Group = home.Name,
            }
        ).ToListAsync(cancellationToken);
        return new KnownFound(
            [
                .. people
                    .Where(one => SoughtWords.AreIn(one.Name, words))
                    .GroupBy(one => (one.Id, one.Name))
                    .OrderBy(same => same.Key.Name, StringComparer.OrdinalIgnoreCase)
                    .Take(Most)
                    .Select(same => new KnownPerson(same.Key.Id, same.Key.Name, [.. same.Select(one => one.GroupId)])),
            ],
            [
                .. calendars
                    .Where(one => SoughtWords.AreIn($"{one.Own ?? one.Name}\n{one.Name}\n{one.Group}", words))
                    .OrderBy(one => one.Own ?? one.Name, StringComparer.OrdinalIgnoreCase)
                    .Take(Most)
                    .Select(one => one.Id),
            ],
            [
                .. groups
                    .Where(one => SoughtWords.AreIn(one.Name, words))
                    .OrderBy(one => one.Name, StringComparer.OrdinalIgnoreCase)
                    .Take(Most)
                    .Select(one => one.Id),
            ]
        );
    }
}
