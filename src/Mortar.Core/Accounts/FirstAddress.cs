using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Accounts;

/// <summary>The address that mail about an account goes to first, and by which others know it.</summary>
public static class FirstAddress
{
    /// <summary>How long no second mail goes to an address that several accounts say is theirs.</summary>
    public static readonly Duration BetweenQuestions = Duration.FromHours(1);

    /// <summary>How many addresses of one account can wait or be confirmed beside the first; few while it has none.</summary>
    public static int Most(bool hasFirst) => hasFirst ? 10 : 3;

    /// <summary>Why an address is not taken out; <c>null</c> where it is.</summary>
    /// <param name="hasFirst">Whether the account has a first address.</param>
    /// <param name="others">How many others wait to be confirmed.</param>
    public static Refusal? WhyNotTakeOut(bool hasFirst, int others) =>
        hasFirst || others > 0
            ? null
            : new Refusal.AgainstRule(
                "only-address",
                "It is the only address by which you can sign in. Add another one first."
            );

    /// <summary>Why a further address cannot become the first; <c>null</c> where it can.</summary>
    /// <param name="isConfirmed">Whether its mail was shown to arrive: otherwise one could lock oneself out by a slip.</param>
    public static Refusal? WhyNot(bool isConfirmed) =>
        isConfirmed
            ? null
            : new Refusal.AgainstRule("not-confirmed", "Open the link in the mail to this address first.");
}
