using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Words;

namespace Mortar.Core.Groups;

/// <summary>What a new group takes over from one that it is made like: how it works and its calendars, no people and no events.</summary>
public static class GroupLike
{
    /// <summary>The settings of the new group.</summary>
    /// <param name="model">Those of the group it is like.</param>
    /// <param name="name">What it is called.</param>
    /// <param name="daysOff">Its calendar of days off, where the other's was taken over.</param>
    public static GroupSettings Settings(GroupSettings model, string name, CalendarId? daysOff) =>
        model with
        {
            Name = name,
            // A short address leads to one group.
            Address = string.Empty,
            DaysOff = daysOff,
            // So many are needed as before; of whom is said where there are people again.
            Cover = [.. model.Cover.Select(need => need with { People = [] })],
        };

    /// <summary>Whether a calendar is taken over: not what is one person's, nor what its maker does not read.</summary>
    /// <param name="calendar">Its settings.</param>
    /// <param name="role">The maker's step on it.</param>
    public static bool Takes(CalendarSettings calendar, Role role) =>
        calendar is { Person: null, Takes: not WhoseTime.Person } && role >= Role.View;
}
