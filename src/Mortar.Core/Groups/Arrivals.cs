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

    /// <summary>What becomes of somebody who is there already, with or without an account.</summary>
    /// <param name="hasAccount">Whether they can say yes themselves.</param>
    /// <param name="place">Where they stand with the group.</param>
    /// <param name="saidNoAt">When they last said no to it; <c>null</c> for never.</param>
    /// <param name="now">What o'clock it is.</param>
    public static Arrival Of(bool hasAccount, MemberPlace place, Instant? saidNoAt, Instant now) =>
        (hasAccount, place) switch
        {
            (_, MemberPlace.Member) => Arrival.AlreadyIn,
            (false, _) => Arrival.NotTheirs,
            (_, MemberPlace.Asked) => Arrival.AlreadyAsked,
            _ when saidNoAt is { } no && now - no < LeftAlone => Arrival.SaidNo,
            _ => Arrival.Asked,
        };
}
