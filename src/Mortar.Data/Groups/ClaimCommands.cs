using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Availability;
using Mortar.Data.Store;

namespace Mortar.Data.Groups;

/// <summary>Gives names that wait in groups to the people they stand for.</summary>
public sealed class ClaimCommands(MortarDb db)
{
    /// <summary>
    /// Gives a name that was waiting in a group to the person who holds the mailed link: what the name was put on and
    /// given becomes theirs, and nothing of it is lost.
    /// </summary>
    public Task<Outcome<int>> Claim(Act act, string token, CancellationToken cancellationToken) =>
        db.Write<int>(
            act,
            async () =>
            {
                if (await ByToken(db, token, cancellationToken) is not { } waiting)
                {
                    return new Outcome<int>.NotThere("invitation");
                }

                var (from, to) = (waiting.PersonId, act.Actor);
                (waiting.LeftAt, waiting.ClaimHash) = (db.Now, null);
                await db.Enter(waiting.GroupId, to, cancellationToken);
                foreach (
                    var grant in await db.Grants.Where(grant => grant.PersonId == from).ToListAsync(cancellationToken)
                )
                {
                    if (grant.ToCore().CountsAt(db.Now))
                    {
                        (await db.GrantOf(grant.CalendarId, to, cancellationToken)).Raise(
                            grant.Role,
                            grant.EndsAt,
                            db.Now
                        );
                    }

                    grant.Role = Role.None;
                }

                await MoveGuardians(from, to, cancellationToken);
                var calendars = db
                    .Calendars.Where(calendar => calendar.GroupId == waiting.GroupId)
                    .Select(calendar => calendar.Id);
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

                await MoveAnswers(from, to, cancellationToken);
                return new Outcome<int>.Done(1);
            },
            cancellationToken
        );

    /// <summary>What was answered under the name stays answered, and mailed questions lead to who claimed it; their own answers stay.</summary>
    private async Task MoveAnswers(PersonId from, PersonId to, CancellationToken cancellationToken)
    {
        var answers = await db
            .Answers.Where(row => row.PersonId == from || row.PersonId == to)
            .ToListAsync(cancellationToken);
        foreach (var row in answers.Where(row => row.PersonId == from))
        {
            if (!answers.Exists(own => own.PersonId == to && own.EventId == row.EventId && own.Only == row.Only))
            {
                row.PersonId = to;
            }
        }

        var votes = await db
            .Votes.Where(row => row.PersonId == from || row.PersonId == to)
            .ToListAsync(cancellationToken);
        foreach (var row in votes.Where(row => row.PersonId == from))
        {
            if (!votes.Exists(own => own.PersonId == to && own.ProposalId == row.ProposalId))
            {
                row.PersonId = to;
            }
        }

        var proposed = await db
            .ProposalAsked.Where(row => row.PersonId == from || row.PersonId == to)
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
            .Asked.Where(row => row.PersonId == from || row.PersonId == to)
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

    /// <summary>Whom a name sees and answers for, and who does so for it, goes along with the name.</summary>
    private async Task MoveGuardians(PersonId from, PersonId to, CancellationToken cancellationToken)
    {
        var rows = await db
            .Guardians.Where(row =>
                row.WardId == from || row.GuardianId == from || row.WardId == to || row.GuardianId == to
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

            var there = rows.Find(one =>
                one.GroupId == row.GroupId && one.WardId == ward && one.GuardianId == guardian
            );
            if (there is not null)
            {
                there.EndedAt = null;
            }
            else
            {
                (row.WardId, row.GuardianId, row.EndedAt) = (ward, guardian, null);
            }
        }
    }

    /// <summary>The place in a group that a mailed link leads to; <c>null</c> where it leads nowhere.</summary>
    public static Task<MemberRow?> ByToken(MortarDb db, string token, CancellationToken cancellationToken)
    {
        var hash = LinkSecret.HashOf(token);
        return db.Members.FirstOrDefaultAsync(member => member.ClaimHash == hash, cancellationToken);
    }
}
