using NodaTime;

namespace Mortar.Core.Time;

/// <summary>The days a reader looks at: whole days on the clock of one zone, first and last included.</summary>
/// <param name="First">The first day.</param>
/// <param name="Last">The last day, included; not before <paramref name="First"/>.</param>
/// <param name="Reader">The zone in which the days are meant.</param>
public sealed record Window(LocalDate First, LocalDate Last, DateTimeZone Reader)
{
    /// <summary>The longest window that is answered at once.</summary>
    public const int LongestDays = 400;

    /// <summary>The instants of the window: the start of the first day up to the start of the day after the last.</summary>
    public Interval Span =>
        new(Reader.AtStartOfDay(First).ToInstant(), Reader.AtStartOfDay(Last.PlusDays(1)).ToInstant());

    /// <summary>Whether a stretch reaches into the window. A moment counts where it stands.</summary>
    public bool Touches(Interval stretch)
    {
        var span = Span;
        return stretch.Start < span.End
            && (stretch.End > span.Start || (stretch.Start == stretch.End && stretch.Start == span.Start));
    }
}
