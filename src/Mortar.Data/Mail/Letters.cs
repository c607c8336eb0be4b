using System.Diagnostics;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Answers;
using Mortar.Core.Events;
using Mortar.Core.Letters;
using Mortar.Core.Reminders;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Groups;
using Mortar.Data.People;
using Mortar.Data.Proposals;
using Mortar.Data.Store;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Data.Mail;

/// <summary>Why somebody named on an event is written to.</summary>
public enum AskedAbout
{
    /// <summary>Whether they come.</summary>
    Whether,

    /// <summary>That one of several times was settled.</summary>
    Settled,
}

/// <summary>Writes the mails that Mortar sends.</summary>
/// <param name="publicUrl">Where people reach Mortar, without a slash at the end; links begin with it.</param>
public sealed class Letters(string publicUrl)
{
    /// <summary>What the address of answers to one question begins with; the rest of it is its secret.</summary>
    public const string AnswerPrefix = "answer-";

    /// <summary>The mail to somebody who was put into a group by name and has not been here yet.</summary>
    public MailRow ToGroup(PersonRow by, string group, string address, string token, Instant now)
    {
        var from = by.Name;
        return new MailRow
        {
            To = address,
            AskedBy = by.Id.Value,
            Subject = PlainText.Shorten($"{from} added you to “{group}”", 180),
            Body = $"""
                Hello,

                {from} keeps the time of “{group}” with Mortar and has put you on its list.
                Open this to see the group's plan and to answer for yourself:
                {publicUrl}/join/{token}

                If you do not want that, leave this mail unanswered.
                """.ReplaceLineEndings("\n"),
            WrittenAt = now,
            DueAt = now,
        };
    }

    /// <summary>The mail to somebody with an account who is asked to be in a group; answered in their inbox.</summary>
    public MailRow ToAskIn(PersonRow by, string group, string address, Instant now) =>
        new()
        {
            To = address,
            AskedBy = by.Id.Value,
            Subject = PlainText.Shorten($"{by.Name} asks whether you want to be in “{group}”", 180),
            Body = $"""
                Hello,

                {by.Name} keeps the time of “{group}” with Mortar and asks whether you want to be in it.
                Nothing of you is told to it until you say yes. Answer here:
                {publicUrl}/inbox
                """.ReplaceLineEndings("\n"),
            WrittenAt = now,
            DueAt = now,
        };

    /// <summary>The mail that asks whether a further address is somebody's.</summary>
    public MailRow ToConfirm(string name, string address, string secret, Instant now) =>
        new()
        {
            To = address,
            Subject = "Is this address yours?",
            Body =
                $"""
                Hello,

                {PlainText.Shorten(
                    name,
                    80
                )} has a Mortar account and says that this address is theirs too. If that is you, sign in and open this:
                {publicUrl}/address/{secret}

                If it is not, leave this mail unanswered: nothing happens then.
                """.ReplaceLineEndings(
                    "\n"
                ),
            WrittenAt = now,
            DueAt = now,
        };

    /// <summary>The mails to those who coordinate a calendar that somebody asks for a step on it; answered where the link leads.</summary>
    public async Task<IReadOnlyList<MailRow>> Asked(MortarDb db, AskRow ask, CancellationToken cancellationToken)
    {
        var (calendar, now) = (
            await db
                .Calendars.Where(one => one.Id == ask.CalendarId)
                .Select(one => one.Name)
                .SingleAsync(cancellationToken),
            db.Now
        );
        var from = await db.People.SingleAsync(one => one.Id == ask.PersonId, cancellationToken);
        var to = await (
            from grant in db.Grants
            where
                grant.CalendarId == ask.CalendarId
                && grant.Role == Role.Coordinate
                && (grant.EndsAt == null || grant.EndsAt > now)
            join person in db.People on grant.PersonId equals person.Id
            where person.Address != null
            select person.Address
        ).ToListAsync(cancellationToken);
        return Asked(from, $"the step {RoleSentence.Name(ask.Role)} on “{calendar}”", ask.Note, to, ask.Id, now);
    }

