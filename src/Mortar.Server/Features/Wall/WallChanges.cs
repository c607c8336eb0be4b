using Mortar.Core.Access;
using Mortar.Core.Availability;
using Mortar.Core.Changes;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Reading;
using Mortar.Server.Wire;

namespace Mortar.Server.Features.Wall;

/// <summary>Finds out what is other on a wall than it was.</summary>
internal sealed class WallChanges(WindowReader wall, KeptClashes kept, WallSeal seal, ZoneClock clock)
{
    /// <summary>From so many changes on the whole wall is the shorter answer.</summary>
    private const int Most = 200;

    /// <summary>What changed in a window since a wall that somebody was told, as far as it is for them.</summary>
    public async Task<ReadWallChanges.Body> Since(
        WindowVersion? told,
        WindowSight seen,
        Window window,
        CancellationToken cancellationToken
    )
    {
        var nothing = ReadWallChanges.Body.Nothing(seal.Close(seen.Version));
        if (seen.Since(told) is not { } entries)
        {
            return nothing with { Whole = true };
        }

        var (sight, person) = (seen.Sight, seen.Sight.Person);
        var touching = entries.Where(entry => entry.Touches(sight.Has, [window.Span])).ToList();
        var (changed, busy) = Changed(touching, sight);
        foreach (var one in await Answered(touching, seen, window, cancellationToken))
        {
            changed.TryAdd(one.Id, one);
        }

        // What is fine is named by what collided, and that is nowhere else any more.
        var isFine = touching.Exists(entry =>
            entry is { Subject: Subject.FineClash, CalendarId: { } calendar } && sight.RoleOn(calendar) >= Role.View
        );
        if (isFine || changed.Count + busy.Count > Most)
        {
            return nothing with { Whole = true };
        }

        if (changed.Count + busy.Count == 0)
        {
            return nothing;
        }

        var dates = changed
            .Values.OfType<Event>()
            .SelectMany(one => one.Shown(window, clock).Select(date => (Event: one, Date: date)))
            .ToList();
        var table = new BrickTable(window.Reader);
        var bricks = dates
            .Select(one =>
                VisibleEvent.Show(sight.RoleOn(one.Event.CalendarId), person, one.Date, window.Reader) is { } shown
                    ? table.Lay(shown)
                    : null
            )
            .OfType<BrickBody>()
            .ToList();
        if (busy.Count > 0)
        {
            var reading = await wall.Read(seen, window, busy.Contains, cancellationToken);
            bricks.AddRange(
                from calendar in reading.Calendars
                from visible in reading.Visible(calendar).OfType<VisibleEvent.Busy>()
                select table.Lay(calendar.Row.Id, visible)
            );
        }

        var clashes = new Dictionary<(EventId, EventId), Clash>();
        var layers = new SeenLayers(seen, seen.Calendars);
        foreach (var one in dates.GroupBy(one => one.Event.Id, one => one.Date.Span))
        {
            var found = await kept.With(wall, layers, window, one.Key, [.. one], cancellationToken);
            if (found.More > 0)
            {
                return nothing with { Whole = true };
            }

            foreach (var clash in found.Told)
            {
                clashes[(clash.First.Id, clash.Second.Id)] = clash;
            }
        }

        return nothing with
        {
            Events = [.. changed.Keys.Select(id => id.Value)],
            Busy = [.. busy.Select(id => id.Value)],
            Bricks = bricks,
            Texts = table.Texts,
            Clashes = [.. clashes.Values.SelectMany(WallSetup.Of)],
        };
    }

    /// <summary>The events that were answered, where the answers are for the reader: what was answered is as it was, and takes others.</summary>
    private async Task<IReadOnlyList<Event>> Answered(
        List<TailEntry> touching,
        WindowSight seen,
        Window window,
        CancellationToken cancellationToken
    )
    {
        var answered = touching.Select(entry => entry.Answered).OfType<EventId>().ToHashSet();
        if (answered.Count == 0)
        {
            return [];
        }

        var there = await wall.Read(seen, window, _ => true, cancellationToken);
        return
        [
            .. from calendar in there.Calendars
            from one in calendar.Events
            where
                answered.Contains(one.Event.Id)
                && VisibleEvent.SeesEverything(calendar.Role, seen.Sight.Person, one.Event)
            select one.Event,
        ];
    }

    /// <summary>The events to tell anew, as they are now, <c>null</c> where they are not there any more; and the calendars whose busy times are.</summary>
    private static (Dictionary<EventId, Event?> Events, HashSet<CalendarId> Busy) Changed(
        List<TailEntry> touching,
        Sight sight
    )
    {
        var (events, busy) = (new Dictionary<EventId, Event?>(), new HashSet<CalendarId>());
        foreach (var entry in touching)
        {
            foreach (var calendar in new[] { entry.Before, entry.After }.OfType<Event>().Select(one => one.CalendarId))
            {
                var (before, after) = (Here(entry.Before, calendar), Here(entry.After, calendar));
                var told = VisibleEvent.ToldAnew(sight.RoleOn(calendar), sight.Person, before, after);
                if (told.Event)
                {
                    events[(entry.After ?? entry.Before)!.Id] = null;
                }

                if (told.Busy)
                {
                    busy.Add(calendar);
                }
            }
        }

        // The last of what is told of an event holds.
        foreach (var entry in touching.Where(entry => entry.Subject is Subject.Event))
        {
            var id = (entry.After ?? entry.Before)?.Id;
            if (id is { } there && events.ContainsKey(there))
            {
                events[there] = entry.After;
            }
        }

        return (events, busy);

        static Event? Here(Event? whole, CalendarId calendar) => whole?.CalendarId == calendar ? whole : null;
    }
}
