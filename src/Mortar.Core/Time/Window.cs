using NodaTime;

namespace Mortar.Core.Time;

/// <summary>The days a reader looks at: whole days on the clock of one zone, first and last included.</summary>
public sealed record Window
{
    /// <summary>The longest window that is answered at once.</summary>
    public const int LongestDays = 400;

    /// <param name="first">The first day.</param>
    /// <param name="last">The last day, included; not before <paramref name="first"/>.</param>
    /// <param name="reader">The zone in which the days are meant.</param>
    public Window(LocalDate first, LocalDate last, DateTimeZone reader)
    {
        (First, Last, Reader) = (first, last, reader);
        Span = new Interval(reader.AtStartOfDay(first).ToInstant(), reader.AtStartOfDay(last.PlusDays(1)).ToInstant());
        (StartSecond, EndSecond) = (Span.Start.ToUnixTimeSeconds(), Span.End.ToUnixTimeSeconds());
    }

    /// <summary>The first day.</summary>
    public LocalDate First { get; }

    /// <summary>The last day, included.</summary>
    public LocalDate Last { get; }

    /// <summary>The zone in which the days are meant.</summary>
    public DateTimeZone Reader { get; }

    /// <summary>Its days, one after the other.</summary>
    public IEnumerable<LocalDate> Days => First.Through(Last);

    /// <summary>The instants of the window: the start of the first day up to the start of the day after the last.</summary>
    public Interval Span { get; }

    /// <summary>The start of <see cref="Span"/> in seconds since 1970 in UTC.</summary>
    internal long StartSecond { get; }

    /// <summary>The end of <see cref="Span"/>, excluded, in the same.</summary>
    internal long EndSecond { get; }

    /// <summary>Whether a stretch reaches into the window, to the second. A moment counts where it stands.</summary>
    public bool Touches(Interval stretch) =>
        Touches(stretch.Start.ToUnixTimeSeconds(), stretch.End.ToUnixTimeSeconds());

    /// <summary>Whether a stretch reaches into the window; both ends in seconds since 1970 in UTC.</summary>
    internal bool Touches(long start, long end) =>
        start < EndSecond && (end > StartSecond || (start == end && start == StartSecond));
}
