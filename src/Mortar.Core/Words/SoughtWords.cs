using System.Globalization;

namespace Mortar.Core.Words;

/// <summary>Words that somebody looks for, as they type them: case, accents and width do not count.</summary>
public static class SoughtWords
{
    private const CompareOptions Loosely =
        CompareOptions.IgnoreCase | CompareOptions.IgnoreNonSpace | CompareOptions.IgnoreWidth;

    /// <summary>Whether each of the words is somewhere in a text; no words are in every one.</summary>
    public static bool AreIn(string text, string words) =>
        words
            .Split(' ', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
            .All(word => CultureInfo.InvariantCulture.CompareInfo.IndexOf(text, word, Loosely) >= 0);
}
