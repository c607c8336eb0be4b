using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Letters;
using Mortar.Core.Preferences;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Mail;
using Mortar.Data.People;
using Mortar.Data.Store;

namespace Mortar.Data.Access;

/// <summary>Requests to a person or a group for a calendar of theirs, by name or address.</summary>
public sealed class OpenAskCommands(MortarDb db, PublicLinks links, ZoneClock zones)
{
    /// <summary>
    /// Asks whoever is meant. It comes to the same where nobody is, so that asking tells nobody who is here and which
    /// groups there are; only of people one shares a group with it is said that two have the name.
    /// </summary>
    /// <param name="to">An address, the name of somebody one shares a group with, or the name of a group.</param>
    public Task<Outcome<bool>> Ask(
        Act act,
        AskId id,
        string? to,
        Role role,
        string? note,
        CancellationToken cancellationToken
    ) =>
        db.Write<bool>(
            act,
            async () =>
            {
                var (ask, problems) = Core.Access.Ask.Check(role, note);
                var name = PlainText.OneLine(to);
                var asked = OpenAsk.Means(act.Actor, name, await Find(act.Actor, name, cancellationToken));
                if (asked.And(problems).WhyNot is { } refusal)
                {
                    return refusal;
                }

                if (asked.Value.Count == 0 || await db.OpenAsks.AnyAsync(row => row.Id == id, cancellationToken))
                {
                    return false;
                }

                foreach (var (index, party) in asked.Value.Index())
                {
                    await Write(act, index == 0 ? id : new AskId(Guid.CreateVersion7()), party, ask, cancellationToken);
                }

                return true;
            },
            cancellationToken
        );

    /// <summary>Gives a step on the calendar one chooses: the step that was asked for, a lower or a higher one.</summary>
    public Task<Outcome<OpenAskRow>> Give(
        Act act,
        AskId id,
        CalendarId calendar,
        Role role,
        CancellationToken cancellationToken
    ) =>
        Answer(
            act,
            id,
            async ask =>
            {
                var giver = await db.GiverOf(act.Actor, calendar, zones, cancellationToken);
                if (giver.Gift(role, otherwise: "say no") is { } refusal)
                {
                    return refusal;
                }

                if (
                    ask.ToGroupId is { } group
                    && !await db.Calendars.AnyAsync(
                        row => row.Id == calendar && row.GroupId == group,
                        cancellationToken
                    )
                )
                {
                    return new Refusal.Unfit([
                        new FieldProblem("calendarId", "They ask for a calendar of the group. Choose one of those."),
                    ]);
                }

                (ask.State, ask.Role) = (AskState.Granted, role);
                (await db.GrantOf(calendar, ask.PersonId, cancellationToken)).Raise(role, null, db.Now);
                return ask;
            },
            cancellationToken
        );

    /// <summary>Says no.</summary>
    public Task<Outcome<OpenAskRow>> Refuse(Act act, AskId id, CancellationToken cancellationToken) =>
        Answer(
            act,
            id,
            ask =>
            {
                ask.State = AskState.Refused;
                return Task.FromResult<Outcome<OpenAskRow>>(ask);
            },
            cancellationToken
        );

    private async Task<Namesakes> Find(PersonId actor, string name, CancellationToken cancellationToken) =>
        new(
            Address.TryParse(name, out var address) ? (await db.PersonAt(address.Value, cancellationToken))?.Id : null,
            await db.KnownTo(actor)
                .Where(person => EF.Functions.Collate(person.Name, "NOCASE") == name)
                .Select(person => person.Id)
                .ToListAsync(cancellationToken),
            await db
                .Groups.Where(group => EF.Functions.Collate(group.Name, "NOCASE") == name)
                .Select(group => group.Id)
                .ToListAsync(cancellationToken)
        );

    /// <summary>Asking again while one waits changes what waits.</summary>
    private async Task Write(Act act, AskId id, AskedParty asked, Ask ask, CancellationToken cancellationToken)
    {
        var waiting = await db.OpenAsks.FirstOrDefaultAsync(
            row =>
                row.PersonId == act.Actor
                && row.ToPersonId == asked.Person
                && row.ToGroupId == asked.Group
                && row.State == AskState.Waiting,
            cancellationToken
        );
        if (waiting is not null)
        {
            (waiting.Role, waiting.Note, waiting.AskedAt) = (ask.Role, ask.Note, db.Now);
            return;
        }

        var row = new OpenAskRow
        {
            Id = id,
            PersonId = act.Actor,
            ToPersonId = asked.Person,
            ToGroupId = asked.Group,
            Role = ask.Role,
            Note = ask.Note,
            State = AskState.Waiting,
            AskedAt = db.Now,
        };
        db.OpenAsks.Add(row);
        await Tell(row, cancellationToken);
    }

    /// <summary>Writes to those who can answer it.</summary>
    private async Task Tell(OpenAskRow ask, CancellationToken cancellationToken)
    {
        var from = await db.People.SingleAsync(person => person.Id == ask.PersonId, cancellationToken);
        var group = ask.ToGroupId is { } id
            ? await db.Groups.Where(row => row.Id == id).Select(row => row.Name).SingleAsync(cancellationToken)
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
            select person
        ).ToListAsync(cancellationToken);
        var letter = AccessLetters.ToAnswerOpen(
            (from.Name, from.Address),
            group,
            ask.Role,
            ask.Note,
            links.Ask(ask.Id)
        );
        foreach (var person in to)
        {
            if (person.AtOnce(NoticeTopic.Asks, db.Now, zones) is { } there)
            {
                db.Post(letter, there);
            }
        }
    }

    private Task<Outcome<OpenAskRow>> Answer(
        Act act,
        AskId id,
        Func<OpenAskRow, Task<Outcome<OpenAskRow>>> answer,
        CancellationToken cancellationToken
    ) =>
        db.Write<OpenAskRow>(
            act,
            async () =>
            {
                if (
                    await db.OpenAsksTo(act.Actor).FirstOrDefaultAsync(one => one.Id == id, cancellationToken)
                    is not { } ask
                )
                {
                    return new Refusal.NotThere("request");
                }

                return ask.State == AskState.Waiting
                    ? await answer(ask)
                    : new Refusal.AgainstRule(
                        "ask-closed",
                        "This request is no longer open: it was answered or taken back. Give access on the calendar's own page instead."
                    );
            },
            cancellationToken
        );
}

/// <summary>Reads requests that name no calendar.</summary>
public static class OpenAskQueries
{
    /// <summary>Those that somebody can answer: to them, or to a group they coordinate.</summary>
    public static IQueryable<OpenAskRow> OpenAsksTo(this MortarDb db, PersonId person) =>
        db.OpenAsks.Where(ask =>
            ask.ToPersonId == person
            || db.Members.Any(member =>
                member.GroupId == ask.ToGroupId && member.PersonId == person && member.Coordinates
            )
        );

    /// <summary>Everybody who can answer one.</summary>
    public static IQueryable<PersonId> AnswerersOf(this MortarDb db, AskId id) =>
        from person in db.People
        from ask in db.OpenAsks
        where
            ask.Id == id
            && (
                ask.ToPersonId == person.Id
                || db.Members.Any(member =>
                    member.GroupId == ask.ToGroupId && member.PersonId == person.Id && member.Coordinates
                )
            )
        select person.Id;
}
