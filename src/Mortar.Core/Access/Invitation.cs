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

    /// <summary>The rule against inviting who has a step.</summary>
    public const string AlreadyIn = "already-in";

    /// <summary>The rule against inviting twice.</summary>
    public const string AlreadyInvited = "already-invited";

    /// <summary>Why an address cannot be invited to a calendar; <c>null</c> where it can.</summary>
    /// <param name="address">The address.</param>
    /// <param name="isIn">Whether whoever is listed by it has a step of their own there.</param>
    /// <param name="isInvited">Whether an invitation to it waits.</param>
    public static Refusal? WhyNotInvite(Address address, bool isIn, bool isInvited) =>
        isIn
            ? new Refusal.AgainstRule(
                AlreadyIn,
                $"{address} has access to this calendar already. Change the step in the list instead."
            )
        : isInvited
            ? new Refusal.AgainstRule(
                AlreadyInvited,
                $"An invitation to {address} is waiting already. Send it again, or withdraw it first."
            )
        : null;

    /// <summary>Why those who sent one can do nothing with it any more; <c>null</c> where it waits.</summary>
    public static Refusal? WhyNotChange(this InvitationState state) =>
        state.IsOpen()
            ? null
            : new Refusal.AgainstRule(
                Closed,
                $"This invitation is no longer open: it was {state.ToString().ToLowerInvariant()}."
            );

    /// <summary>Why the one invited cannot answer it; <c>null</c> where they can.</summary>
    /// <param name="state">Where it stands.</param>
    /// <param name="stands">Whether whoever sent it may still give what it promises.</param>
    public static Refusal? WhyNotAnswer(this InvitationState state, bool stands) =>
        !state.IsOpen() ? new Refusal.AgainstRule(Closed, state.WhyClosed())
        : stands ? null
        : new Refusal.AgainstRule(Closed, Lapsed);

    private const string Closed = "invitation-closed";

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
