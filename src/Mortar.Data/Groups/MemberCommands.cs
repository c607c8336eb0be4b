using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Groups;
using Mortar.Core.Letters;
using Mortar.Core.Preferences;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Events;
using Mortar.Data.Mail;
using Mortar.Data.Store;

namespace Mortar.Data.Groups;

/// <summary>How many came to what.</summary>
/// <param name="Named">Names that are in at once.</param>
/// <param name="Asked">Those with accounts who are asked.</param>
/// <param name="SaidNo">Those who are left alone, since they said no not long ago.</param>
public sealed record Arrived(int Named, int Asked, int SaidNo);

/// <summary>Adds people to groups, with and without accounts, and keeps order among them.</summary>
public sealed class MemberCommands(MortarDb db, PublicLinks links, ZoneClock zones)
{
    /// <summary>
    /// Adds people. Somebody with an account whom the actor knows is asked; everybody else is a name, with a mail that leads
    /// to claiming it. Whether an address has an account is told to nobody.
    /// </summary>
    public Task<Outcome<Arrived>> Add(
        Act act,
        GroupId groupId,
        IReadOnlyList<NewMember> people,
        CancellationToken cancellationToken
    ) =>
        Kept<Arrived>(
            act,
            groupId,
            async group =>
            {
                var check = NewMember.Check(people);
                if (check.WhyNot is { } unfit)
                {
                    return unfit;
                }

                var newcomers = await Newcomers.Read(
                    db,
                    act.Actor,
                    groupId,
                    [.. check.Value.Select(person => person.Id)],
                    [.. check.Value.Select(person => person.Address).OfType<Address>()],
                    cancellationToken
                );
                var arrivals = new List<Arrival>();
                foreach (var (id, name, address) in check.Value)
                {
                    var arrival = newcomers.Of(id, address);
                    arrivals.Add(arrival);
                    if (arrival == Arrival.Asked && newcomers.Known(id, address) is { } known)
                    {
                        newcomers.Ask(known);
                        if (known.AtOnce(NoticeTopic.Asks, db.Now, zones) is { } to)
                        {
                            var from = await NameOf(act.Actor, cancellationToken);
                            db.Post(GroupLetters.ToAskIn(from, group.Name, links.Inbox), to, act.Actor);
                        }
                    }
                    else if (arrival == Arrival.Named)
                    {
                        var row = newcomers.Name(id, name, address, group.Zone);
                        if (row.Address is not null)
                        {
                            await Invite(act, group, row, cancellationToken);
                        }
                    }
                }

                return new Arrived(
                    arrivals.Count(arrival => arrival == Arrival.Named),
                    arrivals.Count(arrival => arrival == Arrival.Asked),
                    arrivals.Count(arrival => arrival == Arrival.SaidNo)
                );
            },
            cancellationToken
        );

    /// <summary>Corrects the name or the address of somebody without an account; a new address gets a mail, and the link sent before leads nowhere.</summary>
    public Task<Outcome<int>> Correct(
        Act act,
        GroupId groupId,
        PersonId whose,
        string? name,
        string? address,
        CancellationToken cancellationToken
    ) =>
        Kept<int>(
            act,
            groupId,
            async group =>
            {
                var check = NewMember.Check(new NewMember(whose, name, address));
                if (check.WhyNot is { } unfit)
                {
                    return unfit;
                }

                if (await Of(groupId, whose, cancellationToken) is not { } member)
                {
                    return new Refusal.NotThere("member");
                }

                if (MemberRules.WhyNotCorrect(await db.HasAccount(whose, cancellationToken)) is { } theirs)
                {
                    return theirs;
                }

                (await db.People.SingleAsync(person => person.Id == whose, cancellationToken)).Name = check.Value.Name;
                var corrected = check.Value.Address?.Value;
                if (corrected != member.Address)
                {
                    member.Address = corrected;
                    await Invite(act, group, member, cancellationToken);
                }

                return 1;
            },
            cancellationToken
        );

    /// <summary>Sends the mail that leads to claiming a name again; the link sent before leads nowhere.</summary>
    public Task<Outcome<int>> InviteAgain(
        Act act,
        GroupId groupId,
        PersonId whose,
        CancellationToken cancellationToken
    ) =>
        Kept<int>(
            act,
            groupId,
            async group =>
            {
                if (await Of(groupId, whose, cancellationToken) is not { Address: not null } member)
                {
                    return new Refusal.NotThere("invitation");
                }

                await Invite(act, group, member, cancellationToken);
                return 1;
            },
            cancellationToken
        );

    /// <summary>Makes somebody with an account a coordinator of the group, or no longer.</summary>
    public Task<Outcome<int>> SetCoordinates(
        Act act,
        GroupId groupId,
        PersonId whose,
        bool coordinates,
        CancellationToken cancellationToken
    ) =>
        Kept<int>(
            act,
            groupId,
            async _ =>
            {
                if (await Of(groupId, whose, cancellationToken) is not { } member)
                {
                    return new Refusal.NotThere("member");
                }

                var hasAccount = await db.HasAccount(whose, cancellationToken);
                var keepers = await Coordinators(groupId, cancellationToken);
                if (MemberRules.WhyNotCoordinate(coordinates, whose, hasAccount, keepers) is { } refusal)
                {
                    return refusal;
                }

                member.Coordinates = coordinates;
                return 1;
            },
            cancellationToken
        );

