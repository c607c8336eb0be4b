using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Availability;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Availability;
using Mortar.Data.Calendars;
using Mortar.Data.Events;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Server.Features.Wall;

/// <summary>One calendar as it lies on a wall, with the events that can touch the window; where the role is none, those given by themselves.</summary>
internal sealed record ReadCalendar(CalendarRow Row, Role Role, IReadOnlyList<Event> Events);

/// <summary>What was read for a wall.</summary>
/// <param name="Person">Whose wall.</param>
/// <param name="Window">The days, on the person's clock.</param>
/// <param name="Calendars">All calendars the person reaches, hidden layers too, and those of events given to them by themselves.</param>
/// <param name="Members">Who is in those groups that the person is in.</param>
/// <param name="Answers">What people answered to the events.</param>
/// <param name="Willing">Whose time each calendar may take.</param>
/// <param name="Fine">The keys of clashes that somebody marked as fine.</param>
internal sealed record WallReading(
    PersonId Person,
    Window Window,
    IReadOnlyList<ReadCalendar> Calendars,
    ILookup<GroupId, PersonId> Members,
    IReadOnlySet<string> Fine,
    ILookup<EventId, GivenAnswer> Answers,
    IReadOnlyDictionary<CalendarId, Willing> Willing,
    ZoneClock Clock
)
{
    /// <summary>The person's step on a calendar.</summary>
    public Role RoleOn(CalendarId calendar) =>
        Calendars.FirstOrDefault(one => one.Row.Id == calendar)?.Role ?? Role.None;

    /// <summary>The occurrences of a calendar that touch the window.</summary>
    public IEnumerable<Occurrence> Occurrences(ReadCalendar calendar) =>
        calendar.Events.SelectMany(one => one.Shown(Window, Clock));

    /// <summary>A calendar as the person sees it.</summary>
    public IEnumerable<VisibleEvent> Visible(ReadCalendar calendar) =>
        VisibleEvent.Through(calendar.Role, Person, Occurrences(calendar), Window);

    /// <summary>What collides and is not marked as fine, made only of events that the person sees with everything on them.</summary>
    public ClashesFound Clashes(ClashesOf? whose = null) =>
        Core
            .Availability.Clashes.Among(
                Claims.In(
                    Calendars.Select(calendar => new CountedCalendar(
                        calendar.Row.Id,
                        calendar.Row.Purpose,
                        calendar.Row.Takes,
                        [.. Members[calendar.Row.GroupId]],
                        [
                            .. calendar
                                .Events.Where(one => VisibleEvent.SeesEverything(calendar.Role, Person, one))
                                .Select(one => VisibleEvent.WithNamesSeen(calendar.Role, Person, one))
                                .Select(one => CountedEvent.Of(one) with { Answers = [.. Answers[one.Id]] }),
                        ]
                    )
                    {
                        Person = calendar.Row.Person,
                        Willing = Willing[calendar.Row.Id],
                    }),
                    Window,
                    new Dictionary<PersonId, DateTimeZone>(),
                    Clock
                ),
                whose
            )
            .Without(Fine);
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
        var zone = await db.ZoneOf(person, clock, cancellationToken);
        return await Read(
            person,
            new Window(from, to, zone),
            await db.StandingsOf(person, cancellationToken),
            await db.CalendarsGiving(person).ToListAsync(cancellationToken),
            alsoIn: person,
            cancellationToken
        );
    }

    /// <summary>
    /// A coordinator's calendars as somebody else sees them, by the same path as theirs but on the coordinator's own
    /// clock. What else is on that person's wall, how they lay it and where they live is theirs.
    /// </summary>
    public async Task<WallReading> ReadAs(
        PersonId whose,
        PersonId coordinator,
        LocalDate from,
        LocalDate to,
        CancellationToken cancellationToken
    ) =>
        await Read(
            whose,
            new Window(from, to, await db.ZoneOf(coordinator, clock, cancellationToken)),
            await db.StandingsAsSeenBy(coordinator, whose, cancellationToken),
            await db.CalendarsGivingAsSeenBy(coordinator, whose, cancellationToken),
            alsoIn: coordinator,
            cancellationToken
        );

    private async Task<WallReading> Read(
        PersonId person,
        Window window,
        IReadOnlyDictionary<CalendarId, Standing> standings,
        IReadOnlyCollection<CalendarId> giving,
        PersonId alsoIn,
        CancellationToken cancellationToken
    )
    {
        var ids = standings.Keys.ToList();
        var more = giving.Except(ids).ToList();
        var calendars = await db
            .Calendars.AsNoTracking()
            .Where(calendar => ids.Contains(calendar.Id) || more.Contains(calendar.Id))
            .ToListAsync(cancellationToken);

        // Who is in a group is known to its members only; whom else a clash takes is not told to others.
        // Through somebody's eyes as well: only of groups that both are in.
        var groups = db
            .Members.Where(mine => mine.PersonId == person)
            .Select(mine => mine.GroupId)
            .Where(group => db.Members.Any(other => other.GroupId == group && other.PersonId == alsoIn));
        var members = await db
            .Members.AsNoTracking()
            .Where(member => groups.Contains(member.GroupId))
            .ToListAsync(cancellationToken);
        var events = (await db.EventsTouching(ids, window, cancellationToken))
            .Concat(await db.EventsGiven(person, more, window, cancellationToken))
            .ToLookup(one => one.CalendarId);
        return new WallReading(
            person,
            window,
            [
                .. calendars.Select(calendar => new ReadCalendar(
                    calendar,
                    standings.GetValueOrDefault(calendar.Id, Standing.Outside).Role,
                    [.. events[calendar.Id]]
                )),
            ],
            members.ToLookup(member => member.GroupId, member => member.PersonId),
            await db.FineClashesIn(window, cancellationToken),
            await db.AnswersIn([.. ids, .. more], window, cancellationToken),
            await db.WillingIn(calendars, asking: null, cancellationToken),
            clock
        );
    }
}
