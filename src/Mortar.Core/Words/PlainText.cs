using System.Globalization;
using System.Text;

namespace Mortar.Core.Words;

/// <summary>Text that people type or files bring, made safe to show as text: nothing in it can act.</summary>
/// <remarks>
/// Markup is left as it stands (it is shown, not run). What has no shape of its own is taken out: control characters
/// and the marks that turn the direction of a whole line (U+202A to U+202E, U+2066 to U+2069), which could make a
/// title write over its neighbours.
/// </remarks>
public static class PlainText
{
    /// <summary>The text on one line: every run of line breaks, tabs and spaces becomes one space.</summary>
    public static string OneLine(string? text)
    {
        var kept = new StringBuilder();
        foreach (var c in text ?? string.Empty)
        {
            if (char.IsWhiteSpace(c) || c == '\u0085')
            {
                if (kept.Length > 0 && kept[^1] != ' ')
                {
                    kept.Append(' ');
                }
            }
            else if (HasShape(c))
            {
                kept.Append(c);
            }
        }

        return kept.ToString().TrimEnd();
    }

    /// <summary>The text with its line breaks (as <c>\n</c>) and tabs, and no other control characters.</summary>
    public static string Lines(string? text)
    {
        var kept = new StringBuilder();
        foreach (var c in (text ?? string.Empty).ReplaceLineEndings("\n"))
        {
            if (c is '\n' or '\t' || HasShape(c))
            {
                kept.Append(c);
            }
        }

        return kept.ToString().Trim();
    }

    /// <summary>The text, cut to at most <paramref name="length"/> UTF-16 units with an ellipsis at the end where it was longer.</summary>
    /// <remarks>Never cuts between the two halves of a surrogate pair.</remarks>
    public static string Shorten(string text, int length)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(length, 1);
        if (text.Length <= length)
        {
            return text;
        }

        var end = char.IsHighSurrogate(text[length - 2 < 0 ? 0 : length - 2]) ? length - 2 : length - 1;
        return string.Concat(text.AsSpan(0, Math.Max(end, 0)), "…");
    }

    private static bool HasShape(char c) =>
        c is not ((>= '\u202A' and <= '\u202E') or (>= '\u2066' and <= '\u2069') or '\uFEFF')
        && char.GetUnicodeCategory(c) is not UnicodeCategory.Control;
}
