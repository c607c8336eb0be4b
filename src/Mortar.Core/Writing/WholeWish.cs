using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;

namespace Mortar.Core.Writing;

/// <summary>What an event is to be, all its dates together, as calendar programs say it.</summary>
/// <param name="CalendarId">The calendar it is to be in.</param>
/// <param name="Time">When; for a series, the first occurrence.</param>
/// <param name="Content">What.</param>
/// <param name="Series">How it repeats; <c>null</c> for a single event.</param>
/// <param name="Version">The version that was seen; <c>null</c> for one that is not there yet.</param>
public sealed record WholeWish(
    CalendarId CalendarId,
    EventTime Time,
    EventContent Content,
    Series? Series,
    int? Version
)
{
    /// <summary>Those named who were not named before.</summary>
    /// <param name="before">The event before; <c>null</c> where there was none.</param>
    public IReadOnlyList<PersonId> NewlyNamed(Event? before) =>
        [
            .. (Series?.Overrides.Select(one => one.Content) ?? [])
                .Append(Content)
                .SelectMany(content => content.Attendees)
                .Distinct()
                .Except(before?.Named ?? []),
        ];
}
