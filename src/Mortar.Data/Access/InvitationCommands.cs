using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Groups;
using Mortar.Core.Letters;
using Mortar.Core.Preferences;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Mail;
using Mortar.Data.People;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Access;

/// <summary>What an invitation is to say.</summary>
/// <param name="LastDay">The last day of the access it leads to, on the calendar's clock; <c>null</c> for no end.</param>
/// <param name="InReturn">Whether it asks for a calendar of theirs in return.</param>
public sealed record InvitationDraft(
    string? Address,
    Role Role,
    string? Message,
    LocalDate? LastDay = null,
    bool InReturn = false
);

/// <summary>What somebody gives in return for an invitation.</summary>
public sealed record ReturnGift(CalendarId CalendarId, Role Role);

/// <summary>Invites addresses to calendars, and answers those invitations.</summary>
public sealed class InvitationCommands(MortarDb db, PublicLinks links, ZoneClock zones)
{
    /// <summary>Invites an address to a step. Sending the same invitation twice writes it once.</summary>
    public Task<Outcome<InvitationRow>> Invite(
        Act act,
        CalendarId calendarId,
        InvitationId id,
        InvitationDraft draft,
        CancellationToken cancellationToken
    ) =>
        db.Write<InvitationRow>(
            act,
            async () =>
            {
                var giver = await db.GiverOf(act.Actor, calendarId, zones, cancellationToken);
                if (giver.WhyNotCoordinate is { } refusal)
                {
                    return refusal;
                }

                return await Add(act.Actor, giver, calendarId, id, draft, cancellationToken);
            },
            cancellationToken
        );

    /// <summary>Invites many in one act: all who can be, or nobody where one of them is written wrongly.</summary>
    /// <returns>What became of each, in order.</returns>
    public Task<Outcome<IReadOnlyList<(string Address, InviteeFate Fate)>>> InviteMany(
        Act act,
        CalendarId calendarId,
        IReadOnlyList<(InvitationId Id, InvitationDraft Draft)> wishes,
        CancellationToken cancellationToken
    ) =>
        db.Write<IReadOnlyList<(string Address, InviteeFate Fate)>>(
            act,
            async () =>
            {
                var giver = await db.GiverOf(act.Actor, calendarId, zones, cancellationToken);
                if (giver.WhyNotCoordinate is { } refusal)
                {
                    return refusal;
                }

                if (wishes.Count is 0 or > InviteeRules.MostAtOnce)
                {
                    return new Refusal.Unfit(
                        "people",
                        FormattableString.Invariant($"Name 1 to {InviteeRules.MostAtOnce} addresses at once.")
                    );
                }

                var became = new List<(string Address, InviteeFate Fate)>();
                var seen = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
                foreach (var (id, draft) in wishes)
                {
                    var address = PlainText.OneLine(draft.Address);
                    if (!seen.Add(address))
                    {
                        became.Add((address, InviteeFate.Again));
                        continue;
                    }

                    switch (await Add(act.Actor, giver, calendarId, id, draft, cancellationToken))
                    {
                        case Outcome<InvitationRow>.Done:
                            became.Add((address, InviteeFate.Invited));
                            break;
                        case Outcome<InvitationRow>.Not
                        {
                            Why: Refusal.AgainstRule { Type: InvitationRules.AlreadyIn }
                        }:
                            became.Add((address, InviteeFate.HasStep));
                            break;
                        case Outcome<InvitationRow>.Not
                        {
                            Why: Refusal.AgainstRule { Type: InvitationRules.AlreadyInvited }
                        }:
                            became.Add((address, InviteeFate.InvitedAlready));
                            break;
                        case var other:
                            return other.WhyNot;
                    }
                }

                return became;
            },
            cancellationToken
        );

