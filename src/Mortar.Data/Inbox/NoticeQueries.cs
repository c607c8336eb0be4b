using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Letters;
using Mortar.Core.Preferences;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Calendars;
using Mortar.Data.Changes;
using Mortar.Data.Groups;
using Mortar.Data.Kinds;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Inbox;

/// <summary>Something that somebody else did, or that came by its date, and that concerns the reader.</summary>
/// <param name="Sequence">Its place in the log; 0 for what came by its date.</param>
/// <param name="Event">The event it is about, which the reader still sees; <c>null</c> where it is about none.</param>
public sealed record Notice(
    long Sequence,
    Instant At,
    NoticeTopic Topic,
    string Sentence,
    bool Seen,
    EventId? Event = null
)
{
    /// <summary>The events it tells of, also those the reader sees no more.</summary>
    public IReadOnlyList<EventId> Events { get; init; } = [];

    /// <summary>The same as long as it stands, and of no other.</summary>
    public string Key => Sequence > 0 ? $"{Sequence}/{Topic}" : $"{At.ToUnixTimeTicks()}/{Sentence}";
}

/// <summary>A stretch of the log, and of what ended by its date.</summary>
/// <param name="From">The sequence of its first change.</param>
/// <param name="UpTo">The sequence of its last.</param>
/// <param name="EndsAfter">After when something ended.</param>
/// <param name="EndsUpTo">Up to when.</param>
public readonly record struct Stretch(long From, long UpTo, Instant EndsAfter, Instant EndsUpTo);

/// <summary>
/// Reads out of the change log what others did that concerns somebody; nothing is written to it by hand. What it says is
/// <see cref="NoticeRules"/>', and which of it is wanted where is for who asks.
/// </summary>
public sealed class NoticeQueries(MortarDb db, ZoneClock zones)
{
    /// <summary>Of each sort; more than are counted of one act.</summary>
    private const int MostNotices = NoticeRules.MostCounted + 10;

    /// <summary>For so long it stands in an inbox that something ended by its date.</summary>
    private static readonly Duration EndsTold = Duration.FromDays(60);

    private sealed record Found(ChangeRow Change, string Actor);

    private sealed record Line(Found From, NoticeLine Says);

    private sealed record Ended(CalendarId Calendar, Role Role, Instant At, GroupId? Group);

    /// <summary>The latest notices for a person, newest first, whether they want them or not.</summary>
    public Task<IReadOnlyList<Notice>> Latest(PersonId person, CancellationToken cancellationToken) =>
        Read(person, new Stretch(0, long.MaxValue, db.Now - EndsTold, db.Now), withUndone: true, cancellationToken);

    /// <summary>What a mail is to tell a person, oldest first: of a stretch, without what was taken back in it.</summary>
    public async Task<IReadOnlyList<Notice>> Of(
        PersonId person,
        Stretch stretch,
        CancellationToken cancellationToken
    ) => [.. (await Read(person, stretch, withUndone: false, cancellationToken)).Reverse()];

    private async Task<IReadOnlyList<Notice>> Read(
        PersonId person,
        Stretch stretch,
        bool withUndone,
        CancellationToken cancellationToken
    )
    {
        var me = await db
            .People.Where(row => row.Id == person)
            .Select(row => new { row.SeenChanges, row.InboxSeenAt })
            .SingleAsync(cancellationToken);
        var concerning = new List<IQueryable<ChangeRow>> { db.Changes.Where(change => change.Concerns == person) };
        foreach (var kind in ChangeKinds.All)
        {
            if (await kind.AlsoNoticed(db, person, cancellationToken) is { } also)
            {
                concerning.Add(also);
            }
        }

        var found = await Newest(concerning, person, stretch, cancellationToken);
        if (!withUndone)
        {
            found = StillDone(found);
        }

        var facts = await NoticeFacts.Of(db, person, zones, found.ConvertAll(one => one.Change), cancellationToken);
        var lines =
            from one in found.DistinctBy(one => one.Change.Sequence)
            orderby one.Change.Sequence
            let says = one.Change.Kind().Notice(one.Change, one.Actor, facts)
            where says is not null
            select new Line(one, says);
        var notices = lines
            .GroupBy(line => line.From.Change.Set)
            .SelectMany(ofOne => OfOneAct([.. ofOne], me.SeenChanges))
            .ToList();
        var ends = await Ends(person, stretch, me.InboxSeenAt, cancellationToken);
        return [.. notices.Concat(ends).OrderByDescending(Place).ThenByDescending(one => one.At).Take(MostNotices)];

        // The log has its own order; what came by its date stands where the log was then.
        long Place(Notice one) =>
            one.Sequence > 0
                ? one.Sequence
                : notices.Where(other => other.At <= one.At).Select(other => other.Sequence).DefaultIfEmpty().Max();
    }

    /// <summary>What one act says to somebody, each thing once.</summary>
    private static IEnumerable<Notice> OfOneAct(IReadOnlyList<Line> lines, long seen)
    {
        // Whether it was agreed to says what became of the absence as well.
        var isAgreement = lines.Any(line => line.From.Change.Subject == Subject.Agreement);
        var told = lines.Where(line => !isAgreement || line.From.Change.Subject != Subject.Event).ToList();
        foreach (var says in NoticeRules.OfOneAct(lines[0].From.Actor, told.ConvertAll(line => line.Says)))
        {
            var from = told.FindAll(line => ReferenceEquals(line.Says, says)) is [var single]
                ? [single]
                : told.FindAll(line => line.Says.Topic == says.Topic && line.Says.Title is not null);
            var last = from[^1].From.Change;
            yield return new Notice(
                last.Sequence,
                last.At,
                says.Topic,
                says.Sentence,
                last.Sequence <= seen,
                says.Event
            )
            {
                Events =
                [
                    .. from.Where(line => line.From.Change.Subject == Subject.Event)
                        .Select(line => new EventId(line.From.Change.SubjectId)),
                ],
            };
        }
    }

