using Mortar.Core.Access;

namespace Mortar.Core.Letters;

/// <summary>What is written about access to calendars.</summary>
public static class AccessLetters
{
    /// <summary>An invitation to a calendar.</summary>
    /// <param name="by">The name of who invites.</param>
    /// <param name="calendar">The calendar's name.</param>
    /// <param name="role">The step that is offered.</param>
    /// <param name="inReturn">Whether a calendar of theirs is asked for in return.</param>
    /// <param name="message">What the inviter wrote; empty for nothing.</param>
    /// <param name="link">Where it is answered.</param>
    public static Letter ToInvite(string by, string calendar, Role role, bool inReturn, string message, string link)
    {
        var written = message.Length > 0 ? $"\n{by} writes:\n\n{message}\n" : string.Empty;
        var asked = inReturn ? $"{by} asks you for a calendar of yours in return.\n" : string.Empty;
        return new(
            $"{by} invites you to “{calendar}”",
            $"""
            Hello,

            {by} would like to share the calendar “{calendar}” with you.
            {RoleSentence.ForReader(role, calendar)}
            {asked}{written}
            Open the invitation:
            {link}

            If you do not want it, decline it there or leave this mail unanswered.
            """
        );
    }

    /// <summary>That somebody asks for a step on a calendar.</summary>
    /// <param name="from">Who asks, and the address they are known by here.</param>
    /// <param name="calendar">The calendar's name.</param>
    /// <param name="role">The step they ask for.</param>
    /// <param name="note">What they wrote with it; empty for nothing.</param>
    /// <param name="link">Where it is answered, by whoever can sign in for it.</param>
    public static Letter ToAnswer(
        (string Name, string? Address) from,
        string calendar,
        Role role,
        string note,
        string link
    ) => Asked(from, $"the step {RoleSentence.Name(role)} on “{calendar}”", note, link);

    /// <summary>That somebody asks for a step on a calendar they cannot name.</summary>
    /// <param name="from">Who asks, and the address they are known by here.</param>
    /// <param name="group">The group whose calendar they ask for; <c>null</c> for the recipient's own.</param>
    /// <param name="role">The step they ask for.</param>
    /// <param name="note">What they wrote with it; empty for nothing.</param>
    /// <param name="link">Where it is answered, by whoever can sign in for it.</param>
    public static Letter ToAnswerOpen(
        (string Name, string? Address) from,
        string? group,
        Role role,
        string note,
        string link
    ) =>
        Asked(
            from,
            $"{(group is null ? "a calendar of yours" : $"a calendar of “{group}”")}, at the step {RoleSentence.Name(role)}",
            note,
            link
        );

    private static Letter Asked((string Name, string? Address) from, string what, string note, string link)
    {
        var words = note.Length > 0 ? $"\nThey write:\n\n{note}\n" : string.Empty;
        return new(
            $"{from.Name} asks for {what}",
            $"""
            Hello,

            {from.Name} ({from.Address}) asks for {what}.
            {words}
            Give them that, less or more, or say no:
            {link}
            """
        );
    }
}