    /// <summary>Adds one invitation, under the write lock of the one who calls.</summary>
    private async Task<Outcome<InvitationRow>> Add(
        PersonId actor,
        Giver giver,
        CalendarId calendarId,
        InvitationId id,
        InvitationDraft draft,
        CancellationToken cancellationToken
    )
    {
        if (await db.Invitations.FindAsync([id], cancellationToken) is { } known)
        {
            return known.CalendarId == calendarId && known.InvitedBy == actor
                ? new Outcome<InvitationRow>.Done(known)
                : new Refusal.NotThere("invitation");
        }

        var words = InvitationRules.Check(draft.Address, draft.Role, draft.Message);
        var decided = giver.Promise(words, draft.LastDay);
        if (decided is not Outcome<Grant>.Done { Value: var promised } || words.Value.Address is not { } to)
        {
            return decided.WhyNot;
        }

        var person = await db.PersonAt(to, cancellationToken);
        // Whose another address is, is not told: only the one they are listed by says that they are there.
        var listed = person?.Address == to.Value ? person.Id : (PersonId?)null;
        if (
            InvitationRules.WhyNotInvite(
                to,
                await HasStep(calendarId, listed, cancellationToken),
                await IsInvited(calendarId, to, cancellationToken)
            ) is
            { } why
        )
        {
            return why;
        }

        var secret = LinkSecret.New();
        var invitation = new InvitationRow
        {
            Id = id,
            CalendarId = calendarId,
            Address = to.Value,
            PersonId = person?.Id,
            Role = promised.Role,
            Message = words.Value.Message,
            State = InvitationState.Waiting,
            InvitedBy = actor,
            SentAt = db.Now,
            LinkHash = LinkSecret.HashOf(secret),
            EndsAt = promised.EndsAt,
            InReturn = draft.InReturn,
        };
        db.Invitations.Add(invitation);
        await Mail(invitation, secret, cancellationToken);
        return invitation;
    }

    /// <summary>Sends the mail of a waiting invitation again; the link sent before leads nowhere.</summary>
    public Task<Outcome<InvitationRow>> SendAgain(
        Act act,
        CalendarId calendarId,
        InvitationId id,
        CancellationToken cancellationToken
    ) =>
        ChangeOpen(
            act,
            calendarId,
            id,
            async invitation =>
            {
                // It stands with the right of whoever sent it last.
                var secret = LinkSecret.New();
                invitation.InvitedBy = act.Actor;
                (invitation.SentAt, invitation.LinkHash) = (db.Now, LinkSecret.HashOf(secret));
                await Mail(invitation, secret, cancellationToken);
            },
            cancellationToken
        );

    private async Task Mail(InvitationRow invitation, string secret, CancellationToken cancellationToken)
    {
        var calendar = await db
            .Calendars.Where(row => row.Id == invitation.CalendarId)
            .Select(row => row.Name)
            .SingleAsync(cancellationToken);
        var from = await db
            .People.Where(person => person.Id == invitation.InvitedBy)
            .Select(person => person.Name)
            .SingleAsync(cancellationToken);
        var letter = AccessLetters.ToInvite(
            from,
            calendar,
            invitation.Role,
            invitation.InReturn,
            invitation.Message,
            links.Invitation(secret)
        );
        // Whoever has an account is told as they want to be, at the address that was written to.
        var known = await db.People.FirstOrDefaultAsync(person => person.Id == invitation.PersonId, cancellationToken);
        var to =
            known is null ? new MailTo(invitation.Address)
            : known.AtOnce(NoticeTopic.Asks, db.Now, zones) is { } there ? there with { Address = invitation.Address }
            : (MailTo?)null;
        if (to is { } address)
        {
            db.Post(letter, address, invitation.InvitedBy);
        }
    }

    /// <summary>Takes a waiting invitation back. Its link leads nowhere from then on.</summary>
    public Task<Outcome<InvitationRow>> Withdraw(
        Act act,
        CalendarId calendarId,
        InvitationId id,
        CancellationToken cancellationToken
    ) =>
        ChangeOpen(
            act,
            calendarId,
            id,
            invitation =>
            {
                invitation.State = InvitationState.Withdrawn;
                return Task.CompletedTask;
            },
            cancellationToken
        );

