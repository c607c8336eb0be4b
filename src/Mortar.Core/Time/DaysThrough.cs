using NodaTime;

namespace Mortar.Core.Time;

/// <summary>Counts out days.</summary>
public static class DaysThrough
{
    /// <summary>Each day from the first to the last, included; none where the last is before the first.</summary>
    public static IEnumerable<LocalDate> Through(this LocalDate first, LocalDate last)
    {
        for (var day = first; day <= last; day = day.PlusDays(1))
        {
            yield return day;
        }
    }
}
