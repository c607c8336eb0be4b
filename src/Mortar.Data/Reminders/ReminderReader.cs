using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Answers;
using Mortar.Core.Events;
using Mortar.Core.Preferences;
using Mortar.Core.Reminders;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Events;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Reminders;

/// <summary>That somebody is to be reminded of something.</summary>
/// <param name="Start">When it begins.</param>
/// <param name="Seen">What they see of it.</param>
public sealed record DueReminder(PersonId Person, Instant DueAt, Instant Start, VisibleEvent.Shown Seen);

/// <summary>Works out who is to be reminded of what.</summary>
/// <remarks>
/// Looked at are only events that carry a reminder, by an index of their own, and the calendars of those who chose to
/// be reminded of everything in them; of both only what can be due in the stretch.
/// </remarks>
public sealed class ReminderReader(MortarDb db, ZoneClock zones)
{
    private sealed record Reader(
        DateTimeZone Zone,
        PersonPreferences Preferences,
        IReadOnlyDictionary<CalendarId, Standing> Standings
    );

    private readonly Dictionary<PersonId, Reader> readers = [];

    /// <summary>What is due after one instant and up to another, by when it is due; given already or not.</summary>
    public async Task<IReadOnlyList<DueReminder>> Due(Instant after, Instant upTo, CancellationToken cancellationToken)
    {
        var own = await db
            .Layers.AsNoTracking()
            .Where(layer => layer.Reminder != null)
            .ToDictionaryAsync(layer => (layer.CalendarId, layer.PersonId), cancellationToken);
        var byCalendar = own.Keys.ToLookup(key => key.CalendarId, key => key.PersonId);
        var chosen = own.Values.Where(layer => layer.ToReminder() is CalendarReminder.Before).ToList();
        var chosenFurthest = chosen.Max(layer => layer.Reminder) ?? 0;
        var said = await db
            .Events.Where(row =>
                row.LongestReminder != null
                && row.DeletedAt == null
                && db.Calendars.Any(calendar => calendar.Id == row.CalendarId && calendar.DeletedAt == null)
            )
            .Touching(Around(EventRules.LongestReminder))
            .ToListAsync(cancellationToken);
        var everything = await db.RowsTouching(
                [.. chosen.Select(layer => layer.CalendarId).Distinct()],
                Around(chosenFurthest)
            )
            .ToListAsync(cancellationToken);
        var due = new List<DueReminder>();
        foreach (var row in said.Concat(everything).DistinctBy(row => row.Id))
        {
            var whole = row.ToCore();
            // Asked for what can be due now, for each time before that somebody is reminded at, and not for all that lies ahead.
            var minutesBefore = whole
                .Contents.Select(content => content.Reminder)
                .OfType<int>()
                .Concat(
                    chosen.Where(layer => layer.CalendarId == row.CalendarId).Select(layer => layer.Reminder!.Value)
                )
                .Distinct()
                .ToList();
            var dates = minutesBefore
                .SelectMany(minutes => whole.Shown(At(minutes), zones).Select(date => (Date: date, Minutes: minutes)))
                .ToList();
            if (dates.Count == 0)
            {
                continue;
            }

            var answers = await db
                .Answers.AsNoTracking()
                .Where(answer => answer.EventId == row.Id)
                .ToListAsync(cancellationToken);
            var given = answers.ConvertAll(answer => answer.ToCore());
            foreach (var (date, minutesMeant) in dates)
            {
                var people = date.Content.Attendees.Append(whole.AddedBy).Concat(byCalendar[row.CalendarId]).Distinct();
                foreach (var person in people)
                {
                    var choice = own.TryGetValue((row.CalendarId, person), out var layer)
                        ? layer.ToReminder()
                        : new CalendarReminder.AsEventsSay();
                    var answer = AnswerRules.Of(person, given, date, zones).Answer;
                    if (
                        ReminderRules.MinutesFor(person, date, choice, answer) is { } minutes
                        && minutes == minutesMeant
                        && await Seen(person, date, minutes, cancellationToken) is { } one
                        && one.DueAt > after
                        && one.DueAt <= upTo
                    )
                    {
                        due.Add(one);
                    }
                }
            }
        }

        return [.. due.OrderBy(one => one.DueAt)];

        // A day more on both sides: days begin at other instants elsewhere.
        Window At(int minutes) =>
            new(
                (after + Duration.FromMinutes(minutes)).InUtc().Date.PlusDays(-1),
                (upTo + Duration.FromMinutes(minutes)).InUtc().Date.PlusDays(1),
                DateTimeZone.Utc
            );

        Window Around(int minutes) =>
            new(
                after.InUtc().Date.PlusDays(-1),
                (upTo + Duration.FromMinutes(minutes)).InUtc().Date.PlusDays(1),
                DateTimeZone.Utc
            );
    }

    /// <summary>Of people with an account. What somebody sees is on their own clock, and so is when a day begins; <c>null</c> where they do not see it.</summary>
    private async Task<DueReminder?> Seen(
        PersonId person,
        Occurrence occurrence,
        int minutes,
        CancellationToken cancellationToken
    )
    {
        var reader = await ReaderOf(person, cancellationToken);
        if (reader is null)
        {
            return null;
        }

        var due = ReminderRules.DueAt(occurrence, minutes, reader.Zone, reader.Preferences.DayBegins);
        var role = reader.Standings.GetValueOrDefault(occurrence.Event.CalendarId, Standing.Outside).Role;
        var start = ReminderRules.StartFor(occurrence, reader.Zone, reader.Preferences.DayBegins);
        return VisibleEvent.Show(role, person, occurrence, reader.Zone) is { } shown
            ? new DueReminder(person, due, start, shown)
            : null;
    }

    private async Task<Reader?> ReaderOf(PersonId person, CancellationToken cancellationToken)
    {
        if (readers.TryGetValue(person, out var known))
        {
            return known;
        }

        if (
            await db
                .People.AsNoTracking()
                .FirstOrDefaultAsync(row => row.Id == person && row.Address != null, cancellationToken)
            is not { } row
        )
        {
            return null;
        }

        var reader = new Reader(
            zones.Zone(row.Zone),
            row.ToPreferences(),
            await db.StandingsOf(person, cancellationToken)
        );
        readers[person] = reader;
        return reader;
    }
}
