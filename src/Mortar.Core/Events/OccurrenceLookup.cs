using NodaTime;

namespace Mortar.Core.Events;

/// <summary>Finds one occurrence by the start that names it.</summary>
public static class OccurrenceLookup
{
    /// <summary>The occurrence of a series that starts at <paramref name="start"/> on the series' own clock, as it takes place.</summary>
    /// <param name="whole">The event.</param>
    /// <param name="start">The start by which the series counts it; <c>null</c> for the event as a whole, which is shown as its first.</param>
    /// <returns><c>null</c> where a start is named and the event is no series, or leaves that start out.</returns>
    public static Occurrence? OccurrenceAt(this Event whole, LocalDateTime? start)
    {
        if (start is not { } named)
        {
            return new Occurrence(whole, null, whole.Time, whole.Content);
        }

        if (whole.Series is not { } series || series.Excluded.Contains(named))
        {
            return null;
        }

        return series.Overrides.FirstOrDefault(one => one.Replaces == named) is { } changed
            ? new Occurrence(whole, named, changed.Time, changed.Content)
            : new Occurrence(whole, named, whole.Time.StartingAt(named), whole.Content);
    }
}
