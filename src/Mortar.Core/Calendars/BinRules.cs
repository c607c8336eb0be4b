using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Calendars;

/// <summary>What is deleted waits in the bin, and comes back from there whole.</summary>
public static class BinRules
{
    /// <summary>How long it waits.</summary>
    public static readonly Duration Kept = Duration.FromDays(30);

    /// <summary>Whether something can still be brought back.</summary>
    /// <param name="deletedAt">When it went to the bin.</param>
    /// <param name="now">What o'clock it is.</param>
    public static bool IsKept(Instant deletedAt, Instant now) => now < deletedAt + Kept;

    /// <summary>Checks the name typed to delete a calendar for everybody: it has to be that calendar's.</summary>
    public static Checked<string> Check(string name, string? typed) =>
        string.Equals(PlainText.OneLine(typed), name, StringComparison.OrdinalIgnoreCase)
            ? new(name)
            : new(name, [new FieldProblem("name", $"Type the calendar’s name to delete it for everybody: {name}")]);
}
