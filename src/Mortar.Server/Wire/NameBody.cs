using Mortar.Core.Words;
using Mortar.Data.Store;

namespace Mortar.Server.Wire;

/// <summary>A name for a short address, looked at while it is typed.</summary>
/// <param name="Name">The name as it would be kept.</param>
/// <param name="Problem">Why it cannot be had; <c>null</c> where it can.</param>
/// <param name="Instead">Names that can be had.</param>
internal sealed record NameBody(string Name, string? Problem, IReadOnlyList<string> Instead)
{
    private const int LongestAsked = 200;

    private const int MostInstead = 3;

    /// <summary>Looks at one.</summary>
    /// <param name="db">The store.</param>
    /// <param name="space">The sort of thing it is for.</param>
    /// <param name="owner">The thing; what it has itself is not taken.</param>
    /// <param name="name">What was typed.</param>
    /// <param name="title">What the thing is called.</param>
    /// <param name="group">Whose it is.</param>
    /// <param name="year">This year.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public static async Task<NameBody> Of(
        MortarDb db,
        string space,
        Guid owner,
        string? name,
        string? title,
        string group,
        int year,
        CancellationToken cancellationToken
    )
    {
        var check = ShortAddress.Check(name);
        var instead = ShortAddress
            .Instead(
                PlainText.Shorten(name ?? string.Empty, LongestAsked),
                PlainText.Shorten(title ?? string.Empty, LongestAsked),
                group,
                year
            )
            .ToList();
        var taken = await db.TakenAmong(space, [check.Value, .. instead], owner, cancellationToken);
        var problem =
            check.Problems.Count > 0 ? check.Problems[0].Sentence
            : taken.Contains(check.Value) ? "This address is somebody's already. Choose another."
            : null;
        return new NameBody(
            check.Value,
            problem,
            problem is null ? [] : [.. instead.Where(one => !taken.Contains(one)).Take(MostInstead)]
        );
    }
}
