using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Accounts;
using Mortar.Core.Groups;
using Mortar.Core.Letters;
using Mortar.Core.Noticeboards;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Calendars;
using Mortar.Data.Groups;
using Mortar.Data.Mail;
using Mortar.Data.Store;

namespace Mortar.Data.Keeping;

/// <summary>What becomes of all that hangs on an account when it goes.</summary>
/// <param name="Groups">The groups its owner is in, that are not in the bin.</param>
/// <param name="Own">The calendars of their own time, which go to the bin.</param>
/// <param name="Events">How many events they put in that stay where they are.</param>
/// <param name="Boards">How many noticeboards they keep that the world reads, which are paused.</param>
public sealed record AccountEnding(IReadOnlyList<GroupLeft> Groups, IReadOnlyList<string> Own, int Events, int Boards);

/// <summary>Deletes one's own account. What was written into shared calendars stays; what leads to or from the person ends.</summary>
public sealed class AccountEndCommands(MortarDb db, ZoneClock zones)
{
    /// <summary>What would become of what.</summary>
    public async Task<AccountEnding> Read(PersonId person, CancellationToken cancellationToken)
    {
        var groups = new List<GroupLeft>();
        foreach (var group in await Groups(person, cancellationToken))
        {
            groups.Add(await Left(group, person, cancellationToken));
        }

        var own = await Own(person, cancellationToken);
        var ids = own.ConvertAll(row => row.Id);
        return new AccountEnding(
            groups,
            own.ConvertAll(row => row.Name),
            await db.Events.CountAsync(
                row => row.AddedBy == person && row.DeletedAt == null && !ids.Contains(row.CalendarId),
                cancellationToken
            ),
            await db.Noticeboards.CountAsync(
                row => row.Keeper == person && row.EndedAt == null && row.State == BoardState.Open,
                cancellationToken
            )
        );
    }

    /// <summary>Deletes it, for good.</summary>
    /// <param name="act">Whose.</param>
    /// <param name="keepsName">Whether their name stays on what they wrote.</param>
    /// <param name="cancellationToken">Stops it; nothing is written then.</param>
    public Task<Outcome<PersonRow>> Delete(Act act, bool keepsName, CancellationToken cancellationToken) =>
        db.Write<PersonRow>(
            act,
            async () =>
            {
                var person = act.Actor;
                if (AccountEnd.WhyNot((await Read(person, cancellationToken)).Groups) is { } refusal)
                {
                    return refusal;
                }

                var me = await db.People.SingleAsync(one => one.Id == person, cancellationToken);
                await GiveUpMails(me, cancellationToken);
                if (me.Address is { } address)
                {
                    db.Post(AccountLetters.Deleted(), address);
                }

                await EndGroups(person, cancellationToken);
                await EndAccess(person, cancellationToken);
                await EndGiven(person, cancellationToken);
                (me.Name, me.Address, me.Preferences) = (keepsName ? me.Name : AccountEnd.Nameless, null, null);
                (me.SeenAt, me.DigestedAt, me.InboxSeenAt) = (null, null, null);
                (me.TellFrom, me.TellEndsAfter, me.ToldAt) = (null, null, null);
                await db.SaveChangesAsync(cancellationToken);
                await Forget(person, cancellationToken);
                return me;
            },
            cancellationToken
        );

    private Task<List<GroupRow>> Groups(PersonId person, CancellationToken cancellationToken) =>
        (
            from member in db.Members
            where member.PersonId == person
            join row in db.Groups on member.GroupId equals row.Id
            where row.DeletedAt == null
            orderby row.Name
            select row
        ).ToListAsync(cancellationToken);

    private async Task<GroupLeft> Left(GroupRow group, PersonId person, CancellationToken cancellationToken)
    {
        var others = await db
            .Members.Where(member => member.GroupId == group.Id && member.PersonId != person)
            .Select(member => member.Coordinates)
            .ToListAsync(cancellationToken);
        var keepers = await db.KeepersIn(group.Id, cancellationToken);
        return new GroupLeft(
            group.Name,
            others.Count,
            others.Contains(true),
            [.. keepers.Where(one => one.IsLeftBy(person)).Select(one => one.Name)],
            others.Count > 0
                ? []
                :
                [
                    .. GroupEnding.Named(
                        GroupEnding.Others(await db.CalendarsEnding(person, group.Id, cancellationToken))
                    ),
                ]
        );
    }

    /// <summary>The calendars of their own time that nobody else coordinates.</summary>
    private async Task<List<CalendarRow>> Own(PersonId person, CancellationToken cancellationToken) =>
        await db
            .Calendars.Where(row =>
                row.DeletedAt == null
                && row.Person == person
                && db.Grants.Any(one =>
                    one.CalendarId == row.Id && one.PersonId == person && one.Role == Role.Coordinate
                )
                && !db.Grants.Any(one =>
                    one.CalendarId == row.Id && one.PersonId != person && one.Role == Role.Coordinate
                )
            )
            .OrderBy(row => row.Name)
            .ToListAsync(cancellationToken);

