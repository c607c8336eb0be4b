using Mortar.Core.Access;
using Mortar.Data.Links;
using NodaTime;

namespace Mortar.Data.Access;

/// <summary>Which of what gives access counts at a moment: neither taken back nor over.</summary>
public static class Counting
{
    /// <summary>The grants to single people that count.</summary>
    public static IQueryable<GrantRow> CountingAt(this IQueryable<GrantRow> grants, Instant now) =>
        grants.Where(grant => grant.Role != Role.None && (grant.EndsAt == null || grant.EndsAt > now));

    /// <summary>The grants to groups that count.</summary>
    public static IQueryable<GroupGrantRow> CountingAt(this IQueryable<GroupGrantRow> grants, Instant now) =>
        grants.Where(grant => grant.Role != Role.None && (grant.EndsAt == null || grant.EndsAt > now));

    /// <summary>The links that count.</summary>
    public static IQueryable<LinkRow> CountingAt(this IQueryable<LinkRow> links, Instant now) =>
        links.Where(link => link.EndedAt == null && (link.EndsAt == null || link.EndsAt > now));
}
