using Mortar.Core.Access;
using Mortar.Core.Availability;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Calendars;
using Mortar.Data.Reading;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Server.Features.Wall;

/// <summary>One calendar as it lies on a wall, with the events that can touch the window; where the role is none, those given by themselves.</summary>
internal sealed record ReadCalendar(CalendarRow Row, Role Role, IReadOnlyList<KeptEvent> Events);

/// <summary>What somebody may read, whose clock it is told on, and the log up to which that is known.</summary>
internal sealed record WallSight(Sight Sight, DateTimeZone Zone, TailState Tail)
{
    /// <summary>All calendars that they see.</summary>
    public IReadOnlySet<CalendarId> Calendars => Sight.All;

    public Window Days(LocalDate first, LocalDate last) => new(first, last, Zone);

    /// <summary>What a wall that is read now is to be put together with later; sealed by <see cref="WallSeal"/>.</summary>
    public WallVersion Version => new(Tail.Version, Sight.Stamp, Zone.Id);

    /// <summary>What changed since a wall that they were told; <c>null</c> where that cannot be put together with this.</summary>
    public ArraySegment<TailEntry>? Since(WallVersion? told) =>
        told is { } known && known with { Log = Tail.Version } == Version ? Tail.Since(known.Log) : null;
}

/// <summary>What was read for a wall.</summary>
/// <param name="Sight">What its person may read.</param>
/// <param name="Window">The days, on the person's clock.</param>
/// <param name="Calendars">All calendars the person reaches, hidden layers too, and those of events given to them by themselves.</param>
/// <param name="Fine">The keys of clashes that somebody marked as fine.</param>
/// <param name="IsAlikeForAll">Whether all who see these calendars by the same steps see the same.</param>
internal sealed record WallReading(
    Sight Sight,
    Window Window,
    IReadOnlyList<ReadCalendar> Calendars,
    IReadOnlySet<string> Fine,
    bool IsAlikeForAll,
    ZoneClock Clock
)
{
    /// <summary>Whose wall.</summary>
    public PersonId Person => Sight.Person;

    /// <summary>The person's step on a calendar.</summary>
    public Role RoleOn(CalendarId calendar) => Sight.RoleOn(calendar);

    /// <summary>A calendar as the person sees it.</summary>
    public IEnumerable<VisibleEvent> Visible(ReadCalendar calendar) =>
        VisibleEvent.Through(
            calendar.Role,
            Person,
            calendar.Events.SelectMany(one => one.Event.Shown(Window, Clock)),
            Window
        );

    /// <summary>What collides and is not marked as fine, made only of events that the person sees with everything on them.</summary>
    /// <param name="whose">Whose to resolve they are to be; <c>null</c> for all.</param>
    /// <param name="about">The events of which one has to be in it; <c>null</c> for any.</param>
    public ClashesFound Clashes(ClashesOf? whose = null, IReadOnlySet<EventId>? about = null) =>
        Core
            .Availability.Clashes.Among(
                TakenTimes.In(
                    Calendars.Select(calendar => new CountedCalendar(
                        calendar.Row.Id,
                        calendar.Row.Purpose,
                        calendar.Row.Takes,
                        calendar.Row.Takes == WhoseTime.Group ? [.. Sight.Members[calendar.Row.GroupId]] : [],
                        [
                            .. calendar
                                .Events.Where(one =>
                                    TakenTimes.CanTake(calendar.Row.Purpose, calendar.Row.Takes, one.Event)
                                )
                                .Where(one => VisibleEvent.SeesEverything(calendar.Role, Person, one.Event))
                                .Select(one =>
                                    CountedEvent.Of(VisibleEvent.WithNamesSeen(calendar.Role, Person, one.Event)) with
                                    {
                                        Answers = [.. one.Answers],
                                    }
                                ),
                        ]
                    )
                    {
                        Person = calendar.Row.Person,
                        Willing = Sight.Willing[calendar.Row.Id],
                    }),
                    Window,
                    new Dictionary<PersonId, DateTimeZone>(),
                    Clock
                ),
                whose,
                about
            )
            .Without(Fine);
}

/// <summary>Reads what lies on somebody's wall between two days; the rest is Core's.</summary>
internal sealed class WallReader(
    MortarDb db,
    ZoneClock clock,
    LogTail log,
    Sights sights,
    KeptPeople people,
    KeptEvents events,
    KeptFine fine
)
{
    /// <summary>What somebody may read now, and on whose clock.</summary>
    public async Task<WallSight> See(PersonId person, CancellationToken cancellationToken)
    {
        var tail = await log.Now(cancellationToken);
        return new WallSight(
            await sights.Of(db, tail, person, cancellationToken),
            clock.Zone(await people.ZoneOf(db, person, cancellationToken)),
            tail
        );
    }

    public async Task<WallReading> Read(
        PersonId person,
        LocalDate from,
        LocalDate to,
        CancellationToken cancellationToken
    )
    {
        var seen = await See(person, cancellationToken);
        return await Read(seen, seen.Days(from, to), _ => true, cancellationToken);
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
    )
    {
        var seen = new WallSight(
            await db.SightAsSeenBy(coordinator, whose, cancellationToken),
            clock.Zone(await people.ZoneOf(db, coordinator, cancellationToken)),
            await log.Now(cancellationToken)
        );
        return await Read(seen, seen.Days(from, to), _ => true, cancellationToken);
    }

    /// <summary>Reads some of the calendars that somebody sees.</summary>
    public async Task<WallReading> Read(
        WallSight seen,
        Window window,
        Func<CalendarId, bool> isWanted,
        CancellationToken cancellationToken
    ) => await Read(seen, window, [window.Span], isWanted, cancellationToken);

    /// <summary>Reads of some of the calendars what can touch some stretches of a window.</summary>
    public async Task<WallReading> Read(
        WallSight seen,
        Window window,
        IReadOnlyCollection<Interval> stretches,
        Func<CalendarId, bool> isWanted,
        CancellationToken cancellationToken
    )
    {
        var wanted = seen.Sight.Calendars.Where(calendar => isWanted(calendar.Row.Id)).ToList();
        var all = await events.Touching(wanted.ConvertAll(calendar => calendar.Row.Id), stretches, cancellationToken);
        return new WallReading(
            seen.Sight,
            window,
            wanted.ConvertAll(calendar => new ReadCalendar(
                calendar.Row,
                calendar.Role,
                [
                    .. calendar.Role == Role.None
                        ? all[calendar.Row.Id]
                            .Where(one => VisibleEvent.IsThere(Role.None, seen.Sight.Person, one.Event))
                        : all[calendar.Row.Id],
                ]
            )),
            await fine.In(db, window, cancellationToken),
            all.SelectMany(those => those).All(one => VisibleEvent.IsAlikeForAll(one.Event))
                && wanted.TrueForAll(calendar => calendar.Role > Role.None),
            clock
        );
    }
}
