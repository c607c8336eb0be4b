using Mortar.Core.Access;
using Mortar.Core.Words;

namespace Mortar.Core.Groups;

/// <summary>Who may do what with the members of a group.</summary>
public static class MemberRules
{
    /// <summary>How many people outside a group can be known to it by their address.</summary>
    public const int MostGuests = 500;

    /// <summary>To add, correct and take out members, and to make coordinators.</summary>
    /// <param name="isMember">Whether they are in the group; to others it is not there.</param>
    /// <param name="coordinates">Whether they coordinate it.</param>
    public static Verdict ToKeep(bool isMember, bool coordinates) =>
        !isMember ? Verdict.Hidden
        : coordinates ? Verdict.Granted
        : Verdict.Denied;

    /// <summary>To end somebody's membership: a coordinator anybody's, everybody their own.</summary>
    public static Verdict ToEnd(bool isMember, bool coordinates, PersonId actor, PersonId whose) =>
        isMember && actor == whose ? Verdict.Granted : ToKeep(isMember, coordinates);

    /// <summary>To take out a guest: a coordinator anybody, each member whom they brought.</summary>
    /// <param name="isMember">Whether they are in the group.</param>
    /// <param name="coordinates">Whether they coordinate it.</param>
    /// <param name="actor">Who wants to.</param>
    /// <param name="addedBy">Who brought the guest; <c>null</c> where there is none.</param>
    public static Verdict ToEndGuest(bool isMember, bool coordinates, PersonId actor, PersonId? addedBy) =>
        isMember && actor == addedBy ? Verdict.Granted : ToKeep(isMember, coordinates);

    /// <summary>To bring back a guest that was taken out, as to name one: whoever is in the group.</summary>
    public static Verdict ToNameGuest(bool isMember) => isMember ? Verdict.Granted : Verdict.Hidden;

    /// <summary>Why what would leave a group without anybody who keeps it is not done.</summary>
    public static Refusal WhyOneStays { get; } =
        new Refusal.AgainstRule(
            "last-coordinator",
            "A group keeps at least one coordinator. Make somebody else one first."
        );

    /// <summary>Why somebody's name and address cannot be corrected; <c>null</c> where they can.</summary>
    /// <param name="hasAccount">Whether they answer for themselves.</param>
    public static Refusal? WhyNotCorrect(bool hasAccount) =>
        hasAccount
            ? new Refusal.AgainstRule(
                "has-account",
                "They have an account, so their name and address are theirs to change."
            )
            : null;

    /// <summary>Why somebody cannot be made a coordinator, or no longer one; <c>null</c> where they can.</summary>
    /// <param name="coordinates">Whether they are to be one.</param>
    /// <param name="whose">Who.</param>
    /// <param name="hasAccount">Whether they can sign in.</param>
    /// <param name="coordinators">Those the group has.</param>
    public static Refusal? WhyNotCoordinate(
        bool coordinates,
        PersonId whose,
        bool hasAccount,
        IReadOnlyCollection<PersonId> coordinators
    ) =>
        !coordinates ? WhyNotWithout(whose, coordinators)
        : hasAccount ? null
        : new Refusal.AgainstRule(
            "no-account",
            "A coordinator needs an account. Invite them first, and make them one once they are here."
        );

    /// <summary>Why a group cannot do without somebody; <c>null</c> where it can.</summary>
    /// <param name="whose">Who.</param>
    /// <param name="coordinators">Those the group has.</param>
    public static Refusal? WhyNotWithout(PersonId whose, IReadOnlyCollection<PersonId> coordinators) =>
        coordinators.All(one => one == whose) ? WhyOneStays : null;
}
