using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Binned;
using Mortar.Core.Groups;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Store;

namespace Mortar.Data.Groups;

/// <summary>Ends groups: to rest and back, to the bin and back. Their calendars go and come with them (<see cref="MortarDb"/>).</summary>
public sealed class GroupEndCommands(MortarDb db)
{
    /// <summary>Puts a group to rest, for everybody.</summary>
    public Task<Outcome<GroupRow>> Rest(Act act, GroupId id, CancellationToken cancellationToken) =>
        Put(
            act,
            id,
            GroupState.AtRest,
            row =>
            {
                row.RestsSince = db.Now;
                return Nothing;
            },
            cancellationToken
        );

    /// <summary>Wakes a group that is at rest.</summary>
    public Task<Outcome<GroupRow>> Wake(Act act, GroupId id, CancellationToken cancellationToken) =>
        Put(
            act,
            id,
            GroupState.There,
            row =>
            {
                row.RestsSince = null;
                return Nothing;
            },
            cancellationToken
        );

    /// <summary>Puts a group in the bin with its calendars, for everybody.</summary>
    /// <param name="act">Who.</param>
    /// <param name="id">Which.</param>
    /// <param name="name">The group's name, typed to show that this one is meant.</param>
    /// <param name="cancellationToken">Stops it; nothing is written then.</param>
    public Task<Outcome<GroupRow>> Delete(Act act, GroupId id, string? name, CancellationToken cancellationToken) =>
        Put(
            act,
            id,
            GroupState.InBin,
            async row =>
            {
                if (GroupEnding.WhyNotBin(await db.CalendarsEnding(act.Actor, id, cancellationToken)) is { } others)
                {
                    return others;
                }

                if (BinRules.Check(row.Name, name, "the group’s name to delete it for everybody").WhyNot is { } unfit)
                {
                    return unfit;
                }

                row.DeletedAt = db.Now;
                return null;
            },
            cancellationToken
        );

    /// <summary>Brings a group back from the bin as it was, at work or at rest.</summary>
    public Task<Outcome<GroupRow>> BringBack(Act act, GroupId id, CancellationToken cancellationToken) =>
        db.Write<GroupRow>(
            act,
            async () =>
            {
                if (
                    await db.WhyNotKeep(act.Actor, id, cancellationToken) is not null
                    || await db.Groups.FindAsync([id], cancellationToken) is not { DeletedAt: { } deleted } row
                    || !BinRules.IsKept(deleted, db.Now)
                )
                {
                    return BinRules.NoMore;
                }

                row.DeletedAt = null;
                return row;
            },
            cancellationToken
        );

    private static Task<Refusal?> Nothing => Task.FromResult<Refusal?>(null);

    private Task<Outcome<GroupRow>> Put(
        Act act,
        GroupId id,
        GroupState to,
        Func<GroupRow, Task<Refusal?>> change,
        CancellationToken cancellationToken
    ) =>
        db.Write<GroupRow>(
            act,
            async () =>
            {
                if (await db.WhyNotKeep(act.Actor, id, cancellationToken) is { } refusal)
                {
                    return refusal;
                }

                var row = await db.Groups.SingleAsync(one => one.Id == id, cancellationToken);
                if (GroupEnding.WhyNotPut(row.State(), to) is { } already)
                {
                    return already;
                }

                return await change(row) is { } whyNot ? whyNot : row;
            },
            cancellationToken
        );
}

/// <summary>Reads what goes with a group that is to end.</summary>
public static class GroupEndQueries
{
    /// <summary>The calendars of a group that are not in the bin by themselves, as far as its ending has to do with them.</summary>
    public static async Task<IReadOnlyList<EndingCalendar>> CalendarsEnding(
        this MortarDb db,
        PersonId person,
        GroupId group,
        CancellationToken cancellationToken
    )
    {
        var rows = await db
            .Calendars.AsNoTracking()
            .Where(row => row.GroupId == group && (row.DeletedAt == null || row.WithGroup))
            .OrderBy(row => row.Name)
            .ToListAsync(cancellationToken);
        var there = await db.StandingsOf(person, cancellationToken);
        var gone = rows.Exists(row => row.WithGroup)
            ? await db.StandingsWithGroup(person, db.Calendars.Where(row => row.GroupId == group), cancellationToken)
            : [];
        var keepers = await db.KeepersAmong(group, rows, cancellationToken);
        return
        [
            .. from row in rows
            join kept in keepers on row.Id equals kept.Calendar
            select new EndingCalendar(
                row.Name,
                row.Person is not null,
                there.GetValueOrDefault(row.Id, gone.GetValueOrDefault(row.Id, Standing.Outside)).Role,
                kept.IsLeft
            ),
        ];
    }
}
