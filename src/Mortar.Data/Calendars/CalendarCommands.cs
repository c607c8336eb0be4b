using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Binned;
using Mortar.Core.Calendars;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Store;

namespace Mortar.Data.Calendars;

/// <summary>Makes, changes and deletes calendars.</summary>
public sealed class CalendarCommands(MortarDb db, GrantCommands grants, ZoneClock zones)
{
    /// <summary>Makes the calendar where there is none of that id or it was just made, and changes it otherwise.</summary>
    public async Task<Outcome<CalendarRow>> Put(
        Act act,
        CalendarId id,
        GroupId groupId,
        int? version,
        CalendarSettings given,
        CancellationToken cancellationToken
    )
    {
        var isNew = !await db.Calendars.AnyAsync(calendar => calendar.Id == id, cancellationToken);
        return version is null && (isNew || await IsMadeAlready(act, id, cancellationToken) is not null)
            ? await Create(act, id, groupId, given, cancellationToken)
            : await Change(act, id, version, given, cancellationToken);
    }

    /// <summary>Makes a calendar in a group one is in, and makes its maker a coordinator. Doing so twice with one id makes it once.</summary>
    /// <param name="act">Who makes it.</param>
    /// <param name="id">Its id.</param>
    /// <param name="groupId">The group.</param>
    /// <param name="given">Its settings.</param>
    /// <param name="cancellationToken">Stops it; nothing is written then.</param>
    /// <param name="besides">What is written with it; a refusal where it cannot be, and nothing is then.</param>
    public Task<Outcome<CalendarRow>> Create(
        Act act,
        CalendarId id,
        GroupId groupId,
        CalendarSettings given,
        CancellationToken cancellationToken,
        Func<Task<Refusal?>>? besides = null
    ) =>
        db.Write<CalendarRow>(
            act,
            async () =>
            {
                if (await IsMadeAlready(act, id, cancellationToken) is { } known)
                {
                    return known;
                }

                if (
                    !await db.Members.AnyAsync(
                        member => member.GroupId == groupId && member.PersonId == act.Actor,
                        cancellationToken
                    )
                )
                {
                    return new Refusal.NotThere("group");
                }

                var (settings, problems) = await Check(given, groupId, cancellationToken);
                if (problems.Count > 0)
                {
                    return new Refusal.Unfit(problems);
                }

                if (besides is not null && await besides() is { } whyNot)
                {
                    return whyNot;
                }

                var row = CalendarRow.Of(settings, id, groupId);
                db.Calendars.Add(row);
                grants.Found(id, act.Actor);
                return row;
            },
            cancellationToken
        );

    /// <summary>Changes a calendar's settings.</summary>
    public Task<Outcome<CalendarRow>> Change(
        Act act,
        CalendarId id,
        int? version,
        CalendarSettings given,
        CancellationToken cancellationToken
    ) =>
        Coordinated(
            act,
            id,
            version,
            async row =>
            {
                var (settings, problems) = await Check(
                    given with
                    {
                        FromWeb = row.FromWeb,
                    },
                    row.GroupId,
                    cancellationToken
                );
                if (problems.Count > 0)
                {
                    return new Refusal.Unfit(problems);
                }

                // What every member gets has no end.
                if (
                    settings.GroupDefault > row.GroupDefault
                    && await db.WhyNotGive(
                        act.Actor,
                        id,
                        new Grant(settings.GroupDefault, Way.Default),
                        zones,
                        cancellationToken
                    )
                        is { } beyond
                )
                {
                    return beyond;
                }

                row.Apply(settings);
                return row;
            },
            cancellationToken
        );

    /// <summary>Puts a calendar in the bin, for everybody, with all that is in it and who had access.</summary>
    /// <param name="act">Who deletes it.</param>
    /// <param name="id">Which.</param>
    /// <param name="version">The version that was seen.</param>
    /// <param name="name">The calendar's name, typed to show that this one is meant.</param>
    /// <param name="cancellationToken">Stops it; nothing is written then.</param>
    public Task<Outcome<CalendarRow>> Delete(
        Act act,
        CalendarId id,
        int? version,
        string? name,
        CancellationToken cancellationToken
    ) =>
        Coordinated(
            act,
            id,
            version,
            row =>
            {
                if (
                    BinRules.Check(row.Name, name, "the calendar’s name to delete it for everybody").WhyNot is { } unfit
                )
                {
                    return Task.FromResult<Outcome<CalendarRow>>(unfit);
                }

                row.DeletedAt = db.Now;
                return Task.FromResult<Outcome<CalendarRow>>(row);
            },
            cancellationToken
        );

    /// <summary>Brings a calendar back from the bin as it was, with the access to it.</summary>
    public Task<Outcome<CalendarRow>> BringBack(Act act, CalendarId id, CancellationToken cancellationToken) =>
        db.Write<CalendarRow>(
            act,
            async () =>
            {
                var standing = (await db.StandingsInBin(act.Actor, cancellationToken)).GetValueOrDefault(
                    id,
                    Standing.Outside
                );
                var row = await db.Calendars.FirstOrDefaultAsync(calendar => calendar.Id == id, cancellationToken);

                // Whoever did not coordinate it is not told that it waits there.
                if (
                    AccessRules.ToCoordinate(standing.Role) != Verdict.Granted
                    || row?.DeletedAt is not { } deleted
                    || !BinRules.IsKept(deleted, db.Now)
                )
                {
                    return new Refusal.NotThere("calendar");
                }

                row.DeletedAt = null;
                return row;
            },
            cancellationToken
        );

    private async Task<Checked<CalendarSettings>> Check(
        CalendarSettings given,
        GroupId group,
        CancellationToken cancellationToken
    )
    {
        var check = CalendarSettings.Check(given, zones);
        return
            check.Value.Person is not { } person
            || await db.Members.AnyAsync(
                member => member.GroupId == group && member.PersonId == person,
                cancellationToken
            )
            ? check
            : check.And(new FieldProblem("person", "Choose somebody of the calendar’s group."));
    }

    /// <summary>The calendar of that id, where it is just as this person made it: the creation was sent again because its answer was lost.</summary>
    private async Task<CalendarRow?> IsMadeAlready(Act act, CalendarId id, CancellationToken cancellationToken)
    {
        var row = await db.Calendars.FirstOrDefaultAsync(calendar => calendar.Id == id, cancellationToken);
        return
            row is { Version: 1, DeletedAt: null }
            && (await db.StandingOf(act.Actor, id, cancellationToken)).Role == Role.Coordinate
            ? row
            : null;
    }

    private Task<Outcome<CalendarRow>> Coordinated(
        Act act,
        CalendarId id,
        int? version,
        Func<CalendarRow, Task<Outcome<CalendarRow>>> change,
        CancellationToken cancellationToken
    ) =>
        db.Write(
            act,
            async () =>
            {
                var standing = await db.StandingOf(act.Actor, id, cancellationToken);
                if (AccessRules.ToCoordinate(standing.Role).WhyNot("calendar", "Coordinate") is { } refusal)
                {
                    return refusal;
                }

                var row = await db.Calendars.SingleAsync(calendar => calendar.Id == id, cancellationToken);
                return version is null ? new Refusal.VersionNeeded()
                    : version != row.Version ? new Outcome<CalendarRow>.Stale(row)
                    : await change(row);
            },
            cancellationToken
        );
}
