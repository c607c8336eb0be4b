using System.Globalization;
using Mortar.Core.Changes;

namespace Mortar.Core.Undo;

/// <summary>How much of an act is taken back where something of it was changed again since.</summary>
public enum UndoReach
{
    /// <summary>All of it or nothing.</summary>
    Whole,

    /// <summary>What still fits: things that were not changed since, and of the others what about them was not.</summary>
    WhatFits,
}

/// <summary>Whether one act can be taken back, and what that means for each thing it touched.</summary>
public abstract record UndoPlan
{
    private UndoPlan() { }

    /// <summary>It can: bring every subject back to its state before the act.</summary>
    /// <param name="Returns">The things that go back.</param>
    /// <param name="Left">How many stay as they are, since they were not there before and have become something else.</param>
    public sealed record Possible(IReadOnlyList<Return> Returns, int Left = 0) : UndoPlan;

    /// <summary>It cannot, for the reason in the sentence; nothing is changed.</summary>
    public sealed record Refused(string Type, string Sentence) : UndoPlan;

    /// <summary>One thing and the state it goes back to; <c>null</c> where it was not there before.</summary>
    /// <param name="Subject">What kind of thing.</param>
    /// <param name="SubjectId">Which one.</param>
    /// <param name="To">The state.</param>
    /// <param name="From">The state the act left it in, where it was changed since: only what is still so goes back.</param>
    public sealed record Return(Subject Subject, Guid SubjectId, string? To, string? From = null);

    /// <summary>Plans the undoing of one act.</summary>
    /// <param name="changes">All changes of the act, in order; empty where there is no such act.</param>
    /// <param name="latest">For each thing the act touched, the sequence of its latest change of all.</param>
    /// <param name="reach">How much of it, where something was changed since.</param>
    /// <remarks>
    /// What somebody did in the meantime is never overwritten unseen. Undoing twice is such a case as well, since undoing is
    /// itself a change.
    /// </remarks>
    public static UndoPlan Plan(
        IReadOnlyList<Change> changes,
        IReadOnlyDictionary<Guid, long> latest,
        UndoReach reach = UndoReach.Whole
    )
    {
        if (changes.Count == 0)
        {
            return new Refused("not-found", "There is no such change.");
        }

        var touched = changes.GroupBy(change => (change.Subject, change.SubjectId)).ToList();
        var overtaken = touched
            .Where(group =>
                latest.TryGetValue(group.Key.SubjectId, out var last) && last > group.Max(change => change.Sequence)
            )
            .Select(group => group.Key)
            .ToHashSet();
        if (overtaken.Count > 0 && reach == UndoReach.Whole)
        {
            return new Refused("changed-since", Overtaken(overtaken.Count, touched.Count));
        }

        var returns = (
            from whole in touched
            let isOvertaken = overtaken.Contains(whole.Key)
            let before = whole.First().Before
            // What was made and then changed by somebody is theirs as well by now, and stays.
            where !isOvertaken || before is not null
            select new Return(whole.Key.Subject, whole.Key.SubjectId, before, isOvertaken ? whole.Last().After : null)
        ).ToList();
        returns.Reverse();
        return returns.Count > 0
            ? new Possible(returns, touched.Count - returns.Count)
            : new Refused("nothing-fits", NothingFits);
    }

    /// <summary>What is said where nothing of an act can go back any more.</summary>
    public const string NothingFits =
        "All of it was changed again since then, so nothing of it still fits. Open it to see its latest state.";

    private static string Overtaken(int overtaken, int all) =>
        all == 1
            ? "This was changed again since then, so it was left as it is now. Open it to see its latest state."
            : string.Create(
                CultureInfo.InvariantCulture,
                $"{overtaken} of {all} were changed again since then, so nothing was taken back. Bring back only what still fits, or change them one by one."
            );
}
