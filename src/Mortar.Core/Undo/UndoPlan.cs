using System.Globalization;
using Mortar.Core.Changes;
using Mortar.Core.Words;

namespace Mortar.Core.Undo;

/// <summary>Whether one act can be taken back, and what that means for each thing it touched.</summary>
public abstract record UndoPlan
{
    private UndoPlan() { }

    /// <summary>It can: bring every subject back to its state before the act.</summary>
    public sealed record Possible(IReadOnlyList<Return> Returns) : UndoPlan;

    /// <summary>It cannot, for the reason in the sentence; nothing is changed.</summary>
    public sealed record Refused(string Type, string Sentence) : UndoPlan;

    /// <summary>One thing and the state it goes back to; <c>null</c> where it was not there before.</summary>
    public sealed record Return(Subject Subject, Guid SubjectId, string? To);

    /// <summary>Plans the undoing of one act.</summary>
    /// <param name="changes">All changes of the act, in order; empty where there is no such act.</param>
    /// <param name="actor">Who wants it undone: only one's own acts can be.</param>
    /// <param name="latest">For each thing the act touched, the sequence of its latest change of all.</param>
    /// <remarks>
    /// A thing changed again since then keeps the whole act from being undone: what somebody did in the meantime is
    /// never overwritten unseen. Undoing twice is such a case as well, since undoing is itself a change.
    /// </remarks>
    public static UndoPlan Plan(IReadOnlyList<Change> changes, PersonId actor, IReadOnlyDictionary<Guid, long> latest)
    {
        if (changes.Count == 0 || changes.Any(change => change.Actor != actor))
        {
            return new Refused("not-found", "There is no such change of yours.");
        }

        var touched = changes.GroupBy(change => (change.Subject, change.SubjectId)).ToList();
        var overtaken = touched.Count(group =>
            latest.TryGetValue(group.Key.SubjectId, out var last) && last > group.Max(change => change.Sequence)
        );
        if (overtaken > 0)
        {
            return new Refused("changed-since", Overtaken(overtaken, touched.Count));
        }

        return new Possible([
            .. touched
                .Select(group => new Return(group.Key.Subject, group.Key.SubjectId, group.First().Before))
                .Reverse(),
        ]);
    }

    private static string Overtaken(int overtaken, int all) =>
        all == 1
            ? "This was changed again since then, so it was left as it is now. Open it to see its latest state."
            : string.Create(
                CultureInfo.InvariantCulture,
                $"{overtaken} of {all} were changed again since then, so nothing was taken back. Change or delete them one by one."
            );
}
