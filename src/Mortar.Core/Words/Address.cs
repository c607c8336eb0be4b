using System.Diagnostics.CodeAnalysis;
using System.Text;

namespace Mortar.Core.Words;

/// <summary>A mail address, in the form it is compared by: trimmed and in lower case.</summary>
/// <remarks>
/// The dot-atom form of RFC 5322, 3.4.1, with the lengths of RFC 5321, 4.5.3.1, the labels of RFC 1035, 2.3.1, and the
/// letters of other scripts of RFC 6531, 3.3. Neither quoted names nor addresses in brackets: what is typed here is copied
/// from somewhere, and what it could hide is not worth them. Whether there is such an address is found out by sending.
/// <c>default</c> is not valid.
/// </remarks>
public readonly record struct Address
{
    /// <summary>The longest address that mail can carry (RFC 5321, 4.5.3.1.3, less the angle brackets), in octets.</summary>
    public const int Longest = 254;

    private const int LongestLocal = 64;
    private const int LongestLabel = 63;
    private const string Scheme = "mailto:";

    /// <summary>What may stand before the @ beside letters and digits (atext, RFC 5322, 3.2.3).</summary>
    private const string Marks = "!#$%&'*+-/=?^_`{|}~";

    private Address(string value) => Value = value;

    /// <summary>The address as text, for example <c>priya@example.org</c>.</summary>
    public string Value { get; }

    /// <summary>What stands before the @: a first guess at a name.</summary>
    public string LocalPart => Value[..Value.IndexOf('@', StringComparison.Ordinal)];

    /// <summary>Reads an address, also one copied as a link (RFC 6068); <c>false</c> where it cannot be one.</summary>
    public static bool TryParse(string? text, [NotNullWhen(true)] out Address? address)
    {
        address = null;
        var written = (text ?? string.Empty).Trim();
        if (written.StartsWith(Scheme, StringComparison.OrdinalIgnoreCase))
        {
            written = written[Scheme.Length..].Split('?')[0];
        }

        if (written.Length > Longest || !IsWellFormed(written))
        {
            return false;
        }

        var value = written.Normalize(NormalizationForm.FormC).ToLowerInvariant();
        var at = value.IndexOf('@', StringComparison.Ordinal);
        if (
            at < 1
            || Encoding.UTF8.GetByteCount(value) > Longest
            || Encoding.UTF8.GetByteCount(value.AsSpan(0, at)) > LongestLocal
            || !value[..at].Split('.').All(IsAtom)
            || value[(at + 1)..].Split('.') is not { Length: > 1 } labels
            || !labels.All(IsLabel)
            // A number in the last place is that of a machine (RFC 1123, 2.1).
            || labels[^1].All(char.IsAsciiDigit)
        )
        {
            return false;
        }

        address = new Address(value);
        return true;
    }

    /// <summary>What is wrong with text that cannot be an address, with what to do about it.</summary>
    public static string Problem(string? text) =>
        $"“{PlainText.Shorten(PlainText.OneLine(text), 60)}” is not a mail address. It should look like name@example.org.";

    /// <inheritdoc />
    public override string ToString() => Value;

    /// <summary>Whether it is whole text: half a surrogate pair is no letter of any script.</summary>
    private static bool IsWellFormed(string text) => text.All(c => !char.IsSurrogate(c));

    private static bool IsAtom(string part) =>
        part.Length > 0 && part.All(c => char.IsLetterOrDigit(c) || Marks.Contains(c, StringComparison.Ordinal));

    private static bool IsLabel(string label) =>
        label.Length is > 0 and <= LongestLabel
        && label.All(c => char.IsLetterOrDigit(c) || c == '-')
        && !label.StartsWith('-')
        && !label.EndsWith('-');
}