    /// <summary>The mails to those who can answer a request that names no calendar.</summary>
    public async Task<IReadOnlyList<MailRow>> Asked(MortarDb db, OpenAskRow ask, CancellationToken cancellationToken)
    {
        var from = await db.People.SingleAsync(one => one.Id == ask.PersonId, cancellationToken);
        var group = ask.ToGroupId is { } id
            ? await db.Groups.Where(one => one.Id == id).Select(one => one.Name).SingleAsync(cancellationToken)
            : null;
        var to = await (
            from person in db.People
            where
                person.Address != null
                && (
                    person.Id == ask.ToPersonId
                    || db.Members.Any(member =>
                        member.GroupId == ask.ToGroupId && member.PersonId == person.Id && member.Coordinates
                    )
                )
            select person.Address
        ).ToListAsync(cancellationToken);
        var what = group is null ? "a calendar of yours" : $"a calendar of “{group}”";
        return Asked(from, $"{what}, at the step {RoleSentence.Name(ask.Role)}", ask.Note, to, ask.Id, db.Now);
    }

    /// <summary>The link leads to the request itself; whoever it is forwarded to has to sign in to answer it.</summary>
    private List<MailRow> Asked(PersonRow from, string what, string note, List<string> to, AskId id, Instant now)
    {
        var words = note.Length > 0 ? $"\nThey write:\n\n{note}\n" : string.Empty;
        return to.ConvertAll(address => new MailRow
        {
            To = address,
            Subject = PlainText.Shorten($"{from.Name} asks for {what}", 180),
            Body = $"""
                Hello,

                {from.Name} ({from.Address}) asks for {what}.
                {words}
                Give them that, less or more, or say no:
                {publicUrl}/inbox?ask={id.Value}
                """.ReplaceLineEndings("\n"),
            WrittenAt = now,
            DueAt = now,
        });
    }

    /// <summary>The mail that asks somebody whether they come, with the link by which they answer, account or not.</summary>
    public async Task<MailRow> ToAttend(
        MortarDb db,
        Event whole,
        PersonId person,
        PersonId from,
        string address,
        string secret,
        AskedAbout about,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        var names = await db
            .People.Where(one => one.Id == person || one.Id == from)
            .ToDictionaryAsync(one => one.Id, one => one.Name, cancellationToken);
        var zone = await db.ZoneOf(person, zones, cancellationToken);
        var time = zones.AsSeenIn(whole.Time, zone);
        var when = RangeSentence.For(time, db.Now.InZone(zone).Year);
        var title = whole.Content.Title.Length > 0 ? whole.Content.Title : "an event";
        var repeats = whole.Series is { } series
            ? $"\n{SeriesSentence.For(whole.Time, series, time.LocalStart.Year, zone)}"
            : string.Empty;
        var place = whole.Content.Place.Length > 0 ? $"\n{whole.Content.Place}" : string.Empty;
        var notes = whole.Content.Notes.Length > 0 ? $"\n\n{whole.Content.Notes}" : string.Empty;
        var (subject, opening) = about switch
        {
            AskedAbout.Whether => (
                $"{names[from]} asks whether you come: {title}",
                $"{names[from]} asks whether you come:"
            ),
            AskedAbout.Settled => (
                $"It is settled: {title}, {when}",
                $"{names[from]} settled on this time. If you have said how it suits you, that is your answer; here you can give another."
            ),
            _ => throw new UnreachableException(),
        };
        return new MailRow
        {
            To = address,
            Subject = PlainText.Shorten(subject, 180),
            Body = $"""
                Hello {names[person]},

                {opening}

                {title}
                {when} ({zone.Id}){repeats}{place}{notes}

                Answer here, you need no account for it:
                {publicUrl}/answer/{secret}
                """.ReplaceLineEndings("\n"),
            AsksAbout = whole.Id.Value,
            AskedBy = from.Value,
            AnswersTo = $"{AnswerPrefix}{secret}",
            WrittenAt = db.Now,
            DueAt = db.Now,
        };
    }

