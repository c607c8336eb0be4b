using System.Collections;
using System.Collections.Immutable;
using Mortar.Core.Words;

namespace Mortar.Core.Events;

/// <summary>The people named on an event, each once. Compared by content; the order is that of the ids and means nothing.</summary>
public sealed class Attendees : IReadOnlyCollection<PersonId>, IEquatable<Attendees>
{
    private readonly ImmutableArray<PersonId> all;

    private Attendees(ImmutableArray<PersonId> all) => this.all = all;

    /// <summary>Nobody.</summary>
    public static Attendees None { get; } = new([]);

    /// <inheritdoc />
    public int Count => all.Length;

    /// <summary>What is wrong where somebody is named whom the calendar's group does not have.</summary>
    /// <param name="path">The field that names them.</param>
    public static FieldProblem Stranger(string path) =>
        new(path, "Somebody named here is not in the group of this calendar.");

    /// <summary>These people.</summary>
    public static Attendees Of(IEnumerable<PersonId> people)
    {
        ImmutableArray<PersonId> ordered = [.. people.Distinct().OrderBy(person => person.Value)];
        return ordered.IsEmpty ? None : new Attendees(ordered);
    }

    /// <summary>Whether somebody is named.</summary>
    public bool Has(PersonId person) => all.Contains(person);

    /// <inheritdoc />
    public bool Equals(Attendees? other) => other is not null && all.AsSpan().SequenceEqual(other.all.AsSpan());

    /// <inheritdoc />
    public override bool Equals(object? obj) => Equals(obj as Attendees);

    /// <inheritdoc />
    public override int GetHashCode() => all.Aggregate(all.Length, HashCode.Combine);

    /// <inheritdoc />
    public IEnumerator<PersonId> GetEnumerator() => ((IEnumerable<PersonId>)all).GetEnumerator();

    IEnumerator IEnumerable.GetEnumerator() => GetEnumerator();
}
