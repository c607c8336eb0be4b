using System.Collections.Immutable;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Availability;

/// <summary>One week of the ribbon.</summary>
/// <param name="First">Its first day.</param>
/// <param name="Busy">How much of it is taken by anything on the layers in view, overlapping times once.</param>
/// <param name="Clashes">How many pairs of events collide in it.</param>
public sealed record RibbonWeek(LocalDate First, Duration Busy, int Clashes);

/// <summary>How full each week is, and where it clashes.</summary>
public static class Ribbon
{
    /// <summary>The weeks from a first day on, in order.</summary>
    /// <param name="first">The first day of the first week.</param>
    /// <param name="weeks">How many weeks.</param>
    /// <param name="zone">The reader's zone.</param>
    /// <param name="taken">Every stretch that is taken, in any order.</param>
    /// <param name="clashes">What collides.</param>
    public static ImmutableArray<RibbonWeek> Of(
        LocalDate first,
        int weeks,
        DateTimeZone zone,
        IEnumerable<Interval> taken,
        IEnumerable<Clash> clashes
    )
    {
        var windows = Enumerable
            .Range(0, weeks)
            .Select(week => new Window(first.PlusDays(week * 7), first.PlusDays((week * 7) + 6), zone))
            .ToList();
        if (windows.Count == 0)
        {
            return [];
        }

        var merged = Stretches.Merged(taken, new Interval(windows[0].Span.Start, windows[^1].Span.End));
        var pairs = clashes.SelectMany(clash => clash.Times.Select(time => (clash, time.Span))).ToList();
        return
        [
            .. windows.Select(window => new RibbonWeek(
                window.First,
                Stretches
                    .Both(merged, [window.Span])
                    .Aggregate(Duration.Zero, (sum, stretch) => sum + stretch.Duration),
                pairs.Where(pair => window.Touches(pair.Span)).Select(pair => pair.clash).Distinct().Count()
            )),
        ];
    }
}
