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

/// <summary>Works out who is to be reminded of what.</summary>
/// <remarks>
/// Looked at are only events that carry a reminder, by an index of their own, and the calendars of those who chose to
/// be reminded of everything in them; of both only what can be due in the stretch.
/// </remarks>
public sealed class ReminderReader(MortarDb db, ZoneClock zones)
{
    /// <summary>Somebody who may be reminded.</summary>
    private sealed record Remembered(DateTimeZone Zone, PersonPreferences Preferences, Func<CalendarId, Role> RoleOn);

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
        var dates = new List<(Occurrence Date, int Minutes)>();
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
                .Distinct();
            dates.AddRange(
                minutesBefore.SelectMany(minutes =>
                    whole.Shown(At(minutes), zones).Select(date => (Date: date, Minutes: minutes))
                )
            );
        }

        if (dates.Count == 0)
        {
            return [];
        }

        var events = dates.Select(one => one.Date.Event.Id).Distinct().ToList();
        var answers = (
            await db
                .Answers.AsNoTracking()
                .Where(answer => events.Contains(answer.EventId))
                .ToListAsync(cancellationToken)
        ).ToLookup(answer => answer.EventId, answer => answer.ToCore());
        var wanted = (
            from one in dates
            let whole = one.Date.Event
            from person in one
                .Date.Content.Attendees.Append(whole.AddedBy)
                .Concat(byCalendar[whole.CalendarId])
                .Distinct()
            let choice = own.TryGetValue((whole.CalendarId, person), out var layer)
                ? layer.ToReminder()
                : new CalendarReminder.AsEventsSay()
            let answer = AnswerRules.Of(person, [.. answers[whole.Id]], one.Date, zones).Answer
            where ReminderRules.MinutesFor(person, one.Date, choice, answer) == one.Minutes
            select (Person: person, one.Date, one.Minutes)
        ).ToList();
        var readers = await Readers([.. wanted.Select(one => one.Person).Distinct()], cancellationToken);
        return
        [
            .. wanted
                .Where(one => readers.ContainsKey(one.Person))
                .Select(one => Seen(one.Person, readers[one.Person], one.Date, one.Minutes))
                .OfType<DueReminder>()
                .Where(one => one.DueAt > after && one.DueAt <= upTo)
                .OrderBy(one => one.DueAt),
        ];

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

    /// <summary>What somebody sees is on their own clock, and so is when a day begins; <c>null</c> where they do not see it.</summary>
    private static DueReminder? Seen(PersonId person, Remembered reader, Occurrence occurrence, int minutes)
    {
        var due = ReminderRules.DueAt(occurrence, minutes, reader.Zone, reader.Preferences.DayBegins);
        var start = ReminderRules.StartFor(occurrence, reader.Zone, reader.Preferences.DayBegins);
        return
            VisibleEvent.Show(reader.RoleOn(occurrence.Event.CalendarId), person, occurrence, reader.Zone) is { } shown
            ? new DueReminder(person, due, start, shown)
            : null;
    }

    /// <summary>Those of some people who have an account.</summary>
    private async Task<Dictionary<PersonId, Remembered>> Readers(
        List<PersonId> people,
        CancellationToken cancellationToken
    )
    {
        var rows = await db
            .People.AsNoTracking()
            .Where(row => people.Contains(row.Id) && row.Address != null)
            .ToListAsync(cancellationToken);
        var standings = await db.StandingsOf(rows.ConvertAll(row => row.Id), cancellationToken);
        return rows.ToDictionary(
            row => row.Id,
            row => new Remembered(
                zones.Zone(row.Zone),
                row.ToPreferences(),
                calendar => standings.GetValueOrDefault((calendar, row.Id), Standing.Outside).Role
            )
        );
    }
}
