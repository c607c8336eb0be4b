using Mortar.Core.Access;
using Mortar.Core.Calendars;
using NodaTime;

namespace Mortar.Core.Groups;

/// <summary>What follows from the sort of a group; a beginning, and each calendar can be given another.</summary>
public static class SortRules
{
    /// <summary>What every member gets on a new calendar: a family plans together, staff enter their own absences, others read.</summary>
    public static Role DefaultStep(this GroupSort sort, Purpose purpose) =>
        (sort, purpose) switch
        {
            (GroupSort.Family, _) => Role.Edit,
            (GroupSort.Staff, Purpose.Away) => Role.Add,
            _ => Role.View,
        };

    /// <summary>The weekdays on which its people are usually there: clubs, classes and families meet on any.</summary>
    public static IReadOnlyList<IsoDayOfWeek> WeekOf(GroupSort sort) =>
        sort is GroupSort.Staff or GroupSort.Other ? Working : All;

    private static readonly IReadOnlyList<IsoDayOfWeek> Working = [.. Enumerable.Range(1, 5).Cast<IsoDayOfWeek>()];

    private static readonly IReadOnlyList<IsoDayOfWeek> All = [.. Enumerable.Range(1, 7).Cast<IsoDayOfWeek>()];
}
