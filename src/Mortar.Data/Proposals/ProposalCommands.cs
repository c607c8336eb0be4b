using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Answers;
using Mortar.Core.Events;
using Mortar.Core.Letters;
using Mortar.Core.Preferences;
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
                var calendar = await db
                    .Calendars.AsNoTracking()
                    .SingleAsync(home => home.Id == wish.CalendarId, cancellationToken);
                if (AccessRules.WhyNotAdd(role, calendar.FromWeb) is { } fromWeb)
                {
                    return fromWeb;
                }

                var check = ProposalRules.CheckWish(
                    (wish.Title, wish.Place, wish.Notes),
                    wish.Times,
                    asked.Count,
                    (await db.StrangersAmong(asked, calendar, cancellationToken)).Count > 0,
                    db.Now,
                    zones
                );
                if (check.WhyNot is { } unfit)
                {
                    return unfit;
                }

                var row = new ProposalRow
                {
                    Id = id,
                    CalendarId = wish.CalendarId,
                    ProposedBy = act.Actor,
                    Title = check.Value.Title,
                    Place = check.Value.Place,
                    Notes = check.Value.Notes,
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
                row.Withdraw(db.Now);
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
                var proposal = row.ToCore();
                var chosen = proposal.TimeAt(start);
                if (chosen is not Outcome<ProposedTime>.Done { Value: var time })
                {
                    return chosen.WhyNot;
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
                        proposal.At(time, asked.Append(row.ProposedBy).Except(gone), zones),
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

                if (row.ToCore().WhyNotSay(wish.Said.Keys) is { } none)
                {
                    return none;
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

                return row.ToCore().WhyNotManage is { } over ? over : await change(row);
            },
            cancellationToken
        );

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
        if (await db.MailedAt(asked.PersonId, NoticeTopic.Asks, zones, cancellationToken) is not { } to)
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
