using Mortar.Core.Reminders;
using Mortar.Core.Words;

namespace Mortar.Core.Letters;

/// <summary>What changed in somebody's calendars since they were last told.</summary>
public static class DigestLetter
{
    /// <param name="name">Who is told.</param>
    /// <param name="lines">A sentence for each event; more than <see cref="DigestRules.MostEvents"/> are counted.</param>
    /// <param name="link">Where they look.</param>
    public static Letter For(string name, IReadOnlyList<string> lines, string link)
    {
        var told = string.Join('\n', lines.Take(DigestRules.MostEvents).Select(line => $"- {line}"));
        var more =
            lines.Count > DigestRules.MostEvents ? $"\nand {lines.Count - DigestRules.MostEvents} more." : string.Empty;
        return new(
            $"What changed in your calendars: {Wording.Count(lines.Count, "event", "events")}",
            $"""
            Hello {name},

            {told}{more}

            {link}

            You get this as often as you chose in your preferences.
            """
        );
    }
}
