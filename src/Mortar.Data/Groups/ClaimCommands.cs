using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Answers;
using Mortar.Data.People;
using Mortar.Data.Proposals;
using Mortar.Data.Store;

namespace Mortar.Data.Groups;

/// <summary>Gives names that wait in groups to the people they stand for.</summary>
public sealed class ClaimCommands(MortarDb db)
{
    /// <summary>
    /// Gives a name that was waiting in a group to the person who holds the mailed link: what the name was put on and given
    /// in that group becomes theirs, and nothing of it is lost. A name belongs to one group, so nothing else moves; those who
    /// coordinate it are told.
    /// </summary>
    public Task<Outcome<int>> Claim(Act act, string token, CancellationToken cancellationToken) =>
        db.Write<int>(
            act,
            async () =>
            {
                if (await ByToken(db, token, cancellationToken) is not { } waiting)
                {
                    return new Refusal.NotThere("invitation");
                }

                var (from, to) = (waiting.PersonId, act.Actor);
                (waiting.LeftAt, waiting.ClaimHash, waiting.ClaimedBy) = (db.Now, null, to);
                await db.Enter(waiting.GroupId, to, cancellationToken);
                await Move(waiting.GroupId, from, to, cancellationToken);
                return 1;
            },
            cancellationToken
        );

    /// <summary>
    /// Says that one is the guest whom a group knows by an address of one's own: what the guest was put on and asked there is
    /// one's own from then on, on the wall and in the inbox. Until then nobody there learns that the address has an account.
    /// </summary>
    public Task<Outcome<int>> ClaimGuest(
        Act act,
        GroupId groupId,
        PersonId guest,
        CancellationToken cancellationToken
    ) =>
        db.Write<int>(
            act,
            async () =>
            {
                if (
                    await db.GuestsWhoAre(act.Actor)
                        .FirstOrDefaultAsync(one => one.GroupId == groupId && one.PersonId == guest, cancellationToken)
                    is not { } row
                )
                {
                    return new Refusal.NotThere("guest");
                }

                var own = await db
                    .Guests.IgnoreQueryFilters()
                    .FirstOrDefaultAsync(one => one.GroupId == groupId && one.PersonId == act.Actor, cancellationToken);
                var isMember = await db.Members.AnyAsync(
                    one => one.GroupId == groupId && one.PersonId == act.Actor,
                    cancellationToken
                );
                if (isMember || own is not null)
                {
                    // One is in the group once: as its member, or as the guest one was by another address.
                    row.EndedAt = db.Now;
                    if (!isMember)
                    {
                        own!.EndedAt = null;
                    }
                }
                else
                {
                    row.PersonId = act.Actor;
                }

                await Move(groupId, guest, act.Actor, cancellationToken);
                return 1;
            },
            cancellationToken
        );

    /// <summary>Gives what a name was put on and given in a group to the person it stands for.</summary>
    private async Task Move(GroupId groupId, PersonId from, PersonId to, CancellationToken cancellationToken)
    {
        var calendars = db.Calendars.Where(calendar => calendar.GroupId == groupId).Select(calendar => calendar.Id);
        foreach (
            var grant in await db
                .Grants.Where(grant => grant.PersonId == from && calendars.Contains(grant.CalendarId))
                .ToListAsync(cancellationToken)
        )
        {
            if (grant.ToCore().CountsAt(db.Now))
            {
                (await db.GrantOf(grant.CalendarId, to, cancellationToken)).Raise(grant.Role, grant.EndsAt, db.Now);
            }

            grant.Role = Role.None;
        }

        await MoveGuardians(groupId, from, to, cancellationToken);
        var number = from.Value.ToString("N");
        foreach (
            var row in await db
                .Events.Where(row =>
                    calendars.Contains(row.CalendarId)
                    && (row.Attendees!.Contains(number) || row.Series!.Contains(number))
                )
                .ToListAsync(cancellationToken)
        )
        {
            row.Rename(from, to);
        }

        await MoveAnswers(calendars, from, to, cancellationToken);
    }

