using Mortar.Core.Words;

namespace Mortar.Core.Letters;

/// <summary>What others did that concerns somebody, told at once.</summary>
public static class NoticeLetter
{
    /// <summary>The most that one mail says; of the rest it tells how many they are.</summary>
    public const int MostLines = 40;

    /// <param name="name">Who is told.</param>
    /// <param name="lines">What happened, a sentence each, one at least.</param>
    /// <param name="inbox">Where they look.</param>
    /// <param name="preferences">Where they choose what comes by mail.</param>
    public static Letter For(string name, IReadOnlyList<string> lines, string inbox, string preferences)
    {
        var more = lines.Count > MostLines ? $"\nand {lines.Count - MostLines} more." : string.Empty;
        return new(
            lines.Count == 1 ? lines[0] : $"{Wording.Count(lines.Count, "change", "changes")} that concern you",
            $"""
            Hello {name},

            {string.Join('\n', lines.Take(MostLines).Select(line => $"- {line}"))}{more}

            {inbox}

            What comes to you by mail, and when not, you choose in your preferences:
            {preferences}
            """
        );
    }
}
