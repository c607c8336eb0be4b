namespace Mortar.Core.Access;

/// <summary>Says what a step means, before it is given.</summary>
public static class RoleSentence
{
    /// <summary>A step as the interface names it.</summary>
    public static string Name(Role role) => role == Role.Times ? "Times only" : role.ToString();

    /// <summary>For example "Priya and 2 others will see titles and places in “Rota”, not notes."</summary>
    /// <param name="names">Whom it is for, as the reader knows them; at least one.</param>
    /// <param name="role">The step; not <see cref="Role.None"/>.</param>
    /// <param name="calendar">The calendar's name.</param>
    /// <exception cref="ArgumentOutOfRangeException">There are no names, or the step is none.</exception>
    public static string For(IReadOnlyList<string> names, Role role, string calendar)
    {
        ArgumentOutOfRangeException.ThrowIfZero(names.Count, nameof(names));
        var who = names.Count switch
        {
            1 => names[0],
            2 => $"{names[0]} and {names[1]}",
            3 => $"{names[0]}, {names[1]} and {names[2]}",
            _ => FormattableString.Invariant($"{names[0]} and {names.Count - 1} others"),
        };
        return role switch
        {
            Role.Times => $"{who} will see when “{calendar}” is busy, and nothing else.",
            Role.Outline => $"{who} will see titles and places in “{calendar}”, not notes.",
            Role.View => $"{who} will see everything in “{calendar}” and change nothing.",
            Role.Add =>
                $"{who} will see everything in “{calendar}”, can add events, and can change only those they added.",
            Role.Edit => $"{who} will see everything in “{calendar}” and can add, change and delete any event.",
            Role.Coordinate =>
                $"{who} can do everything in “{calendar}” that you can: change any event, give and take access, and delete the calendar.",
            _ => throw new ArgumentOutOfRangeException(nameof(role), role, "No step, nothing to say."),
        };
    }

    /// <summary>The same for the one it is given to: "You will see titles and places in “Rota”, not notes."</summary>
    /// <param name="role">The step; not <see cref="Role.None"/>.</param>
    /// <param name="calendar">The calendar's name.</param>
    public static string ForReader(Role role, string calendar) =>
        role switch
        {
            Role.Coordinate =>
                $"You can do everything in “{calendar}”: change any event, give and take access, and delete the calendar.",
            _ => For(["You"], role, calendar),
        };
}
