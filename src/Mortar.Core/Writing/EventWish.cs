using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Writing;

/// <summary>What somebody wants with an event.</summary>
/// <param name="CalendarId">The calendar it is to be in; another one than now moves it there.</param>
/// <param name="Draft">What it is to be.</param>
/// <param name="Key">The start by which the series counts the occurrence that is meant; <c>null</c> for a single event, or a series from its first.</param>
/// <param name="Reach">How far it goes, where the event is a series.</param>
/// <param name="Repeats">How it is to repeat, as the text of a rule (empty for not at all); <c>null</c> for as before.</param>
/// <param name="Version">The version the wish is based on; <c>null</c> to create.</param>
public sealed record EventWish(
    CalendarId CalendarId,
    EventDraft Draft,
    LocalDateTime? Key,
    Reach Reach,
    string? Repeats,
    int? Version
)
{
    /// <summary>Those it names who were not named before.</summary>
    public IReadOnlyList<PersonId> NewlyNamed(Event? before) => [.. Draft.Attendees.Except(before?.Named ?? [])];
}

/// <summary>The calendar a wish goes to, as a command finds it.</summary>
/// <param name="Id">The calendar.</param>
/// <param name="Group">Its group.</param>
/// <param name="Settings">How it is set.</param>
/// <param name="Strangers">Those newly named who are neither in its group, nor its guests, nor have access by another way.</param>
/// <param name="HasCopy">Whether an event of the same UID (RFC 5545, 3.8.4.7) is in it already, where one is moved there.</param>
public sealed record WishedCalendar(
    CalendarId Id,
    GroupId Group,
    CalendarSettings Settings,
    IReadOnlyCollection<PersonId> Strangers,
    bool HasCopy
);
