using Mortar.Core.Words;

namespace Mortar.Core.Access;

/// <summary>Somebody for whom another one answers, in the one group where both were said.</summary>
public readonly record struct Ward(PersonId Person, GroupId In);

/// <summary>Who asks or acts: all that decides what is there for them and what they may do, at one moment.</summary>
/// <param name="Person">Who.</param>
/// <param name="Standings">Where they stand with every calendar they reach; one that is missing they do not.</param>
/// <param name="Wards">Whose guardian they are, and in which group.</param>
public sealed record Reader(
    PersonId Person,
    IReadOnlyDictionary<CalendarId, Standing> Standings,
    IReadOnlyList<Ward> Wards
)
{
    /// <summary>Where they stand with a calendar; outside where it is deleted or was never there.</summary>
    public Standing StandingOn(CalendarId calendar) => Standings.GetValueOrDefault(calendar, Standing.Outside);

    /// <summary>Their step on a calendar.</summary>
    public Role RoleOn(CalendarId calendar) => StandingOn(calendar).Role;

    /// <summary>For whom they answer in a group: themselves, and its members whose guardian they are there.</summary>
    public IReadOnlyList<PersonId> AnswersIn(GroupId group) =>
        [Person, .. Wards.Where(ward => ward.In == group).Select(ward => ward.Person)];
}
