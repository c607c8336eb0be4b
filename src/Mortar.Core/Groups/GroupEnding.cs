using Mortar.Core.Access;
using Mortar.Core.Words;

namespace Mortar.Core.Groups;

/// <summary>A calendar of a group that is to end.</summary>
/// <param name="Name">What it is called.</param>
/// <param name="IsSomebodysOwn">Whether it is of one person's time.</param>
/// <param name="Role">The step on it of who ends the group.</param>
/// <param name="IsLeft">Whether nobody of the group keeps it.</param>
public sealed record EndingCalendar(string Name, bool IsSomebodysOwn, Role Role, bool IsLeft)
{
    /// <summary>Whether they know that it is there: they have a step on it, or those who coordinate the group see that nobody keeps it.</summary>
    public bool IsKnown => Role > Role.None || IsLeft;
}

/// <summary>Ending a group: to rest, or to the bin.</summary>
public static class GroupEnding
{
    /// <summary>Whether a calendar goes from the walls with its group. What is of one person's time stays theirs while the group only rests.</summary>
    /// <param name="state">How it is with the group.</param>
    /// <param name="isSomebodysOwn">Whether the calendar is of one person's time.</param>
    public static bool TakesAlong(GroupState state, bool isSomebodysOwn) =>
        state == GroupState.InBin || (state == GroupState.AtRest && !isSomebodysOwn);

    /// <summary>The step that somebody has on a calendar whose group is at rest: to read is the most.</summary>
    public static Role AtRest(Role role) => role > Role.View ? Role.View : role;

    /// <summary>Why nothing of a group is changed; <c>null</c> where it is at work.</summary>
    /// <param name="state">How it is with it.</param>
    /// <param name="group">What it is called.</param>
    public static Refusal? WhyNotChange(GroupState state, string group) =>
        state switch
        {
            GroupState.AtRest => new Refusal.AgainstRule(
                "at-rest",
                $"“{group}” is at rest: it can be read and not changed. Whoever coordinates it can wake it."
            ),
            GroupState.InBin => new Refusal.AgainstRule(
                "in-bin",
                $"“{group}” is in the bin. Whoever coordinates it can bring it back."
            ),
            _ => null,
        };

    /// <summary>Why a group cannot be put from one state into another; <c>null</c> where it can. What is in the bin is there for nobody but the bin.</summary>
    public static Refusal? WhyNotPut(GroupState from, GroupState to) =>
        from == GroupState.InBin ? new Refusal.NotThere("group")
        : from == to
            ? new Refusal.AgainstRule(
                "as-it-was",
                to == GroupState.AtRest ? "The group is at rest already." : "The group is at work already."
            )
        : null;

    /// <summary>
    /// Why a group cannot go to the bin; <c>null</c> where it can. Its calendars go with it, so whoever does that could delete
    /// each of them: coordinates it, or nobody does any more.
    /// </summary>
    public static Refusal.AgainstRule? WhyNotBin(IEnumerable<EndingCalendar> calendars)
    {
        var others = Others(calendars);
        return others.Count == 0
            ? null
            : new Refusal.AgainstRule(
                "others-calendars",
                $"{Names(others)} {(others.Count == 1 ? "is" : "are")} coordinated by others, and would go with the group. Ask them to make you a coordinator there or to delete {(others.Count == 1 ? "it" : "them")}, or put the group to rest instead."
            );
    }

    /// <summary>The calendars that are others' to delete.</summary>
    public static IReadOnlyList<EndingCalendar> Others(IEnumerable<EndingCalendar> calendars) =>
        [.. calendars.Where(one => !one.IsLeft && AccessRules.ToCoordinate(one.Role) != Verdict.Granted)];

    /// <summary>What became of a group between two states, as words that follow a name; <c>null</c> for nothing.</summary>
    public static string? Said(GroupState before, GroupState after) =>
        (before, after) switch
        {
            _ when before == after => null,
            (_, GroupState.InBin) => "put the group in the bin",
            (GroupState.InBin, _) => "brought the group back",
            (_, GroupState.AtRest) => "put the group to rest",
            _ => "woke the group",
        };

    /// <summary>Calendars as they are named to whoever ends the group: those they know of by their names, the others as a number.</summary>
    public static IReadOnlyList<string> Named(IEnumerable<EndingCalendar> calendars)
    {
        var known = calendars.ToLookup(one => one.IsKnown);
        var unseen = known[false].Count();
        return
        [
            .. known[true].Select(one => one.Name),
            .. unseen > 0
                ? [Wording.Count(unseen, "calendar", "calendars") + " that you do not see"]
                : Array.Empty<string>(),
        ];
    }

    private static string Names(IReadOnlyList<EndingCalendar> calendars)
    {
        var names = Named(calendars);
        var first = string.Join(", ", names.Take(3).Select(name => $"“{name}”"));
        return names.Count > 3 ? FormattableString.Invariant($"{first} and {names.Count - 3} more") : first;
    }
}
