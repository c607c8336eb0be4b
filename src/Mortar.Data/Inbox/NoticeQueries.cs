using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Answers;
using Mortar.Core.Changes;
using Mortar.Core.Events;
using Mortar.Core.Proposals;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Absences;
using Mortar.Data.Access;
using Mortar.Data.Answers;
using Mortar.Data.Calendars;
using Mortar.Data.Changes;
using Mortar.Data.Events;
using Mortar.Data.Groups;
using Mortar.Data.Proposals;
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
        var notices = new List<Notice>();
        foreach (var one in changes)
        {
            var sentence =
                one.change.Subject == Subject.Member ? await OfMember(one.change, one.Name, cancellationToken)
                : one.change.Subject == Subject.Suitings ? await OfSuitings(person, one.change, cancellationToken)
                : one.change.Subject == Subject.Agreement
                    ? await OfAgreement(person, one.change, one.Name, cancellationToken)
                : one.change.Subject == Subject.Answer ? await OfAnswer(person, one.change, one.Name, cancellationToken)
                : Sentence(one.change, one.Name, await NameAt(one.change, cancellationToken));
            if (sentence is not null)
            {
                notices.Add(
                    new Notice(
                        one.change.Sequence,
                        one.change.At,
                        sentence,
                        one.change.Sequence <= seen,
                        EventOf(one.change)
                    )
                );
            }
        }

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

    /// <summary>Marks everything up to now as seen.</summary>
    public async Task See(PersonId person, CancellationToken cancellationToken)
    {
        var row = await db.People.SingleAsync(one => one.Id == person, cancellationToken);
        row.SeenChanges = await db.Changes.MaxAsync(change => (long?)change.Sequence, cancellationToken) ?? 0;
        await db.SaveChangesAsync(cancellationToken);
    }

    /// <summary>What a change of one's place in a group says; <c>null</c> where it says nothing new.</summary>
    private async Task<string?> OfMember(ChangeRow change, string actor, CancellationToken cancellationToken)
    {
        if (change.After is not { } text)
        {
            return null;
        }

        var after = StoredText.Read<MemberRow>(text);
        var before = change.Before is { } state ? StoredText.Read<MemberRow>(state) : null;
        var group = await db
            .Groups.Where(row => row.Id == after.GroupId)
            .Select(row => row.Name)
            .SingleAsync(cancellationToken);
        return (before, after) switch
        {
            ({ LeftAt: null, AskedAt: null }, { LeftAt: not null }) => $"{actor} took you out of “{group}”.",
            (null or { LeftAt: not null }, { LeftAt: null, AskedAt: null }) => $"{actor} added you to “{group}”.",
            ({ Coordinates: false }, { Coordinates: true }) => $"{actor} made you a coordinator of “{group}”.",
            ({ Coordinates: true }, { Coordinates: false }) =>
                $"You no longer coordinate “{group}”: {actor} changed that.",
            _ => null,
        };
    }

    /// <summary>What an answer says to the organizer, who reads the title only while they see the event.</summary>
    private async Task<string?> OfAnswer(
        PersonId reader,
        ChangeRow change,
        string actor,
        CancellationToken cancellationToken
    )
    {
        if (change.After is not { } text)
        {
            return null;
        }

        var answer = StoredText.Read<AnswerRow>(text);
        var row = await db
            .Events.AsNoTracking()
            .FirstOrDefaultAsync(one => one.Id == answer.EventId && one.DeletedAt == null, cancellationToken);
        var role = row is null
            ? Core.Access.Role.None
            : (await db.StandingOf(reader, row.CalendarId, cancellationToken)).Role;
        // Whoever has handed on the right to change it may not find any more who is named.
        if (
            row is null
            || !VisibleEvent.IsThere(role, reader, row.ToCore())
            || !VisibleEvent.WithNamesSeen(role, reader, row.ToCore()).Named.Contains(answer.PersonId)
        )
        {
            return null;
        }

        var who = await db
            .People.Where(one => one.Id == answer.PersonId)
            .Select(one => one.Name)
            .SingleAsync(cancellationToken);
        var title = row.Title.Length > 0 ? $"“{row.Title}”" : "an untitled event";
        var by = who == actor ? string.Empty : $" ({actor} answered)";
        var other = await Suggested(reader, answer, cancellationToken);
        return answer.Answer switch
        {
            Answer.Accepted => $"{who} comes to {title}{by}.{other}",
            Answer.Tentative => $"{who} perhaps comes to {title}{by}.{other}",
            Answer.Declined => $"{who} does not come to {title}{by}.{other}",
            _ => null,
        };
    }

    /// <summary>The other time that came with an answer, on the reader's clock; empty where none did.</summary>
    private async Task<string> Suggested(PersonId reader, AnswerRow answer, CancellationToken cancellationToken)
    {
        if (answer is not { SuggestedStart: { } start, SuggestedEnd: { } end })
        {
            return string.Empty;
        }

        var zone = await db.ZoneOf(reader, zones, cancellationToken);
        var time = EventTime.InZone(start.InZone(zone).LocalDateTime, end.InZone(zone).LocalDateTime, zone.Id);
        return $" They suggest {RangeSentence.For(time, db.Now.InZone(zone).Year)}; it can be taken where the event is.";
    }

    /// <summary>Whether a coordinator agreed to an absence, to who entered it and still sees it.</summary>
    private async Task<string?> OfAgreement(
        PersonId reader,
        ChangeRow change,
        string actor,
        CancellationToken cancellationToken
    )
    {
        if (change.After is not { } text || StoredText.Read<AgreementRow>(text) is not { Agrees: { } agrees } answer)
        {
            return null;
        }

        var row = await db.Events.AsNoTracking().SingleAsync(one => one.Id == answer.EventId, cancellationToken);
        var role = (await db.StandingOf(reader, row.CalendarId, cancellationToken)).Role;
        if (await db.IsGone(row, role, cancellationToken) || !VisibleEvent.IsThere(role, reader, row.ToCore()))
        {
            return null;
        }

        var zone = await db.ZoneOf(reader, zones, cancellationToken);
        var when = RangeSentence.For(zones.AsSeenIn(row.ToCore().Time, zone), db.Now.InZone(zone).Year);
        var title = row.Title.Length > 0 ? $"“{row.Title}”" : "your absence";
        var comment = answer.Comment.Length > 0 ? $" They write: “{answer.Comment}”" : string.Empty;
        return agrees
            ? $"{actor} agreed to {title}, {when}.{comment}"
            : $"{actor} did not agree to {title}, {when}; it is off the plan.{comment}";
    }

    /// <summary>What is said to the times of a question, to who put it and can still settle it.</summary>
    private async Task<string?> OfSuitings(PersonId reader, ChangeRow change, CancellationToken cancellationToken)
    {
        if (change.After is not { } text)
        {
            return null;
        }

        var said = StoredText.Read<SuitingsRow>(text);
        var row = await db.OpenProposal(said.ProposalId, cancellationToken);
        if (
            row is null
            || ProposalRules.ToSettle(
                (await db.StandingOf(reader, row.CalendarId, cancellationToken)).Role,
                reader,
                row.ProposedBy
            ) != Verdict.Granted
        )
        {
            return null;
        }

        var who = await db
            .People.Where(one => one.Id == said.PersonId)
            .Select(one => one.Name)
            .SingleAsync(cancellationToken);
        var suit = said.ToCore().Said.Count(one => one.Value != Suiting.DoesNotSuit);
        return $"“{row.Title}”: {Wording.Count(suit, "of the times suits", "of the times suit")} {who}.";
    }

    /// <summary>What a grant's or invitation's change says to the one it concerns; <c>null</c> where it says nothing new.</summary>
    private static string? Sentence(ChangeRow change, string actor, string calendar) =>
        change.Subject switch
        {
            Subject.Grant => OfGrant(Role(change.Before), Role(change.After), actor, calendar),
            Subject.Invitation when change.After is { } after => OfInvitation(
                StoredText.Read<InvitationRow>(after),
                change.Before is null,
                actor,
                calendar
            ),
            Subject.OpenAsk
                when change.After is { } after && StoredText.Read<OpenAskRow>(after).State == AskState.Refused =>
                $"{actor} did not give you the access you asked for.",
            Subject.Ask when change.After is { } after && StoredText.Read<AskRow>(after).State == AskState.Refused =>
                $"{actor} did not give you the access you asked for.",
            _ => null,
        };

    private static string? OfGrant(Role before, Role after, string actor, string calendar) =>
        (before, after) switch
        {
            (_, Core.Access.Role.None) when before != after => $"{actor} ended your access to “{calendar}”.",
            (Core.Access.Role.None, _) when before != after =>
                $"{actor} gave you the step {RoleSentence.Name(after)} on “{calendar}”.",
            _ when before != after =>
                $"{actor} changed your step on “{calendar}” from {RoleSentence.Name(before)} to {RoleSentence.Name(after)}.",
            _ => null,
        };

    private static string? OfInvitation(InvitationRow after, bool isNew, string actor, string calendar) =>
        after.State switch
        {
            InvitationState.Accepted => $"{actor} accepted your invitation to “{calendar}”.",
            InvitationState.Declined => $"{actor} declined your invitation to “{calendar}”.",
            InvitationState.Withdrawn when !isNew => $"{actor} took back the invitation to “{calendar}”.",
            _ => null,
        };

    private static Role Role(string? state) =>
        state is null ? Core.Access.Role.None : StoredText.Read<GrantRow>(state).Role;

    /// <summary>The calendar's name at the time of the change: somebody whose access ended does not learn its later names.</summary>
    private async Task<string> NameAt(ChangeRow change, CancellationToken cancellationToken)
    {
        var state = await db
            .Changes.Where(row =>
                row.CalendarId == change.CalendarId
                && row.Subject == Subject.Calendar
                // What is made together with its calendar may be written before it.
                && (row.Sequence <= change.Sequence || row.Set == change.Set)
            )
            .OrderByDescending(row => row.Sequence)
            .Select(row => row.After)
            .FirstOrDefaultAsync(cancellationToken);
        return state is null ? "a calendar" : StoredText.Read<CalendarRow>(state).Name;
    }
}
