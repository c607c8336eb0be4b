using System.Security.Cryptography;
using Mortar.Data.Store;

namespace Mortar.Data.Devices;

/// <summary>
/// The key of a device: 28 letters that are not taken for one another, of more than 128 random bits, in fours so that they
/// can be typed from one screen into another. Only its hash is kept.
/// </summary>
public static class DeviceKey
{
    private const string Letters = "abcdefghjkmnpqrstuvwxyz23456789";
    private const int Groups = 7;
    private const int OfGroup = 4;

    /// <summary>A new one.</summary>
    public static string New() =>
        string.Join('-', Enumerable.Range(0, Groups).Select(_ => RandomNumberGenerator.GetString(Letters, OfGroup)));

    /// <summary>The hash of one, however it was typed: hyphens, blanks and case mean nothing.</summary>
    public static string HashOf(string key) =>
        LinkSecret.HashOf(string.Concat(key.Where(letter => letter is not ('-' or ' '))).ToLowerInvariant());
}
