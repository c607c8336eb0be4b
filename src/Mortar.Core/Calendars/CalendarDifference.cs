using Mortar.Core.Access;

namespace Mortar.Core.Calendars;

/// <summary>Says what became of a calendar's settings between two states, for its history.</summary>
public static class CalendarDifference
{
    /// <summary>Each difference as words that follow a name; one at least.</summary>
    public static IReadOnlyList<string> Between(CalendarSettings before, CalendarSettings after)
    {
        var found = new List<string>();
        if (before.Name != after.Name)
        {
            found.Add($"renamed it from “{before.Name}” to “{after.Name}”");
        }

        if (before.GroupDefault != after.GroupDefault)
        {
            found.Add(
                $"gave every member {RoleSentence.Name(after.GroupDefault)} instead of {RoleSentence.Name(before.GroupDefault)}"
            );
        }

        if ((before.Hue, before.Mark) != (after.Hue, after.Mark))
        {
            found.Add("changed its colour and mark");
        }

        if (before.Zone != after.Zone)
        {
            found.Add($"changed its time zone from {before.Zone} to {after.Zone}");
        }

        if (before.Description != after.Description)
        {
            found.Add("changed its description");
        }

        if ((before.Purpose, before.OneAtATime, before.Agreed) != (after.Purpose, after.OneAtATime, after.Agreed))
        {
            found.Add("changed what it is for");
        }

        if ((before.Takes, before.Person) != (after.Takes, after.Person))
        {
            found.Add("changed whose time it takes");
        }

        if (!before.Kinds.SequenceEqual(after.Kinds))
        {
            found.Add("changed its kinds");
        }

        return found.Count > 0 ? found : ["changed its settings"];
    }
}
