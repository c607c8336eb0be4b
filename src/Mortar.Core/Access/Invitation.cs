using Mortar.Core.Words;

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

/// <summary>What is sent with an invitation, checked.</summary>
/// <param name="Address">To whom; <c>null</c> where what was given is none.</param>
/// <param name="Role">The step that is promised.</param>
/// <param name="Message">What is said with it; may be empty.</param>
public sealed record InvitationWords(Address? Address, Role Role, string Message);

/// <summary>What an invitation can say, and what can still be done with it.</summary>
public static class InvitationRules
{
    /// <summary>The longest message, in UTF-16 units.</summary>
    public const int LongestMessage = 1_000;

    /// <summary>Makes what is to be sent safe and checks it.</summary>
    public static Checked<InvitationWords> Check(string? address, Role role, string? message)
    {
        var words = new InvitationWords(
            Words.Address.TryParse(address, out var to) ? to : null,
            role,
            PlainText.Lines(message)
        );
        var problems = new List<FieldProblem>();
        if (to is null)
        {
            problems.Add(new FieldProblem("address", Words.Address.Problem(address)));
        }

        if (role == Role.None)
        {
            problems.Add(Refusals.NoStep());
        }

        if (words.Message.Length > LongestMessage)
        {
            problems.Add(
                new FieldProblem(
                    "message",
                    FormattableString.Invariant($"A message can have up to {LongestMessage} characters. Shorten it.")
                )
            );
        }

        return new(words, problems);
    }

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
