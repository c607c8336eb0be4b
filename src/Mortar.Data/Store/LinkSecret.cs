using System.Security.Cryptography;
using System.Text;

namespace Mortar.Data.Store;

/// <summary>The secret in a link: 128 random bits, of which only the hash is kept.</summary>
/// <remarks>
/// A link is found by its hash. What the store compares is no secret, so that how long it takes tells nothing; and what
/// is stored, copied or logged opens nothing.
/// </remarks>
public static class LinkSecret
{
    /// <summary>How many letters a hash has.</summary>
    internal const int HashLength = 64;

    /// <summary>A new secret, as 32 letters.</summary>
    public static string New() => Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(16));

    /// <summary>The hash of a secret (SHA-256, as 64 letters). What has 128 random bits needs no slow one.</summary>
    public static string HashOf(string secret) =>
        Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(secret)));
}
