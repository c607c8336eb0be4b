using System.Buffers.Binary;
using System.Diagnostics.CodeAnalysis;
using System.Globalization;
using System.Security.Cryptography;

namespace Mortar.Server.Tests;

/// <summary>What an authenticator app does: the code of a key at a moment (RFC 6238; SHA-1, thirty seconds, RFC 4226's truncation).</summary>
public static class Totp
{
    /// <param name="key">In base32 (RFC 4648, 6).</param>
    /// <param name="at">The moment.</param>
    /// <param name="digits">How many.</param>
    [SuppressMessage("Security", "CA5350", Justification = "RFC 6238's default, and what such apps do.")]
    public static string Code(string key, DateTimeOffset at, int digits = 6)
    {
        var counter = new byte[8];
        BinaryPrimitives.WriteInt64BigEndian(counter, at.ToUnixTimeSeconds() / 30);
        var hash = HMACSHA1.HashData(Bytes(key), counter);
        var number = BinaryPrimitives.ReadInt32BigEndian(hash.AsSpan(hash[^1] & 0xf)) & int.MaxValue;
        return (number % (int)Math.Pow(10, digits)).ToString(CultureInfo.InvariantCulture).PadLeft(digits, '0');
    }

    private static byte[] Bytes(string key)
    {
        var bytes = new List<byte>();
        var (bits, count) = (0, 0);
        foreach (var letter in key)
        {
            bits = (bits << 5) | "ABCDEFGHIJKLMNOPQRSTUVWXYZ234567".IndexOf(letter, StringComparison.Ordinal);
            count += 5;
            if (count >= 8)
            {
                count -= 8;
                bytes.Add((byte)(bits >> count));
                bits &= (1 << count) - 1;
            }
        }

        return [.. bytes];
    }
}
