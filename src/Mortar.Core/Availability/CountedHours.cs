using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Availability;

/// <summary>A time that counts as hours: whose, of which calendar and kind.</summary>
/// <param name="Person">Whose.</param>
/// <param name="Calendar">What the calendar is called.</param>
/// <param name="Kind">Its kind; empty for none, or where the reader does not see it.</param>
/// <param name="Span">When.</param>
/// <param name="WholeDays">Whether it is of whole days, which have no hours to count.</param>
/// <param name="Perhaps">Whether it is not settled.</param>
public sealed record CountedTime(
    PersonId Person,
    string Calendar,
    string Kind,
    Interval Span,
    bool WholeDays,
    bool Perhaps
);

/// <summary>What takes the time of the members of a group on its calendars, but for absences, as somebody in it sees it.</summary>
/// <param name="Group">What the group is called.</param>
/// <param name="Window">The days, on the group's clock.</param>
/// <param name="FirstDay">The day its weeks begin with.</param>
/// <param name="People">Its members by name.</param>
/// <param name="Times">Their times.</param>
public sealed record GroupHours(
    string Group,
    Window Window,
    IsoDayOfWeek FirstDay,
    IReadOnlyList<(PersonId Id, string Name)> People,
    IReadOnlyList<CountedTime> Times
);
