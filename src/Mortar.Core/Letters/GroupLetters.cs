namespace Mortar.Core.Letters;

/// <summary>What is written to those who come into a group.</summary>
public static class GroupLetters
{
    /// <summary>To somebody who was put into a group by name and has not been here yet.</summary>
    /// <param name="by">The name of who did it.</param>
    /// <param name="group">The group's name.</param>
    /// <param name="link">Where they answer for themselves.</param>
    public static Letter ToJoin(string by, string group, string link) =>
        new(
            $"{by} added you to “{group}”",
            $"""
            Hello,

            {by} keeps the time of “{group}” with Mortar and has put you on its list.
            Open this to see the group's plan and to answer for yourself:
            {link}

            If you do not want that, leave this mail unanswered.
            """
        );

    /// <summary>To somebody with an account who is asked to be in a group.</summary>
    /// <param name="by">The name of who asks.</param>
    /// <param name="group">The group's name.</param>
    /// <param name="link">Where they answer: in their inbox.</param>
    public static Letter ToAskIn(string by, string group, string link) =>
        new(
            $"{by} asks whether you want to be in “{group}”",
            $"""
            Hello,

            {by} keeps the time of “{group}” with Mortar and asks whether you want to be in it.
            Nothing of you is told to it until you say yes. Answer here:
            {link}
            """
        );
}
