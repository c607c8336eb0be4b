using Mortar.Core.Access;
using Mortar.Core.Calendars;

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
}