    /// <summary>
    /// Ends a membership: a coordinator anybody's, everybody their own. Access that was given by name stays. Events of the
    /// group's calendars that were given to them by themselves go as well, but for those that somebody who coordinates the
    /// calendar knowingly leaves them. Calendars that they alone coordinate are handed on first, to one who stays.
    /// </summary>
    public Task<Outcome<int>> End(
        Act act,
        GroupId groupId,
        PersonId whose,
        bool leavesEvents,
        PersonId? handOnTo,
        CancellationToken cancellationToken
    ) =>
        db.Write<int>(
            act,
            async () =>
            {
                var me = await Of(groupId, act.Actor, cancellationToken);
                if (
                    MemberRules.ToEnd(me is not null, me?.Coordinates == true, act.Actor, whose).WhyNotOfGroup() is
                    { } refusal
                )
                {
                    return refusal;
                }

                if (await Of(groupId, whose, cancellationToken) is not { } member)
                {
                    return new Refusal.NotThere("member");
                }

                if (MemberRules.WhyNotWithout(whose, await Coordinators(groupId, cancellationToken)) is { } stays)
                {
                    return stays;
                }

                var left = (await db.KeepersIn(groupId, cancellationToken)).Where(one => one.IsLeftBy(whose)).ToList();
                var canKeep =
                    handOnTo is { } next
                    && next != whose
                    && await Of(groupId, next, cancellationToken) is not null
                    && await db.HasAccount(next, cancellationToken);
                if (CalendarKeepers.WhyNotGo(left, whose == act.Actor, handOnTo, canKeep) is { } alone)
                {
                    return alone;
                }

                foreach (var one in left)
                {
                    await db.MakeKeeper(one.Calendar, handOnTo!.Value, cancellationToken);
                }

                (member.LeftAt, member.Coordinates, member.ClaimHash) = (db.Now, false, null);
                await db.SaveChangesAsync(cancellationToken); // what still leads them to the calendars is asked of the store
                foreach (var row in await EventsLeft(groupId, whose, cancellationToken))
                {
                    if (
                        leavesEvents
                        && whose != act.Actor
                        && await db.WhyNotCoordinate(act.Actor, row.CalendarId, cancellationToken) is null
                    )
                    {
                        continue;
                    }

                    row.Apply(row.ToCore().NoLongerGivenTo(whose), zones);
                }

                return 1;
            },
            cancellationToken
        );

    /// <summary>The events of a group's calendars that are given to somebody by themselves and by nothing else.</summary>
    private async Task<List<EventRow>> EventsLeft(GroupId groupId, PersonId whose, CancellationToken cancellationToken)
    {
        var standings = await db.StandingsOf(whose, cancellationToken);
        var rows = await (
            from given in db.Given
            where given.PersonId == whose
            join row in db.Events on given.EventId equals row.Id
            where db.Calendars.Any(home => home.Id == row.CalendarId && home.GroupId == groupId)
            select row
        ).ToListAsync(cancellationToken);
        return rows.FindAll(row => !standings.ContainsKey(row.CalendarId));
    }

    private async Task Invite(Act act, GroupRow group, MemberRow member, CancellationToken cancellationToken)
    {
        if (member.Address is not { } address)
        {
            member.ClaimHash = null;
            return;
        }

        var token = LinkSecret.New();
        (member.ClaimHash, member.InvitedAt) = (LinkSecret.HashOf(token), db.Now);
        var from = await NameOf(act.Actor, cancellationToken);
        db.Post(GroupLetters.ToJoin(from, group.Name, links.Join(token)), address, act.Actor);
    }

    private Task<string> NameOf(PersonId person, CancellationToken cancellationToken) =>
        db.People.Where(row => row.Id == person).Select(row => row.Name).SingleAsync(cancellationToken);

    private Task<List<PersonId>> Coordinators(GroupId groupId, CancellationToken cancellationToken) =>
        db
            .Members.Where(member => member.GroupId == groupId && member.Coordinates)
            .Select(member => member.PersonId)
            .ToListAsync(cancellationToken);

    private Task<MemberRow?> Of(GroupId groupId, PersonId person, CancellationToken cancellationToken) =>
        db.Members.FirstOrDefaultAsync(
            member => member.GroupId == groupId && member.PersonId == person,
            cancellationToken
        );

    private Task<Outcome<T>> Kept<T>(
        Act act,
        GroupId groupId,
        Func<GroupRow, Task<Outcome<T>>> change,
        CancellationToken cancellationToken
    ) =>
        db.Write<T>(
            act,
            async () =>
                await db.WhyNotKeep(act.Actor, groupId, cancellationToken)
                ?? await change(await db.Groups.SingleAsync(row => row.Id == groupId, cancellationToken)),
            cancellationToken
        );
}
