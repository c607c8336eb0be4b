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

/// <summary>Up to where a calendar is known.</summary>
/// <param name="Log">The newest change of its events; 0 for none.</param>
/// <param name="Mark">What stands for that.</param>
/// <param name="Own">The newest of the alarms that one person set on them; 0 for none.</param>
/// <param name="Names">The last time anybody was called otherwise; 0 for never.</param>
public sealed record NewestOf(long Log, string Mark, long Own, long Names);

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

    /// <summary>Its translation is looked for once: it is asked more often than anything else.</summary>
    private static readonly Func<MortarDb, PersonId, CalendarId, CancellationToken, Task<Found>> NewestIn =
        EF.CompileAsyncQuery(
            (MortarDb db, PersonId person, CalendarId calendar, CancellationToken stop) =>
                // The newest is the first to be looked at; the largest of all would be looked for among all.
                db
                    .Calendars.Where(row => row.Id == calendar)
                    .Select(row => new Found(
                        db.Changes.Where(change =>
                                change.CalendarId == calendar
                                && (change.Subject == Subject.Event || change.Subject == Subject.Answer)
                            )
                            .OrderByDescending(change => change.Sequence)
                            .Select(change => (long?)change.Sequence)
                            .FirstOrDefault(),
                        db.Changes.Where(change =>
                                change.CalendarId == calendar
                                && (change.Subject == Subject.Event || change.Subject == Subject.Answer)
                            )
                            .OrderByDescending(change => change.Sequence)
                            .Select(change => (ChangeSetId?)change.Set)
                            .FirstOrDefault(),
                        db.LeftCalendars.Where(left => left.CalendarId == calendar)
                            .OrderByDescending(left => left.Sequence)
                            .Select(left => (long?)left.Sequence)
                            .FirstOrDefault(),
                        db.OwnAlarms.Where(alarms =>
                                alarms.PersonId == person
                                && db.Events.Any(whole => whole.Id == alarms.EventId && whole.CalendarId == calendar)
                            )
                            .Max(alarms => (long?)alarms.Stamp),
                        db.People.Max(one => (long?)one.Renamed)
                    ))
                    .Single()
        );

    private sealed record Found(long? Here, ChangeSetId? Mark, long? Left, long? Own, long? Names);

    /// <summary>Up to where a calendar's events are known, and the alarms that somebody set on them, in one question: programs ask it each minute.</summary>
    public static async Task<NewestOf> Newest(
        this MortarDb db,
        PersonId person,
        CalendarId calendar,
        CancellationToken cancellationToken
    )
    {
        var found = await NewestIn(db, person, calendar, cancellationToken);
        var (here, left) = (found.Here ?? 0, found.Left ?? 0);
        return new NewestOf(
            Math.Max(left, here),
            left > here ? await db.MarkOf(left, cancellationToken) ?? string.Empty
                : found.Mark is { } set ? MarkOf(set)
                : string.Empty,
            found.Own ?? 0,
            found.Names ?? 0
        );
    }

    /// <summary>What stands for a change, so that one of another store is not taken for it; <c>null</c> where it is not kept any more.</summary>
    public static async Task<string?> MarkOf(this MortarDb db, long sequence, CancellationToken cancellationToken) =>
        sequence == 0 ? string.Empty
        : await db
            .Changes.Where(change => change.Sequence == sequence)
            .Select(change => (ChangeSetId?)change.Set)
            .FirstOrDefaultAsync(cancellationToken)
            is { } set
            ? MarkOf(set)
        : null;

    private static string MarkOf(ChangeSetId set) => set.Value.ToString("N")[..12];

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

    /// <summary>Those who were called otherwise since then.</summary>
    public static async Task<IReadOnlySet<PersonId>> RenamedSince(
        this MortarDb db,
        long names,
        CancellationToken cancellationToken
    ) => await db.People.Where(one => one.Renamed > names).Select(one => one.Id).ToHashSetAsync(cancellationToken);

    /// <summary>
    /// The events of a calendar on which some people can be named, and possibly more; looked for in what is stored, since anybody
    /// can be called otherwise all day, and every device asks about every calendar.
    /// </summary>
    public static async Task<IReadOnlyList<EventId>> PossiblyNaming(
        this MortarDb db,
        IReadOnlySet<PersonId> people,
        CalendarId calendar,
        CancellationToken cancellationToken
    )
    {
        var ids = people.Select(person => person.Value.ToString("N")).ToList();
        return await db
            .Events.Where(row =>
                row.CalendarId == calendar
                && row.DeletedAt == null
                && (
                    people.Contains(row.AddedBy)
                    || ids.Any(id => row.Attendees!.Contains(id) || row.Series!.Contains(id))
                )
            )
            .Select(row => row.Id)
            .ToListAsync(cancellationToken);
    }

    private static IQueryable<ChangeRow> OfEvents(MortarDb db, CalendarId calendar) =>
        db.Changes.Where(change =>
            change.CalendarId == calendar && (change.Subject == Subject.Event || change.Subject == Subject.Answer)
        );
}
