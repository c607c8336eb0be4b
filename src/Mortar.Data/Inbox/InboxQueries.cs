using Microsoft.EntityFrameworkCore;
using Mortar.Core.Absences;
using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Letters;
using Mortar.Core.Proposals;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Answers;
using Mortar.Data.Events;
using Mortar.Data.Groups;
using Mortar.Data.People;
using Mortar.Data.Proposals;
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

/// <summary>A group that asks whether one wants to be in it.</summary>
public sealed record WaitingMembership(GroupId GroupId, string GroupName, string From, Instant AskedAt);

/// <summary>That somebody is to see and answer for somebody in a group, and waits for one's yes.</summary>
/// <param name="Ward">For whom; <c>null</c> for oneself.</param>
/// <param name="Guardian">Who; <c>null</c> for oneself.</param>
public sealed record WaitingGuardianship(
    Guid Id,
    string GroupName,
    string From,
    string? Ward,
    string? Guardian,
    Instant AskedAt
);

/// <summary>That a group put one on its plan as somebody from outside, by an address of one's own.</summary>
/// <param name="PersonId">The guest.</param>
/// <param name="Name">What they are called there.</param>
/// <param name="Address">The address they are known by.</param>
/// <param name="From">Who added them.</param>
/// <param name="Events">What they were asked to or may change, the soonest first, as they would see it.</param>
/// <param name="Proposals">The titles of what they were asked which times suit for.</param>
public sealed record WaitingGuest(
    GroupId GroupId,
    string GroupName,
    PersonId PersonId,
    string Name,
    ToldAddress Address,
    string From,
    IReadOnlyList<VisibleEvent.Shown> Events,
    IReadOnlyList<string> Proposals
);

