using Mortar.Core.Access;
using NodaTime;

namespace Mortar.Core.Groups;

/// <summary>What becomes of somebody who is to be added to a group.</summary>
public enum Arrival
{
    /// <summary>They are asked, and are in it once they say yes.</summary>
    Asked,

    /// <summary>A name of the group's own, without an account: it is in at once.</summary>
    Named,

    /// <summary>They are in it already.</summary>
    AlreadyIn,

    /// <summary>They were asked already, and it is for them to answer.</summary>
    AlreadyAsked,

    /// <summary>They said no not long ago, and are left alone for a while.</summary>
    SaidNo,

    /// <summary>A name that belongs to another group, or an id that is taken: nothing becomes of it, and nothing is told.</summary>
    NotTheirs,
}

/// <summary>
/// How people come into a group. Whoever has an account is asked; a name without one belongs to the group that wrote it,
/// and to no other.
/// </summary>
public static class Arrivals
{
    /// <summary>For how long somebody who said no is not asked again by the same group.</summary>
    public static readonly Duration LeftAlone = Duration.FromDays(30);

    /// <summary>What becomes of somebody who is to be added.</summary>
    /// <param name="known">What whoever adds them knows of them from another group; <c>null</c> for somebody new.</param>
    /// <param name="isNamed">Whether a name with their address is in the group already.</param>
    /// <param name="isTaken">Whether the id they are to have is somebody's.</param>
    /// <param name="now">What o'clock it is.</param>
    public static Arrival Of(Acquaintance? known, bool isNamed, bool isTaken, Instant now) =>
        known switch
        {
            null when isNamed => Arrival.AlreadyIn,
            null when isTaken => Arrival.NotTheirs, // or sent again because its answer was lost
            null => Arrival.Named,
            { Place: MemberPlace.Member } => Arrival.AlreadyIn,
            { HasAccount: false } => Arrival.NotTheirs,
            { Place: MemberPlace.Asked } => Arrival.AlreadyAsked,
            { SaidNoAt: { } no } when now - no < LeftAlone => Arrival.SaidNo,
            _ => Arrival.Asked,
        };
}

/// <summary>Somebody whom the one who adds them knows from another group.</summary>
/// <param name="HasAccount">Whether they can say yes themselves.</param>
/// <param name="Place">Where they stand with the group they are to be added to.</param>
/// <param name="SaidNoAt">When they last said no to it; <c>null</c> for never.</param>
public sealed record Acquaintance(bool HasAccount, MemberPlace Place, Instant? SaidNoAt);
