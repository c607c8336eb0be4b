using System.Diagnostics.CodeAnalysis;

namespace Mortar.Core.Words;

/// <summary>A mail address, in the form it is compared by: trimmed and in lower case.</summary>
/// <remarks>
/// Checks what mistyping breaks (one @, something before it, a domain with a dot, no spaces), not the whole grammar of
/// RFC 5322; whether it exists is found out by sending. <c>default</c> is not valid.
/// </remarks>
public readonly record struct Address
{
    /// <summary>The longest address that mail can carry (RFC 5321, 4.5.3.1.3, less the angle brackets).</summary>
    public const int Longest = 254;

    private Address(string value) => Value = value;

    /// <summary>The address as text, for example <c>priya@example.org</c>.</summary>
    public string Value { get; }

    /// <summary>What stands before the @: a first guess at a name.</summary>
    public string LocalPart => Value[..Value.IndexOf('@', StringComparison.Ordinal)];

    /// <summary>Reads an address; <c>false</c> where it cannot be one.</summary>
    public static bool TryParse(string? text, [NotNullWhen(true)] out Address? address)
    {
        address = null;
        var trimmed = (text ?? string.Empty).Trim().ToLowerInvariant();
        var at = trimmed.IndexOf('@', StringComparison.Ordinal);
        if (at < 1 || trimmed.Length > Longest || trimmed.AsSpan(at + 1).Contains('@'))
        {
            return false;
        }

        if (
            trimmed.Any(c =>
                char.IsWhiteSpace(c) || char.IsControl(c) || c is '<' or '>' or ',' or ';' or '"' or '(' or ')'
            )
        )
        {
            return false;
        }

        var labels = trimmed[(at + 1)..].Split('.');
        if (labels.Length < 2 || labels.Any(label => label.Length == 0 || label.StartsWith('-') || label.EndsWith('-')))
        {
            return false;
        }

        address = new Address(trimmed);
        return true;
    }

    /// <summary>What is wrong with text that cannot be an address, with what to do about it.</summary>
    public static string Problem(string? text) =>
        $"“{PlainText.Shorten(PlainText.OneLine(text), 60)}” is not a mail address. It should look like name@example.org.";

    /// <inheritdoc />
    public override string ToString() => Value;
}
