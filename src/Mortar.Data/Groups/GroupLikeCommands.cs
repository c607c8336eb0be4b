using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Groups;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Calendars;
using Mortar.Data.Store;
using Mortar.Data.WebCalendars;

namespace Mortar.Data.Groups;

/// <summary>A group that was made like another.</summary>
/// <param name="Group">The new one.</param>
/// <param name="Calendars">How many calendars it has.</param>
/// <param name="LeftOut">How many of the other it has not: of one person, or that its maker does not read.</param>
public sealed record MadeLike(GroupRow Group, int Calendars, int LeftOut);

/// <summary>Makes groups like those that are there: for the next term, season or year.</summary>
public sealed class GroupLikeCommands(MortarDb db, GrantCommands grants, ZoneClock zones)
{
    /// <summary>Makes a group like one that its maker coordinates. Doing so twice with one id makes it once.</summary>
    public Task<Outcome<MadeLike>> Make(
        Act act,
        GroupId id,
        GroupId model,
        string name,
        CancellationToken cancellationToken
    ) =>
        db.Write<MadeLike>(
            act,
            async () =>
            {
                var me = await db.Members.FirstOrDefaultAsync(
                    member => member.GroupId == model && member.PersonId == act.Actor,
                    cancellationToken
                );
                if (MemberRules.ToKeep(me is not null, me?.Coordinates == true).WhyNotOfGroup() is { } refusal)
                {
                    return refusal;
                }

                if (await db.Groups.FindAsync([id], cancellationToken) is { } known)
                {
                    return await db.Members.AnyAsync(
                        member => member.GroupId == id && member.PersonId == act.Actor && member.Coordinates,
                        cancellationToken
                    )
                        ? new MadeLike(
                            known,
                            await db.Calendars.CountAsync(
                                row => row.GroupId == id && row.DeletedAt == null,
                                cancellationToken
                            ),
                            LeftOut: 0
                        )
                        : new Refusal.NotThere("group");
                }

                var other = await db.Groups.AsNoTracking().SingleAsync(row => row.Id == model, cancellationToken);
                if (other.State() == GroupState.InBin)
                {
                    return new Refusal.NotThere("group");
                }

                // The next term is made like one that has ended.
                var isAtRest = other.State() == GroupState.AtRest;
                var standings = isAtRest
                    ? await db.StandingsAtRest(act.Actor, model, cancellationToken)
                    : await db.StandingsOf(act.Actor, cancellationToken);
                var calendars = await db
                    .Calendars.AsNoTracking()
                    .Where(row => row.GroupId == model && (row.DeletedAt == null || (isAtRest && row.WithGroup)))
                    .OrderBy(row => row.Id)
                    .ToListAsync(cancellationToken);
                var taken = calendars
                    .Where(row =>
                        standings.TryGetValue(row.Id, out var mine) && GroupLike.Takes(row.Settings(), mine.Role)
                    )
                    .ToDictionary(row => row, _ => new CalendarId(Guid.CreateVersion7()));
                if (GroupLike.WhyNotTake(taken.Count) is { } tooMany)
                {
                    return tooMany;
                }

                var daysOff = taken.FirstOrDefault(one => one.Key.Id == other.DaysOff);
                var (settings, problems) = GroupSettings.Check(
                    GroupLike.Settings(other.ToSettings(), name, daysOff.Key is null ? null : daysOff.Value),
                    zones
                );
                if (problems.Count > 0)
                {
                    return new Refusal.Unfit(problems);
                }

                var made = db.AddGroup(id, settings, act.Actor);
                foreach (var (like, calendar) in taken)
                {
                    db.Calendars.Add(CalendarRow.Of(like.Settings(), calendar, id));
                    grants.Found(calendar, act.Actor);
                    if (
                        like.FromWeb
                        && await db.WebCalendars.FindAsync([like.Id], cancellationToken) is { SourceId: var source }
                    )
                    {
                        db.WebCalendars.Add(new WebCalendarRow { CalendarId = calendar, SourceId = source });
                    }
                }

                return new MadeLike(made, taken.Count, calendars.Count - taken.Count);
            },
            cancellationToken
        );
}
