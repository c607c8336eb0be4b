using NodaTime;

namespace Mortar.Core.Recurrence;

/// <summary>How a series stops; one case at a time, so COUNT beside UNTIL (RFC 5545, 3.3.10) cannot be built.</summary>
public abstract record SeriesEnd
{
    private SeriesEnd() { }

    /// <summary>It goes on.</summary>
    public sealed record Never : SeriesEnd;

    /// <summary>After a number of occurrences, the first included; at least 1.</summary>
    public sealed record After(int Occurrences) : SeriesEnd;

    /// <summary>The last occurrence is on or before this day (UNTIL as a date).</summary>
    public sealed record Through(LocalDate LastDay) : SeriesEnd;

    /// <summary>The last occurrence starts at or before this time on its own clock (UNTIL as a local time).</summary>
    public sealed record ThroughTime(LocalDateTime Last) : SeriesEnd;

    /// <summary>The last occurrence starts at or before this instant (UNTIL in UTC, the form RFC 5545 asks for with zones).</summary>
    public sealed record ThroughInstant(Instant Last) : SeriesEnd;
}