    /// <summary>Takes the invitation: the calendar is theirs at that step, or at the higher one they had.</summary>
    /// <param name="act">Who takes it.</param>
    /// <param name="id">Which.</param>
    /// <param name="inReturn">A step on a calendar of theirs for whoever invited them; <c>null</c> for none.</param>
    /// <param name="cancellationToken">Stops it; nothing is written then.</param>
    public Task<Outcome<InvitationRow>> Accept(
        Act act,
        InvitationId id,
        ReturnGift? inReturn,
        CancellationToken cancellationToken
    ) =>
        Answer(
            act,
            id,
            async invitation =>
            {
                if (inReturn is { } gift)
                {
                    var giver = await db.GiverOf(act.Actor, gift.CalendarId, zones, cancellationToken);
                    if (giver.Gift(gift.Role, "inReturn.role") is { } refusal)
                    {
                        return refusal;
                    }

                    (await db.GrantOf(gift.CalendarId, invitation.InvitedBy, cancellationToken)).Raise(
                        gift.Role,
                        null,
                        db.Now
                    );
                }

                invitation.State = InvitationState.Accepted;
                var grant = await db.GrantOf(invitation.CalendarId, act.Actor, cancellationToken);
                grant.Raise(invitation.Role, invitation.EndsAt, db.Now);
                return invitation;
            },
            cancellationToken
        );

    /// <summary>Turns the invitation down.</summary>
    public Task<Outcome<InvitationRow>> Decline(Act act, InvitationId id, CancellationToken cancellationToken) =>
        Answer(
            act,
            id,
            invitation =>
            {
                invitation.State = InvitationState.Declined;
                return Task.FromResult<Outcome<InvitationRow>>(invitation);
            },
            cancellationToken
        );

    private Task<bool> HasStep(CalendarId calendarId, PersonId? person, CancellationToken cancellationToken) =>
        db
            .Grants.CountingAt(db.Now)
            .AnyAsync(grant => grant.CalendarId == calendarId && grant.PersonId == person, cancellationToken);

    private Task<bool> IsInvited(CalendarId calendarId, Address address, CancellationToken cancellationToken) =>
        db.Invitations.AnyAsync(
            invitation =>
                invitation.CalendarId == calendarId
                && invitation.Address == address.Value
                && invitation.State == InvitationState.Waiting,
            cancellationToken
        );

    private Task<Outcome<InvitationRow>> ChangeOpen(
        Act act,
        CalendarId calendarId,
        InvitationId id,
        Func<InvitationRow, Task> change,
        CancellationToken cancellationToken
    ) =>
        db.Write<InvitationRow>(
            act,
            async () =>
            {
                if (await db.WhyNotCoordinate(act.Actor, calendarId, cancellationToken) is { } refusal)
                {
                    return refusal;
                }

                if (
                    await db.Invitations.FindAsync([id], cancellationToken) is not { } invitation
                    || invitation.CalendarId != calendarId
                )
                {
                    return new Refusal.NotThere("invitation");
                }

                if (invitation.State.WhyNotChange() is { } closed)
                {
                    return closed;
                }

                await change(invitation);
                return invitation;
            },
            cancellationToken
        );

    private Task<Outcome<InvitationRow>> Answer(
        Act act,
        InvitationId id,
        Func<InvitationRow, Task<Outcome<InvitationRow>>> answer,
        CancellationToken cancellationToken
    ) =>
        db.Write<InvitationRow>(
            act,
            async () =>
            {
                var invitation = await db.Invitations.FindAsync([id], cancellationToken);
                if (
                    invitation is null
                    || invitation.PersonId != act.Actor
                    || !await IsThere(invitation.CalendarId, cancellationToken)
                )
                {
                    return new Refusal.NotThere("invitation");
                }

                var stands = await db.StandingInvitations().AnyAsync(row => row.Id == id, cancellationToken);
                return invitation.State.WhyNotAnswer(stands) is { } closed ? closed : await answer(invitation);
            },
            cancellationToken
        );

    private Task<bool> IsThere(CalendarId id, CancellationToken cancellationToken) =>
        db.Calendars.AnyAsync(calendar => calendar.Id == id && calendar.DeletedAt == null, cancellationToken);
}
