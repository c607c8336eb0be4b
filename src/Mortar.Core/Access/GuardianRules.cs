namespace Mortar.Core.Access;

/// <summary>
/// Guardians see and answer for those they are said for, in one group, and change nothing in their place. A name without an
/// account has those a coordinator of its group chooses; whoever has an account chooses by their own yes.
/// </summary>
public static class GuardianRules
{
    /// <summary>How many one member can have.</summary>
    public const int Most = 8;

    /// <summary>What a guardian has by one way that leads their ward to a calendar of the group they are guardian in.</summary>
    public static Grant OfWard(Grant ward) =>
        new(ward.Role > Role.View ? Role.View : ward.Role, Way.Guardian, ward.EndsAt);

    /// <summary>Whether a ward is asked first whether somebody may see and answer for them.</summary>
    /// <param name="hasAccount">Whether the ward has one, and so answers for themselves.</param>
    /// <param name="isTheirWish">Whether it is the ward who chooses.</param>
    public static bool AsksWard(bool hasAccount, bool isTheirWish) => hasAccount && !isTheirWish;

    /// <summary>Whether somebody is asked first whether they want to be a guardian.</summary>
    /// <param name="hasAccount">Whether they have one.</param>
    /// <param name="isMember">Whether they are in the group, whose plan is theirs to read then anyway.</param>
    /// <param name="isTheirWish">Whether it is they who choose.</param>
    public static bool AsksGuardian(bool hasAccount, bool isMember, bool isTheirWish) =>
        hasAccount && !isMember && !isTheirWish;

    /// <summary>Whether somebody can be chosen as a guardian: anybody in the group, and from outside who has an account and is known to who chooses.</summary>
    public static bool CanBe(bool isMember, bool hasAccount, bool isKnown) => isMember || (hasAccount && isKnown);
}
