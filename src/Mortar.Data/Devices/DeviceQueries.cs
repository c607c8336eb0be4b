using Microsoft.EntityFrameworkCore;
using Mortar.Core.Changes;
using Mortar.Core.Words;
using Mortar.Data.Changes;
using Mortar.Data.Store;

namespace Mortar.Data.Devices;

/// <summary>An event that something became of, and how it was before the first of it.</summary>
/// <param name="Id">Which.</param>
/// <param name="Sequence">The last change of it that is counted.</param>
/// <param name="Before">Its state before in the calendar; <c>null</c> where it was not there.</param>
/// <param name="IsAnswered">Whether somebody answered to it.</param>
public sealed record ObjectChange(EventId Id, long Sequence, string? Before, bool IsAnswered);

/// <summary>Finds devices, and what became of the events of a calendar.</summary>
public static class DeviceQueries
{
    /// <summary>The device that a key opens; <c>null</c> for none, and for one that has ended.</summary>
    public static Task<DeviceRow?> DeviceByKey(this MortarDb db, string key, CancellationToken cancellationToken)
    {
        var hash = DeviceKey.HashOf(key);
        return db
            .Devices.AsNoTracking()
            .FirstOrDefaultAsync(row => row.Hash == hash && row.EndedAt == null, cancellationToken);
    }

    /// <summary>The newest change of a calendar's events; 0 for none.</summary>
    public static async Task<long> NewestChange(
        this MortarDb db,
        CalendarId calendar,
        CancellationToken cancellationToken
    )
    {
        // The newest is the first to be looked at; the largest of all would be looked for among all.
        var here = await OfEvents(db, calendar)
            .OrderByDescending(change => change.Sequence)
            .Select(change => change.Sequence)
            .FirstOrDefaultAsync(cancellationToken);
        var left =
            await db
                .LeftCalendars.Where(row => row.CalendarId == calendar)
                .MaxAsync(row => (long?)row.Sequence, cancellationToken)
            ?? 0;
        return Math.Max(here, left);
    }

    /// <summary>What stands for a change, so that one of another store is not taken for it; <c>null</c> where it is not kept any more.</summary>
    public static async Task<string?> MarkOf(this MortarDb db, long sequence, CancellationToken cancellationToken) =>
        sequence == 0 ? string.Empty
        : await db
            .Changes.Where(change => change.Sequence == sequence)
            .Select(change => (ChangeSetId?)change.Set)
            .FirstOrDefaultAsync(cancellationToken)
            is { } set
            ? set.Value.ToString("N")[..12]
        : null;

    /// <summary>What became of a calendar's events since a change, each event once, by the last change of it.</summary>
    public static async Task<IReadOnlyList<ObjectChange>> ChangesSince(
        this MortarDb db,
        CalendarId calendar,
        long sequence,
        CancellationToken cancellationToken
    )
    {
        var here = await OfEvents(db, calendar)
            .Where(change => change.Sequence > sequence)
            .Select(change => new
            {
                change.Sequence,
                change.Subject,
                change.SubjectId,
            })
            .ToListAsync(cancellationToken);
        var left = await db
            .LeftCalendars.Where(row => row.CalendarId == calendar && row.Sequence > sequence)
            .Select(row => new { row.EventId, row.Sequence })
            .ToListAsync(cancellationToken);
        var answers = here.Where(change => change.Subject == Subject.Answer)
            .Select(change => change.SubjectId)
            .Distinct()
            .ToList();
        var answered = await db
            .Answers.Where(row => answers.Contains(row.Id))
            .Select(row => new { row.Id, row.EventId })
            .ToDictionaryAsync(row => row.Id, row => row.EventId, cancellationToken);
        var changed = here.Where(change => change.Subject == Subject.Event || answered.ContainsKey(change.SubjectId))
            .Select(change =>
                (
                    Id: change.Subject == Subject.Event ? new EventId(change.SubjectId) : answered[change.SubjectId],
                    change.Sequence,
                    IsAnswer: change.Subject == Subject.Answer
                )
            )
            .Concat(left.Select(row => (Id: row.EventId, row.Sequence, IsAnswer: false)))
            .GroupBy(change => change.Id)
            .Select(same =>
                (
                    Id: same.Key,
                    Last: same.Max(change => change.Sequence),
                    First: same.Where(change => !change.IsAnswer)
                        .Select(change => change.Sequence)
                        .DefaultIfEmpty()
                        .Min(),
                    IsAnswered: same.Any(change => change.IsAnswer)
                )
            )
            .OrderBy(change => change.Last)
            .ToList();
        var firsts = changed.Where(change => change.First > 0).Select(change => change.First).ToList();
        var states = (
            await db
                .Changes.Where(change => firsts.Contains(change.Sequence))
                .Select(change => new { change.Sequence, change.Before })
                .ToListAsync(cancellationToken)
        ).ToDictionary(change => change.Sequence, change => change.Before);
        return
        [
            .. changed.Select(change => new ObjectChange(
                change.Id,
                change.Last,
                states.GetValueOrDefault(change.First),
                change.IsAnswered
            )),
        ];
    }

    /// <summary>The newest of the alarms that somebody set on events of a calendar; 0 for none.</summary>
    public static async Task<long> NewestAlarms(
        this MortarDb db,
        PersonId person,
        CalendarId calendar,
        CancellationToken cancellationToken
    ) =>
        await (
            from alarms in db.OwnAlarms
            join whole in db.Events on alarms.EventId equals whole.Id
            where alarms.PersonId == person && whole.CalendarId == calendar
            select (long?)alarms.Stamp
        ).MaxAsync(cancellationToken) ?? 0;

    /// <summary>The events of a calendar on which somebody set alarms since then.</summary>
    public static async Task<IReadOnlyList<EventId>> AlarmsSince(
        this MortarDb db,
        PersonId person,
        CalendarId calendar,
        long stamp,
        CancellationToken cancellationToken
    ) =>
        await (
            from alarms in db.OwnAlarms
            join whole in db.Events on alarms.EventId equals whole.Id
            where alarms.PersonId == person && whole.CalendarId == calendar && alarms.Stamp > stamp
            select alarms.EventId
        ).ToListAsync(cancellationToken);

    private static IQueryable<ChangeRow> OfEvents(MortarDb db, CalendarId calendar) =>
        db.Changes.Where(change =>
            change.CalendarId == calendar && (change.Subject == Subject.Event || change.Subject == Subject.Answer)
        );
}
