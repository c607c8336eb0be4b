using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Mail;
using Mortar.Data.People;
using Mortar.Data.Store;

namespace Mortar.Data.Access;

/// <summary>Requests to a person or a group for a calendar of theirs, by name or address.</summary>
public sealed class OpenAskCommands(MortarDb db, Letters letters, ZoneClock zones)
{
    private sealed record Asked(PersonId? Person, GroupId? Group);

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
                var (ask, found) = Core.Access.Ask.Check(role, note);
                var (name, problems) = (PlainText.OneLine(to), found.ToList());
                if (name.Length == 0)
                {
                    problems.Add(
                        new FieldProblem("to", "Say whom you ask: an address, or the name of a person or group.")
                    );
                }

                var known = await db.KnownTo(act.Actor)
                    .Where(person => person.Id != act.Actor && EF.Functions.Collate(person.Name, "NOCASE") == name)
                    .Select(person => person.Id)
                    .ToListAsync(cancellationToken);
                if (known.Count > 1)
                {
                    problems.Add(
                        new FieldProblem("to", $"{known.Count} people you know are called so. Use the address instead.")
                    );
                }

                if (problems.Count > 0)
                {
                    return new Refusal.Unfit(problems);
                }

                var asked = await Find(act.Actor, name, known, cancellationToken);
                if (asked.Count == 0 || await db.OpenAsks.AnyAsync(row => row.Id == id, cancellationToken))
                {
                    return false;
                }

                foreach (var one in asked)
                {
                    await Write(
                        act,
                        one == asked[0] ? id : new AskId(Guid.CreateVersion7()),
                        one,
                        ask,
                        cancellationToken
                    );
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
                if (role == Role.None)
                {
                    return new Refusal.Unfit([Refusals.NoStep(otherwise: "say no")]);
                }

                if (
                    await db.WhyNotGive(act.Actor, calendar, new Grant(role, Way.Own), zones, cancellationToken) is
                    { } refusal
                )
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

    /// <summary>An address is one person; a name that of somebody known, else of every group that is called so.</summary>
    private async Task<List<Asked>> Find(
        PersonId actor,
        string name,
        List<PersonId> known,
        CancellationToken cancellationToken
    )
    {
        if (Address.TryParse(name, out var read) && read is { } address)
        {
            return await db.PersonAt(address, cancellationToken) is { } person && person.Id != actor
                ? [new Asked(person.Id, null)]
                : [];
        }

        if (known.Count == 1)
        {
            return [new Asked(known[0], null)];
        }

        return await db
            .Groups.Where(group => EF.Functions.Collate(group.Name, "NOCASE") == name)
            .Select(group => new Asked(null, group.Id))
            .ToListAsync(cancellationToken);
    }

    /// <summary>Asking again while one waits changes what waits.</summary>
    private async Task Write(Act act, AskId id, Asked asked, Ask ask, CancellationToken cancellationToken)
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
        db.Mails.AddRange(await letters.Asked(db, row, cancellationToken));
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
