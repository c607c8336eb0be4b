using System.Collections.Concurrent;
using NodaTime;
using NodaTime.TimeZones;

namespace Mortar.Core.Time;

/// <summary>Turns local times into instants and back, by one set of rules for gaps and repeats.</summary>
/// <param name="zones">The zone database; passed in so that a test can fix its version.</param>
public sealed class ZoneClock(IDateTimeZoneProvider zones)
{
    private const int MostRemembered = 1_000;

    private readonly ConcurrentDictionary<string, ZoneWalk> walks = new(StringComparer.Ordinal);

    /// <summary>
    /// RFC 5545, 3.3.5: a local time that occurs twice is the first of the two; one that does not exist is read with
    /// the offset before the gap, so that 02:30 in a spring gap of an hour is the instant shown as 03:30.
    /// </summary>
    private static readonly ZoneLocalMappingResolver Rfc5545 = Resolvers.CreateMappingResolver(
        Resolvers.ReturnEarlier,
        Resolvers.ReturnForwardShifted
    );

    /// <summary>Whether the database knows the zone.</summary>
    public bool Knows(string zone) => zones.GetZoneOrNull(zone) is not null;

    /// <summary>The zone of that name.</summary>
    /// <exception cref="DateTimeZoneNotFoundException">The database does not know it.</exception>
    public DateTimeZone Zone(string zone) => zones[zone];

    /// <summary>The same zone for walking in; shared by all who ask.</summary>
    internal ZoneWalk Walk(string zone)
    {
        if (walks.TryGetValue(zone, out var known))
        {
            return known;
        }

        // Files may define zones without end; what is forgotten is found again.
        if (walks.Count >= MostRemembered)
        {
            walks.Clear();
        }

        return walks[zone] = new ZoneWalk(Zone(zone));
    }

    /// <summary>The instant of a local time in a zone, by <see cref="Rfc5545"/>.</summary>
    public static Instant At(LocalDateTime local, DateTimeZone zone) => zone.ResolveLocal(local, Rfc5545).ToInstant();

    /// <summary>The stretch of real time that <paramref name="time"/> takes for a reader in <paramref name="reader"/>.</summary>
    /// <remarks>Start included, end excluded; may be empty for a moment. The reader's zone matters to whole days and floating times only.</remarks>
    public Interval Span(EventTime time, DateTimeZone reader)
    {
        var zone = time is EventTime.Timed timed ? Zone(timed.Zone) : reader;
        var start = At(time.LocalStart, zone);
        var end = At(time.LocalEnd, zone);

        // A gap can shift the start past an end that exists; such an event takes no time, but never less than none.
        return new Interval(start, Instant.Max(start, end));
    }

    /// <summary>Whether a stretch that has a length on the clock has none in the zone, because clocks skip its start.</summary>
    /// <example>01:30 to 02:30 in London on 29 March 2026: the start is the moment that is called 02:30.</example>
    public bool LosesItsHours(LocalDateTime start, LocalDateTime end, string zone) =>
        start < end && At(end, Zone(zone)) <= At(start, Zone(zone));

    /// <summary>What a clock in the zone shows at a local time: the same, or an hour on where it skips that.</summary>
    public LocalDateTime Resolved(LocalDateTime local, string zone) =>
        At(local, Zone(zone)).InZone(Zone(zone)).LocalDateTime;

    /// <summary>The same appointment as the reader's clock shows it: timed ones converted, whole days and floating ones as they are.</summary>
    public EventTime AsSeenIn(EventTime time, DateTimeZone reader) =>
        time is EventTime.Timed ? Shown(Span(time, reader), reader) : time;

    /// <summary>A stretch of real time as a clock in <paramref name="reader"/> shows it.</summary>
    public static EventTime Shown(Interval span, DateTimeZone reader)
    {
        var start = span.Start.InZone(reader).LocalDateTime;
        var end = span.End.InZone(reader).LocalDateTime;

        // Across the hour that is repeated in autumn a clock can show an end before the start.
        return EventTime.InZone(start, end < start ? start : end, reader.Id);
    }

    /// <summary>
    /// A time that was set on one clock, kept in the zone the event lives in: moving a Halifax appointment on a London
    /// wall leaves it a Halifax appointment. Whole days and floating times stay as they are.
    /// </summary>
    /// <param name="set">The time as it was set.</param>
    /// <param name="zone">The zone to keep it in; <c>null</c> to leave it in the one it was set in.</param>
    public EventTime KeptIn(EventTime set, string? zone) =>
        set is EventTime.Timed timed && zone is not null && timed.Zone != zone ? AsSeenIn(timed, Zone(zone)) : set;
}
