using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Access;

/// <summary>Gives and takes the access of whole groups. It follows those who join and leave by itself.</summary>
public sealed class GroupAccessCommands(MortarDb db, ZoneClock zones)
{
    /// <summary>Puts everybody of a group on a step, for good or up to a last day. The giver is in the group, and so knows who that is.</summary>
    public Task<Outcome<GroupGrantRow>> Give(
        Act act,
        CalendarId calendarId,
        GroupId groupId,
        Role role,
        LocalDate? lastDay,
        CancellationToken cancellationToken
    ) =>
        db.Write<GroupGrantRow>(
            act,
            async () =>
            {
                var giver = await db.GiverOf(act.Actor, calendarId, zones, cancellationToken);
                var isInGroup = await db.Members.AnyAsync(
                    member => member.GroupId == groupId && member.PersonId == act.Actor,
                    cancellationToken
                );
                var decided = giver.SetGroup(isInGroup, role, lastDay);
                if (decided is not Outcome<Grant>.Done { Value: var next })
                {
                    return decided.WhyNot;
                }

                var grant = await Of(calendarId, groupId, cancellationToken);
                if (grant is null)
                {
                    grant = new GroupGrantRow
                    {
                        Id = Guid.CreateVersion7(),
                        CalendarId = calendarId,
                        GroupId = groupId,
                        Role = next.Role,
                    };
                    db.GroupGrants.Add(grant);
                }

                (grant.Role, grant.EndsAt) = (next.Role, next.EndsAt);
                return grant;
            },
            cancellationToken
        );

    /// <summary>Ends a group's access. Its members keep what they have by other ways.</summary>
    public Task<Outcome<GroupGrantRow>> End(
        Act act,
        CalendarId calendarId,
        GroupId groupId,
        CancellationToken cancellationToken
    ) =>
        db.Write<GroupGrantRow>(
            act,
            async () =>
            {
                if (await db.WhyNotCoordinate(act.Actor, calendarId, cancellationToken) is { } refusal)
                {
                    return refusal;
                }

                if (await Of(calendarId, groupId, cancellationToken) is not { Role: > Role.None } grant)
                {
                    return new Refusal.NotThere("access");
                }

                grant.Role = Role.None;
                return grant;
            },
            cancellationToken
        );

    private Task<GroupGrantRow?> Of(CalendarId calendarId, GroupId groupId, CancellationToken cancellationToken) =>
        db.GroupGrants.FirstOrDefaultAsync(
            grant => grant.CalendarId == calendarId && grant.GroupId == groupId,
            cancellationToken
        );
}
