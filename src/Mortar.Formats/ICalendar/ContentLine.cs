using System.Text;

namespace Mortar.Formats.ICalendar;

/// <summary>One unfolded line of a file: <c>NAME;PARAM=value:VALUE</c> (RFC 5545, 3.1).</summary>
/// <param name="Number">The 1-based number of the physical line it begins on; 0 for a line of our own making.</param>
/// <param name="Name">The property's name, in upper case.</param>
/// <param name="Parameters">Its parameters in order, names in upper case, values unquoted.</param>
/// <param name="Value">All after the colon, still escaped.</param>
/// <param name="Text">The whole line as it came, unfolded; what is kept and written again.</param>
internal sealed record ContentLine(
    int Number,
    string Name,
    IReadOnlyList<KeyValuePair<string, string>> Parameters,
    string Value,
    string Text
)
{
    /// <summary>The value of a parameter; <c>null</c> where it is not there.</summary>
    public string? Parameter(string name) =>
        Parameters.FirstOrDefault(one => one.Key == name) is { Key: not null } found ? found.Value : null;

    /// <summary>The value as text, with <c>\n</c>, <c>\,</c>, <c>\;</c> and <c>\\</c> undone (RFC 5545, 3.3.11).</summary>
    public string Unescaped()
    {
        if (!Value.Contains('\\', StringComparison.Ordinal))
        {
            return Value;
        }

        var text = new StringBuilder(Value.Length);
        for (var i = 0; i < Value.Length; i++)
        {
            if (Value[i] != '\\' || i + 1 == Value.Length)
            {
                text.Append(Value[i]);
                continue;
            }

            i++;
            text.Append(Value[i] is 'n' or 'N' ? '\n' : Value[i]);
        }

        return text.ToString();
    }

    /// <summary>A line of our own: <paramref name="value"/> is text and gets escaped.</summary>
    public static ContentLine OfText(string name, string value) =>
        Of(
            name,
            value
                .Replace("\\", @"\\", StringComparison.Ordinal)
                .Replace(";", @"\;", StringComparison.Ordinal)
                .Replace(",", @"\,", StringComparison.Ordinal)
                .ReplaceLineEndings(@"\n")
        );

    /// <summary>A line of our own with a value that is already in its form; <paramref name="head"/> may carry parameters.</summary>
    public static ContentLine Of(string head, string value) =>
        TryParse(0, $"{head}:{value}") ?? throw new ArgumentException($"“{head}” is no property.", nameof(head));

    /// <summary>Reads an unfolded line; <c>null</c> where it has no name or no colon.</summary>
    public static ContentLine? TryParse(int number, string text)
    {
        var nameEnd = text.AsSpan().IndexOfAny(';', ':');
        if (nameEnd < 1 || !text.AsSpan(0, nameEnd).ContainsOnlyNameCharacters())
        {
            return null;
        }

        var name = text[..nameEnd].ToUpperInvariant();
        var parameters = new List<KeyValuePair<string, string>>();
        var at = nameEnd;
        while (at < text.Length && text[at] == ';')
        {
            var equals = text.IndexOf('=', at);
            if (equals < 0)
            {
                return null;
            }

            var end = EndOfParameter(text, equals + 1);
            if (end < 0)
            {
                return null;
            }

            parameters.Add(
                new(
                    text[(at + 1)..equals].ToUpperInvariant(),
                    text[(equals + 1)..end].Replace("\"", string.Empty, StringComparison.Ordinal)
                )
            );
            at = end;
        }

        return at < text.Length ? new ContentLine(number, name, parameters, text[(at + 1)..], text) : null;
    }

    private static int EndOfParameter(string text, int at)
    {
        var quoted = false;
        for (; at < text.Length; at++)
        {
            switch (text[at])
            {
                case '"':
                    quoted = !quoted;
                    break;
                case ';' or ':' when !quoted:
                    return at;
            }
        }

        return -1;
    }
}

file static class NameCharacters
{
    public static bool ContainsOnlyNameCharacters(this ReadOnlySpan<char> text)
    {
        foreach (var c in text)
        {
            if (!char.IsAsciiLetterOrDigit(c) && c is not ('-' or '_' or '.'))
            {
                return false;
            }
        }

        return true;
    }
}
