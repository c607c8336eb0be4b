using System.Collections.Immutable;
using Mortar.Core.Words;

namespace Mortar.Core.Availability;

/// <summary>
/// Those whose time a calendar may take, since they are there by their own yes. Whoever is written on an event of a calendar
/// that somebody else brought before them is not taken by it: nobody fills or empties another one's days from outside.
/// </summary>
/// <param name="Group">Everybody in the calendar's group; nobody where the question is about another group.</param>
/// <param name="Themselves">Those who put it on their wall themselves; where a group asks, those who keep it and gave it to that.</param>
public sealed record Willing(IReadOnlySet<PersonId> Group, IReadOnlySet<PersonId> Themselves)
{
    /// <summary>Nobody.</summary>
    public static Willing Nobody { get; } = new(ImmutableHashSet<PersonId>.Empty, ImmutableHashSet<PersonId>.Empty);

    /// <summary>Whether somebody is among them.</summary>
    public bool Has(PersonId person) => Group.Contains(person) || Themselves.Contains(person);
}
