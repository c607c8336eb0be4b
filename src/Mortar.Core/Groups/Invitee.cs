namespace Mortar.Core.Groups;

/// <summary>What would come of one entry of a list that is invited to a calendar, and what came of it.</summary>
public enum InviteeFate
{
    /// <summary>They get an invitation.</summary>
    Invited,

    /// <summary>One waits for them already.</summary>
    InvitedAlready,

    /// <summary>They have a step there already, which is changed where it stands.</summary>
    HasStep,

    /// <summary>In the list before: invited once.</summary>
    Again,

    /// <summary>A name without an address: nobody can be written to.</summary>
    NoAddress,

    /// <summary>Neither a name nor an address.</summary>
    Unreadable,
}

/// <summary>Decides what comes of a list that is invited.</summary>
public static class InviteeRules
{
    /// <summary>The most that are invited at once.</summary>
    public const int MostAtOnce = 200;

    /// <summary>What would come of one entry.</summary>
    /// <param name="entry">How it was understood.</param>
    /// <param name="isIn">Whether whoever is listed by its address has a step of their own there.</param>
    /// <param name="isInvited">Whether an invitation to it waits.</param>
    public static InviteeFate FateOf(ListedPerson entry, bool isIn, bool isInvited) =>
        entry.Reading switch
        {
            ListedReading.NameOnly => InviteeFate.NoAddress,
            ListedReading.Again => InviteeFate.Again,
            ListedReading.Unreadable => InviteeFate.Unreadable,
            _ => isIn ? InviteeFate.HasStep
            : isInvited ? InviteeFate.InvitedAlready
            : InviteeFate.Invited,
        };
}
