using Mortar.Core.Words;

namespace Mortar.Core.Accounts;

/// <summary>The address that mail about an account goes to first, and by which others know it.</summary>
public static class FirstAddress
{
    /// <summary>Why a further address cannot become the first; <c>null</c> where it can.</summary>
    /// <param name="isConfirmed">Whether its mail was shown to arrive: otherwise one could lock oneself out by a slip.</param>
    public static Refusal? WhyNot(bool isConfirmed) =>
        isConfirmed
            ? null
            : new Refusal.AgainstRule("not-confirmed", "Open the link in the mail to this address first.");
}
