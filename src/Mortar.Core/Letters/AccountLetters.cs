using Mortar.Core.Words;

namespace Mortar.Core.Letters;

/// <summary>What is written about an account.</summary>
public static class AccountLetters
{
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
}
