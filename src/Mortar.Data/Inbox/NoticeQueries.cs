using Microsoft.EntityFrameworkCore;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Changes;
using Mortar.Data.Kinds;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Inbox;

/// <summary>Something that somebody else did and that concerns the reader.</summary>
/// <param name="Event">The event it is about, which the reader still sees; <c>null</c> where it is about none.</param>
public sealed record Notice(long Sequence, Instant At, string Sentence, bool Seen, EventId? Event = null);

/// <summary>Reads out of the change log what others did that concerns somebody; nothing is written to it by hand.</summary>
public sealed class NoticeQueries(MortarDb db, ZoneClock zones)
{
    private const int MostNotices = 60;

    private sealed record Found(ChangeRow Change, string Actor);

    /// <summary>The latest notices for a person, newest first.</summary>
    public async Task<IReadOnlyList<Notice>> Notices(PersonId person, CancellationToken cancellationToken)
    {
        var seen = await db
            .People.Where(row => row.Id == person)
            .Select(row => row.SeenChanges)
            .SingleAsync(cancellationToken);
        var found = await Latest(db.Changes.Where(change => change.Concerns == person), person, cancellationToken);
        foreach (var kind in ChangeKinds.All)
        {
            if (await kind.AlsoNoticed(db, person, cancellationToken) is { } also)
            {
                found.AddRange(await Latest(also, person, cancellationToken));
            }
        }

        var facts = await NoticeFacts.Of(db, person, zones, found.ConvertAll(one => one.Change), cancellationToken);
        return
        [
            .. (
                from one in found
                orderby one.Change.Sequence descending
                let line = one.Change.Kind().Notice(one.Change, one.Actor, facts)
                where line is not null
                select new Notice(
                    one.Change.Sequence,
                    one.Change.At,
                    line.Value.Sentence,
                    one.Change.Sequence <= seen,
                    line.Value.Event
                )
            ).Take(MostNotices),
        ];
    }

    /// <summary>The latest of some changes that were made by others.</summary>
    private async Task<List<Found>> Latest(
        IQueryable<ChangeRow> changes,
        PersonId person,
        CancellationToken cancellationToken
    ) =>
        await (
            from change in changes.AsNoTracking()
            where change.Actor != person
            join actor in db.People on change.Actor equals actor.Id
            orderby change.Sequence descending
            select new Found(change, actor.Name)
        )
            .Take(MostNotices)
            .ToListAsync(cancellationToken);
}
