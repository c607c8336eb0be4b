using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Events;

/// <summary>The occurrences of an event that reach into a window.</summary>
/// <remarks>
/// Candidates come from the first day that could still reach in (the window's start less the event's length and a day
/// for zones) and stop at the window's end. Overrides are looked at by themselves, since they may have moved anywhere.
/// </remarks>
public static class SeriesExpansion
{
    /// <summary>The occurrences in the window, by the start each would have by its rule; overrides last.</summary>
    /// <remarks>A single event is its own only occurrence. Times are as agreed, not as the reader sees them.</remarks>
    public static IEnumerable<Occurrence> Occurrences(this Event whole, Window window, ZoneClock clock)
    {
        if (whole.Series is not { } series)
        {
            return clock.Span(whole.Time, window.Reader) is var span && window.Touches(span)
                ? [new Occurrence(whole, null, whole.Time, whole.Content)]
                : [];
        }

        var replaced = series.Overrides.Select(one => one.Replaces).ToHashSet();
        var usual = Starts(whole.Time, series, window, clock)
            .Where(start => !replaced.Contains(start))
            .Select(start => new Occurrence(whole, start, whole.Time.StartingAt(start), whole.Content));
        var changed = series.Overrides.Select(one => new Occurrence(whole, one.Replaces, one.Time, one.Content));
        return usual.Concat(changed).Where(one => window.Touches(clock.Span(one.Time, window.Reader)));
    }

    /// <summary>The instant after which nothing of the event is left; <c>null</c> where it goes on for ever.</summary>
    /// <remarks>
    /// For an index of what can touch a range. Whole days and floating times are read as UTC, so a query has to widen
    /// its range by the largest offset. May be late, never early.
    /// </remarks>
    public static Instant? LastEnd(this Event whole, ZoneClock clock)
    {
        var own = clock.Span(whole.Time, DateTimeZone.Utc);
        if (whole.Series is not { } series)
        {
            return own.End;
        }

        Instant? last = series.Rule?.End switch
        {
            null => own.End,
            SeriesEnd.Never => null,
            SeriesEnd.Through through => through.LastDay.PlusDays(2).AtMidnight().InUtc().ToInstant() + own.Duration,
            SeriesEnd.ThroughTime through => through.Last.PlusDays(2).InUtc().ToInstant() + own.Duration,
            SeriesEnd.ThroughInstant through => through.Last + own.Duration + Duration.FromDays(1),
            _ => series
                .Rule.Days(whole.Time.LocalStart.Date, whole.Time.LocalStart.Date)
                .Select(day => day.PlusDays(2).AtMidnight().InUtc().ToInstant() + own.Duration)
                .Append(own.End)
                .Max(),
        };
        var others = series
            .Overrides.Select(one => clock.Span(one.Time, DateTimeZone.Utc).End)
            .Concat(series.Extra.Select(start => clock.Span(whole.Time.StartingAt(start), DateTimeZone.Utc).End));
        return last is { } end ? others.Append(end).Max() : null;
    }

    /// <summary>The instant before which nothing of the event lies; an override may begin before the series does.</summary>
    public static Instant FirstStart(this Event whole, ZoneClock clock) =>
        (whole.Series?.Overrides ?? [])
            .Select(one => clock.Span(one.Time, DateTimeZone.Utc).Start)
            .Concat(
                (whole.Series?.Extra ?? []).Select(start =>
                    clock.Span(whole.Time.StartingAt(start), DateTimeZone.Utc).Start
                )
            )
            .Append(clock.Span(whole.Time, DateTimeZone.Utc).Start)
            .Min();

    /// <summary>Whether the event is a series that counts an occurrence at <paramref name="start"/> on its own clock, changed or not.</summary>
    public static bool CountsAt(this Event whole, LocalDateTime start, ZoneClock clock) =>
        whole.Series is { } series
        && (
            series.Overrides.Any(one => one.Replaces == start)
            || Starts(whole.Time, series, new Window(start.Date, start.Date, DateTimeZone.Utc), clock).Contains(start)
        );

    private static IEnumerable<LocalDateTime> Starts(EventTime time, Series series, Window window, ZoneClock clock)
    {
        var start = time.LocalStart;
        var length = Period.DaysBetween(start.Date, time.LocalEnd.Date);
        var from = window.First.PlusDays(-length - 2);
        var to = window.Last.PlusDays(2);
        var byRule = series.Rule is { } rule
            ? rule.Days(start.Date, from)
                .TakeWhile(day => day <= to)
                .Select(day => day + start.TimeOfDay)
                .TakeWhile(one => !IsPast(rule.End, one, time, clock))
            : [];
        return byRule.Append(start).Concat(series.Extra).Distinct().Except(series.Excluded);
    }

    private static bool IsPast(SeriesEnd end, LocalDateTime start, EventTime time, ZoneClock clock) =>
        end switch
        {
            SeriesEnd.Through through => start.Date > through.LastDay,
            SeriesEnd.ThroughTime through => start > through.Last,
            SeriesEnd.ThroughInstant through when time is EventTime.Timed timed => ZoneClock.At(
                start,
                clock.Zone(timed.Zone)
            ) > through.Last,
            SeriesEnd.ThroughInstant through => start > through.Last.InUtc().LocalDateTime,
            _ => false,
        };
}
