using NodaTime;

namespace Mortar.Core.Access;

/// <summary>Where somebody stands with a calendar: the highest step of all their grants, and every grant that counts.</summary>
/// <param name="Role">The step; <see cref="Role.None"/> where there is no way at all.</param>
/// <param name="Grants">The grants that count, the highest step first and own before others; empty for <see cref="Role.None"/>.</param>
public sealed record Standing(Role Role, IReadOnlyList<Grant> Grants)
{
    /// <summary>No way leads there.</summary>
    public static Standing Outside { get; } = new(Role.None, []);

    /// <summary>The ways that give just this step, own first.</summary>
    public IReadOnlyList<Way> Ways =>
        [.. Grants.Where(grant => grant.Role == Role).Select(grant => grant.Way).Distinct()];

    /// <summary>The step that stays where what was given to them alone ends, by name and by links: what a group, its default or a ward gives.</summary>
    public Role Stays =>
        Grants
            .Where(grant => grant.Way is not (Way.Own or Way.Link))
            .Select(grant => grant.Role)
            .DefaultIfEmpty()
            .Max();

    /// <summary>Resolves all grants of one person on one calendar. Grants of <see cref="Role.None"/> and those that have ended count for nothing.</summary>
    public static Standing Of(IEnumerable<Grant> grants, Instant now)
    {
        var counting = grants
            .Where(grant => grant.CountsAt(now))
            .OrderByDescending(grant => grant.Role)
            .ThenBy(grant => grant.Way)
            .ToList();
        return counting.Count == 0 ? Outside : new Standing(counting[0].Role, counting);
    }
}
