using Mortar.Core.Recurrence;
using Mortar.Core.Time;

namespace Mortar.Core.Events;

/// <summary>
/// What of an event is shown, whoever wrote it. A rule that falls on every second is kept, exported and computed as it is;
/// on a wall a day with more dates than there are quarters of an hour is one band with their number, so that what others
/// write costs a reader no more than what there is to see.
/// </summary>
public static class Bands
{
    /// <summary>The most dates of one day that are shown one by one: the quarters of its hours.</summary>
    public const int MostOfADay = RuleLimits.MostOfADay;

    /// <summary>Up to how many dates of a day are counted; a band of more stands for "at least" so many.</summary>
    public const int MostCounted = 1_440;

    /// <summary>The occurrences that touch the window, with a band in the place of those of a day that has too many; in order of their start.</summary>
    /// <remarks>Lazy. The days are those of the window's reader; an occurrence counts for the day it starts on.</remarks>
    public static IEnumerable<Occurrence> Shown(this Event whole, Window window, ZoneClock clock) =>
        CanBeFine(whole) ? ByDay(whole, window, clock) : whole.Occurrences(window, clock);

    private static IEnumerable<Occurrence> ByDay(Event whole, Window window, ZoneClock clock)
    {
        foreach (var day in window.Days)
        {
            var one = new Window(day, day, window.Reader);
            var ofDay = (day == window.First ? whole.Occurrences(one, clock) : whole.OccurrencesStarting(one, clock))
                .Take(MostCounted + 1)
                .ToList();
            if (ofDay.Count <= MostOfADay)
            {
                foreach (var date in ofDay)
                {
                    yield return date;
                }
            }
            else
            {
                yield return ofDay[0].Standing(Math.Min(ofDay.Count, MostCounted), ofDay[^1]);
            }
        }
    }

    /// <summary>Whether a day of it can have so many dates, with those that last from days before; cheap, and never wrong where it says no.</summary>
    internal static bool CanBeFine(Event whole)
    {
        if (whole.Series is not { } series)
        {
            return false;
        }

        // A day and its neighbours, and as many more as the longest lasts.
        var days = 3 + (Longest(whole, series) / CivilDays.SecondsPerDay);
        return series.Rules.Count > 1
            || series.Extra.Count > MostOfADay
            || series.Overrides.Count > MostOfADay
            || series.Rules.Any(rule => rule.MostADay() > MostOfADay / days);
    }

    private static long Longest(Event whole, Series series) =>
        series.Index.Later.Select(one => one.Time).Append(whole.Time).Max(time => time.EndSecond - time.StartSecond);
}