    /// <summary>Leaves out what was done to a thing and taken back, and that it was taken back.</summary>
    private static List<Found> StillDone(List<Found> found)
    {
        var done = found.Select(one => (one.Change.Set, one.Change.SubjectId)).ToHashSet();
        var back = found
            .Where(one => one.Change.Undoes is { } act && done.Contains((act, one.Change.SubjectId)))
            .Select(one => (Act: one.Change.Undoes!.Value, one.Change.Set, one.Change.SubjectId))
            .ToList();
        var both = back.SelectMany(one => new[] { (one.Act, one.SubjectId), (one.Set, one.SubjectId) }).ToHashSet();
        return found.FindAll(one => !both.Contains((one.Change.Set, one.Change.SubjectId)));
    }

    /// <summary>What was given to somebody up to a date that has come.</summary>
    private async Task<IEnumerable<Notice>> Ends(
        PersonId person,
        Stretch stretch,
        Instant? seen,
        CancellationToken cancellationToken
    )
    {
        var (after, now) = (stretch.EndsAfter, stretch.EndsUpTo);
        var own = db
            .Grants.Where(grant =>
                grant.PersonId == person && grant.Role != Role.None && grant.EndsAt > after && grant.EndsAt <= now
            )
            .Select(grant => new
            {
                grant.CalendarId,
                grant.Role,
                grant.EndsAt,
            });
        var links =
            from holder in db.LinkHolders
            where holder.PersonId == person && holder.LeftAt == null
            join link in db.Links on holder.LinkId equals link.Id
            where link.EndedAt == null && link.EndsAt > after && link.EndsAt <= now
            select new
            {
                holder.CalendarId,
                link.Role,
                link.EndsAt,
            };
        var groups = db.Members.Where(member => member.PersonId == person).Select(member => member.GroupId);
        var ofGroups = db
            .GroupGrants.Where(grant =>
                groups.Contains(grant.GroupId) && grant.Role != Role.None && grant.EndsAt > after && grant.EndsAt <= now
            )
            .Select(grant => new
            {
                grant.CalendarId,
                grant.Role,
                grant.EndsAt,
                grant.GroupId,
            });
        var ended = (await own.Concat(links).ToListAsync(cancellationToken))
            .Select(one => new Ended(one.CalendarId, one.Role, one.EndsAt!.Value, Group: null))
            .Concat(
                (await ofGroups.ToListAsync(cancellationToken)).Select(one => new Ended(
                    one.CalendarId,
                    one.Role,
                    one.EndsAt!.Value,
                    one.GroupId
                ))
            );
        var notices = new List<Notice>();
        foreach (var one in ended)
        {
            if (await Said(person, one, cancellationToken) is { } says)
            {
                notices.Add(new Notice(0, one.At, says.Topic, says.Sentence, one.At <= seen));
            }
        }

        return notices;
    }

    private async Task<NoticeLine?> Said(PersonId person, Ended one, CancellationToken cancellationToken)
    {
        // Its later names are not for who has it no more.
        var then = await StateAt(
            db.Changes.Where(change => change.Subject == Subject.Calendar && change.CalendarId == one.Calendar),
            one.At,
            cancellationToken
        );
        if (then is null || StoredText.Read<CalendarRow>(then) is not { DeletedAt: null } calendar)
        {
            return null;
        }

        if (one.Group is not { } group)
        {
            return NoticeRules.OfEnd(calendar.Name, one.Role, group: null);
        }

        var place = await StateAt(
            db.Changes.Where(change =>
                change.Subject == Subject.Member && change.GroupId == group && change.Concerns == person
            ),
            one.At,
            cancellationToken
        );
        return place is not null && StoredText.Read<MemberRow>(place).Place() == MemberPlace.Member
            ? NoticeRules.OfEnd(
                calendar.Name,
                one.Role,
                await db.Groups.Where(row => row.Id == group).Select(row => row.Name).SingleAsync(cancellationToken)
            )
            : null;
    }

    private static Task<string?> StateAt(
        IQueryable<ChangeRow> changes,
        Instant at,
        CancellationToken cancellationToken
    ) =>
        changes
            .Where(change => change.At <= at)
            .OrderByDescending(change => change.Sequence)
            .Select(change => change.After)
            .FirstOrDefaultAsync(cancellationToken);

    /// <summary>The newest of each of some sorts of changes that were made by others, by one question.</summary>
    private async Task<List<Found>> Newest(
        IEnumerable<IQueryable<ChangeRow>> sorts,
        PersonId person,
        Stretch stretch,
        CancellationToken cancellationToken
    )
    {
        var newest = sorts
            .Select(changes =>
                changes
                    .Where(change =>
                        change.Actor != person && change.Sequence >= stretch.From && change.Sequence <= stretch.UpTo
                    )
                    .OrderByDescending(change => change.Sequence)
                    .Take(MostNotices)
            )
            .Aggregate((some, more) => some.Concat(more));
        return await (
            from change in newest.AsNoTracking()
            join actor in db.People on change.Actor equals actor.Id
            select new Found(change, actor.Name)
        ).ToListAsync(cancellationToken);
    }
}
