using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Letters;
using Mortar.Core.Preferences;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Mail;
using Mortar.Data.Store;

namespace Mortar.Data.Access;

/// <summary>Requests for access: asking, and the answers of coordinators.</summary>
public sealed class AskCommands(MortarDb db, PublicLinks links, ZoneClock zones)
{
    /// <summary>
    /// Asks for a step. It comes to the same for a calendar that is there and one that is not, so that asking tells
    /// nobody which there are. Asking again while one waits changes what waits.
    /// </summary>
    public Task<Outcome<bool>> Ask(
        Act act,
        CalendarId calendarId,
        AskId id,
        Role role,
        string? note,
        CancellationToken cancellationToken
    ) =>
        db.Write<bool>(
            act,
            async () =>
            {
                var (ask, problems) = Core.Access.Ask.Check(role, note);
                if (problems.Count > 0)
                {
                    return new Refusal.Unfit(problems);
                }

                if (
                    !await db.Calendars.AnyAsync(
                        calendar => calendar.Id == calendarId && calendar.DeletedAt == null,
                        cancellationToken
                    )
                )
                {
                    return false;
                }

                var standing = await db.StandingOf(act.Actor, calendarId, cancellationToken);
                if (!Core.Access.Ask.IsMore(role, standing.Role))
                {
                    // Whoever stands there knows that the calendar is there.
                    return new Refusal.AgainstRule(
                        "already-in",
                        $"You have the step {RoleSentence.Name(standing.Role)} on this calendar already."
                    );
                }

                var waiting = await db.Asks.FirstOrDefaultAsync(
                    one => one.CalendarId == calendarId && one.PersonId == act.Actor && one.State == AskState.Waiting,
                    cancellationToken
                );
                if (waiting is not null)
                {
                    (waiting.Role, waiting.Note, waiting.AskedAt) = (ask.Role, ask.Note, db.Now);
                    return true;
                }

                if (await db.Asks.AnyAsync(one => one.Id == id, cancellationToken))
                {
                    return true; // sent again because its answer was lost
                }

                var row = new AskRow
                {
                    Id = id,
                    CalendarId = calendarId,
                    PersonId = act.Actor,
                    Role = ask.Role,
                    Note = ask.Note,
                    State = AskState.Waiting,
                    AskedAt = db.Now,
                };
                db.Asks.Add(row);
                await Tell(row, cancellationToken);
                return true;
            },
            cancellationToken
        );

    /// <summary>Writes to those who coordinate the calendar.</summary>
    private async Task Tell(AskRow ask, CancellationToken cancellationToken)
    {
        var calendar = await db
            .Calendars.Where(row => row.Id == ask.CalendarId)
            .Select(row => row.Name)
            .SingleAsync(cancellationToken);
        var from = await db.People.SingleAsync(person => person.Id == ask.PersonId, cancellationToken);
        var to = await (
            from grant in db.Grants.CountingAt(db.Now)
            where grant.CalendarId == ask.CalendarId && grant.Role == Role.Coordinate
            join person in db.People on grant.PersonId equals person.Id
            where person.Address != null
            select person
        ).ToListAsync(cancellationToken);
        var letter = AccessLetters.ToAnswer((from.Name, from.Address), calendar, ask.Role, ask.Note, links.Ask(ask.Id));
        foreach (var person in to)
        {
            if (person.AtOnce(NoticeTopic.Asks, db.Now, zones) is { } there)
            {
                db.Post(letter, there);
            }
        }
    }

    /// <summary>Gives the step that was asked for, a lower or a higher one.</summary>
    public Task<Outcome<AskRow>> Grant(Act act, AskId id, Role role, CancellationToken cancellationToken) =>
        Answer(
            act,
            id,
            async ask =>
            {
                var giver = await db.GiverOf(act.Actor, ask.CalendarId, zones, cancellationToken);
                if (giver.Gift(role, otherwise: "say no") is { } refusal)
                {
                    return refusal;
                }

                (ask.State, ask.Role) = (AskState.Granted, role);
                (await db.GrantOf(ask.CalendarId, ask.PersonId, cancellationToken)).Raise(role, null, db.Now);
                return ask;
            },
            cancellationToken
        );

    /// <summary>Says no.</summary>
    public Task<Outcome<AskRow>> Refuse(Act act, AskId id, CancellationToken cancellationToken) =>
        Answer(
            act,
            id,
            ask =>
            {
                ask.State = AskState.Refused;
                return Task.FromResult<Outcome<AskRow>>(ask);
            },
            cancellationToken
        );

    /// <summary>Takes one's own request back.</summary>
    public Task<Outcome<AskRow>> Withdraw(Act act, AskId id, CancellationToken cancellationToken) =>
        db.Write<AskRow>(
            act,
            async () =>
            {
                if (
                    await db.Asks.FirstOrDefaultAsync(
                        one => one.Id == id && one.PersonId == act.Actor && one.State == AskState.Waiting,
                        cancellationToken
                    )
                    is not { } ask
                )
                {
                    return new Refusal.NotThere("request");
                }

                ask.State = AskState.Withdrawn;
                return ask;
            },
            cancellationToken
        );

    private Task<Outcome<AskRow>> Answer(
        Act act,
        AskId id,
        Func<AskRow, Task<Outcome<AskRow>>> answer,
        CancellationToken cancellationToken
    ) =>
        db.Write<AskRow>(
            act,
            async () =>
            {
                // Whoever does not coordinate the calendar is not told that there is a request either.
                if (
                    await db.Asks.FirstOrDefaultAsync(one => one.Id == id, cancellationToken) is not { } ask
                    || await db.WhyNotCoordinate(act.Actor, ask.CalendarId, cancellationToken) is not null
                )
                {
                    return new Refusal.NotThere("request");
                }

                return ask.State == AskState.Waiting
                    ? await answer(ask)
                    : new Refusal.AgainstRule(
                        "ask-closed",
                        "This request is no longer open: it was answered or taken back. Change the step in the list of access instead."
                    );
            },
            cancellationToken
        );
}
