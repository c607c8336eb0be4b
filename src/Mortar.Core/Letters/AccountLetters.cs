using Mortar.Core.Words;

namespace Mortar.Core.Letters;

/// <summary>What is written about an account.</summary>
public static class AccountLetters
{
    /// <summary>The link by which who forgot their password sets a new one.</summary>
    /// <param name="link">Where it is set.</param>
    public static Letter ToReset(string link) =>
        new(
            "A new password for Mortar",
            $"""
            Hello,

            somebody asked for a new password for the account with this address. If it was you, set one here within 30 minutes:
            {link}

            If it was not, leave this mail unanswered: your password stays as it is.
            """
        );

    /// <summary>That somebody's password was set.</summary>
    /// <param name="link">Where who did not do it themselves sets another one.</param>
    public static Letter PasswordSet(string link) =>
        new(
            "Your password for Mortar was changed",
            $"""
            Hello,

            the password of your account was changed just now, and every other device was signed out. If it was you, all is well.

            If it was not, set another one at once:
            {link}
            """
        );

    /// <summary>That a code beside the password is asked for from now on, or no longer.</summary>
    /// <param name="isOn">Whether it is.</param>
    /// <param name="link">Where who did not do it themselves sets another password.</param>
    public static Letter SecondFactor(bool isOn, string link) =>
        new(
            isOn ? "Mortar asks for a code from now on" : "Mortar asks for no code any more",
            $"""
            Hello,

            signing in to your account {(
                isOn ? "takes a code of an authenticator app from now on" : "takes the password alone from now on"
            )}, and every other device was signed out. If it was you, all is well.

            If it was not, set another password at once:
            {link}
            """
        );

    /// <summary>That an account can be signed in to by another device.</summary>
    /// <param name="name">What its owner calls the passkey.</param>
    /// <param name="link">Where who did not do it themselves sets another password.</param>
    public static Letter PasskeyAdded(string name, string link) =>
        new(
            "A passkey was added to your Mortar account",
            $"""
            Hello,

            the passkey “{name}” can sign in to your account from now on. If it was you, all is well.

            If it was not, set another password at once, and take the passkey out in your preferences:
            {link}
            """
        );

    /// <summary>That a calendar program reads, or also writes, with a key of its own.</summary>
    /// <param name="name">What its owner calls the device.</param>
    /// <param name="writes">Whether it may change anything.</param>
    /// <param name="link">Where who did not do it themselves sets another password.</param>
    public static Letter DeviceMade(string name, bool writes, string link) =>
        new(
            "A device was given a key to your Mortar calendars",
            $"""
            Hello,

            the device “{name}” can {(
                writes ? "read and write" : "read"
            )} your calendars from now on, with a key of its own. If it was you, all is well.

            If it was not, set another password at once, and end the key in your preferences:
            {link}
            """
        );

    /// <summary>Told at the address that was the first until now.</summary>
    /// <param name="next">The address that is from now on.</param>
    /// <param name="link">Where who did not do it themselves sets another password.</param>
    public static Letter FirstAddress(string next, string link) =>
        new(
            "Mail from Mortar goes to another address",
            $"""
            Hello,

            mail about your account goes to {next} from now on. This address stays one of yours, and you can still sign in with it.

            If it was not you, set another password at once, and then take that address out:
            {link}
            """
        );

    /// <summary>The question whether a further address is somebody's.</summary>
    /// <param name="name">The name of the account that says so; anybody may call themselves what they like, so it is kept short.</param>
    /// <param name="link">Where it is confirmed.</param>
    public static Letter ToConfirm(string name, string link) =>
        new(
            "Is this address yours?",
            $"""
            Hello,

            {PlainText.Shorten(
                name,
                80
            )} has a Mortar account and says that this address is theirs too. If that is you, sign in and open this:
            {link}

            If it is not, leave this mail unanswered: nothing happens then.
            """
        );

    /// <summary>The question whether the address of a new account is its maker's.</summary>
    /// <param name="name">What they call themselves.</param>
    /// <param name="link">Where it is confirmed.</param>
    public static Letter ToConfirmNew(string name, string link) =>
        new(
            "Is this address yours?",
            $"""
            Hello,

            {PlainText.Shorten(
                name,
                80
            )} made a Mortar account with this address. If that is you, open this where you are signed in:
            {link}

            Until then no mail comes here, and nobody finds you by it. If it is not you, leave this mail unanswered.
            """
        );

    /// <summary>Tells the owner of an account that somebody made a new one with their address, which it does not get.</summary>
    /// <param name="link">Where one signs in.</param>
    public static Letter HasAccount(string link) =>
        new(
            "You have an account already",
            $"""
            Hello,

            somebody made a new Mortar account with this address, which belongs to yours. The new one does not get it.

            If it was you, sign in with the account you have, and open the link you were given again:
            {link}

            If it was not, there is nothing to do.
            """
        );

    /// <summary>Tells somebody that their account is gone.</summary>
    public static Letter Deleted() =>
        new(
            "Your Mortar account is deleted",
            """
            Hello,

            your Mortar account is deleted, with your addresses, preferences and access. What you wrote into shared
            calendars stays there. No mail comes here about it any more.
            """
        );
}
