using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Groups;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Store;

namespace Mortar.Data.Groups;

/// <summary>Makes groups and changes their settings.</summary>
public sealed class GroupCommands(MortarDb db, ZoneClock zones)
{
    /// <summary>Makes the group where there is none of that id or it was just made, and changes it otherwise.</summary>
    public Task<Outcome<GroupRow>> Put(
        Act act,
        GroupId id,
        int? version,
        GroupSettings given,
        CancellationToken cancellationToken
    ) =>
        version is null
            ? Create(act, id, given, cancellationToken)
            : Change(act, id, version.Value, given, cancellationToken);

    /// <summary>Changes a group's settings.</summary>
    public Task<Outcome<GroupRow>> Change(
        Act act,
        GroupId id,
        int version,
        GroupSettings given,
        CancellationToken cancellationToken
    ) =>
        db.Write<GroupRow>(
            act,
            async () =>
            {
                var me = await db.Members.FirstOrDefaultAsync(
                    member => member.GroupId == id && member.PersonId == act.Actor,
                    cancellationToken
                );
                if (MemberRules.ToKeep(me is not null, me?.Coordinates == true).WhyNotOfGroup() is { } refusal)
                {
                    return refusal;
                }

                var row = await db.Groups.SingleAsync(one => one.Id == id, cancellationToken);
                if (row.Version != version)
                {
                    return new Outcome<GroupRow>.Stale(row);
                }

                // What is not said stays.
                var wish = given.Cover.IsDefault ? given with { Cover = row.ToSettings().Cover } : given;
                wish = wish with { Address = wish.Address ?? row.Address ?? string.Empty };
                var (settings, problems) = GroupSettings.Check(wish, zones);
                if (problems.Count > 0)
                {
                    return new Refusal.Unfit(problems);
                }

                if (
                    settings.DaysOff is { } daysOff
                    && daysOff != row.DaysOff
                    && !await IsTheirsToTell(act.Actor, daysOff, id, cancellationToken)
                )
                {
                    return new Refusal.Unfit([
                        new FieldProblem(
                            "daysOff",
                            "Choose a calendar of this group that you coordinate: all members learn its dates."
                        ),
                    ]);
                }

                if (
                    settings.Address is { Length: > 0 } address
                    && address != row.Address
                    && await WhyNotAt(act.Actor, address, id, cancellationToken) is { } whyNot
                )
                {
                    return whyNot;
                }

                row.Apply(settings);
                return row;
            },
            cancellationToken
        );

    private async Task<Refusal?> WhyNotAt(
        PersonId person,
        string address,
        GroupId group,
        CancellationToken cancellationToken
    )
    {
        if ((await db.TakenAmong(GroupRow.AddressSpace, [address], group.Value, cancellationToken)).Count > 0)
        {
            return new Refusal.Unfit("shortName", "This address is somebody's already. Choose another.");
        }

        var others = await db.Groups.CountAsync(
            row =>
                row.Id != group
                && row.Address != null
                && db.Members.Any(member =>
                    member.GroupId == row.Id && member.PersonId == person && member.Coordinates
                ),
            cancellationToken
        );
        return others >= GroupSettings.MostAddresses
            ? new Refusal.AgainstRule(
                "too-many",
                FormattableString.Invariant(
                    $"Up to {GroupSettings.MostAddresses} groups of one coordinator have a short address. Give one up that nobody uses."
                )
            )
            : null;
    }

    private async Task<bool> IsTheirsToTell(
        PersonId person,
        CalendarId calendar,
        GroupId group,
        CancellationToken cancellationToken
    ) =>
        await db.Calendars.AnyAsync(
            row => row.Id == calendar && row.GroupId == group && row.DeletedAt == null,
            cancellationToken
        )
        && AccessRules.ToCoordinate((await db.StandingOf(person, calendar, cancellationToken)).Role) == Verdict.Granted;

    /// <summary>Makes a group and makes its maker its coordinator. Doing so twice with one id makes it once.</summary>
    public Task<Outcome<GroupRow>> Create(
        Act act,
        GroupId id,
        GroupSettings given,
        CancellationToken cancellationToken
    ) =>
        db.Write<GroupRow>(
            act,
            async () =>
            {
                if (await db.Groups.FindAsync([id], cancellationToken) is { } known)
                {
                    return await db.Members.AnyAsync(
                        member => member.GroupId == id && member.PersonId == act.Actor && member.Coordinates,
                        cancellationToken
                    )
                        ? new Outcome<GroupRow>.Done(known)
                        : new Refusal.NotThere("group");
                }

                var (settings, problems) = GroupSettings.Check(given, zones);
                if (problems.Count > 0)
                {
                    return new Refusal.Unfit(problems);
                }

                if (
                    settings.Address is { Length: > 0 } address
                    && await WhyNotAt(act.Actor, address, id, cancellationToken) is { } whyNot
                )
                {
                    return whyNot;
                }

                return db.AddGroup(id, settings, act.Actor);
            },
            cancellationToken
        );
}

/// <summary>What commands that make groups have in common.</summary>
internal static class NewGroups
{
    /// <summary>Adds a group, and its maker as who keeps it.</summary>
    public static GroupRow AddGroup(this MortarDb db, GroupId id, GroupSettings settings, PersonId maker)
    {
        var row = new GroupRow
        {
            Id = id,
            Name = settings.Name,
            Sort = settings.Sort,
            Zone = settings.Zone,
            FirstDay = settings.FirstDay,
        };
        row.Apply(settings);
        db.Groups.Add(row);
        db.Members.Add(
            new MemberRow
            {
                GroupId = id,
                PersonId = maker,
                Coordinates = true,
            }
        );
        return row;
    }
}
