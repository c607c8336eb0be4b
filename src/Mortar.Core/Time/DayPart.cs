using NodaTime;

namespace Mortar.Core.Time;

/// <summary>A part of each day, on a group's clock.</summary>
/// <param name="Begins">From when on.</param>
/// <param name="Ends">Until when, after <paramref name="Begins"/>; <c>null</c> for the end of the day.</param>
public readonly record struct DayPart(LocalTime Begins, LocalTime? Ends)
{
    /// <summary>Midnight to midnight.</summary>
    public static DayPart Whole { get; } = new(LocalTime.Midnight, null);

    /// <summary>Up to noon.</summary>
    public static DayPart Morning { get; } = new(LocalTime.Midnight, LocalTime.Noon);

    /// <summary>From noon on.</summary>
    public static DayPart Afternoon { get; } = new(LocalTime.Noon, null);

    /// <summary>Whether it is the whole day.</summary>
    public bool IsWhole => this == Whole;

    /// <summary>It on one day.</summary>
    public Interval On(LocalDate day, DateTimeZone zone) =>
        new(
            Begins == LocalTime.Midnight ? zone.AtStartOfDay(day).ToInstant() : ZoneClock.At(day + Begins, zone),
            Ends is { } ends ? ZoneClock.At(day + ends, zone) : zone.AtStartOfDay(day.PlusDays(1)).ToInstant()
        );
}
