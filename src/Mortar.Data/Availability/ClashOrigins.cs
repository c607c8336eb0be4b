using Microsoft.EntityFrameworkCore;
using Mortar.Core.Availability;
using Mortar.Core.Changes;
using Mortar.Core.Events;
using Mortar.Core.Words;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Availability;

/// <summary>Reads from the log whose change made a clash.</summary>
public static class ClashOrigins
{
    /// <summary>How many changes of an event are read at once, the latest first: nearly always one of them is it.</summary>
    private const int AtOnce = 10;

    /// <summary>How many changes of an event are looked through; who made a clash before them is not told.</summary>
    internal const int Most = 200;

    private sealed record Latest(long Sequence, Instant At, PersonId Actor, string Name, Guid SubjectId, bool IsFirst)
    {
        public ClashOrigin Origin => new(Sequence, At, Actor, Name);
    }

    /// <summary>
    /// For each of some events the latest change that can have made what it clashes with; for those of which the reader is
    /// not to know it, as in the event's history, none.
    /// </summary>
    /// <param name="db">The store.</param>
    /// <param name="events">The events as they are.</param>
    /// <param name="sees">Whether the reader sees a state of an event whole.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public static async Task<IReadOnlyDictionary<EventId, ClashOrigin>> ClashOriginsOf(
        this MortarDb db,
        IEnumerable<Event> events,
        Func<Event, bool> sees,
        CancellationToken cancellationToken
    )
    {
        var byId = events.DistinctBy(one => one.Id).ToDictionary(one => one.Id.Value);
        var ids = byId.Keys.ToList();
        var latest = await (
            from change in db.Changes
            where
                change.Subject == Subject.Event
                && ids.Contains(change.SubjectId)
                && !db.Changes.Any(later => later.SubjectId == change.SubjectId && later.Sequence > change.Sequence)
            join actor in db.People on change.Actor equals actor.Id
            select new Latest(
                change.Sequence,
                change.At,
                change.Actor,
                actor.Name,
                change.SubjectId,
                change.Before == null
            )
        ).ToListAsync(cancellationToken);

        // What was never changed since it was made is as it is: most events are, and their states need not be read.
        var found = latest
            .Where(one => one.IsFirst && sees(byId[one.SubjectId]))
            .ToDictionary(one => new EventId(one.SubjectId), one => one.Origin);
        var changed = latest.Where(one => !one.IsFirst).Select(one => one.SubjectId).ToHashSet();
        for (var skip = 0; changed.Count > 0 && skip < Most; skip += AtOnce)
        {
            foreach (var ofOne in await db.States(changed, skip, cancellationToken))
            {
                if (ofOne.FirstOrDefault(one => one.MadeIt) is not { } made)
                {
                    // All that there was has been looked through.
                    if (ofOne.Count() < AtOnce)
                    {
                        changed.Remove(ofOne.Key);
                    }

                    continue;
                }

                changed.Remove(ofOne.Key);
                if ((made.Before is not { } before || sees(before)) && sees(made.After!))
                {
                    found[new EventId(ofOne.Key)] = made.Origin;
                }
            }
        }

        return found;
    }

    private sealed record Step(Event? Before, Event? After, ClashOrigin Origin)
    {
        public bool MadeIt => After is not null && Clashes.CanBeMadeBy(Before, After);
    }

    /// <summary>Some changes of each of some events with their states, the latest first.</summary>
    private static async Task<IEnumerable<IGrouping<Guid, Step>>> States(
        this MortarDb db,
        IReadOnlyCollection<Guid> events,
        int skip,
        CancellationToken cancellationToken
    )
    {
        var changes = await db
            .Changes.Where(change => events.Contains(change.SubjectId))
            .Select(change => change.SubjectId)
            .Distinct()
            .SelectMany(id =>
                db.Changes.Where(change => change.SubjectId == id)
                    .OrderByDescending(change => change.Sequence)
                    .Skip(skip)
                    .Take(AtOnce)
            )
            .AsNoTracking()
            .ToListAsync(cancellationToken);
        var actors = changes.Select(change => change.Actor).ToHashSet();
        var names = await db
            .People.Where(row => actors.Contains(row.Id))
            .ToDictionaryAsync(row => row.Id, row => row.Name, cancellationToken);
        return changes
            .OrderByDescending(change => change.Sequence)
            .GroupBy(
                change => change.SubjectId,
                change => new Step(
                    change.EventBefore(),
                    change.EventAfter(),
                    new ClashOrigin(change.Sequence, change.At, change.Actor, names[change.Actor])
                )
            );
    }
}
