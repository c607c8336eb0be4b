using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Words;

namespace Mortar.Core.Groups;

/// <summary>What a new group takes over from one that it is made like: how it works and its calendars, no people and no events.</summary>
public static class GroupLike
{
    /// <summary>The most calendars that are taken over in one act.</summary>
    public const int MostCalendars = 200;

    /// <summary>Why there are too many; <c>null</c> where there are not.</summary>
    public static Refusal? WhyNotTake(int calendars) =>
        calendars <= MostCalendars
            ? null
            : new Refusal.AgainstRule(
                "too-many",
                FormattableString.Invariant(
                    $"A group can be made like one with up to {MostCalendars} calendars; this has {calendars}. Put those in the bin that nobody needs, or make the group by itself."
                )
            );

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

    /// <summary>
    /// Whether a calendar is taken over: not what is one person's, nor what its maker does not read, nor one from the web whose
    /// address is not theirs to know.
    /// </summary>
    /// <param name="calendar">Its settings.</param>
    /// <param name="role">The maker's step on it.</param>
    public static bool Takes(CalendarSettings calendar, Role role) =>
        calendar is { Person: null, Takes: not WhoseTime.Person }
        && role >= (calendar.FromWeb ? Role.Coordinate : Role.View);
}