/// <summary>A request for access that waits for one's answer.</summary>
public sealed record WaitingAsk(
    AskId Id,
    CalendarId CalendarId,
    string CalendarName,
    string From,
    ToldAddress? Address,
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
    ToldAddress? Address,
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
/// <param name="NextTry">When the first of them is tried again; <c>null</c> where none waits.</param>
/// <param name="GivenUp">The subjects of those that were given up lately.</param>
public sealed record WaitingMails(int Count, Instant? NextTry, IReadOnlyList<string> GivenUp);

/// <summary>Reads what waits for somebody; nothing is written to the inbox by hand.</summary>
public sealed class InboxQueries(MortarDb db, QuestionQueries questions, ZoneClock zones)
{
    private const int MostAbsences = 60;
    private const int MostGuests = 20;
    private const int MostTold = 3;

    /// <summary>All that waits for a person's answer.</summary>
    public async Task<Waits> Waits(PersonId person, DateTimeZone zone, CancellationToken cancellationToken)
    {
        var asked = await questions.Waiting(person, zone, cancellationToken);
        var proposals = await db.ProposalsWaiting(person, cancellationToken);
        var wards = asked
            .Select(one => one.Whose)
            .Concat(proposals.Select(one => one.Whose))
            .Where(one => one != person)
            .Distinct()
            .ToList();
        return new Waits(
            person,
            await Memberships(person, cancellationToken),
            await Guardianships(person, cancellationToken),
            await Guests(person, zone, cancellationToken),
            await Waiting(person, cancellationToken),
            await Asks(person, cancellationToken),
            await OpenAsks(person, cancellationToken),
            asked,
            await Absences(person, zone, cancellationToken),
            proposals,
            wards.Count == 0
                ? new Dictionary<PersonId, string>()
                : await db
                    .People.Where(one => wards.Contains(one.Id))
                    .ToDictionaryAsync(one => one.Id, one => one.Name, cancellationToken)
        );
    }

    /// <summary>The invitations that wait for a person, newest first.</summary>
    private async Task<IReadOnlyList<WaitingInvitation>> Waiting(
        PersonId person,
        CancellationToken cancellationToken
    ) =>
        await (
            from invitation in db.StandingInvitations()
            where invitation.PersonId == person
            join row in db.Calendars on invitation.CalendarId equals row.Id
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

    /// <summary>The groups that ask a person, the newest first.</summary>
    private async Task<IReadOnlyList<WaitingMembership>> Memberships(
        PersonId person,
        CancellationToken cancellationToken
    ) =>
        await (
            from row in db.MembershipsAsked(person)
            join home in db.Groups on row.GroupId equals home.Id
            join asker in db.People on row.AskedBy equals asker.Id
            orderby row.AskedAt descending
            select new WaitingMembership(row.GroupId, home.Name, asker.Name, row.AskedAt!.Value)
        ).ToListAsync(cancellationToken);

    /// <summary>What a person is asked about guardians, by the name of the ward.</summary>
    private async Task<IReadOnlyList<WaitingGuardianship>> Guardianships(
        PersonId person,
        CancellationToken cancellationToken
    ) =>
        await (
            from row in db.GuardiansAsked(person)
            join home in db.Groups on row.GroupId equals home.Id
            join asker in db.People on row.ChosenBy equals asker.Id
            join ward in db.People on row.WardId equals ward.Id
            join guardian in db.People on row.GuardianId equals guardian.Id
            orderby ward.Name
            select new WaitingGuardianship(
                row.Id,
                home.Name,
                asker.Name,
                row.WardId == person ? null : ward.Name,
                row.GuardianId == person ? null : guardian.Name,
                row.WardId == person ? row.WardAskedAt!.Value : row.GuardianAskedAt!.Value
            )
        ).ToListAsync(cancellationToken);

    /// <summary>The requests for calendars that a person coordinates, oldest first: who has waited longest comes first.</summary>
    private async Task<IReadOnlyList<WaitingAsk>> Asks(PersonId person, CancellationToken cancellationToken)
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
                ToldAddress.OfAsker(asker.Address),
                ask.Role,
                ask.Note,
                ask.AskedAt
            )
        ).ToListAsync(cancellationToken);
    }

    /// <summary>The requests that name no calendar and that a person can answer, oldest first.</summary>
    private async Task<IReadOnlyList<WaitingOpenAsk>> OpenAsks(PersonId person, CancellationToken cancellationToken) =>
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
                ToldAddress.OfAsker(asker.Address),
                ask.Role,
                ask.Note,
                ask.AskedAt
            )
        ).ToListAsync(cancellationToken);

    /// <summary>The mails of a person that were tried and are still here, or were given up lately; <c>null</c> where there are none. To whom they go is not said: that may not be theirs to know.</summary>
    public async Task<WaitingMails?> Mails(PersonId person, CancellationToken cancellationToken)
    {
        var told = db.Now - MailLife.ToldFor;
        var mails = await db
            .Mails.AsNoTracking()
            .Where(mail =>
                mail.AskedBy == person.Value
                && mail.SentAt == null
                && mail.Attempts > 0
                && (mail.GivenUpAt == null || mail.GivenUpAt > told)
            )
            .Select(mail => new
            {
                mail.Subject,
                mail.DueAt,
                mail.GivenUpAt,
            })
            .ToListAsync(cancellationToken);
        var waiting = mails.FindAll(mail => mail.GivenUpAt is null);
        return mails.Count == 0
            ? null
            : new WaitingMails(
                waiting.Count,
                waiting.Count == 0 ? null : waiting.Min(mail => mail.DueAt),
                [
                    .. mails
                        .Where(mail => mail.GivenUpAt is not null)
                        .OrderByDescending(mail => mail.GivenUpAt)
                        .Select(mail => mail.Subject)
                        .Distinct(),
                ]
            );
    }

    /// <summary>Where a person was put on a group's plan as a guest, by an address of theirs, with what waits for the guest there.</summary>
    private async Task<IReadOnlyList<WaitingGuest>> Guests(
        PersonId person,
        DateTimeZone zone,
        CancellationToken cancellationToken
    )
    {
        var rows = await (
            from guest in db.GuestsWhoAre(person).AsNoTracking()
            join home in db.Groups on guest.GroupId equals home.Id
            join named in db.People on guest.PersonId equals named.Id
            join sender in db.People on guest.AddedBy equals sender.Id
            where
                db.Given.Any(given => given.PersonId == guest.PersonId)
                || db.ProposalAsked.Any(asked => asked.PersonId == guest.PersonId)
            orderby home.Name, guest.Id
            select new
            {
                guest,
                Group = home.Name,
                named.Name,
                From = sender.Name,
            }
        )
            // Anybody can put an address on the plan of a group of theirs.
            .Take(MostGuests)
            .ToListAsync(cancellationToken);
        var found = new List<WaitingGuest>();
        var today = db.Now.InZone(zone).Date;
        var window = new Window(today, today.PlusDays(Window.LongestDays - 1), zone);
        foreach (var row in rows)
        {
            var whose = row.guest.PersonId;
            var calendars = await db.CalendarsGiving(whose).ToListAsync(cancellationToken);
            var standings = await db.StandingsOf(whose, cancellationToken);
            var events =
                from whole in await db.EventsGiven(whose, calendars, window, cancellationToken)
                let next = NextOf(whole, whose, standings, window)
                where next is not null
                orderby next.Start
                select next;
            var proposals = await (
                from asked in db.ProposalAsked
                where asked.PersonId == whose
                join proposal in db.Proposals on asked.ProposalId equals proposal.Id
                join home in db.Calendars on proposal.CalendarId equals home.Id
                where proposal.State == ProposalState.Open && home.DeletedAt == null
                orderby proposal.Id
                select proposal.Title
            ).ToListAsync(cancellationToken);
            var one = new WaitingGuest(
                row.guest.GroupId,
                row.Group,
                whose,
                row.Name,
                ToldAddress.Own(row.guest.Address),
                row.From,
                [.. events.Take(MostTold)],
                proposals
            );
            if (one.Events.Count + one.Proposals.Count > 0)
            {
                found.Add(one);
            }
        }

        return found;
    }

    /// <summary>The absences that wait for somebody who coordinates their calendar to agree to them, the soonest first.</summary>
    private async Task<IReadOnlyList<WaitingAbsence>> Absences(
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
        var today = db.Now.InZone(zone).Date;
        var ahead = new Window(today, today.PlusDays(Window.LongestDays - 1), zone);
        var rows = await (
            from calendar in db.Calendars.AsNoTracking()
            where coordinated.Contains(calendar.Id) && calendar.Agreed && calendar.DeletedAt == null
            join row in db.Events on calendar.Id equals row.CalendarId
            where row.DeletedAt == null && row.ShowAs == ShowAs.Tentative && row.IndexEnd >= db.Now
            orderby row.IndexStart
            select new { calendar, row }
        )
            .Take(MostAbsences)
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
            let next = NextOf(whole, person, standings, ahead)
            where next is not null
            select new WaitingAbsence(
                next,
                one.calendar.GroupId,
                one.calendar.Name,
                [.. next.Attendees.Select(who => names[who]).Order(StringComparer.Ordinal)]
            ),
        ];
    }

    /// <summary>What is next of an event that is not over, as somebody sees it.</summary>
    private VisibleEvent.Shown? NextOf(
        Event whole,
        PersonId reader,
        IReadOnlyDictionary<CalendarId, Standing> standings,
        Window ahead
    ) =>
        whole
            .Occurrences(ahead, zones)
            .Where(date => date.Span.End > db.Now)
            .Select(date => (Occurrence?)date)
            .FirstOrDefault()
            is { } first
            ? VisibleEvent.Show(
                standings.GetValueOrDefault(whole.CalendarId, Standing.Outside).Role,
                reader,
                first,
                ahead.Reader
            )
            : null;
}
