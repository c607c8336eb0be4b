using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Mortar.Core.Access;
using Mortar.Core.Availability;
using Mortar.Core.Changes;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Reading;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;

namespace Mortar.Server.Features.Wall;

/// <summary>GET /api/wall/changes: what is other on one's wall than at a version, so that an open screen asks for no more than that.</summary>
internal static class ReadWallChanges
{
    /// <summary>From so many changes on the whole wall is the shorter answer.</summary>
    private const int Most = 200;

    /// <param name="Version">Of when it is now, sealed.</param>
    /// <param name="Whole">Whether that cannot be told, and the whole wall has to be asked for.</param>
    /// <param name="Events">The events whose bricks, and clashes with them in, these take the place of.</param>
    /// <param name="Busy">The calendars whose busy times these take the place of.</param>
    internal sealed record Body(
        string Version,
        bool Whole,
        IReadOnlyList<Guid> Events,
        IReadOnlyList<Guid> Busy,
        IReadOnlyList<BrickBody> Bricks,
        IReadOnlyList<BrickTexts> Texts,
        IReadOnlyList<WallSetup.ClashBody> Clashes
    )
    {
        public static Body Nothing(string version) => new(version, Whole: false, [], [], [], [], []);

        public static Body All(string version) => Nothing(version) with { Whole = true };
    }

    public static void Map(RouteGroupBuilder api) =>
        api.MapGet("/wall/changes", Handle).WithName(nameof(ReadWallChanges));

    /// <param name="since">The version of the wall that is known.</param>
    private static async Task<Results<Ok<Body>, ProblemHttpResult>> Handle(
        [FromQuery] DateQuery from,
        [FromQuery] DateQuery to,
        [FromQuery] string since,
        Acting acting,
        WallReader wall,
        KeptClashes kept,
        WallSeal seal,
        ZoneClock clock,
        CancellationToken cancellationToken
    )
    {
        if (Ranges.WhyNot(from.Value, to.Value) is { } refusal)
        {
            return refusal;
        }

        var seen = await wall.See(acting.Person, cancellationToken);
        var version = seal.Close(seen.Version);
        if (seen.Since(seal.Open(since)) is not { } entries)
        {
            return TypedResults.Ok(Body.All(version));
        }

        var window = seen.Days(from.Value, to.Value);
        var touching = entries.Where(entry => entry.Touches(seen.Sight.Has, [window.Span])).ToList();
        return touching switch
        {
            [] => TypedResults.Ok(Body.Nothing(version)),
            { Count: > Most } => TypedResults.Ok(Body.All(version)),
            // What is fine is named by what collided, and that is nowhere else any more.
            _ when touching.Exists(entry => entry.Subject is Subject.FineClash) => TypedResults.Ok(Body.All(version)),
            _ => TypedResults.Ok(await Of(touching, seen, version, window, wall, kept, clock, cancellationToken)),
        };
    }

    private static async Task<Body> Of(
        List<TailEntry> touching,
        WallSight seen,
        string version,
        Window window,
        WallReader wall,
        KeptClashes kept,
        ZoneClock clock,
        CancellationToken cancellationToken
    )
    {
        var (sight, person) = (seen.Sight, seen.Sight.Person);
        var (changed, busy) = Changed(touching, sight);
        if (touching.Exists(entry => entry.Answered is not null))
        {
            // What was answered is as it was, and takes others.
            var answered = touching.Select(entry => entry.Answered).OfType<EventId>().ToHashSet();
            var there = await wall.Read(seen, window, _ => true, cancellationToken);
            foreach (
                var one in there.Calendars.SelectMany(calendar =>
                    calendar.Events.Where(one =>
                        answered.Contains(one.Event.Id) && VisibleEvent.SeesEverything(calendar.Role, person, one.Event)
                    )
                )
            )
            {
                changed.TryAdd(one.Event.Id, one.Event);
            }
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
                return Body.All(version);
            }

            foreach (var clash in found.Told)
            {
                clashes[(clash.First.Id, clash.Second.Id)] = clash;
            }
        }

        return new Body(
            version,
            Whole: false,
            [.. changed.Keys.Select(id => id.Value)],
            [.. busy.Select(id => id.Value)],
            bricks,
            table.Texts,
            [.. clashes.Values.SelectMany(WallSetup.Of)]
        );
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
