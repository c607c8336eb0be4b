using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Events;

/// <summary>The occurrences of an event that reach into a window.</summary>
/// <remarks>
/// Starts come from the earliest that could still reach in (the window's start less the event's length) and stop at the
/// window's end, so the cost follows the window and not the age of the series. Overrides are looked at by themselves,
/// since they may have moved anywhere.
/// </remarks>
public static class SeriesExpansion
{
    /// <summary>
    /// The most occurrences of one event that are shown at once: a rule that falls on every second is no appointment.
    /// A year of every half hour is within it.
    /// </summary>
    public const int MostShown = 20_000;

    /// <summary>The occurrences that touch the window, by their real start and then by the start each would have by the series.</summary>
    /// <remarks>
    /// Lazy: costs what is consumed. A single event is its own only occurrence. Of two starts of one rule that a clock
    /// change puts on the same instant, the one that the clock shows takes place (RFC 5545, 3.8.5.2: duplicates are
    /// ignored). Without end where the window is; see <see cref="MostShown"/>.
    /// </remarks>
    public static IEnumerable<Occurrence> Occurrences(this Event whole, Window window, ZoneClock clock) =>
        Occurrences(whole, window, Meeting.Touching, clock);

    /// <summary>Those of <see cref="Occurrences(Event, Window, ZoneClock)"/> that start in the window. What reaches in from before is not walked through: of a rule for every second with dates of ten years that is most.</summary>
    public static IEnumerable<Occurrence> OccurrencesStarting(this Event whole, Window window, ZoneClock clock) =>
        Occurrences(whole, window, Meeting.Starting, clock);

    private static IEnumerable<Occurrence> Occurrences(Event whole, Window window, Meeting meeting, ZoneClock clock)
    {
        if (whole.Series is not { } series)
        {
            var itself = Agreed(whole, null, null, clock, window.Reader);
            return Is(itself, window, meeting) ? [itself] : [];
        }

        var usual = InOrder(whole, series, window, meeting, clock);
        return series.Overrides.Count == 0 ? usual : Merged(usual, Changed(whole, series, window, meeting, clock));
    }

    private static bool Is(Occurrence one, Window window, Meeting meeting) =>
        window.Touches(one.StartSecond, one.EndSecond)
        && (meeting == Meeting.Touching || one.StartSecond >= window.StartSecond);

    /// <summary>An event, or the one occurrence of it that a change describes, just as it was agreed.</summary>
    /// <param name="whole">The event.</param>
    /// <param name="key">The start by which its series counts the occurrence; <c>null</c> for a single event.</param>
    /// <param name="change">The change; <c>null</c> for the event itself.</param>
    /// <param name="clock">Zone rules.</param>
    /// <param name="reader">The zone of whole days and floating times.</param>
    internal static Occurrence Agreed(Event whole, long? key, Override? change, ZoneClock clock, DateTimeZone reader)
    {
        var time = change?.Time ?? whole.Time;
        var span = clock.Span(time, reader);
        return new Occurrence(
            whole,
            key,
            time.StartSecond,
            change,
            span.Start.ToUnixTimeSeconds(),
            span.End.ToUnixTimeSeconds(),
            time is EventTime.Timed timed ? clock.Zone(timed.Zone) : reader
        );
    }

    /// <summary>The instant after which nothing of the event is left; <c>null</c> where it goes on for ever.</summary>
    /// <remarks>
    /// For an index of what can touch a range. Whole days and floating times are read as UTC, so a query has to widen
    /// its range by the largest offset. May be some days late, never early.
    /// </remarks>
    public static Instant? LastEnd(this Event whole, ZoneClock clock)
    {
        var own = clock.Span(whole.Time, DateTimeZone.Utc).End;
        if (whole.Series is not { } series)
        {
            return own;
        }

        var length = new SeriesClock(whole.Time, series.NominalDays, clock, DateTimeZone.Utc).LongestLocal;
        var last = series
            .Overrides.Select(one => clock.Span(one.Time, DateTimeZone.Utc).End)
            .Concat(series.Extra.Select(start => clock.Span(whole.Time.StartingAt(start), DateTimeZone.Utc).End))
            .Append(own)
            .Max();
        foreach (var rule in series.Rules)
        {
            var start = whole.Time.StartSecond;
            var end = new RuleWalk(rule.Plan, start, whole.Time is EventTime.AllDay).LastStart();

            // Later changes may lengthen and shift; the days cover zones.
            var longest = series.Index.Later.Aggregate(
                length,
                (most, one) => Math.Max(most, SeriesPart.Shift(whole, one, clock) + Length(one))
            );
            var more = longest + (3L * CivilDays.SecondsPerDay);
            if (end >= CivilDays.LastSecond - more)
            {
                return null; // for ever, or as good as that
            }

            last = Instant.Max(last, Instant.FromUnixTimeSeconds(Math.Max(start, end) + more));
        }

        return last;
    }

    /// <summary>The instant before which nothing of the event lies; an override may begin before the series does.</summary>
    public static Instant FirstStart(this Event whole, ZoneClock clock)
    {
        var own = clock.Span(whole.Time, DateTimeZone.Utc).Start;
        if (whole.Series is not { } series)
        {
            return own;
        }

        // What reaches on can move the occurrences after it before the one it names, if to before the series at all.
        var shifted = series.Index.Later.Select(one =>
            own + Duration.FromSeconds(Math.Min(0, SeriesPart.Shift(whole, one, clock))) - Duration.FromDays(2)
        );
        return series
            .Overrides.Select(one => clock.Span(one.Time, DateTimeZone.Utc).Start)
            .Concat(series.Extra.Select(start => clock.Span(whole.Time.StartingAt(start), DateTimeZone.Utc).Start))
            .Concat(shifted)
            .Append(own)
            .Min();
    }

