namespace Mortar.Core.Access;

/// <summary>Where an invitation stands.</summary>
public enum InvitationState
{
    /// <summary>Sent, not answered.</summary>
    Waiting,

    /// <summary>Taken; there is a grant.</summary>
    Accepted,

    /// <summary>Turned down by the one invited.</summary>
    Declined,

    /// <summary>Taken back by a coordinator before it was answered.</summary>
    Withdrawn,
}

/// <summary>What can still be done with an invitation.</summary>
public static class InvitationRules
{
    /// <summary>Only one that waits can be accepted, declined, withdrawn or sent again.</summary>
    public static bool IsOpen(this InvitationState state) => state == InvitationState.Waiting;

    /// <summary>Why one that waits cannot be answered any more: whoever sent it may no longer give what it promises.</summary>
    public const string Lapsed =
        "Whoever sent this invitation can no longer give this access. Ask a coordinator of the calendar to send another.";

    /// <summary>Why an invitation that is not open cannot be answered, in a sentence for the one invited.</summary>
    public static string WhyClosed(this InvitationState state) =>
        state switch
        {
            InvitationState.Accepted => "This invitation has been accepted already. The calendar is on your wall.",
            InvitationState.Declined => "This invitation was declined. Ask the person who sent it to send another.",
            InvitationState.Withdrawn =>
                "This invitation was taken back. Ask the person who sent it if that surprises you.",
            _ => throw new ArgumentOutOfRangeException(nameof(state), state, "An open invitation is not closed."),
        };
}
