using Microsoft.EntityFrameworkCore;
using Mortar.Core.Availability;
using Mortar.Core.Changes;
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
    /// <summary>For each of some events the latest change that can have made what it clashes with.</summary>
    public static async Task<IReadOnlyDictionary<EventId, ClashOrigin>> ClashOriginsOf(
        this MortarDb db,
        IReadOnlyCollection<EventId> events,
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
            .Where(one => one is not null)
            .ToDictionary(
                one => new EventId(one!.change.SubjectId),
                one => new ClashOrigin(one!.change.Sequence, one.change.At, one.change.Actor, one.Name)
            );
    }
}
