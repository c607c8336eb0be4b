using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Events;

/// <summary>Finds one occurrence by the start that names it.</summary>
public static class OccurrenceLookup
{
    /// <summary>The occurrence of a series that starts at <paramref name="start"/> on the series' own clock, as it takes place.</summary>
    /// <param name="whole">The event.</param>
    /// <param name="start">The start by which the series counts it; <c>null</c> for the event as a whole, which is shown as its first.</param>
    /// <param name="clock">Zone rules.</param>
    /// <param name="reader">The zone of the reader, for whole days and floating times.</param>
    /// <returns><c>null</c> where a start is named and the event is no series, or does not fall on that start.</returns>
    public static Occurrence? OccurrenceAt(this Event whole, LocalDateTime? start, ZoneClock clock, DateTimeZone reader)
    {
        if (start is not { } named)
        {
            return SeriesExpansion.Agreed(whole, null, null, clock, reader);
        }

        if (whole.Series is not { } series)
        {
            return null;
        }

        if (series.Index.Single.FirstOrDefault(one => one.Replaces == named) is { } changed)
        {
            return SeriesExpansion.Replaced(whole, changed, clock, reader);
        }

        return whole.At(CivilDays.Second(named), clock, reader);
    }
}
