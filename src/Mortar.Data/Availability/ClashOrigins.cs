using Microsoft.EntityFrameworkCore;
using Mortar.Core.Availability;
using Mortar.Core.Changes;
using Mortar.Core.Events;
using Mortar.Core.Words;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Availability;

/// <summary>The change of an event by which it came to take the time it takes.</summary>
/// <param name="Name">The name of who did it.</param>
public sealed record ClashOrigin(long Sequence, Instant At, PersonId Actor, string Name);

/// <summary>Reads from the log whose change made a clash.</summary>
public static class ClashOrigins
{
    /// <summary>
    /// For each of some events the latest change that can have made what it clashes with; for those of which the reader is
    /// not to know it, as in the event's history, none.
    /// </summary>
    /// <param name="db">The store.</param>
    /// <param name="events">The events.</param>
    /// <param name="sees">Whether the reader sees a state of an event whole.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public static async Task<IReadOnlyDictionary<EventId, ClashOrigin>> ClashOriginsOf(
        this MortarDb db,
        IReadOnlyCollection<EventId> events,
        Func<Event, bool> sees,
        CancellationToken cancellationToken
    )
    {
        var ids = events.Select(one => one.Value).Distinct().ToList();
        var changes = await (
            from change in db.Changes.AsNoTracking()
            where change.Subject == Subject.Event && ids.Contains(change.SubjectId)
            join actor in db.People on change.Actor equals actor.Id
            orderby change.Sequence descending
            select new { change, actor.Name }
        ).ToListAsync(cancellationToken);
        return changes
            .GroupBy(one => one.change.SubjectId)
            .Select(ofOne =>
                ofOne.FirstOrDefault(one =>
                    one.change.EventAfter() is { } after && Clashes.CanBeMadeBy(one.change.EventBefore(), after)
                )
            )
            .Where(one =>
                one is not null
                && (one.change.EventBefore() is not { } before || sees(before))
                && sees(one.change.EventAfter()!)
            )
            .ToDictionary(
                one => new EventId(one!.change.SubjectId),
                one => new ClashOrigin(one!.change.Sequence, one.change.At, one.change.Actor, one.Name)
            );
    }
}