    /// <summary>The mail that tells somebody who was asked what became of the event.</summary>
    public async Task<MailRow> ToTell(
        MortarDb db,
        ToldOfEvent tells,
        Event? told,
        Event whole,
        PersonId person,
        string address,
        string secret,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        var names = await db
            .People.Where(one => one.Id == person || one.Id == whole.AddedBy)
            .ToDictionaryAsync(one => one.Id, one => one.Name, cancellationToken);
        var zone = await db.ZoneOf(person, zones, cancellationToken);
        var when = When(whole.Time);
        var title = whole.Content.Title.Length > 0 ? whole.Content.Title : "an event";
        var place = whole.Content.Place.Length > 0 ? $"\n{whole.Content.Place}" : string.Empty;
        var before = told is not null && told.Time != whole.Time ? $"\n(before: {When(told.Time)})" : string.Empty;
        var repeats = whole.Series is { } series
            ? $"\n{SeriesSentence.For(whole.Time, series, whole.Time.LocalStart.Year, zone)}"
            : string.Empty;
        var (subject, opening) = tells switch
        {
            ToldOfEvent.CalledOff => ($"Called off: {title}, {when}", "This does not take place:"),
            ToldOfEvent.NotAsked => ($"You are not asked any more: {title}, {when}", "This takes place without you:"),
            _ => ($"Changed: {title}, {when}", $"{names[whole.AddedBy]} asked you to this. It is now:"),
        };
        var link =
            tells == ToldOfEvent.Changed
                ? $"\nDo you still come? Answer here, you need no account for it:\n{publicUrl}/answer/{secret}"
                : string.Empty;
        return new MailRow
        {
            To = address,
            Subject = PlainText.Shorten(subject, 180),
            Body = $"""
                Hello {names[person]},

                {opening}

                {title}
                {when} ({zone.Id}){before}{repeats}{place}
                {link}
                """.ReplaceLineEndings("\n"),
            AsksAbout = whole.Id.Value,
            AskedBy = whole.AddedBy.Value,
            AnswersTo = $"{AnswerPrefix}{secret}",
            Rank = MailRank.Timed,
            Tells = tells,
            WrittenAt = db.Now,
            DueAt = db.Now,
        };

        string When(EventTime time) => RangeSentence.For(zones.AsSeenIn(time, zone), db.Now.InZone(zone).Year);
    }

    /// <summary>The mail that reminds somebody; <c>null</c> where they want none.</summary>
    public async Task<MailRow?> ToRemind(MortarDb db, DueReminder due, CancellationToken cancellationToken)
    {
        var person = await db.People.AsNoTracking().SingleAsync(one => one.Id == due.Person, cancellationToken);
        if (person.Address is not { } to || !person.ToPreferences().RemindsByMail)
        {
            return null;
        }

        var seen = due.Seen;
        var title = seen.Title.Length > 0 ? seen.Title : "An event without a title";
        var when = RangeSentence.For(seen.Seen, seen.Seen.LocalStart.Year);
        var place = seen.Place.Length > 0 ? $"\n{seen.Place}" : string.Empty;
        var notes = seen.Notes is { Length: > 0 } text ? $"\n\n{text}" : string.Empty;
        var day = LocalDatePattern.Iso.Format(seen.Seen.LocalStart.Date);
        return new MailRow
        {
            To = to,
            Subject = PlainText.Shorten($"{title}, {when}", 180),
            Body = $"""
                Hello {person.Name},

                this is to remind you of:

                {title}
                {when} ({person.Zone}){place}{notes}

                See it among the rest:
                {publicUrl}/week/{day}

                You set in Mortar when you are reminded: for each calendar in “My look”, by mail or not in your preferences.
                """.ReplaceLineEndings("\n"),
            Rank = MailRank.Timed,
            WrittenAt = db.Now,
            DueAt = db.Now,
        };
    }

