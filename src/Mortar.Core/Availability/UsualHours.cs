using System.Collections.Immutable;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Availability;

/// <summary>A stretch of the day on some clock: from, included, to, excluded. To at or before from is on the day after.</summary>
public readonly record struct DayHours(LocalTime From, LocalTime To);

/// <summary>When somebody is usually there, week by week, on their own clock.</summary>
/// <remarks>A place or person without usual hours has none of these, and is there at any time.</remarks>
public sealed class UsualHours
{
    private readonly ImmutableDictionary<IsoDayOfWeek, DayHours> week;
    private readonly ImmutableHashSet<LocalDate> daysOff;

    private UsualHours(
        DateTimeZone zone,
        ImmutableDictionary<IsoDayOfWeek, DayHours> week,
        ImmutableHashSet<LocalDate> daysOff
    ) => (Zone, this.week, this.daysOff) = (zone, week, daysOff);

    /// <summary>The zone of the clock they are told by.</summary>
    public DateTimeZone Zone { get; }

    /// <summary>The same hours on each of some weekdays.</summary>
    public static UsualHours On(DateTimeZone zone, DayHours hours, params IEnumerable<IsoDayOfWeek> days) =>
        new(zone, days.ToImmutableDictionary(day => day, _ => hours), []);

    /// <summary>The same hours, but others, or none where <c>null</c>, on one weekday.</summary>
    public UsualHours With(IsoDayOfWeek day, DayHours? hours) =>
        new(Zone, hours is { } set ? week.SetItem(day, set) : week.Remove(day), daysOff);

    /// <summary>The same hours, but none on some dates: holidays and days off.</summary>
    public UsualHours Off(params IEnumerable<LocalDate> days) => new(Zone, week, daysOff.Union(days));

    /// <summary>Whether they have hours on a date.</summary>
    public bool IsOn(LocalDate day) => week.ContainsKey(day.DayOfWeek) && !daysOff.Contains(day);

    /// <summary>The first day after <paramref name="last"/> on which they have hours; the very next day where there is none within a year.</summary>
    public LocalDate BackAfter(LocalDate last) =>
        Enumerable.Range(1, 366).Select(last.PlusDays).FirstOrDefault(IsOn, last.PlusDays(1));

    /// <summary>The hours within a stretch of real time: ordered, disjoint, cut to it.</summary>
    /// <remarks>Hours follow the clock, so on the day of a change they are longer or shorter.</remarks>
    public ImmutableArray<Interval> Within(Interval stretch)
    {
        var first = stretch.Start.InZone(Zone).Date.PlusDays(-1);
        var last = stretch.End.InZone(Zone).Date;
        return Stretches.Merged(first.Through(last).Where(IsOn).Select(Span), stretch);
    }

    private Interval Span(LocalDate day)
    {
        var hours = week[day.DayOfWeek];
        var end = hours.To <= hours.From ? day.PlusDays(1) : day;
        var start = ZoneClock.At(day + hours.From, Zone);
        return new Interval(start, Instant.Max(start, ZoneClock.At(end + hours.To, Zone)));
    }
}