    /// <summary>What was answered under the name stays answered, and mailed questions lead to who claimed it; their own answers stay.</summary>
    private async Task MoveAnswers(
        IQueryable<CalendarId> calendars,
        PersonId from,
        PersonId to,
        CancellationToken cancellationToken
    )
    {
        var events = db.Events.Where(row => calendars.Contains(row.CalendarId)).Select(row => row.Id);
        var proposals = db.Proposals.Where(row => calendars.Contains(row.CalendarId)).Select(row => row.Id);
        var answers = await db
            .Answers.Where(row => (row.PersonId == from || row.PersonId == to) && events.Contains(row.EventId))
            .ToListAsync(cancellationToken);
        foreach (var row in answers.Where(row => row.PersonId == from))
        {
            if (!answers.Exists(own => own.PersonId == to && own.EventId == row.EventId && own.Only == row.Only))
            {
                row.PersonId = to;
            }
        }

        var said = await db
            .Suitings.Where(row => (row.PersonId == from || row.PersonId == to) && proposals.Contains(row.ProposalId))
            .ToListAsync(cancellationToken);
        foreach (var row in said.Where(row => row.PersonId == from))
        {
            if (!said.Exists(own => own.PersonId == to && own.ProposalId == row.ProposalId))
            {
                row.PersonId = to;
            }
        }

        var proposed = await db
            .ProposalAsked.Where(row =>
                (row.PersonId == from || row.PersonId == to) && proposals.Contains(row.ProposalId)
            )
            .ToListAsync(cancellationToken);
        foreach (var row in proposed.Where(row => row.PersonId == from))
        {
            db.ProposalAsked.Remove(row);
            if (!proposed.Exists(own => own.PersonId == to && own.ProposalId == row.ProposalId))
            {
                db.ProposalAsked.Add(
                    new ProposalAskedRow
                    {
                        ProposalId = row.ProposalId,
                        PersonId = to,
                        Hash = row.Hash,
                    }
                );
            }
        }

        var asked = await db
            .Asked.Where(row => (row.PersonId == from || row.PersonId == to) && events.Contains(row.EventId))
            .ToListAsync(cancellationToken);
        foreach (var row in asked.Where(row => row.PersonId == from))
        {
            db.Asked.Remove(row);
            if (!asked.Exists(own => own.PersonId == to && own.EventId == row.EventId))
            {
                db.Asked.Add(
                    new AskedRow
                    {
                        EventId = row.EventId,
                        PersonId = to,
                        Hash = row.Hash,
                        SentAt = row.SentAt,
                        // Under the other name they knew it as it is.
                        ToldVersion = db.VersionOnceSaved(
                            await db.Events.SingleAsync(one => one.Id == row.EventId, cancellationToken)
                        ),
                        IsToldOff = row.IsToldOff,
                    }
                );
            }
        }
    }

    /// <summary>
    /// Whom a name sees and answers for goes along with it. Who does so for the name does so for somebody who answers for
    /// themselves now, and is asked first.
    /// </summary>
    private async Task MoveGuardians(GroupId groupId, PersonId from, PersonId to, CancellationToken cancellationToken)
    {
        var rows = await db
            .Guardians.IgnoreQueryFilters()
            .Where(row =>
                row.GroupId == groupId
                && (row.WardId == from || row.GuardianId == from || row.WardId == to || row.GuardianId == to)
            )
            .ToListAsync(cancellationToken);
        foreach (var row in rows.Where(row => row.EndedAt is null && (row.WardId == from || row.GuardianId == from)))
        {
            var (ward, guardian) = (row.WardId == from ? to : row.WardId, row.GuardianId == from ? to : row.GuardianId);
            row.EndedAt = db.Now;
            if (ward == guardian)
            {
                continue;
            }

            var there = rows.Find(one => one.WardId == ward && one.GuardianId == guardian);
            if (there is { EndedAt: null, WardAskedAt: null, GuardianAskedAt: null })
            {
                continue;
            }

            if (there is null)
            {
                there = row;
                (there.WardId, there.GuardianId) = (ward, guardian);
            }

            there.EndedAt = null;
            there.GuardianAskedAt = guardian == to ? null : row.GuardianAskedAt;
            there.WardAskedAt = GuardianRules.AsksWard(hasAccount: ward == to, isTheirWish: false)
                ? db.Now
                : row.WardAskedAt;
            there.ChosenBy = await Asker(groupId, row.ChosenBy, cancellationToken);
        }
    }

    /// <summary>In whose name somebody is asked: whoever chose the guardian, while they coordinate the group; else another who does.</summary>
    private async Task<PersonId?> Asker(GroupId groupId, PersonId? chosenBy, CancellationToken cancellationToken)
    {
        var coordinators = await db
            .Members.Where(member => member.GroupId == groupId && member.Coordinates)
            .Select(member => member.PersonId)
            .ToListAsync(cancellationToken);
        return chosenBy is { } by && coordinators.Contains(by) ? by : coordinators.FirstOrDefault();
    }

    /// <summary>The place in a group that a mailed link leads to; <c>null</c> where it leads nowhere.</summary>
    public static Task<MemberRow?> ByToken(MortarDb db, string token, CancellationToken cancellationToken)
    {
        var hash = LinkSecret.HashOf(token);
        return db.Members.FirstOrDefaultAsync(member => member.ClaimHash == hash, cancellationToken);
    }
}
