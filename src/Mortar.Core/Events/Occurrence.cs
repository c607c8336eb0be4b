using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Events;

/// <summary>One time an event takes place.</summary>
/// <remarks>Small on purpose: a window has thousands, and what is only shown is worked out when asked. <c>default</c> is not valid.</remarks>
public readonly record struct Occurrence
{
    private readonly EventTime agreed;
    private readonly long local;
    private readonly long? key;
    private readonly Override? change;
    private readonly DateTimeZone zone;

    internal Occurrence(
        Event whole,
        long? key,
        EventTime agreed,
        long local,
        Override? change,
        Interval span,
        DateTimeZone zone
    ) =>
        (Event, this.key, this.agreed, this.local, this.change, Span, this.zone) = (
            whole,
            key,
            agreed,
            local,
            change,
            span,
            zone
        );

    /// <summary>The event it belongs to.</summary>
    public Event Event { get; }

    /// <summary>The start by which the series counts it, on the series' own clock; <c>null</c> for a single event.</summary>
    public LocalDateTime? Start => key is { } second ? CivilDays.ToTime(second) : null;

    /// <summary>The real time it takes, for the reader who asked: start included, end excluded; empty for a moment.</summary>
    public Interval Span { get; }

    /// <summary>Whether no clock ever shows the start that was agreed.</summary>
    internal bool IsInGap => Span.Start.ToUnixTimeSeconds() + zone.GetUtcOffset(Span.Start).Seconds != local;

    /// <summary>What it is this time.</summary>
    public EventContent Content => change?.Content ?? Event.Content;

    /// <summary>When it takes place, as agreed.</summary>
    public EventTime Time =>
        CivilDays.Second(agreed.LocalStart) == local ? agreed
        : agreed is EventTime.Timed timed ? EndingWhere(timed)
        : agreed.StartingAt(CivilDays.ToTime(local));

    /// <summary>When it takes place, as a clock in <paramref name="reader"/> shows it; whole days and floating times as they are.</summary>
    public EventTime SeenIn(DateTimeZone reader) => Time is EventTime.Timed ? ZoneClock.Shown(Span, reader) : Time;

    /// <summary>How the series repeats, in words for somebody who looks at this occurrence; <c>null</c> for a single event.</summary>
    public string? Repeats =>
        Event.Series is { } series ? SeriesSentence.For(Event.Time, series, CivilDays.ToTime(local).Year, zone) : null;

    private EventTime EndingWhere(EventTime.Timed timed)
    {
        var start = CivilDays.ToTime(local);
        var end = Span.End.InZone(zone).LocalDateTime;

        // Across the hour that is repeated in autumn a clock can show an end before the start.
        return EventTime.InZone(start, end < start ? start : end, timed.Zone);
    }
}
