using System.Collections.Immutable;
using Mortar.Core.Answers;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Words;

namespace Mortar.Core.Availability;

/// <summary>Somebody named on an event.</summary>
public sealed record Attendance(PersonId Person, Answer Answer);

/// <summary>An event with those whose time it may take.</summary>
/// <param name="Event">The event; its own setting (busy, tentative, free, cancelled) counts for each occurrence.</param>
/// <param name="Named">The people who answered, or are named beside those on each of its dates.</param>
/// <param name="Places">The places it books, beside the calendar it is in.</param>
public sealed record CountedEvent(Event Event, ImmutableArray<Attendance> Named, ImmutableArray<CalendarId> Places)
{
    /// <summary>What people answered to it, in any order; each counts for the dates it is about.</summary>
    public ImmutableArray<GivenAnswer> Answers { get; init; } = [];

    /// <summary>An event that names nobody.</summary>
    public static CountedEvent Of(Event whole) => new(whole, [], []);
}

/// <summary>A calendar that counts for people's time.</summary>
/// <param name="Id">The calendar; for the purpose <c>place</c> it is the place itself.</param>
/// <param name="Purpose">Events, absences or bookings.</param>
/// <param name="Takes">Whose time its events take.</param>
/// <param name="Group">Everybody in its group.</param>
/// <param name="Events">Those of its events that can touch the window.</param>
public sealed record CountedCalendar(
    CalendarId Id,
    Purpose Purpose,
    WhoseTime Takes,
    ImmutableArray<PersonId> Group,
    IReadOnlyList<CountedEvent> Events
)
{
    /// <summary>The one person whose time it takes, for <see cref="WhoseTime.Person"/>.</summary>
    public PersonId? Person { get; init; }

    /// <summary>Those whose time it may take; <c>null</c> for everybody who is named on it.</summary>
    public Willing? Willing { get; init; }
}
