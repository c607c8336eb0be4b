namespace Mortar.Core.Access;

/// <summary>Where somebody stands with a group.</summary>
public enum MemberPlace
{
    /// <summary>They were never in it, or have left.</summary>
    Outside,

    /// <summary>They were asked and have not said yes: the group knows and counts nothing of them.</summary>
    Asked,

    /// <summary>They are in it, by their own yes; or are a name that was written there.</summary>
    Member,
}
