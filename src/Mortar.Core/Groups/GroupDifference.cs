namespace Mortar.Core.Groups;

/// <summary>Says what became of a group's settings between two states, for its history.</summary>
public static class GroupDifference
{
    /// <summary>Each difference as words that follow a name; one at least.</summary>
    public static IReadOnlyList<string> Between(GroupSettings before, GroupSettings after)
    {
        var found = new List<string>();
        if (before.Name != after.Name)
        {
            found.Add($"renamed it from “{before.Name}” to “{after.Name}”");
        }

        if (before.Zone != after.Zone)
        {
            found.Add($"changed its time zone from {before.Zone} to {after.Zone}");
        }

        if ((before.DayBegins, before.DayEnds, before.FirstDay) != (after.DayBegins, after.DayEnds, after.FirstDay))
        {
            found.Add("changed its usual hours and week");
        }

        if (!before.Cover.SequenceEqual(after.Cover))
        {
            found.Add("changed how many are needed when");
        }

        if (before.DaysOff != after.DaysOff)
        {
            found.Add("changed where its days off stand");
        }

        if (before.Address != after.Address)
        {
            found.Add("changed its short address");
        }

        return found.Count > 0 ? found : ["changed its settings"];
    }
}
