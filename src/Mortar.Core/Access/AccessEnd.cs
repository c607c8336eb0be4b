using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Access;

/// <summary>When access that is given for a time ends: with the last day, on the calendar's own clock.</summary>
public static class AccessEnd
{
    /// <summary>The moment at which access up to a last day is over: midnight after it, or the first moment there is.</summary>
    public static Instant After(LocalDate lastDay, DateTimeZone zone) =>
        zone.AtStartOfDay(lastDay.PlusDays(1)).ToInstant();

    /// <summary>The last day of access that is over at a moment made by <see cref="After"/>.</summary>
    public static LocalDate LastDay(Instant end, DateTimeZone zone) => end.InZone(zone).Date.PlusDays(-1);

    /// <summary>When access up to a last day is over, and whether it can be given up to it.</summary>
    /// <param name="lastDay">The day; <c>null</c> for no end.</param>
    /// <param name="now">What o'clock it is.</param>
    /// <param name="zone">The calendar's zone.</param>
    public static Checked<Instant?> Check(LocalDate? lastDay, Instant now, DateTimeZone zone) =>
        lastDay is not { } day ? new(null)
        : After(day, zone) is var end && end > now ? new(end)
        : new(
            end,
            [new FieldProblem("lastDay", "That day is over. Choose a last day from today on, or end the access.")]
        );
}