    /// <summary>Whether the event is a series that counts an occurrence at <paramref name="start"/> on its own clock, changed or not.</summary>
    public static bool CountsAt(this Event whole, LocalDateTime start, ZoneClock clock)
    {
        if (whole.Series is not { } series)
        {
            return false;
        }

        var second = CivilDays.Second(start);
        return series.Overrides.Any(one => one.Replaces == start)
            || new StartWalk(
                whole,
                series,
                new SeriesClock(whole.Time, series.NominalDays, clock, DateTimeZone.Utc),
                second,
                second
            ).MoveNext();
    }

    /// <summary>The starts the series counts from <paramref name="from"/> on, on its own clock, without those left out; changed ones are not among them.</summary>
    /// <remarks>Lazy and in order; may have no end.</remarks>
    public static IEnumerable<LocalDateTime> StartsFrom(this Event whole, LocalDateTime from, ZoneClock clock)
    {
        if (whole.Series is not { } series)
        {
            yield break;
        }

        var own = new SeriesClock(whole.Time, series.NominalDays, clock, DateTimeZone.Utc);
        var walk = new StartWalk(whole, series, own, CivilDays.Second(from), CivilDays.LastSecond);
        while (walk.MoveNext())
        {
            yield return CivilDays.ToTime(walk.Current);
        }
    }

    /// <summary>The occurrence that the series counts at <paramref name="key"/>; <c>null</c> where it counts none, or it was replaced.</summary>
    internal static Occurrence? At(this Event whole, long key, ZoneClock clock, DateTimeZone reader)
    {
        if (whole.Series is not { } series)
        {
            return null;
        }

        var part = SeriesPart.Of(whole, series, clock, reader).Last(part => part.Has(key));
        return part.Walk(series, key, key).MoveNext() ? part.At(key) : null;
    }

    private static IEnumerable<Occurrence> InOrder(
        Event whole,
        Series series,
        Window window,
        Meeting meeting,
        ZoneClock clock
    ) =>
        series.Index.Later.Length == 0
            ? OfPart(new SeriesPart(whole, series, 0, clock, window.Reader), series, window, meeting)
            : OfParts(whole, series, window, meeting, clock);

    /// <remarks>
    /// Changes to another zone can put a few dates out of order where its clock changes. Where there are few they are put
    /// right; of a fine rule none is looked at that is not asked for, and a day of them is one band.
    /// </remarks>
    private static IEnumerable<Occurrence> OfParts(
        Event whole,
        Series series,
        Window window,
        Meeting meeting,
        ZoneClock clock
    )
    {
        var parts = SeriesPart
            .Of(whole, series, clock, window.Reader)
            .Select(part => OfPart(part, series, window, meeting));
        return Bands.CanBeFine(whole)
            ? OccurrenceOrder.Together(parts)
            : parts.SelectMany(part => part).OrderBy(one => one.StartSecond);
    }

    private static IEnumerable<Occurrence> OfPart(SeriesPart part, Series series, Window window, Meeting meeting)
    {
        var walk = part.Walk(series, window, meeting, out var isCalm);
        var found = Found(part, walk, window, meeting);
        return isCalm ? found : AsTheClockGoes(found);
    }

    private static IEnumerable<Occurrence> Found(SeriesPart part, StartWalk walk, Window window, Meeting meeting)
    {
        while (walk.MoveNext())
        {
            var one = part.At(walk.Current);
            if (Is(one, window, meeting))
            {
                yield return one;
            }
        }
    }

    /// <summary>Puts starts that no clock shows where they really are, and drops one that falls on another.</summary>
    private static IEnumerable<Occurrence> AsTheClockGoes(IEnumerable<Occurrence> found)
    {
        var hidden = new Queue<Occurrence>();
        foreach (var one in found)
        {
            if (one.IsInGap)
            {
                hidden.Enqueue(one);
                continue;
            }

            while (hidden.TryPeek(out var earlier) && earlier.StartSecond <= one.StartSecond)
            {
                hidden.Dequeue();
                if (earlier.StartSecond < one.StartSecond)
                {
                    yield return earlier;
                }
            }

            yield return one;
        }

        while (hidden.TryDequeue(out var rest))
        {
            yield return rest;
        }
    }

    /// <summary>The occurrences that were changed one by one and touch the window or start in it, in order.</summary>
    private static List<Occurrence> Changed(
        Event whole,
        Series series,
        Window window,
        Meeting meeting,
        ZoneClock clock
    ) =>
        [
            .. series
                .Index.Single.Select(one => Replaced(whole, one, clock, window.Reader))
                .Where(one => Is(one, window, meeting))
                .OrderBy(one => one.StartSecond),
        ];

    /// <summary>The occurrence that one override describes.</summary>
    internal static Occurrence Replaced(Event whole, Override one, ZoneClock clock, DateTimeZone reader) =>
        Agreed(whole, CivilDays.Second(one.Replaces), one, clock, reader);

    private static IEnumerable<Occurrence> Merged(IEnumerable<Occurrence> usual, List<Occurrence> changed)
    {
        var next = 0;
        foreach (var one in usual)
        {
            while (next < changed.Count && changed[next].StartSecond < one.StartSecond)
            {
                yield return changed[next++];
            }

            yield return one;
        }

        for (; next < changed.Count; next++)
        {
            yield return changed[next];
        }
    }

    private static long Length(Override one) => one.Time.EndSecond - one.Time.StartSecond;
}

/// <summary>Which occurrences of a series a window takes.</summary>
internal enum Meeting
{
    /// <summary>Those that touch it.</summary>
    Touching,

    /// <summary>Those that start in it.</summary>
    Starting,
}
