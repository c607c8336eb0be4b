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
    }

    /// <summary>The first day.</summary>
    public LocalDate First { get; }

    /// <summary>The last day, included.</summary>
    public LocalDate Last { get; }

    /// <summary>The zone in which the days are meant.</summary>
    public DateTimeZone Reader { get; }

    /// <summary>The instants of the window: the start of the first day up to the start of the day after the last.</summary>
    public Interval Span { get; }

    /// <summary>Whether a stretch reaches into the window. A moment counts where it stands.</summary>
    public bool Touches(Interval stretch)
    {
        var (start, end) = (stretch.Start, stretch.End);
        return start < Span.End && (end > Span.Start || (start == end && start == Span.Start));
    }
}
