using Microsoft.EntityFrameworkCore;
using Mortar.Core.Changes;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Changes;
using Mortar.Data.Kinds;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.History;

/// <summary>One thing somebody did about who has access.</summary>
/// <param name="Sequence">Its place in the log.</param>
/// <param name="CalendarId">The calendar; <c>null</c> for what was done about a group, by which its calendars reach people.</param>
/// <param name="Actor">The name of who did it.</param>
/// <param name="Sentence">What they did, to be read after the name.</param>
public sealed record AccessEntry(long Sequence, Instant At, CalendarId? CalendarId, string Actor, string Sentence);

/// <summary>Reads out of the change log who gave what to whom and when.</summary>
public sealed class AccessHistory(MortarDb db, ZoneClock zones)
{
    /// <summary>The most entries that are told at once, the latest first.</summary>
    public const int Most = 300;

    /// <summary>How many rows of the log are read at once, until there are entries enough.</summary>
    private const int ChunkSize = 500;

    private static readonly List<Subject> OfCalendars = ChangeKinds.Subjects(kind =>
        kind.InHistory == HistoryOf.Calendar
    );
    private static readonly List<Subject> OfGroups = ChangeKinds.Subjects(kind => kind.InHistory == HistoryOf.Group);

    /// <summary>Those of which the states alone tell whom they are about.</summary>
    private static readonly List<Subject> Unnamed = ChangeKinds.Subjects(kind => !kind.NamesWhom);

    /// <summary>
    /// The history of some calendars, which the reader coordinates, with who came into their groups and who sees for whom;
    /// of one person alone where one is named.
    /// </summary>
    public async Task<IReadOnlyList<AccessEntry>> Of(
        PersonId reader,
        IReadOnlyCollection<CalendarId> calendars,
        PersonId? person,
        CancellationToken cancellationToken
    )
    {
        var told = new List<AccessEntry>();
        var (before, isOver) = (long.MaxValue, false);
        while (told.Count < Most && !isOver)
        {
            var changes = await Chunk(reader, calendars, person, before).ToListAsync(cancellationToken);
            told.AddRange(await Entries(changes, calendars, person, cancellationToken));
            (before, isOver) = (changes.Count == 0 ? 0 : changes[^1].Sequence, changes.Count < ChunkSize);
        }

        return [.. told.Take(Most)];
    }

    /// <summary>The next rows of the log that can be told, the latest first.</summary>
    private IQueryable<ChangeRow> Chunk(
        PersonId reader,
        IReadOnlyCollection<CalendarId> calendars,
        PersonId? person,
        long before
    )
    {
        // Only of groups that the reader is in: who is in another is not theirs to know.
        var groups = db
            .Calendars.Where(row => calendars.Contains(row.Id))
            .Select(row => row.GroupId)
            .Where(group => db.Members.Any(member => member.GroupId == group && member.PersonId == reader));
        return db
            .Changes.AsNoTracking()
            .Where(change => change.Sequence < before)
            .Where(change =>
                (
                    change.CalendarId != null
                    && calendars.Contains(change.CalendarId.Value)
                    && OfCalendars.Contains(change.Subject)
                )
                || (
                    change.GroupId != null
                    && groups.Contains(change.GroupId.Value)
                    && OfGroups.Contains(change.Subject)
                    && change.After != null
                )
            )
            .Where(change => person == null || change.Concerns == person || Unnamed.Contains(change.Subject))
            .OrderByDescending(change => change.Sequence)
            .Take(ChunkSize);
    }

    private async Task<IReadOnlyList<AccessEntry>> Entries(
        List<ChangeRow> changes,
        IReadOnlyCollection<CalendarId> calendars,
        PersonId? person,
        CancellationToken cancellationToken
    )
    {
        var facts = await HistoryFacts.Of(db, zones, changes, calendars, cancellationToken);
        return
        [
            .. from change in changes
            let kind = change.Kind()
            where person is null || kind.About(change).Contains(person.Value)
            let sentence = kind.History(change, facts)
            where sentence is not null
            select new AccessEntry(change.Sequence, change.At, change.CalendarId, facts.NameOf(change.Actor), sentence),
        ];
    }
}
