using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Events;

/// <summary>One time an event takes place.</summary>
/// <remarks>Small on purpose: a window has thousands, and what is only shown is worked out when asked. <c>default</c> is not valid.</remarks>
public readonly record struct Occurrence
{
    /// <summary>The key of what belongs to no series.</summary>
    private const long NoKey = long.MinValue;

    private readonly long local;
    private readonly long key;
    private readonly long start;
    private readonly long end;
    private readonly Override? change;
    private readonly DateTimeZone zone;

    /// <param name="whole">The event.</param>
    /// <param name="key">The start by which the series counts it; <c>null</c> for a single event.</param>
    /// <param name="local">The start as agreed, on its own clock.</param>
    /// <param name="change">What was changed about it, alone or from some occurrence on.</param>
    /// <param name="start">Its start in seconds since 1970 in UTC.</param>
    /// <param name="end">Its end in the same, not before the start.</param>
    /// <param name="zone">The zone of its own clock; the reader's for whole days and floating times.</param>
    internal Occurrence(Event whole, long? key, long local, Override? change, long start, long end, DateTimeZone zone)
    {
        (Event, this.key, this.local, this.change) = (whole, key ?? NoKey, local, change);
        (this.start, this.end, this.zone) = (start, end, zone);
    }

    /// <summary>How many dates it stands for: one, and more for the band of a day with dates too close to tell apart (<see cref="Bands"/>).</summary>
    public int Dates { get; private init; } = 1;

    /// <summary>The band from this date on that stands for so many, to the end of the last of them.</summary>
    internal Occurrence Standing(int dates, Occurrence last) =>
        new(Event, key == NoKey ? null : key, local, change, start, Math.Max(end, last.end), zone) { Dates = dates };

    /// <summary>The event it belongs to.</summary>
    public Event Event { get; }

    /// <summary>The start by which the series counts it, on the series' own clock; <c>null</c> for a single event.</summary>
    public LocalDateTime? Start => key == NoKey ? null : CivilDays.ToTime(key);

    /// <summary>The real time it takes, for the reader who asked: start included, end excluded; empty for a moment.</summary>
    public Interval Span => new(Instant.FromUnixTimeSeconds(start), Instant.FromUnixTimeSeconds(end));

    /// <summary>The start of <see cref="Span"/> in seconds since 1970 in UTC.</summary>
    internal long StartSecond => start;

    /// <summary>The end of <see cref="Span"/> in the same.</summary>
    internal long EndSecond => end;

    /// <summary>Whether no clock ever shows the start that was agreed.</summary>
    internal bool IsInGap => start + zone.GetUtcOffset(Instant.FromUnixTimeSeconds(start)).Seconds != local;

    private EventTime Agreed => change?.Time ?? Event.Time;

    /// <summary>What it is this time.</summary>
    public EventContent Content => change?.Content ?? Event.Content;

    /// <summary>When it takes place, as agreed.</summary>
    public EventTime Time =>
        Agreed.StartSecond == local && Dates == 1 ? Agreed
        : Agreed is EventTime.Timed timed ? EndingWhere(timed)
        : Agreed.StartingAt(CivilDays.ToTime(local));

    /// <summary>When it takes place, as a clock in <paramref name="reader"/> shows it; whole days and floating times as they are.</summary>
    public EventTime SeenIn(DateTimeZone reader) => Time is EventTime.Timed ? ZoneClock.Shown(Span, reader) : Time;

    /// <summary>How the series repeats, in words for somebody who looks at this occurrence; <c>null</c> for a single event.</summary>
    public string? Repeats =>
        Event.Series?.Index.Sentence(Event.Time, Event.Series, CivilDays.ToTime(local).Year, zone);

    /// <summary>The one rule of its series, with its end as a day; <c>null</c> where no single rule says how it repeats.</summary>
    public RecurrenceRule? Rule => Event.Series?.Index.Rule(Event.Time.LocalStart, Event.Series, zone);

    private EventTime EndingWhere(EventTime.Timed timed)
    {
        var from = CivilDays.ToTime(local);
        var to = Span.End.InZone(zone).LocalDateTime;

        // Across the hour that is repeated in autumn a clock can show an end before the start.
        return EventTime.InZone(from, to < from ? from : to, timed.Zone);
    }
}
