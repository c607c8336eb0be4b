using Mortar.Core.Access;
using Mortar.Core.Time;
using Mortar.Core.Words;

namespace Mortar.Core.Roster;

/// <summary>The roster of a group in some days, as somebody in it sees it.</summary>
/// <param name="Group">What the group is called.</param>
/// <param name="Window">The days, on the reader's clock.</param>
/// <param name="Lines">A line each for everybody, the members and the places.</param>
/// <param name="Calendars">The calendars that lie on it, by id.</param>
public sealed record GroupRoster(
    string Group,
    Window Window,
    IReadOnlyList<RosterLine> Lines,
    IReadOnlyDictionary<CalendarId, VisibleCalendar> Calendars
);
