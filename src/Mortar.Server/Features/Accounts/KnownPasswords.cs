using Microsoft.AspNetCore.Identity;
using Mortar.Data.Accounts;

namespace Mortar.Server.Features.Accounts;

/// <summary>Refuses what is tried first by whoever guesses: long enough, and known to everybody.</summary>
internal sealed class KnownPasswords : IPasswordValidator<Account>
{
    /// <summary>Beginnings that are met most often (common practice, no source; from memory). What follows them in digits and marks makes none of them another.</summary>
    private static readonly string[] Beginnings =
    [
        "password",
        "passwort",
        "passw0rd",
        "p@ssword",
        "p@ssw0rd",
        "qwerty",
        "qwertz",
        "azerty",
        "asdfgh",
        "zxcvbn",
        "qazwsx",
        "1q2w3e",
        "letmein",
        "welcome",
        "willkommen",
        "iloveyou",
        "admin",
        "administrator",
        "changeme",
        "secret",
        "monkey",
        "dragon",
        "football",
        "baseball",
        "sunshine",
        "princess",
        "superman",
        "batman",
        "master",
        "shadow",
        "michael",
        "jennifer",
        "computer",
        "internet",
        "calendar",
        "mortar",
        "kiln",
        "pottery",
        "trustno1",
        "whatever",
        "starwars",
        "hello",
        "summer",
        "winter",
        "spring",
        "autumn",
    ];

    private static readonly string[] Rows =
    [
        "1234567890",
        "qwertyuiop",
        "qwertzuiop",
        "asdfghjkl",
        "zxcvbnm",
        "abcdefghijklmnopqrstuvwxyz",
    ];

    public Task<IdentityResult> ValidateAsync(UserManager<Account> manager, Account user, string? password)
    {
        var text = (password ?? string.Empty).ToLowerInvariant();
        return Task.FromResult(
            IsKnown(text, user.Email ?? string.Empty)
                ? IdentityResult.Failed(new IdentityError { Code = "KnownPassword" })
                : IdentityResult.Success
        );
    }

    internal static bool IsKnown(string text, string address)
    {
        var letters = text.TrimEnd("0123456789!.?#$*@-_ ".ToCharArray());
        var local = address.Split('@')[0];
        return text.Distinct().Count() < 4
            || letters.Length == 0
            || Beginnings.Contains(letters, StringComparer.Ordinal)
            || (local.Length > 3 && letters.Equals(local, StringComparison.OrdinalIgnoreCase))
            || text.Equals(address, StringComparison.OrdinalIgnoreCase)
            || Rows.Any(row => IsRun(text, row));
    }

    /// <summary>Whether it runs along a row of keys, on and on.</summary>
    private static bool IsRun(string text, string row) =>
        text.Length >= 6
        && Enumerable
            .Range(1, text.Length - 1)
            .All(i =>
                row.IndexOf(text[i], StringComparison.Ordinal)
                == (row.IndexOf(text[i - 1], StringComparison.Ordinal) + 1) % row.Length
            );
}
