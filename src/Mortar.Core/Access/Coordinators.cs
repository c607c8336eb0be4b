using Mortar.Core.Words;

namespace Mortar.Core.Access;

/// <summary>The rule that a calendar always keeps somebody who can give and take access.</summary>
public static class Coordinators
{
    /// <summary>Whether the calendar would be left without a coordinator if <paramref name="whose"/> came to stand at <paramref name="next"/>.</summary>
    /// <param name="own">What was given to people, one each.</param>
    /// <param name="whose">Whose step is to change.</param>
    /// <param name="next">What is to come; the step <see cref="Role.None"/> where access ends.</param>
    /// <remarks>Somebody who coordinates up to a day only is not one who stays.</remarks>
    public static bool WouldBeLeftWithout(
        IEnumerable<(PersonId Person, Grant Grant)> own,
        PersonId whose,
        Grant next
    ) => !Stays(next) && own.All(one => one.Person == whose || !Stays(one.Grant));

    /// <summary>Whether somebody among those who were given steps coordinates for good.</summary>
    public static bool Stay(IEnumerable<Grant> own) => own.Any(Stays);

    /// <summary>Why what would leave a calendar without anybody who keeps it is not done.</summary>
    public static Refusal WhyOneStays { get; } =
        new Refusal.AgainstRule(
            "last-coordinator",
            "A calendar keeps at least one coordinator. Make somebody else one first."
        );

    private static bool Stays(Grant grant) => grant is { Role: Role.Coordinate, EndsAt: null };
}
