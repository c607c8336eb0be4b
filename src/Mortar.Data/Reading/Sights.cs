using System.Collections.Concurrent;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Events;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Reading;

/// <summary>
/// What people may read, kept as long as nothing in the log can have changed it and no access that was given for a time has
/// ended: it takes ten questions to the store, and an open screen asks again after each change.
/// </summary>
public sealed class Sights
{
    /// <summary>For how many people it is kept; then all begin anew.</summary>
    public const int Most = 1_000;

    private readonly ConcurrentDictionary<PersonId, Kept> kept = new();

    /// <param name="Sight">What was read.</param>
    /// <param name="Groups">Every group whose people it depends on.</param>
    /// <param name="People">The person, and those for whom they answer.</param>
    /// <param name="From">When it was read.</param>
    /// <param name="Until">When the next access in the store ends.</param>
    private sealed record Kept(
        Sight Sight,
        IReadOnlySet<GroupId> Groups,
        IReadOnlySet<PersonId> People,
        Instant From,
        Instant Until
    )
    {
        /// <summary>Up to which entry of the log it is known to hold.</summary>
        public long Version { get; set; }
    }

    /// <summary>What a person may read.</summary>
    /// <param name="db">The store.</param>
    /// <param name="tail">The log; what is in it counts.</param>
    /// <param name="person">Who.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public async Task<Sight> Of(MortarDb db, TailState tail, PersonId person, CancellationToken cancellationToken)
    {
        var now = db.Now;
        if (kept.TryGetValue(person, out var known) && now >= known.From && now < known.Until && Holds(known, tail))
        {
            return known.Sight;
        }

        var sight = (
            await db.Read(
                person,
                await db.StandingsOf(person, cancellationToken),
                await db.CalendarsGiving(person).ToListAsync(cancellationToken),
                alsoIn: person,
                cancellationToken
            )
        ).After(known?.Sight);
        var wards = await db
            .Guardians.Where(guardian => guardian.GuardianId == person)
            .Select(guardian => guardian.WardId)
            .ToListAsync(cancellationToken);
        var people = wards.Append(person).ToHashSet();
        var groups = await db
            .Members.Where(member => people.Contains(member.PersonId))
            .Select(member => member.GroupId)
            .ToHashSetAsync(cancellationToken);
        groups.UnionWith(sight.Calendars.Select(calendar => calendar.Row.GroupId));
        var until = await db.NextEnd(now, cancellationToken) ?? Instant.MaxValue;
        if (kept.Count >= Most)
        {
            kept.Clear();
        }

        kept[person] = new Kept(sight, groups, people, now, until) { Version = tail.Version };
        return sight;
    }

    private static bool Holds(Kept known, TailState tail)
    {
        if (tail.Version <= known.Version)
        {
            return true;
        }

        if (tail.Since(known.Version) is not { } entries || entries.Any(entry => Concerns(known, entry)))
        {
            return false;
        }

        known.Version = tail.Version;
        return true;
    }

    private static bool Concerns(Kept known, TailEntry entry) =>
        entry.IsAboutAccess
            ? entry.IsForAnybody
                || (entry.CalendarId is { } calendar && known.Sight.Has(calendar))
                || (entry.Concerns is { } person && known.People.Contains(person))
                || entry.Groups.Overlaps(known.Groups)
            : entry.IsGivenAnew(known.Sight.Person);
}

/// <summary>Reads what somebody may read.</summary>
public static class SightQueries
{
    /// <summary>
    /// A coordinator's calendars as somebody else sees them. What else is on that person's wall, how they lay it and where
    /// they live is theirs.
    /// </summary>
    public static async Task<Sight> SightAsSeenBy(
        this MortarDb db,
        PersonId coordinator,
        PersonId whose,
        CancellationToken cancellationToken
    ) =>
        await db.Read(
            whose,
            await db.StandingsAsSeenBy(coordinator, whose, cancellationToken),
            await db.CalendarsGivingAsSeenBy(coordinator, whose, cancellationToken),
            alsoIn: coordinator,
            cancellationToken
        );

    /// <summary>The calendars of a group that is at rest, as somebody may still read them.</summary>
    public static async Task<Sight> SightAtRest(
        this MortarDb db,
        PersonId person,
        GroupId group,
        CancellationToken cancellationToken
    ) =>
        await db.Read(
            person,
            await db.StandingsAtRest(person, group, cancellationToken),
            [],
            alsoIn: person,
            cancellationToken
        );

    internal static async Task<Sight> Read(
        this MortarDb db,
        PersonId person,
        IReadOnlyDictionary<CalendarId, Standing> standings,
        IReadOnlyCollection<CalendarId> giving,
        PersonId alsoIn,
        CancellationToken cancellationToken
    )
    {
        var ids = standings.Keys.Union(giving).ToList();
        var calendars = await db
            .Calendars.AsNoTracking()
            .Where(calendar => ids.Contains(calendar.Id))
            .ToListAsync(cancellationToken);

        // Who is in a group is known to its members only; whom else a clash takes is not told to others.
        // Through somebody's eyes as well: only of groups that both are in.
        var groups = db
            .Members.Where(mine => mine.PersonId == person)
            .Select(mine => mine.GroupId)
            .Where(group => db.Members.Any(other => other.GroupId == group && other.PersonId == alsoIn));
        var members = await db
            .Members.AsNoTracking()
            .Where(member => groups.Contains(member.GroupId))
            .Select(member => new { member.GroupId, member.PersonId })
            .ToListAsync(cancellationToken);
        return new Sight(
            person,
            [
                .. calendars.Select(row => new SeenCalendar(
                    row,
                    standings.GetValueOrDefault(row.Id, Standing.Outside).Role
                )),
            ],
            members.ToLookup(member => member.GroupId, member => member.PersonId),
            await db.WillingIn(calendars, asking: null, cancellationToken)
        );
    }
}
