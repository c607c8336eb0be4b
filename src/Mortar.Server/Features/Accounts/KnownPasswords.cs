using System.Buffers.Binary;
using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.Identity;
using Mortar.Data.Accounts;

namespace Mortar.Server.Features.Accounts;

/// <summary>Refuses what is tried first by whoever guesses: long enough, and known to everybody.</summary>
internal sealed class KnownPasswords : IPasswordValidator<Account>
{
    /// <summary>What was used with the marks and digits that stand for letters.</summary>
    private static readonly Dictionary<char, char> Letters = new()
    {
        ['0'] = 'o',
        ['1'] = 'l',
        ['3'] = 'e',
        ['4'] = 'a',
        ['@'] = 'a',
        ['5'] = 's',
        ['$'] = 's',
        ['7'] = 't',
        ['!'] = 'i',
    };

    /// <summary>Words that belong to this house: whoever guesses here begins with them (common practice, no source).</summary>
    private static readonly string[] OfTheHouse = ["mortar", "kiln", "pottery", "studio", "calendar", "changeme"];

    /// <summary>
    /// The 30,000 passwords met most often, each as the first eight bytes of its SHA-256, in order. Source: the list of the npm
    /// package zxcvbn 4.4.2 (MIT), turned into this by make-known-passwords.mjs.
    /// </summary>
    private static readonly Lazy<ulong[]> MetMostOften = new(Read);

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
        var stem = text.Trim("0123456789!.?#$*@-_+ ".ToCharArray());
        var local = address.Split('@')[0];
        return text.Distinct().Count() < 4
            || stem.Length == 0
            || new[] { text, stem, Plain(text), Plain(stem), Plain(text.TrimEnd("0123456789!.?".ToCharArray())) }.Any(
                one => IsMetOften(one) || OfTheHouse.Contains(one, StringComparer.Ordinal)
            )
            || (local.Length > 3 && stem.Equals(local, StringComparison.OrdinalIgnoreCase))
            || text.Equals(address, StringComparison.OrdinalIgnoreCase)
            || Rows.Any(row => IsRun(text, row));
    }

    private static string Plain(string text) =>
        string.Concat(text.Select(letter => Letters.GetValueOrDefault(letter, letter)));

    private static bool IsMetOften(string text) => Array.BinarySearch(MetMostOften.Value, HashOf(text)) >= 0;

    private static ulong HashOf(string text) =>
        BinaryPrimitives.ReadUInt64BigEndian(SHA256.HashData(Encoding.UTF8.GetBytes(text)));

    private static ulong[] Read()
    {
        using var stream =
            typeof(KnownPasswords).Assembly.GetManifestResourceStream("known-passwords.bin")
            ?? throw new InvalidOperationException("The known passwords ship with the application.");
        var bytes = new byte[stream.Length];
        stream.ReadExactly(bytes);
        var all = new ulong[bytes.Length / sizeof(ulong)];
        for (var i = 0; i < all.Length; i++)
        {
            all[i] = BinaryPrimitives.ReadUInt64BigEndian(bytes.AsSpan(i * sizeof(ulong)));
        }

        return all;
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