    /// <summary>They leave their groups; one that nobody else is in goes to the bin, and so does their own time.</summary>
    private async Task EndGroups(PersonId person, CancellationToken cancellationToken)
    {
        foreach (var own in await Own(person, cancellationToken))
        {
            own.DeletedAt = db.Now;
        }

        foreach (var group in await Groups(person, cancellationToken))
        {
            if (!await db.Members.AnyAsync(one => one.GroupId == group.Id && one.PersonId != person, cancellationToken))
            {
                group.DeletedAt = db.Now;
            }
        }

        await db.SaveChangesAsync(cancellationToken);
        foreach (
            var member in await db
                .Members.IgnoreQueryFilters([MemberRow.Asked])
                .Where(one => one.PersonId == person)
                .ToListAsync(cancellationToken)
        )
        {
            (member.LeftAt, member.Coordinates, member.ClaimHash, member.Address) = (db.Now, false, null, null);
        }

        foreach (
            var guardian in await db
                .Guardians.IgnoreQueryFilters([GuardianRow.Asked])
                .Where(one => one.GuardianId == person || one.WardId == person)
                .ToListAsync(cancellationToken)
        )
        {
            guardian.EndedAt = db.Now;
        }
    }

    /// <summary>Whatever leads them to calendars, or others by them.</summary>
    private async Task EndAccess(PersonId person, CancellationToken cancellationToken)
    {
        foreach (
            var grant in await db
                .Grants.Where(one => one.PersonId == person && one.Role != Role.None)
                .ToListAsync(cancellationToken)
        )
        {
            (grant.Role, grant.EndsAt) = (Role.None, null);
        }

        foreach (
            var holder in await db
                .LinkHolders.Where(one => one.PersonId == person && one.LeftAt == null)
                .ToListAsync(cancellationToken)
        )
        {
            holder.LeftAt = db.Now;
        }

        foreach (
            var board in await db
                .Noticeboards.Where(one => one.Keeper == person && one.EndedAt == null)
                .ToListAsync(cancellationToken)
        )
        {
            // What the world reads of others' calendars is theirs to open again; what it never read goes.
            if (board.State == BoardState.Draft || board.Calendars.Count == 0)
            {
                board.EndedAt = db.Now;
            }
            else
            {
                board.State = BoardState.Paused;
            }
        }

        foreach (
            var invitation in await db
                .Invitations.Where(one => one.PersonId == person && one.State == InvitationState.Waiting)
                .ToListAsync(cancellationToken)
        )
        {
            invitation.State = InvitationState.Declined;
        }

        foreach (
            var ask in await db
                .Asks.Where(one => one.PersonId == person && one.State == AskState.Waiting)
                .ToListAsync(cancellationToken)
        )
        {
            ask.State = AskState.Withdrawn;
        }
    }

    /// <summary>What waits to be mailed to them goes out no more: they are told of nothing any longer.</summary>
    private async Task GiveUpMails(PersonRow me, CancellationToken cancellationToken)
    {
        var addresses = await db
            .Addresses.Where(row => row.PersonId == me.Id && row.ConfirmedAt != null)
            .Select(row => row.Address)
            .ToListAsync(cancellationToken);
        foreach (
            var mail in await db
                .Mails.Where(mail => mail.SentAt == null && mail.GivenUpAt == null)
                .Where(mail => mail.To == me.Address || addresses.Contains(mail.To))
                .ToListAsync(cancellationToken)
        )
        {
            mail.GiveUp(db.Now);
        }
    }

    /// <summary>Single events that were given to them by themselves; they stay named on them.</summary>
    private async Task EndGiven(PersonId person, CancellationToken cancellationToken)
    {
        var ids = await db
            .Given.Where(given => given.PersonId == person)
            .Select(given => given.EventId)
            .ToListAsync(cancellationToken);
        foreach (var row in await db.Events.Where(row => ids.Contains(row.Id)).ToListAsync(cancellationToken))
        {
            row.Apply(row.ToCore().NoLongerGivenTo(person), zones);
        }
    }

    /// <summary>What is theirs alone, and nobody sees.</summary>
    private async Task Forget(PersonId person, CancellationToken cancellationToken)
    {
        await db.Addresses.Where(row => row.PersonId == person).ExecuteDeleteAsync(cancellationToken);
        await db.Layers.Where(row => row.PersonId == person).ExecuteDeleteAsync(cancellationToken);
        await db.Sets.Where(row => row.Owner == person && row.GroupId == null).ExecuteDeleteAsync(cancellationToken);
        await db.Feeds.Where(row => row.Owner == person).ExecuteDeleteAsync(cancellationToken);
        await db.Devices.Where(row => row.Owner == person).ExecuteDeleteAsync(cancellationToken);
        await db.OwnAlarms.Where(row => row.PersonId == person).ExecuteDeleteAsync(cancellationToken);
        await db.OwnProperties.Where(row => row.PersonId == person).ExecuteDeleteAsync(cancellationToken);
        await db.Reminders.Where(row => row.PersonId == person).ExecuteDeleteAsync(cancellationToken);
        await db.PasswordResets.Where(row => row.PersonId == person).ExecuteDeleteAsync(cancellationToken);
        // Its sign-ins count no more without it. Passkeys and the second factor go with it (ON DELETE CASCADE).
        await db.Users.Where(row => row.Id == person.Value).ExecuteDeleteAsync(cancellationToken);
    }
}
