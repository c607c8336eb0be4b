namespace Mortar.Core.Access;

/// <summary>Where somebody stands with a calendar: the highest step of all their grants, and the ways that lead to it.</summary>
/// <param name="Role">The step; <see cref="Role.None"/> where there is no way at all.</param>
/// <param name="Ways">The ways that give just this step, own first; empty for <see cref="Role.None"/>.</param>
public sealed record Standing(Role Role, IReadOnlyList<Way> Ways)
{
    /// <summary>No way leads there.</summary>
    public static Standing Outside { get; } = new(Role.None, []);

    /// <summary>Resolves all grants of one person on one calendar. Grants of <see cref="Role.None"/> count for nothing.</summary>
    public static Standing Of(IEnumerable<Grant> grants)
    {
        var counting = grants.Where(grant => grant.Role > Role.None).ToList();
        if (counting.Count == 0)
        {
            return Outside;
        }

        var highest = counting.Max(grant => grant.Role);
        return new Standing(
            highest,
            [.. counting.Where(grant => grant.Role == highest).Select(grant => grant.Way).Distinct().Order()]
        );
    }
}
