using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Absences;
using Mortar.Data.Access;
using Mortar.Data.Answers;
using Mortar.Data.Changes;
using Mortar.Data.Events;
using Mortar.Data.Groups;
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

    /// <summary>The latest notices for a person, newest first.</summary>
    public async Task<IReadOnlyList<Notice>> Notices(PersonId person, CancellationToken cancellationToken)
    {
        var seen = await db
            .People.Where(row => row.Id == person)
            .Select(row => row.SeenChanges)
            .SingleAsync(cancellationToken);
        var changes = await (
            from change in db.Changes.AsNoTracking()
            where change.Concerns == person && change.Actor != person
            join actor in db.People on change.Actor equals actor.Id
            orderby change.Sequence descending
            select new { change, actor.Name }
        )
            .Take(MostNotices)
            .ToListAsync(cancellationToken);
        var facts = await NoticeFacts.Of(db, person, zones, [.. changes.Select(one => one.change)], cancellationToken);
        var notices = changes
            .Select(one => (one.change, Sentence: facts.Sentence(one.change, one.Name)))
            .Where(one => one.Sentence is not null)
            .Select(one => new Notice(
                one.change.Sequence,
                one.change.At,
                one.Sentence!,
                one.change.Sequence <= seen,
                EventOf(one.change)
            ))
            .ToList();
        notices.AddRange(await OfAttended(person, seen, cancellationToken));
        notices.AddRange(await OfKept(person, seen, cancellationToken));
        return [.. notices.OrderByDescending(notice => notice.Sequence).Take(MostNotices)];
    }

    /// <summary>The event that an answer or an agreement is about: its sentence is told only to who sees it.</summary>
    private static EventId? EventOf(ChangeRow change) =>
        (change.Subject, change.After) switch
        {
            (Subject.Answer, { } text) => StoredText.Read<AnswerRow>(text).EventId,
            (Subject.Agreement, { } text) when StoredText.Read<AgreementRow>(text) is { Agrees: true } yes =>
                yes.EventId,
            _ => null,
        };

    /// <summary>What people did themselves about their place in the groups one coordinates.</summary>
    private async Task<IReadOnlyList<Notice>> OfKept(PersonId person, long seen, CancellationToken cancellationToken)
    {
        var kept = await db
            .Members.Where(member => member.PersonId == person && member.Coordinates)
            .Select(member => member.GroupId)
            .ToListAsync(cancellationToken);
        var changes = await (
            from change in db.Changes.AsNoTracking()
            where
                change.Subject == Subject.Member
                && change.GroupId != null
                && kept.Contains(change.GroupId.Value)
                && change.Actor != person
                && change.Concerns != person
                && change.After != null
            join actor in db.People on change.Actor equals actor.Id
            join whose in db.People on change.Concerns equals whose.Id
            join home in db.Groups on change.GroupId equals home.Id
            orderby change.Sequence descending
            select new
            {
                change,
                Actor = actor.Name,
                Whose = whose.Name,
                Group = home.Name,
            }
        )
            .Take(MostNotices)
            .ToListAsync(cancellationToken);
        return
        [
            .. from one in changes
            let after = StoredText.Read<MemberRow>(one.change.After!)
            let before = one.change.Before is { } state ? StoredText.Read<MemberRow>(state) : null
            let what = (before?.Place() ?? MemberPlace.Outside, after.Place()) switch
            {
                _ when before is { ClaimedBy: null } && after.ClaimedBy is not null =>
                    $"{one.Actor} took over the name {one.Whose} in “{one.Group}”.",
                _ when one.change.Actor != one.change.Concerns => null,
                (MemberPlace.Asked, MemberPlace.Member) => $"{one.Actor} said yes and is in “{one.Group}” now.",
                (MemberPlace.Asked, MemberPlace.Outside) => $"{one.Actor} does not want to be in “{one.Group}”.",
                (MemberPlace.Member, MemberPlace.Outside) => $"{one.Actor} left “{one.Group}”.",
                _ => null,
            }
            where what is not null
            select new Notice(one.change.Sequence, one.change.At, what, one.change.Sequence <= seen),
        ];
    }

    /// <summary>What others changed about the events one was asked to, since one was.</summary>
    private async Task<IReadOnlyList<Notice>> OfAttended(
        PersonId person,
        long seen,
        CancellationToken cancellationToken
    )
    {
        var attended = (await db.EventsGivenTo(person).ToListAsync(cancellationToken)).ConvertAll(id => id.Value);
        var changes = await (
            from change in db.Changes.AsNoTracking()
            where change.Subject == Subject.Event && attended.Contains(change.SubjectId) && change.Actor != person
            join actor in db.People on change.Actor equals actor.Id
            orderby change.Sequence descending
            select new { change, actor.Name }
        )
            .Take(MostNotices)
            .ToListAsync(cancellationToken);
        if (changes.Count == 0)
        {
            return [];
        }

        var zone = await db.ZoneOf(person, zones, cancellationToken);
        var standings = await db.StandingsOf(person, cancellationToken);
        return
        [
            .. from one in changes
            let was = one.change.EventBefore()
            let now = one.change.EventAfter()
            where was is not null && Sees(was) && (now is null || Sees(now))
            let before = Known(was)
            let after = now is null ? null : Known(now)
            where
                after is null
                || before.Time != after.Time
                || before.Content != after.Content
                || !Equals(before.Series, after.Series)
            let title = before.Content.Title.Length > 0 ? $"“{before.Content.Title}”" : "An untitled event"
            let what = Wording.List(EventDifference.Between(before, after, zone, zones))
            select new Notice(
                one.change.Sequence,
                one.change.At,
                $"{title}: {one.Name} {what}.",
                one.change.Sequence <= seen,
                after is null ? null : after.Id
            ),
        ];

        bool Sees(Event state) =>
            state.GivenTo.Has(person) && VisibleEvent.SeesEverything(RoleOn(state.CalendarId), person, state);

        Event Known(Event state) => VisibleEvent.WithNamesSeen(RoleOn(state.CalendarId), person, state);

        Role RoleOn(CalendarId calendar) => standings.GetValueOrDefault(calendar, Standing.Outside).Role;
    }
}
