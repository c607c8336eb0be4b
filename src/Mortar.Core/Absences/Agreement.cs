using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Events;

namespace Mortar.Core.Absences;

/// <summary>
/// Absences to which a coordinator agrees, where their calendar says so: what others enter is proposed until then, and
/// counts as perhaps. Nothing else marks it: an absence that is tentative there waits.
/// </summary>
public static class Agreement
{
    /// <summary>To agree to what waits, or not.</summary>
    /// <param name="role">The step on the calendar; with the lower ones that tell no event from another it is not there.</param>
    public static Verdict ToAgree(Role role) => role < Role.Outline ? Verdict.Hidden : AccessRules.ToCoordinate(role);

    /// <summary>Whether an event of a calendar waits for somebody to agree to it.</summary>
    public static bool Waits(CalendarSettings calendar, EventContent content) =>
        calendar.Agreed && content is { ShowAs: ShowAs.Tentative, Cancelled: false };

    /// <summary>
    /// What somebody wrote, as it counts: below the step <see cref="Role.Coordinate"/> nothing is settled that was not
    /// settled before, at the same time and for the same people.
    /// </summary>
    /// <param name="calendar">The calendar it is in now.</param>
    /// <param name="role">The writer's step on it.</param>
    /// <param name="before">The event as it was there; <c>null</c> where it was not.</param>
    /// <param name="after">The event as it was written.</param>
    public static Event Written(CalendarSettings calendar, Role role, Event? before, Event after)
    {
        var isSettled =
            !calendar.Agreed
            || ToAgree(role) == Verdict.Granted
            || (before is { Content.ShowAs: ShowAs.Busy } && IsTheSame(before, after));
        return isSettled ? after : after.WithContents(Proposed);
    }

    /// <summary>An event that was agreed to.</summary>
    public static Event Agreed(Event whole) =>
        whole.WithContents(content =>
            content.ShowAs == ShowAs.Tentative ? content with { ShowAs = ShowAs.Busy } : content
        );

    private static EventContent Proposed(EventContent content) =>
        content.ShowAs == ShowAs.Busy ? content with { ShowAs = ShowAs.Tentative } : content;

    private static bool IsTheSame(Event before, Event after) =>
        before.Time == after.Time
        && Equals(before.Series, after.Series)
        && before.Named.ToHashSet().SetEquals(after.Named);
}
