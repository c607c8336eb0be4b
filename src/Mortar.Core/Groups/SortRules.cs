using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Words;
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

    /// <summary>Whether members are offered to be given guardians: in classes and families there are children.</summary>
    public static bool HasGuardians(this GroupSort sort) => sort is GroupSort.Class or GroupSort.Family;

    /// <summary>The weekdays on which its people are usually there: clubs, classes and families meet on any.</summary>
    public static IReadOnlyList<IsoDayOfWeek> WeekOf(GroupSort sort) =>
        sort is GroupSort.Staff or GroupSort.Other ? Working : All;

    /// <summary>
    /// The weekdays on which somebody is usually there for who asks: those of the group in question, where both are in it,
    /// else those of all groups they share.
    /// </summary>
    /// <param name="shared">The groups they share.</param>
    /// <param name="about">The group in question; <c>null</c> for none.</param>
    public static IReadOnlyList<IsoDayOfWeek> WeekIn(
        IReadOnlyCollection<(GroupId Group, GroupSort Sort)> shared,
        GroupId? about
    )
    {
        var counting = shared.Any(one => one.Group == about) ? shared.Where(one => one.Group == about) : shared;
        return [.. counting.SelectMany(one => WeekOf(one.Sort)).Distinct().Order()];
    }

    /// <summary>The days on which those who work in the week are usually not there (common practice, no source).</summary>
    public static IReadOnlyList<IsoDayOfWeek> Weekend { get; } = [IsoDayOfWeek.Saturday, IsoDayOfWeek.Sunday];

    private static readonly IReadOnlyList<IsoDayOfWeek> All = [.. Enumerable.Range(1, 7).Cast<IsoDayOfWeek>()];

    private static readonly IReadOnlyList<IsoDayOfWeek> Working = [.. All.Except(Weekend)];
}
