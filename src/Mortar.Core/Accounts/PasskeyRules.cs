using System.Globalization;
using Mortar.Core.Words;

namespace Mortar.Core.Accounts;

/// <summary>What holds for passkeys (W3C Web Authentication, https://www.w3.org/TR/webauthn-3/) beside what the standard says.</summary>
public static class PasskeyRules
{
    /// <summary>The most of one account.</summary>
    public const int Most = 10;

    /// <summary>The longest name of one, in UTF-16 units.</summary>
    public const int LongestName = 60;

    /// <summary>Makes the name safe by which somebody knows one of theirs, and checks it.</summary>
    public static Checked<string> Name(string? given)
    {
        var name = PlainText.OneLine(given);
        return new(
            name,
            name.Length is > 0 and <= LongestName
                ? []
                :
                [
                    new FieldProblem(
                        "name",
                        string.Create(
                            CultureInfo.InvariantCulture,
                            $"Give it a name of 1 to {LongestName} characters, as “phone” or “blue key”."
                        )
                    ),
                ]
        );
    }

    /// <summary>Why somebody cannot have another one; <c>null</c> where they can.</summary>
    /// <param name="count">How many they have.</param>
    public static Refusal? WhyNotAnother(int count) =>
        count >= Most
            ? new Refusal.AgainstRule(
                "too-many",
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"An account has up to {Most} passkeys. Take one out that you do not use."
                )
            )
            : null;

    /// <summary>Why what a device answered is not taken as a new passkey: it was too late, for another address of Mortar, or made up.</summary>
    public static Refusal NotMade { get; } =
        new Refusal.AgainstRule(
            "passkey",
            "The device’s answer was not for this question, or came too late. Nothing was added; try again."
        );

    /// <summary>Why a passkey does not sign in. The same for one that was taken out and one that never was.</summary>
    public static string NotKnown =>
        "This passkey does not open an account here. Sign in with your address and password.";
}
