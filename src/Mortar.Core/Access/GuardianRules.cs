namespace Mortar.Core.Access;

/// <summary>Guardians see for those they answer for, and change nothing in their place.</summary>
public static class GuardianRules
{
    /// <summary>What a guardian has by one way that leads their ward to a calendar of the group they are guardian in.</summary>
    public static Grant OfWard(Grant ward) =>
        new(ward.Role > Role.View ? Role.View : ward.Role, Way.Guardian, ward.EndsAt);
}
