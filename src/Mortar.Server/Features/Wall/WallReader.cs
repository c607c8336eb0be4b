using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Availability;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Calendars;
using Mortar.Data.Events;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Server.Features.Wall;

/// <summary>One calendar as it lies on a wall, with the events that can touch the window.</summary>
internal sealed record ReadCalendar(CalendarRow Row, Role Role, IReadOnlyList<Event> Events);

/// <summary>What was read for a wall.</summary>
/// <param name="Person">Whose wall.</param>
/// <param name="Window">The days, on the person's clock.</param>
/// <param name="Calendars">All calendars the person reaches, hidden layers too.</param>
/// <param name="Members">Who is in those groups that the person is in.</param>
internal sealed record WallReading(
    PersonRow Person,
    Window Window,
    IReadOnlyList<ReadCalendar> Calendars,
    ILookup<GroupId, PersonId> Members,
    ZoneClock Clock
)
{
    /// <summary>The occurrences of a calendar that touch the window.</summary>
    public IEnumerable<Occurrence> Occurrences(ReadCalendar calendar) =>
        calendar.Events.SelectMany(one => one.Occurrences(Window, Clock).Take(SeriesExpansion.MostShown));

    /// <summary>A calendar as the person sees it.</summary>
    public IEnumerable<VisibleEvent> Visible(ReadCalendar calendar) =>
        VisibleEvent.Through(calendar.Role, Person.Id, Occurrences(calendar), Window);

    /// <summary>What collides, made only of events that the person sees with everything on them.</summary>
    public IReadOnlyList<Clash> Clashes() =>
        Core.Availability.Clashes.Among(
            Claims.In(
                Calendars.Select(calendar => new CountedCalendar(
                    calendar.Row.Id,
                    calendar.Row.Purpose,
                    calendar.Row.Takes,
                    [.. Members[calendar.Row.GroupId]],
                    [
                        .. calendar
                            .Events.Where(one => VisibleEvent.SeesEverything(calendar.Role, Person.Id, one))
                            .Select(CountedEvent.Of),
                    ]
                )
                {
                    Person = calendar.Row.Person,
                }),
                Window,
                new Dictionary<PersonId, DateTimeZone>(),
                Clock
            )
        );
}

/// <summary>Reads what lies on somebody's wall between two days; the rest is Core's.</summary>
internal sealed class WallReader(MortarDb db, ZoneClock clock)
{
    public async Task<WallReading> Read(
        PersonId person,
        LocalDate from,
        LocalDate to,
        CancellationToken cancellationToken
    )
    {
        var row = await db.People.AsNoTracking().SingleAsync(one => one.Id == person, cancellationToken);
        var window = new Window(from, to, clock.Zone(row.Zone));
        var standings = await db.StandingsOf(person, cancellationToken);
        var ids = standings.Keys.ToList();
        var calendars = await db
            .Calendars.AsNoTracking()
            .Where(calendar => ids.Contains(calendar.Id))
            .ToListAsync(cancellationToken);

        // Who is in a group is known to its members only; whom else a clash takes is not told to others.
        var groups = db.Members.Where(mine => mine.PersonId == person).Select(mine => mine.GroupId);
        var members = await db
            .Members.AsNoTracking()
            .Where(member => groups.Contains(member.GroupId))
            .ToListAsync(cancellationToken);
        var events = (await db.EventsTouching(ids, window, cancellationToken)).ToLookup(one => one.CalendarId);
        return new WallReading(
            row,
            window,
            [
                .. calendars.Select(calendar => new ReadCalendar(
                    calendar,
                    standings[calendar.Id].Role,
                    [.. events[calendar.Id]]
                )),
            ],
            members.ToLookup(member => member.GroupId, member => member.PersonId),
            clock
        );
    }
}
