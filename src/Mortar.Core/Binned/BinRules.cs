using Mortar.Core.Access;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Binned;

/// <summary>What is deleted waits in the bin, and comes back from there whole.</summary>
public static class BinRules
{
    /// <summary>How long it waits.</summary>
    public static readonly Duration Kept = Duration.FromDays(30);

    /// <summary>It is not there for who asks: brought back by another, gone, or never theirs.</summary>
    public static Refusal NoMore { get; } = new Refusal.NotThere("thing in the bin");

    /// <summary>Somebody wants a thing gone for good that is not theirs to take out.</summary>
    public static Refusal NotToErase { get; } =
        new Refusal.NotAllowed(
            "Whoever coordinates the calendar takes things out of the bin for good. They go by themselves after thirty days."
        );

    /// <summary>A copy of it came since.</summary>
    public static Refusal HasCopy { get; } =
        new Refusal.AgainstRule(
            "already-there",
            "A copy of it is in that calendar by now. Delete that one first, then bring this one back."
        );

    /// <summary>Another time is wanted for what cannot have one.</summary>
    public static Refusal OnlyOne { get; } =
        new Refusal.Unfit("start", "Only a single event with hours can come back at another time, one at a time.");

    /// <summary>Proposed times that nobody could take any more.</summary>
    public static Refusal Over { get; } =
        new Refusal.AgainstRule("over", "All its times are over by now. Propose new ones.");

    /// <summary>Whether something can still be brought back.</summary>
    /// <param name="deletedAt">When it went to the bin.</param>
    /// <param name="now">What o'clock it is.</param>
    public static bool IsKept(Instant deletedAt, Instant now) => now < deletedAt + Kept;

    /// <summary>To take what waits in the bin out of it for good, before its time: who coordinates the calendar it is of.</summary>
    public static Verdict ToErase(Role role) => AccessRules.ToCoordinate(role);

    /// <summary>Checks the name typed to show that this is meant: to delete a calendar for everybody, or anything for good.</summary>
    /// <param name="name">What it is called.</param>
    /// <param name="typed">What was typed; capitals and blanks do not count.</param>
    /// <param name="what">What it is and what becomes of it, as the sentence goes on: "the calendar’s name to delete it for everybody".</param>
    public static Checked<string> Check(string name, string? typed, string what) =>
        string.Equals(PlainText.OneLine(typed), name, StringComparison.OrdinalIgnoreCase)
            ? new(name)
            : new(name, [new FieldProblem("name", $"Type {what}: {name}")]);

    /// <summary>What has to be typed to have something of a calendar go for good: its title, where it is one and has one; the calendar's name otherwise.</summary>
    public static string Spoken(IReadOnlyList<string> titles, string calendar) =>
        titles is [var only] && PlainText.OneLine(only) is { Length: > 0 } title ? title : calendar;
}