    /// <summary>The mail that tells what changed in somebody's calendars.</summary>
    public MailRow Digest(PersonRow person, IReadOnlyList<string> lines, Instant now)
    {
        var told = string.Join('\n', lines.Take(DigestRules.MostEvents).Select(line => $"- {line}"));
        var more =
            lines.Count > DigestRules.MostEvents ? $"\nand {lines.Count - DigestRules.MostEvents} more." : string.Empty;
        return new MailRow
        {
            To = person.Address!,
            Subject = $"What changed in your calendars: {Wording.Count(lines.Count, "event", "events")}",
            Body = $"""
                Hello {person.Name},

                {told}{more}

                {publicUrl}/week

                You get this as often as you chose in your preferences.
                """.ReplaceLineEndings("\n"),
            Rank = MailRank.ToMany,
            WrittenAt = now,
            DueAt = now,
        };
    }

    /// <summary>The mail that asks which of several times suit, with the link by which that is said, account or not.</summary>
    public async Task<MailRow> ToPropose(
        MortarDb db,
        ProposalRow proposal,
        PersonId person,
        string address,
        string secret,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        var names = await db
            .People.Where(one => one.Id == person || one.Id == proposal.ProposedBy)
            .ToDictionaryAsync(one => one.Id, one => one.Name, cancellationToken);
        var zone = await db.ZoneOf(person, zones, cancellationToken);
        var year = db.Now.InZone(zone).Year;
        var times = string.Join(
            '\n',
            proposal
                .ToTimes()
                .Select(time =>
                    EventTime.InZone(
                        time.Start.InZone(zone).LocalDateTime,
                        time.End.InZone(zone).LocalDateTime,
                        zone.Id
                    )
                )
                .Select(time => $"- {RangeSentence.For(time, year)}")
        );
        var place = proposal.Place.Length > 0 ? $"\n{proposal.Place}" : string.Empty;
        var notes = proposal.Notes.Length > 0 ? $"\n\n{proposal.Notes}" : string.Empty;
        var from = names[proposal.ProposedBy];
        return new MailRow
        {
            To = address,
            AskedBy = proposal.ProposedBy.Value,
            Subject = PlainText.Shorten($"{from} asks which time suits you: {proposal.Title}", 180),
            Body = $"""
                Hello {names[person]},

                {from} asks which of these times suit you ({zone.Id}):

                {proposal.Title}{place}{notes}

                {times}

                Say it here, you need no account for it:
                {publicUrl}/suits/{secret}
                """.ReplaceLineEndings("\n"),
            WrittenAt = db.Now,
            DueAt = db.Now,
        };
    }

    /// <summary>The mail of an invitation, with the link that leads to it.</summary>
    public async Task<MailRow> Invitation(
        MortarDb db,
        InvitationRow invitation,
        string secret,
        CancellationToken cancellationToken
    )
    {
        var calendar = await db
            .Calendars.Where(one => one.Id == invitation.CalendarId)
            .Select(one => one.Name)
            .SingleAsync(cancellationToken);
        var from = await db
            .People.Where(one => one.Id == invitation.InvitedBy)
            .Select(one => one.Name)
            .SingleAsync(cancellationToken);
        var message = invitation.Message.Length > 0 ? $"\n{from} writes:\n\n{invitation.Message}\n" : string.Empty;
        var inReturn = invitation.InReturn ? $"{from} asks you for a calendar of yours in return.\n" : string.Empty;
        return new MailRow
        {
            To = invitation.Address,
            AskedBy = invitation.InvitedBy.Value,
            Subject = PlainText.Shorten($"{from} invites you to “{calendar}”", 180),
            Body = $"""
                Hello,

                {from} would like to share the calendar “{calendar}” with you.
                {RoleSentence.ForReader(invitation.Role, calendar)}
                {inReturn}{message}
                Open the invitation:
                {publicUrl}/invitation/{secret}

                If you do not want it, decline it there or leave this mail unanswered.
                """.ReplaceLineEndings("\n"),
            WrittenAt = db.Now,
            DueAt = db.Now,
        };
    }
}
