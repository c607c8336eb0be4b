using Mortar.Core.Availability;
using NodaTime;

namespace Mortar.Core.Absences;

/// <summary>The hours somebody is away who is away for half of a day: their usual hours, parted at noon.</summary>
/// <param name="Morning">From when the day begins up to noon.</param>
/// <param name="Afternoon">From noon until the day ends.</param>
public sealed record HalfDays(DayHours Morning, DayHours Afternoon)
{
    private static readonly LocalTime Noon = LocalTime.Noon;

    /// <summary>
    /// Parts usual hours. Whose day begins in the afternoon, or ends before noon, has the other half all the same: an hour of it,
    /// so that it counts as half a day (<see cref="Time.DayPart.Morning"/> and <see cref="Time.DayPart.Afternoon"/>) and can be seen.
    /// </summary>
    public static HalfDays Of(LocalTime begins, LocalTime ends) =>
        new(
            new DayHours(LocalTime.Min(begins, Noon.PlusHours(-1)), Noon),
            new DayHours(Noon, LocalTime.Max(ends, Noon.PlusHours(1)))
        );
}
