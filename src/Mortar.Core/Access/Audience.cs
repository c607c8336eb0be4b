using System.Globalization;
using Mortar.Core.Words;

namespace Mortar.Core.Access;

/// <summary>Who sees what is put into a calendar, in numbers: said before something is added there.</summary>
/// <param name="People">How many reach it, whoever asks among them.</param>
/// <param name="TimesOnly">How many of them see only when it is busy.</param>
/// <param name="IsWholeGroup">Whether everybody in its group is among them.</param>
/// <param name="Others">How many of them are not in its group.</param>
/// <param name="ByLink">Whether somebody can read it by a link, and so nobody knows how many do.</param>
public sealed record Audience(int People, int TimesOnly, bool IsWholeGroup, int Others, bool ByLink)
{
    /// <summary>Counts those who reach a calendar.</summary>
    /// <param name="roles">The step of each who does.</param>
    /// <param name="members">Who is in its group.</param>
    /// <param name="byLink">Whether a link to it leads somewhere.</param>
    public static Audience Of(
        IReadOnlyDictionary<PersonId, Role> roles,
        IReadOnlyCollection<PersonId> members,
        bool byLink
    )
    {
        var within = members.Count(roles.ContainsKey);
        return new Audience(
            roles.Count,
            roles.Values.Count(role => role == Role.Times),
            within == members.Count && within > 0,
            roles.Count - within,
            byLink
        );
    }

    /// <summary>"Studio team, 6 people", "Studio team and 2 more, 8 people, 3 of them only the times", "you alone, and whoever has a link to it".</summary>
    /// <param name="group">The name of its group.</param>
    public string Sentence(string group)
    {
        var who =
            People <= 1 ? "you alone"
            : !IsWholeGroup ? Count(People)
            : Others == 0 ? $"{group}, {Count(People)}"
            : string.Create(CultureInfo.InvariantCulture, $"{group} and {Others} more, {Count(People)}");
        var times = TimesOnly > 0 ? FormattableString.Invariant($", {TimesOnly} of them only the times") : string.Empty;
        return $"{who}{times}{(ByLink ? ", and whoever has a link to it" : string.Empty)}";
    }

    private static string Count(int people) => FormattableString.Invariant($"{people} people");
}
