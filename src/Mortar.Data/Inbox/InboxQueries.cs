using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Availability;
using Mortar.Core.Calendars;
using Mortar.Core.Changes;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Availability;
using Mortar.Data.Calendars;
using Mortar.Data.Changes;
using Mortar.Data.Events;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Inbox;

/// <summary>An invitation that waits for an answer.</summary>
public sealed record WaitingInvitation(
    InvitationId Id,
    string CalendarName,
    string From,
    Role Role,
    string Message,
    bool InReturn,
    Instant SentAt
);

/// <summary>A request for access that waits for one's answer.</summary>
public sealed record WaitingAsk(
    AskId Id,
    CalendarId CalendarId,
    string CalendarName,
    string From,
    string? Address,
    Role Role,
    string Note,
    Instant AskedAt
);

/// <summary>A request for a calendar of one's own or of a group one coordinates.</summary>
/// <param name="GroupId">The group that is asked; <c>null</c> where one is asked oneself.</param>
public sealed record WaitingOpenAsk(
    AskId Id,
    GroupId? GroupId,
    string? GroupName,
    string From,
    string? Address,
    Role Role,
    string Note,
    Instant AskedAt
);

/// <summary>An absence that waits for a coordinator to agree to it.</summary>
/// <param name="Next">It, or its next date.</param>
/// <param name="GroupId">Whose cover it touches.</param>
/// <param name="Names">Who would be away.</param>
public sealed record WaitingAbsence(
    VisibleEvent.Shown Next,
    GroupId GroupId,
    string CalendarName,
    IReadOnlyList<string> Names
);

/// <summary>Mails that somebody had written and that could not be sent so far.</summary>
/// <param name="NextTry">When the first of them is tried again.</param>
public sealed record WaitingMails(int Count, Instant NextTry);

/// <summary>Something that somebody else did and that concerns the reader.</summary>
public sealed record Notice(long Sequence, Instant At, string Sentence, bool Seen);

/// <summary>Reads the inbox out of the invitations and the change log; nothing is written to it by hand.</summary>
public sealed class InboxQueries(MortarDb db, ZoneClock zones)
{
    private const int MostNotices = 60;

    /// <summary>The invitations that wait for a person, newest first.</summary>
    public async Task<IReadOnlyList<WaitingInvitation>> Waiting(PersonId person, CancellationToken cancellationToken) =>
        await (
            from invitation in db.Invitations
            where invitation.PersonId == person && invitation.State == InvitationState.Waiting
            join row in db.Calendars on invitation.CalendarId equals row.Id
            where row.DeletedAt == null
            join sender in db.People on invitation.InvitedBy equals sender.Id
            orderby invitation.SentAt descending
            select new WaitingInvitation(
                invitation.Id,
                row.Name,
                sender.Name,
                invitation.Role,
                invitation.Message,
                invitation.InReturn,
                invitation.SentAt
            )
        ).ToListAsync(cancellationToken);

    /// <summary>The requests for calendars that a person coordinates, oldest first: who has waited longest comes first.</summary>
    public async Task<IReadOnlyList<WaitingAsk>> Asks(PersonId person, CancellationToken cancellationToken)
    {
        var standings = await db.StandingsOf(person, cancellationToken);
        var coordinated = standings
            .Where(one => AccessRules.ToCoordinate(one.Value.Role) == Verdict.Granted)
            .Select(one => one.Key)
            .ToList();
        return await (
            from ask in db.Asks
            where ask.State == AskState.Waiting && coordinated.Contains(ask.CalendarId)
            join row in db.Calendars on ask.CalendarId equals row.Id
            join asker in db.People on ask.PersonId equals asker.Id
            orderby ask.AskedAt
            select new WaitingAsk(
                ask.Id,
                ask.CalendarId,
                row.Name,
                asker.Name,
                asker.Address,
                ask.Role,
                ask.Note,
                ask.AskedAt
            )
        ).ToListAsync(cancellationToken);
    }

    /// <summary>The requests that name no calendar and that a person can answer, oldest first.</summary>
    public async Task<IReadOnlyList<WaitingOpenAsk>> OpenAsks(PersonId person, CancellationToken cancellationToken) =>
        await (
            from ask in db.OpenAsksTo(person)
            where ask.State == AskState.Waiting
            join asker in db.People on ask.PersonId equals asker.Id
            join asked in db.Groups on ask.ToGroupId equals asked.Id into groups
            from asked in groups.DefaultIfEmpty()
            orderby ask.AskedAt
            select new WaitingOpenAsk(
                ask.Id,
                ask.ToGroupId,
                asked == null ? null : asked.Name,
                asker.Name,
                asker.Address,
                ask.Role,
                ask.Note,
                ask.AskedAt
            )
        ).ToListAsync(cancellationToken);

