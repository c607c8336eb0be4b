using Mortar.Core.Access;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Calendars;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Reading;

/// <summary>Of when a reading is, and by what it was seen: what was seen by other rules or on another clock is not put together with it.</summary>
/// <param name="Log">The newest entry of the log that is in it.</param>
/// <param name="Sight">Names the reading of what its person may see.</param>
/// <param name="Zone">The clock.</param>
public readonly record struct WindowVersion(long Log, Guid Sight, string Zone);

/// <summary>What somebody may read, whose clock it is told on, and the log up to which that is known.</summary>
public sealed record WindowSight(Sight Sight, DateTimeZone Zone, TailState Tail)
{
    /// <summary>All calendars that they see.</summary>
    public IReadOnlySet<CalendarId> Calendars => Sight.All;

    public Window Days(LocalDate first, LocalDate last) => new(first, last, Zone);

    /// <summary>What a wall that is read now is to be put together with later; told to nobody as it is.</summary>
    public WindowVersion Version => new(Tail.Version, Sight.Stamp, Zone.Id);

    /// <summary>What changed since a wall that they were told; <c>null</c> where that cannot be put together with this.</summary>
    public ArraySegment<TailEntry>? Since(WindowVersion? told) =>
        told is { } known && known with { Log = Tail.Version } == Version ? Tail.Since(known.Log) : null;
}

/// <summary>Reads the calendars, events and answers of some days, for one person as they see them or for Core alone; wall, ribbon, search, clashes and people's times all ask it.</summary>
public sealed class WindowReader(
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
    public async Task<WindowSight> See(PersonId person, CancellationToken cancellationToken)
    {
        var tail = await log.Now(cancellationToken);
        return new WindowSight(
            await sights.Of(db, tail, person, cancellationToken),
            clock.Zone(await people.ZoneOf(db, person, cancellationToken)),
            tail
        );
    }

    public async Task<WindowReading> Read(
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
    public async Task<WindowReading> ReadAs(
        PersonId whose,
        PersonId coordinator,
        LocalDate from,
        LocalDate to,
        CancellationToken cancellationToken
    )
    {
        var seen = new WindowSight(
            await db.SightAsSeenBy(coordinator, whose, cancellationToken),
            clock.Zone(await people.ZoneOf(db, coordinator, cancellationToken)),
            await log.Now(cancellationToken)
        );
        return await Read(seen, seen.Days(from, to), _ => true, cancellationToken);
    }

    /// <summary>The calendars of a group that is at rest, which are on no wall of their own.</summary>
    public async Task<WindowReading> ReadAtRest(
        PersonId person,
        GroupId group,
        LocalDate from,
        LocalDate to,
        CancellationToken cancellationToken
    )
    {
        var seen = new WindowSight(
            await db.SightAtRest(person, group, cancellationToken),
            clock.Zone(await people.ZoneOf(db, person, cancellationToken)),
            await log.Now(cancellationToken)
        );
        return await Read(seen, seen.Days(from, to), _ => true, cancellationToken);
    }

    /// <summary>Reads some of the calendars that somebody sees.</summary>
    public async Task<WindowReading> Read(
        WindowSight seen,
        Window window,
        Func<CalendarId, bool> isWanted,
        CancellationToken cancellationToken
    ) => await Read(seen, window, [window.Span], isWanted, cancellationToken);

    /// <summary>Reads of some of the calendars what can touch some stretches of a window.</summary>
    public async Task<WindowReading> Read(
        WindowSight seen,
        Window window,
        IReadOnlyCollection<Interval> stretches,
        Func<CalendarId, bool> isWanted,
        CancellationToken cancellationToken
    )
    {
        var wanted = seen.Sight.Calendars.Where(calendar => isWanted(calendar.Row.Id)).ToList();
        var all = await events.Touching(wanted.ConvertAll(calendar => calendar.Row.Id), stretches, cancellationToken);
        return new WindowReading(
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

    /// <summary>Some calendars, whole.</summary>
    public async Task<IReadOnlyList<WholeCalendar>> ReadWhole(
        IReadOnlyCollection<CalendarRow> rows,
        Window window,
        CancellationToken cancellationToken
    )
    {
        await log.Now(cancellationToken);
        var all = await events.Touching([.. rows.Select(row => row.Id)], window, cancellationToken);
        return [.. rows.Select(row => new WholeCalendar(row, [.. all[row.Id]]))];
    }
}
