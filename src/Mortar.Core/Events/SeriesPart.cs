using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Events;

/// <summary>
/// A stretch of a series in which all occurrences have one time, length and content: the whole of it, or what lies
/// between two overrides that reach on (<see cref="OverrideRange.AndLater"/>).
/// </summary>
internal sealed class SeriesPart
{
    private readonly Event whole;
    private readonly Override? change;
    private readonly ZoneClock clock;
    private readonly long begin;
    private readonly long end;
    private readonly long shift;
    private readonly SeriesClock counted;
    private readonly SeriesClock own;

    /// <param name="whole">The event.</param>
    /// <param name="series">Its series.</param>
    /// <param name="number">Which part: 0 is the first, before any change that reaches on.</param>
    /// <param name="clock">Zone rules.</param>
    /// <param name="reader">The zone of whole days and floating times.</param>
    public SeriesPart(Event whole, Series series, int number, ZoneClock clock, DateTimeZone reader)
    {
        var later = series.Index.Later;
        (this.whole, this.clock) = (whole, clock);
        change = number == 0 ? null : later[number - 1];
        begin = change is null ? CivilDays.FirstSecond : CivilDays.Second(change.Replaces);
        end = number == later.Length ? CivilDays.LastSecond : CivilDays.Second(later[number].Replaces) - 1;
        counted = new SeriesClock(whole.Time, series.NominalDays, clock, reader);
        own = change is null ? counted : new SeriesClock(change.Time, 0, clock, reader);
        shift = change is null ? 0 : Shift(whole, change, clock);
    }

    /// <summary>The parts of a series, in order; one for nearly all.</summary>
    public static SeriesPart[] Of(Event whole, Series series, ZoneClock clock, DateTimeZone reader)
    {
        var parts = new SeriesPart[series.Index.Later.Length + 1];
        for (var number = 0; number < parts.Length; number++)
        {
            parts[number] = new SeriesPart(whole, series, number, clock, reader);
        }

        return parts;
    }

    public bool Has(long key) => begin <= key && key <= end;

    /// <summary>The walk over those of its starts that can touch a window, or lie in it.</summary>
    /// <param name="series">The series.</param>
    /// <param name="window">The window.</param>
    /// <param name="meeting">Which of them.</param>
    /// <param name="isCalm">Whether they come in the order of real time and no two fall together.</param>
    public StartWalk Walk(Series series, Window window, Meeting meeting, out bool isCalm)
    {
        var (first, last) = own.Reach(window, meeting == Meeting.Touching ? own.LongestLocal : 0, out isCalm);
        isCalm |= own.OwnZone is null;

        // The shift is exact on the clock of the change; days cover what lies between two zones.
        var slack = change is null ? 0 : 2L * CivilDays.SecondsPerDay;
        return Walk(series, first - shift - slack, last - shift + slack);
    }

    public StartWalk Walk(Series series, long first, long last) =>
        new(whole, series, counted, Math.Max(begin, first), Math.Min(end, last));

    /// <summary>The occurrence counted at <paramref name="key"/>.</summary>
    public Occurrence At(long key)
    {
        var local = change is null ? key : OnClockOf(whole, change, key, clock) + shift;
        var (start, end) = own.Span(local);
        return new Occurrence(whole, key, local, change, start, end, own.Zone);
    }

    /// <summary>By how many local seconds an override moves what it reaches, on the clock it is told in.</summary>
    public static long Shift(Event whole, Override one, ZoneClock clock) =>
        one.Time.StartSecond - OnClockOf(whole, one, CivilDays.Second(one.Replaces), clock);

    /// <summary>A start of the series on the clock of the override, where that is in another zone.</summary>
    private static long OnClockOf(Event whole, Override one, long start, ZoneClock clock) =>
        (whole.Time, one.Time) is (EventTime.Timed from, EventTime.Timed to) && from.Zone != to.Zone
            ? CivilDays.Second(
                ZoneClock.At(CivilDays.ToTime(start), clock.Zone(from.Zone)).InZone(clock.Zone(to.Zone)).LocalDateTime
            )
            : start;
}
