using Mortar.Core.Words;

namespace Mortar.Data.Store;

/// <summary>One act of one person: all that it changes is one set in the log and is undone together.</summary>
/// <param name="Actor">Who acts.</param>
/// <param name="Set">The set, named by the client, so that its <em>Undo</em> knows it.</param>
public readonly record struct Act(PersonId Actor, ChangeSetId Set)
{
    /// <summary>The act that this one takes back; <c>null</c> where it takes none.</summary>
    public ChangeSetId? Undoes { get; init; }

    /// <summary>An act that the client gave no name.</summary>
    public static Act By(PersonId actor) => new(actor, new ChangeSetId(Guid.CreateVersion7()));
}
