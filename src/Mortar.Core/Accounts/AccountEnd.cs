using Mortar.Core.Words;

namespace Mortar.Core.Accounts;

/// <summary>A group as somebody leaves it whose account is to go.</summary>
/// <param name="Name">What it is called.</param>
/// <param name="Others">How many others are in it.</param>
/// <param name="IsKept">Whether somebody else coordinates it.</param>
/// <param name="Alone">The calendars of it that they alone coordinate, but for those of their own time.</param>
/// <param name="OfOthers">The calendars of it that others coordinate and they do not.</param>
public sealed record GroupLeft(
    string Name,
    int Others,
    bool IsKept,
    IReadOnlyList<string> Alone,
    IReadOnlyList<string> OfOthers
)
{
    /// <summary>Whether nobody else is in it: it goes to the bin with them.</summary>
    public bool GoesAlong => Others == 0;
}

/// <summary>The end of an account.</summary>
public static class AccountEnd
{
    /// <summary>What somebody is called whose account is gone, unless they leave their name on what they wrote.</summary>
    public const string Nameless = "Somebody who left";

    /// <summary>What has to be handed on before, in words: groups and calendars that nobody else would keep.</summary>
    public static IReadOnlyList<string> ToHandOn(IEnumerable<GroupLeft> groups) =>
        [
            .. from one in groups
            from what in one switch
            {
                { GoesAlong: true } => one.OfOthers.Select(calendar =>
                    $"“{calendar}” in “{one.Name}”, which others coordinate"
                ),
                { IsKept: false } => [$"the group “{one.Name}”", .. one.Alone.Select(Calendar)],
                _ => one.Alone.Select(Calendar),
            }
            select what,
        ];

    /// <summary>Why an account cannot go yet; <c>null</c> where it can.</summary>
    public static Refusal? WhyNot(IEnumerable<GroupLeft> groups)
    {
        var left = ToHandOn(groups);
        return left.Count == 0
            ? null
            : new Refusal.AgainstRule(
                "coordinates-alone",
                $"Somebody else has to keep {(left.Count == 1 ? "this" : "these")} first: {string.Join("; ", left)}."
            );
    }

    private static string Calendar(string name) => $"the calendar “{name}”";
}
