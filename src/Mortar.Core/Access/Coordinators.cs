using Mortar.Core.Words;

namespace Mortar.Core.Access;

/// <summary>The rule that a calendar always keeps somebody who can give and take access.</summary>
public static class Coordinators
{
    /// <summary>Whether the calendar would be left without a coordinator if <paramref name="whose"/> came to stand at <paramref name="next"/>.</summary>
    /// <param name="own">The steps that were given to people, one each.</param>
    /// <param name="whose">Whose step is to change.</param>
    /// <param name="next">The step to come; <see cref="Role.None"/> where access ends.</param>
    public static bool WouldBeLeftWithout(IEnumerable<(PersonId Person, Role Role)> own, PersonId whose, Role next) =>
        next < Role.Coordinate && own.All(one => one.Person == whose || one.Role < Role.Coordinate);
}