    /// <summary>The mails of a person that were tried and are still here; <c>null</c> where none is. To whom they go is not said: that may not be theirs to know.</summary>
    public async Task<WaitingMails?> Mails(PersonId person, CancellationToken cancellationToken)
    {
        var due = await db
            .Mails.Where(mail => mail.SentAt == null && mail.Attempts > 0 && mail.AskedBy == person.Value)
            .Select(mail => mail.DueAt)
            .ToListAsync(cancellationToken);
        return due.Count == 0 ? null : new WaitingMails(due.Count, due.Min());
    }

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
                : one.change.Subject == Subject.Vote ? await OfVote(person, one.change, cancellationToken)
                : one.change.Subject == Subject.Agreement
                    ? await OfAgreement(person, one.change, one.Name, cancellationToken)
                : one.change.Subject == Subject.Answer ? await OfAnswer(person, one.change, one.Name, cancellationToken)
                : Sentence(one.change, one.Name, await NameAt(one.change, cancellationToken));
            if (sentence is not null)
            {
                notices.Add(new Notice(one.change.Sequence, one.change.At, sentence, one.change.Sequence <= seen));
            }
        }

        notices.AddRange(await OfAttended(person, seen, cancellationToken));
        return [.. notices.OrderByDescending(notice => notice.Sequence).Take(MostNotices)];
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
                one.change.Sequence <= seen
            ),
        ];

        bool Sees(Event state) =>
            state.Guests.Has(person) && VisibleEvent.SeesEverything(RoleOn(state.CalendarId), person, state);

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
            ({ LeftAt: null }, { LeftAt: not null }) => $"{actor} took you out of “{group}”.",
            (null or { LeftAt: not null }, { LeftAt: null }) => $"{actor} added you to “{group}”.",
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
        if (row is null || !VisibleEvent.IsThere(role, reader, row.ToCore()))
        {
            return null;
        }

        var who = await db
            .People.Where(one => one.Id == answer.PersonId)
            .Select(one => one.Name)
            .SingleAsync(cancellationToken);
        var title = row.Title.Length > 0 ? $"“{row.Title}”" : "an untitled event";
        var by = who == actor ? string.Empty : $" ({actor} answered)";
        return answer.Answer switch
        {
            Answer.Accepted => $"{who} comes to {title}{by}.",
            Answer.Tentative => $"{who} perhaps comes to {title}{by}.",
            Answer.Declined => $"{who} does not come to {title}{by}.",
            _ => null,
        };
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

    /// <summary>The absences that wait for somebody who coordinates their calendar to agree to them, the soonest first.</summary>
    public async Task<IReadOnlyList<WaitingAbsence>> Absences(
        PersonId person,
        DateTimeZone zone,
        CancellationToken cancellationToken
    )
    {
        var standings = await db.StandingsOf(person, cancellationToken);
        var coordinated = standings
            .Where(one => Agreement.ToAgree(one.Value.Role) == Verdict.Granted)
            .Select(one => one.Key)
            .ToList();
        var rows = await (
            from calendar in db.Calendars.AsNoTracking()
            where coordinated.Contains(calendar.Id) && calendar.Agreed && calendar.DeletedAt == null
            join row in db.Events on calendar.Id equals row.CalendarId
            where row.DeletedAt == null && row.ShowAs == ShowAs.Tentative && row.IndexEnd >= db.Now
            orderby row.IndexStart
            select new { calendar, row }
        )
            .Take(MostNotices)
            .ToListAsync(cancellationToken);
        var people = rows.SelectMany(one => one.row.ToCore().Named).Distinct().ToList();
        var names = await db
            .People.Where(one => people.Contains(one.Id))
            .ToDictionaryAsync(one => one.Id, one => one.Name, cancellationToken);
        return
        [
            .. from one in rows
            let whole = one.row.ToCore()
            where Agreement.Waits(one.calendar.Settings(), whole.Content)
            let next = NextOf(whole, zone)
            where next is not null
            select new WaitingAbsence(
                next,
                one.calendar.GroupId,
                one.calendar.Name,
                [.. next.Attendees.Select(who => names[who]).Order(StringComparer.Ordinal)]
            ),
        ];

        VisibleEvent.Shown? NextOf(Event whole, DateTimeZone reader)
        {
            var today = db.Now.InZone(reader).Date;
            var ahead = new Window(today, today.PlusDays(Window.LongestDays - 1), reader);
            return whole.Occurrences(ahead, zones).Select(date => (Occurrence?)date).FirstOrDefault() is { } first
                ? VisibleEvent.Show(standings[whole.CalendarId].Role, person, first, reader)
                : null;
        }
    }

    /// <summary>What is said to the times of a question, to who put it and can still settle it.</summary>
    private async Task<string?> OfVote(PersonId reader, ChangeRow change, CancellationToken cancellationToken)
    {
        if (change.After is not { } text)
        {
            return null;
        }

        var vote = StoredText.Read<VoteRow>(text);
        var row = await db.OpenProposal(vote.ProposalId, cancellationToken);
        if (
            row is null
            || Proposals.ToSettle(
                (await db.StandingOf(reader, row.CalendarId, cancellationToken)).Role,
                reader,
                row.ProposedBy
            ) != Verdict.Granted
        )
        {
            return null;
        }

        var who = await db
            .People.Where(one => one.Id == vote.PersonId)
            .Select(one => one.Name)
            .SingleAsync(cancellationToken);
        var suit = vote.ToCore().Votes.Count(one => one.Value != Vote.No);
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
