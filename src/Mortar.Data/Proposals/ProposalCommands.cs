using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Answers;
using Mortar.Core.Events;
using Mortar.Core.Letters;
using Mortar.Core.Proposals;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Core.Writing;
using Mortar.Data.Access;
using Mortar.Data.Answers;
using Mortar.Data.Events;
using Mortar.Data.Mail;
using Mortar.Data.People;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Proposals;

/// <summary>What somebody wants to put to people.</summary>
/// <param name="CalendarId">The calendar the event is to go to.</param>
/// <param name="People">Who is asked; the one who asks is left out of it.</param>
public sealed record ProposalWish(
    CalendarId CalendarId,
    string? Title,
    string? Place,
    string? Notes,
    IReadOnlyList<ProposedTime> Times,
    IReadOnlyCollection<PersonId> People
);

/// <summary>What somebody says to the times of a question.</summary>
public sealed record SuitingsWish(IReadOnlyDictionary<Instant, Suiting> Said, string? Comment);

/// <summary>Puts several times to people, takes what they say, and settles one.</summary>
public sealed class ProposalCommands(
    MortarDb db,
    EventCommands events,
    AnswerCommands answers,
    PublicLinks links,
    ZoneClock zones
)
{
    /// <summary>Asks. Sent again with the same id, it is asked once.</summary>
    public Task<Outcome<ProposalRow>> Propose(
        Act act,
        ProposalId id,
        ProposalWish wish,
        CancellationToken cancellationToken
    ) =>
        db.Write<ProposalRow>(
            act,
            async () =>
            {
                if (await db.Proposals.FirstOrDefaultAsync(one => one.Id == id, cancellationToken) is { } known)
                {
                    return known.ProposedBy == act.Actor
                        ? new Outcome<ProposalRow>.Done(known)
                        : new Refusal.NotThere("proposal");
                }

                var role = (await db.StandingOf(act.Actor, wish.CalendarId, cancellationToken)).Role;
                if (ProposalRules.ToPropose(role).WhyNot("calendar", "Add") is { } refusal)
                {
                    return refusal;
                }

                var zone = await db.ZoneOf(act.Actor, zones, cancellationToken);
                var asked = wish.People.Where(person => person != act.Actor).Distinct().ToList();
                var (content, problems) = await Check(wish, asked, zone, cancellationToken);
                if (problems.Count > 0)
                {
                    return new Refusal.Unfit(problems);
                }

                var row = new ProposalRow
                {
                    Id = id,
                    CalendarId = wish.CalendarId,
                    ProposedBy = act.Actor,
                    Title = content.Title,
                    Place = content.Place,
                    Notes = content.Notes,
                    Times = ProposalRow.TimesText(wish.Times),
                    Zone = zone.Id,
                    ProposedAt = db.Now,
                };
                db.Proposals.Add(row);
                foreach (var person in asked)
                {
                    var one = new ProposalAskedRow { ProposalId = id, PersonId = person };
                    db.ProposalAsked.Add(one);
                    await Mail(row, one, cancellationToken);
                }

                return row;
            },
            cancellationToken
        );

    /// <summary>Writes once more to those who have not said anything; links in earlier mails end.</summary>
    public Task<Outcome<ProposalRow>> AskAgain(Act act, ProposalId id, CancellationToken cancellationToken) =>
        Manage(
            act,
            id,
            async row =>
            {
                var said = await db
                    .Suitings.Where(row => row.ProposalId == id && row.Said.Length > 0)
                    .Select(row => row.PersonId)
                    .ToListAsync(cancellationToken);
                foreach (
                    var one in await db
                        .ProposalAsked.Where(one => one.ProposalId == id && !said.Contains(one.PersonId))
                        .ToListAsync(cancellationToken)
                )
                {
                    await Mail(row, one, cancellationToken);
                }

                return row;
            },
            cancellationToken
        );

    /// <summary>Takes it back: it waits for nobody any more.</summary>
    public Task<Outcome<ProposalRow>> Withdraw(Act act, ProposalId id, CancellationToken cancellationToken) =>
        Manage(
            act,
            id,
            row =>
            {
                row.State = ProposalState.Withdrawn;
                return Task.FromResult<Outcome<ProposalRow>>(row);
            },
            cancellationToken
        );

    /// <summary>
    /// Makes the event at one of the times: all who were asked are named on it and told, and what they said to that
    /// time is their answer to it.
    /// </summary>
    public Task<Outcome<ProposalRow>> Settle(
        Act act,
        ProposalId id,
        Instant start,
        CancellationToken cancellationToken
    ) =>
        Manage(
            act,
            id,
            async row =>
            {
                if (
                    row.ToTimes().Where(time => time.Start == start).Cast<ProposedTime?>().FirstOrDefault()
                    is not { } time
                )
                {
                    return new Refusal.Unfit([
                        new FieldProblem("start", "That is none of the times that were proposed."),
                    ]);
                }

                var asked = await db
                    .ProposalAsked.Where(one => one.ProposalId == id)
                    .Select(one => one.PersonId)
                    .ToListAsync(cancellationToken);
                // Who has left the group since is not named on anything in it, and holds nothing up.
                var calendar = await db
                    .Calendars.AsNoTracking()
                    .SingleAsync(one => one.Id == row.CalendarId, cancellationToken);
                var gone = await db.StrangersAmong([.. asked, row.ProposedBy], calendar, cancellationToken);
                asked = [.. asked.Except(gone)];
                var made = await events.Create(
                    act,
                    new EventId(Guid.CreateVersion7()),
                    new EventWish(
                        row.CalendarId,
                        Draft(row, time, asked.Append(row.ProposedBy).Except(gone)),
                        Key: null,
                        Reach.Whole,
                        Repeats: null,
                        Version: null
                    ),
                    cancellationToken
                );
                if (made is not Outcome<EventRow>.Done { Value: var settled })
                {
                    return made.WhyNot;
                }

                (row.State, row.EventId) = (ProposalState.Settled, settled.Id);
                settled.Apply(settled.ToCore() with { GivenTo = Attendees.Of(asked) }, zones);
                await TakeAnswers(row, settled, time, asked, cancellationToken);
                foreach (var person in asked.Where(person => person != act.Actor))
                {
                    await answers.Ask(settled, person, act.Actor, AskedAbout.Settled, cancellationToken);
                }

                return row;
            },
            cancellationToken
        );

    /// <summary>Says which times suit, for oneself or for somebody whose guardian one is.</summary>
    public Task<Outcome<SuitingsRow>> Say(
        Act act,
        ProposalId id,
        PersonId whose,
        SuitingsWish wish,
        CancellationToken cancellationToken
    ) =>
        db.Write<SuitingsRow>(
            act,
            async () =>
            {
                if (await db.WhyNotSaySuits(act.Actor, id, whose, cancellationToken) is { } refusal)
                {
                    return refusal;
                }

                var row = await db.Proposals.SingleAsync(one => one.Id == id, cancellationToken);
                var comment = AnswerRules.Comment(wish.Comment);
                if (comment.WhyNot is { } tooLong)
                {
                    return tooLong;
                }

                var times = row.ToTimes().Select(time => time.Start).ToHashSet();
                if (wish.Said.Keys.Any(start => !times.Contains(start)))
                {
                    return new Refusal.Unfit([
                        new FieldProblem(
                            "said",
                            "One of these is none of the times that were proposed. Reload, and answer again."
                        ),
                    ]);
                }

                var said = await db.Suitings.FirstOrDefaultAsync(
                    one => one.ProposalId == id && one.PersonId == whose,
                    cancellationToken
                );
                if (said is null)
                {
                    said = new SuitingsRow
                    {
                        ProposalId = id,
                        CalendarId = row.CalendarId,
                        PersonId = whose,
                        ProposedBy = row.ProposedBy,
                    };
                    db.Suitings.Add(said);
                }

                (said.Said, said.Comment) = (SuitingsRow.SaidText(wish.Said), comment.Value);
                return said;
            },
            cancellationToken
        );

    /// <summary>What is told to whoever comes too late.</summary>
    public static string Over(ProposalRow row) =>
        row.State == ProposalState.Settled
            ? "One of the times was settled meanwhile. Look for it in your inbox or your mail."
            : "The question was taken back. There is nothing to answer any more.";

    private Task<Outcome<ProposalRow>> Manage(
        Act act,
        ProposalId id,
        Func<ProposalRow, Task<Outcome<ProposalRow>>> change,
        CancellationToken cancellationToken
    ) =>
        db.Write<ProposalRow>(
            act,
            async () =>
            {
                if (
                    await db.OpenProposal(id, cancellationToken) is not { } row
                    || ProposalRules.ToSettle(
                        (await db.StandingOf(act.Actor, row.CalendarId, cancellationToken)).Role,
                        act.Actor,
                        row.ProposedBy
                    ) != Verdict.Granted
                )
                {
                    return new Refusal.NotThere("proposal");
                }

                return row.State == ProposalState.Open
                    ? await change(row)
                    : new Refusal.AgainstRule(
                        "settled",
                        row.State == ProposalState.Settled
                            ? "It is settled already. Open the event to change it."
                            : "It was taken back already. Propose anew."
                    );
            },
            cancellationToken
        );

    private async Task<Checked<EventContent>> Check(
        ProposalWish wish,
        List<PersonId> asked,
        DateTimeZone zone,
        CancellationToken cancellationToken
    )
    {
        var problems = ProposalRules.Check(wish.Times, asked.Count, EventRules.MostAttendees, db.Now).Problems.ToList();
        var calendar = await db
            .Calendars.AsNoTracking()
            .SingleAsync(one => one.Id == wish.CalendarId, cancellationToken);
        if ((await db.StrangersAmong(asked, calendar, cancellationToken)).Count > 0)
        {
            problems.Add(Attendees.Stranger("personIds"));
        }

        if (PlainText.OneLine(wish.Title).Length == 0)
        {
            problems.Add(new FieldProblem("title", "Say what it is about: those asked read only that and the times."));
        }

        // Any day does: the words are what is looked at.
        var today = db.Now.InZone(zone).Date;
        var check = new EventDraft(
            wish.Title,
            wish.Place,
            wish.Notes,
            ShowAs.Busy,
            new TimeDraft.Days(today, today)
        ).Check(zones);
        return new(check.Value.Content, [.. problems, .. check.Problems]);
    }

    private EventDraft Draft(ProposalRow row, ProposedTime time, IEnumerable<PersonId> named)
    {
        var zone = zones.Zone(row.Zone);
        return new EventDraft(
            row.Title,
            row.Place,
            row.Notes,
            ShowAs.Busy,
            new TimeDraft.Clock(time.Start.InZone(zone).LocalDateTime, time.End.InZone(zone).LocalDateTime, row.Zone)
        )
        {
            Attendees = Attendees.Of(named),
        };
    }

    private async Task TakeAnswers(
        ProposalRow row,
        EventRow made,
        ProposedTime time,
        IReadOnlyCollection<PersonId> asked,
        CancellationToken cancellationToken
    )
    {
        var about = AnswerRules.About(made.ToCore(), only: null, zones);
        foreach (
            var one in await db
                .Suitings.AsNoTracking()
                .Where(said => said.ProposalId == row.Id && asked.Contains(said.PersonId))
                .ToListAsync(cancellationToken)
        )
        {
            var said = one.ToCore().Said;
            var answer = ProposalRules.AsAnswer(said.TryGetValue(time.Start, out var chosen) ? chosen : null);
            if (answer == Answer.NeedsAction)
            {
                continue;
            }

            db.Answers.Add(
                new AnswerRow
                {
                    EventId = made.Id,
                    CalendarId = made.CalendarId,
                    PersonId = one.PersonId,
                    Only = AnswerRow.OnlyText(null),
                    Answer = answer,
                    About = about,
                    Comment = one.Comment,
                    AnsweredAt = db.Now,
                    Organizer = made.AddedBy,
                }
            );
        }
    }

    private async Task Mail(ProposalRow row, ProposalAskedRow asked, CancellationToken cancellationToken)
    {
        if (await db.MailedAt(asked.PersonId, cancellationToken) is not { } to)
        {
            return;
        }

        var secret = LinkSecret.New();
        asked.Hash = LinkSecret.HashOf(secret);
        var (recipient, from) = await db.Correspondents(asked.PersonId, row.ProposedBy, zones, cancellationToken);
        var letter = ProposalLetters.ToSuit(
            row.Title,
            row.Place,
            row.Notes,
            row.ToTimes(),
            recipient,
            from,
            links.Suits(secret),
            db.Now
        );
        db.Post(letter, to, row.ProposedBy);
    }
}
