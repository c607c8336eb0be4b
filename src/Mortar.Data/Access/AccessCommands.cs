using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Letters;
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

/// <summary>Gives and takes access to calendars.</summary>
public sealed class AccessCommands(MortarDb db, PublicLinks links, ZoneClock zones)
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
                if (await db.WhyNotCoordinate(act.Actor, calendarId, cancellationToken) is { } refusal)
                {
                    return refusal;
                }

                if (await db.Invitations.FindAsync([id], cancellationToken) is { } known)
                {
                    return known.CalendarId == calendarId && known.InvitedBy == act.Actor
                        ? new Outcome<InvitationRow>.Done(known)
                        : new Refusal.NotThere("invitation");
                }

                var (endsAt, found) = await db.EndOf(calendarId, draft.LastDay, zones, cancellationToken);
                var check = InvitationRules.Check(draft.Address, draft.Role, draft.Message).And(found);
                if (!check.IsFit || check.Value.Address is not { } to)
                {
                    return new Refusal.Unfit(check.Problems);
                }

                if (
                    await db.WhyNotGive(
                        act.Actor,
                        calendarId,
                        new Grant(draft.Role, Way.Own, endsAt),
                        zones,
                        cancellationToken
                    ) is
                    { } beyond
                )
                {
                    return beyond;
                }

                var person = await db.PersonAt(to, cancellationToken);
                // Whose another address is, is not told: only the one they are listed by says that they are there.
                var listed = person?.Address == to.Value ? person.Id : (PersonId?)null;
                if (await WhyNot(calendarId, to, listed, cancellationToken) is { } why)
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
                    Role = draft.Role,
                    Message = check.Value.Message,
                    State = InvitationState.Waiting,
                    InvitedBy = act.Actor,
                    SentAt = db.Now,
                    LinkHash = LinkSecret.HashOf(secret),
                    EndsAt = endsAt,
                    InReturn = draft.InReturn,
                };
                db.Invitations.Add(invitation);
                await Mail(invitation, secret, cancellationToken);
                return invitation;
            },
            cancellationToken
        );

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
        db.Post(letter, invitation.Address, invitation.InvitedBy);
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
                    if (await db.WhyNotCoordinate(act.Actor, gift.CalendarId, cancellationToken) is { } refusal)
                    {
                        return refusal;
                    }

                    if (gift.Role == Role.None)
                    {
                        return new Refusal.Unfit([Refusals.NoStep("inReturn.role")]);
                    }

                    if (
                        await db.WhyNotGive(
                            act.Actor,
                            gift.CalendarId,
                            new Grant(gift.Role, Way.Own),
                            zones,
                            cancellationToken
                        ) is
                        { } beyond
                    )
                    {
                        return beyond;
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

    /// <summary>
    /// Puts somebody who is there already on a step of their own, for good or up to a last day: somebody who reaches the
    /// calendar by any way, or a member of its group. Everybody else is invited.
    /// </summary>
    public Task<Outcome<GrantRow>> SetRole(
        Act act,
        CalendarId calendarId,
        PersonId whose,
        Role role,
        LocalDate? lastDay,
        CancellationToken cancellationToken
    ) =>
        db.Write<GrantRow>(
            act,
            async () =>
            {
                if (await db.WhyNotCoordinate(act.Actor, calendarId, cancellationToken) is { } refusal)
                {
                    return refusal;
                }

                if (role == Role.None)
                {
                    return new Refusal.Unfit([Refusals.NoStep(otherwise: "end the access")]);
                }

                var end = await db.EndOf(calendarId, lastDay, zones, cancellationToken);
                var wish = new Grant(role, Way.Own, end.Value);
                return end.WhyNot is { } unfit ? unfit
                    : await db.WhyNotGive(act.Actor, calendarId, wish, zones, cancellationToken) is { } beyond ? beyond
                    : await Put(calendarId, whose, wish, cancellationToken);
            },
            cancellationToken
        );

    /// <summary>
    /// Ends somebody's own access, also what they have by a link; a coordinator anybody's, everybody their own.
    /// </summary>
    public Task<Outcome<GrantRow>> End(
        Act act,
        CalendarId calendarId,
        PersonId whose,
        CancellationToken cancellationToken
    ) =>
        db.Write<GrantRow>(
            act,
            async () =>
            {
                var standing = await db.StandingOf(act.Actor, calendarId, cancellationToken);
                if (AccessRules.ToEnd(standing.Role, act.Actor, whose).WhyNot("calendar", "Coordinate") is { } refusal)
                {
                    return refusal;
                }

                var held = await db
                    .LinkHolders.Where(holder =>
                        holder.CalendarId == calendarId && holder.PersonId == whose && holder.LeftAt == null
                    )
                    .ToListAsync(cancellationToken);
                held.ForEach(holder => holder.LeftAt = db.Now);
                var ended = await Put(calendarId, whose, new Grant(Role.None, Way.Own), cancellationToken);
                return ended is Outcome<GrantRow>.Not { Why: Refusal.NotThere } && held.Count > 0
                    ? new Outcome<GrantRow>.Done(await db.GrantOf(calendarId, whose, cancellationToken))
                    : ended;
            },
            cancellationToken
        );

    /// <summary>Makes somebody the first coordinator of a calendar they make. Part of a command that is already under way.</summary>
    internal void Found(CalendarId calendarId, PersonId founder) =>
        db.Grants.Add(
            new GrantRow
            {
                Id = Guid.CreateVersion7(),
                CalendarId = calendarId,
                PersonId = founder,
                Role = Role.Coordinate,
            }
        );

    private async Task<Outcome<GrantRow>> Put(
        CalendarId calendarId,
        PersonId whose,
        Grant next,
        CancellationToken cancellationToken
    )
    {
        var grants = await db
            .Grants.Where(grant => grant.CalendarId == calendarId && grant.Role != Role.None)
            .ToListAsync(cancellationToken);
        if (grants.Find(grant => grant.PersonId == whose) is not { } own)
        {
            if (next.Role == Role.None || !await IsThereAlready(calendarId, whose, cancellationToken))
            {
                return new Refusal.NotThere("access");
            }

            own = await db.GrantOf(calendarId, whose, cancellationToken);
        }

        if (Coordinators.WouldBeLeftWithout(grants.Select(grant => (grant.PersonId, grant.ToCore())), whose, next))
        {
            return Coordinators.WhyOneStays;
        }

        (own.Role, own.EndsAt) = (next.Role, next.EndsAt);
        return own;
    }

    private async Task<bool> IsThereAlready(
        CalendarId calendarId,
        PersonId whose,
        CancellationToken cancellationToken
    ) =>
        (await db.StandingOf(whose, calendarId, cancellationToken)).Role > Role.None
        || await (
            from calendar in db.Calendars
            where calendar.Id == calendarId
            join member in db.Members on calendar.GroupId equals member.GroupId
            select member.PersonId
        ).ContainsAsync(whose, cancellationToken);

    private async Task<Refusal?> WhyNot(
        CalendarId calendarId,
        Address address,
        PersonId? person,
        CancellationToken cancellationToken
    )
    {
        if (
            await db
                .Grants.CountingAt(db.Now)
                .AnyAsync(grant => grant.CalendarId == calendarId && grant.PersonId == person, cancellationToken)
        )
        {
            return new Refusal.AgainstRule(
                "already-in",
                $"{address} has access to this calendar already. Change the step in the list instead."
            );
        }

        return await db.Invitations.AnyAsync(
            one => one.CalendarId == calendarId && one.Address == address.Value && one.State == InvitationState.Waiting,
            cancellationToken
        )
            ? new Refusal.AgainstRule(
                "already-invited",
                $"An invitation to {address} is waiting already. Send it again, or withdraw it first."
            )
            : null;
    }

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

                if (!invitation.State.IsOpen())
                {
                    return new Refusal.AgainstRule(
                        "invitation-closed",
                        $"This invitation is no longer open: it was {invitation.State.ToString().ToLowerInvariant()}."
                    );
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

                if (!invitation.State.IsOpen())
                {
                    return new Refusal.AgainstRule("invitation-closed", invitation.State.WhyClosed());
                }

                if (!await db.StandingInvitations().AnyAsync(one => one.Id == id, cancellationToken))
                {
                    return new Refusal.AgainstRule("invitation-closed", InvitationRules.Lapsed);
                }

                return await answer(invitation);
            },
            cancellationToken
        );

    private Task<bool> IsThere(CalendarId id, CancellationToken cancellationToken) =>
        db.Calendars.AnyAsync(calendar => calendar.Id == id && calendar.DeletedAt == null, cancellationToken);
}
