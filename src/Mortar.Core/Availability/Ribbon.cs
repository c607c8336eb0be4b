using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Availability;

/// <summary>One week of the ribbon.</summary>
/// <param name="First">Its first day.</param>
/// <param name="Busy">How much of it is taken by anything on the layers in view, overlapping times once.</param>
/// <param name="Clashes">How many pairs of events collide in it.</param>
public sealed record RibbonWeek(LocalDate First, Duration Busy, int Clashes);

/// <summary>How full a week is, and where it clashes.</summary>
public static class Ribbon
{
    /// <summary>One week, or any other window.</summary>
    /// <param name="week">Its days, on the reader's clock.</param>
    /// <param name="seen">What the reader sees on it, in any order.</param>
    /// <param name="clashes">What collides in it.</param>
    /// <param name="clock">Zone rules.</param>
    public static RibbonWeek Of(Window week, IEnumerable<VisibleEvent> seen, ClashesFound clashes, ZoneClock clock) =>
        new(
            week.First,
            Stretches
                .Merged(seen.SelectMany(one => Taken(one, week.Reader, clock)), week.Span)
                .Aggregate(Duration.Zero, (sum, stretch) => sum + stretch.Duration),
            clashes.Told.Count(clash => clash.Times.Any(time => week.Touches(time.Span))) + clashes.More
        );

    /// <summary>What takes hours: whole days tell nothing of how full a week is.</summary>
    private static IEnumerable<Interval> Taken(VisibleEvent seen, DateTimeZone reader, ZoneClock clock) =>
        seen switch
        {
            VisibleEvent.Busy busy => [busy.Span],
            VisibleEvent.Shown { ShowAs: not ShowAs.Free, Cancelled: false, Agreed: not EventTime.AllDay } shown =>
            [
                clock.Span(shown.Agreed, reader),
            ],
            _ => [],
        };
}
