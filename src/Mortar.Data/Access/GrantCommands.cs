using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Access;

/// <summary>Gives people steps on calendars, and takes them.</summary>
public sealed class GrantCommands(MortarDb db, ZoneClock zones)
{
    /// <summary>
    /// Puts somebody who is there already on a step of their own, for good or up to a last day: somebody who reaches the
    /// calendar by any way, or a member of its group. Everybody else is invited.
    /// </summary>
    public Task<Outcome<GrantRow>> Set(
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
                var giver = await db.GiverOf(act.Actor, calendarId, zones, cancellationToken);
                var own = await Own(calendarId, cancellationToken);
                var isThere = await IsThereAlready(calendarId, whose, cancellationToken);
                return await Put(calendarId, whose, giver.Set(whose, role, lastDay, own, isThere), cancellationToken);
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
                var giver = await db.GiverOf(act.Actor, calendarId, zones, cancellationToken);
                var held = await db
                    .LinkHolders.Where(holder =>
                        holder.CalendarId == calendarId && holder.PersonId == whose && holder.LeftAt == null
                    )
                    .ToListAsync(cancellationToken);
                var ended = giver.End(whose, await Own(calendarId, cancellationToken), held.Count > 0);
                if (ended is Outcome<Grant>.Done)
                {
                    held.ForEach(holder => holder.LeftAt = db.Now);
                }

                return await Put(calendarId, whose, ended, cancellationToken);
            },
            cancellationToken
        );

    /// <summary>Makes somebody who coordinates a group the coordinator of one of its calendars that nobody of it keeps any more.</summary>
    public Task<Outcome<GrantRow>> TakeOver(Act act, CalendarId calendarId, CancellationToken cancellationToken) =>
        db.Write<GrantRow>(
            act,
            async () =>
            {
                var group = await db
                    .Calendars.Where(row => row.Id == calendarId && row.DeletedAt == null)
                    .Select(row => (GroupId?)row.GroupId)
                    .SingleOrDefaultAsync(cancellationToken);
                if (group is not { } inGroup)
                {
                    return new Refusal.NotThere("calendar");
                }

                var me = await db.Members.FirstOrDefaultAsync(
                    member => member.GroupId == inGroup && member.PersonId == act.Actor,
                    cancellationToken
                );
                var keepers = (await db.KeepersIn(inGroup, cancellationToken)).Single(one =>
                    one.Calendar == calendarId
                );
                var isKnown = (await db.StandingOf(act.Actor, calendarId, cancellationToken)).Role > Role.None;
                return keepers.WhyNotTakeOver(me is not null, me?.Coordinates == true, isKnown) is { } refusal
                    ? refusal
                    : await db.MakeKeeper(calendarId, act.Actor, cancellationToken);
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
        Outcome<Grant> decided,
        CancellationToken cancellationToken
    )
    {
        if (decided is not Outcome<Grant>.Done { Value: var next })
        {
            return decided.WhyNot;
        }

        var row = await db.GrantOf(calendarId, whose, cancellationToken);
        (row.Role, row.EndsAt) = (next.Role, next.EndsAt);
        return row;
    }

    private Task<Dictionary<PersonId, Grant>> Own(CalendarId calendarId, CancellationToken cancellationToken) =>
        db
            .Grants.Where(grant => grant.CalendarId == calendarId && grant.Role != Role.None)
            .ToDictionaryAsync(grant => grant.PersonId, grant => grant.ToCore(), cancellationToken);

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
}
