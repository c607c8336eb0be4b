using Mortar.Core.Words;

namespace Mortar.Core.Availability;

/// <summary>Whose time can be taken: a person, or a place (a calendar of the purpose <c>place</c>).</summary>
/// <remarks>Compared by content; ordered by id, so that answers do not depend on the order of questions.</remarks>
public readonly record struct Participant : IComparable<Participant>
{
    private Participant(Guid id, bool isPlace) => (Id, IsPlace) = (id, isPlace);

    /// <summary>The id of the person or of the place's calendar.</summary>
    public Guid Id { get; }

    /// <summary>Whether it is a place.</summary>
    public bool IsPlace { get; }

    /// <summary>A person.</summary>
    public static Participant Of(PersonId person) => new(person.Value, isPlace: false);

    /// <summary>A place, by the calendar that keeps its bookings.</summary>
    public static Participant Of(CalendarId place) => new(place.Value, isPlace: true);

    /// <inheritdoc />
    public int CompareTo(Participant other) =>
        IsPlace != other.IsPlace ? IsPlace.CompareTo(other.IsPlace) : Id.CompareTo(other.Id);

    /// <summary>By <see cref="CompareTo"/>.</summary>
    public static bool operator <(Participant left, Participant right) => left.CompareTo(right) < 0;

    /// <summary>By <see cref="CompareTo"/>.</summary>
    public static bool operator >(Participant left, Participant right) => left.CompareTo(right) > 0;

    /// <summary>By <see cref="CompareTo"/>.</summary>
    public static bool operator <=(Participant left, Participant right) => left.CompareTo(right) <= 0;

    /// <summary>By <see cref="CompareTo"/>.</summary>
    public static bool operator >=(Participant left, Participant right) => left.CompareTo(right) >= 0;
}
