using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Changes;

/// <summary>What kind of thing a change is about.</summary>
public enum Subject
{
    /// <summary>An event or series.</summary>
    Event,

    /// <summary>A calendar and its settings.</summary>
    Calendar,

    /// <summary>One person's own step on a calendar.</summary>
    Grant,

    /// <summary>An invitation.</summary>
    Invitation,

    /// <summary>A group and its settings.</summary>
    Group,

    /// <summary>A whole group's step on a calendar.</summary>
    GroupGrant,

    /// <summary>Somebody's place in a group.</summary>
    Member,

    /// <summary>Somebody's request for a step on a calendar.</summary>
    Ask,

    /// <summary>A link that gives a step to whoever holds it.</summary>
    Link,

    /// <summary>That somebody put a calendar on their wall by a link.</summary>
    LinkHolder,

    /// <summary>That somebody sees and answers for a member of a group.</summary>
    Guardian,

    /// <summary>Somebody's request for a calendar of a person or a group.</summary>
    OpenAsk,

    /// <summary>That a clash was marked as fine.</summary>
    FineClash,

    /// <summary>What somebody answered to an event they are named on.</summary>
    Answer,

    /// <summary>Several times put to people as one question.</summary>
    Proposal,

    /// <summary>What somebody said to the times of such a question.</summary>
    Suitings,

    /// <summary>Whether a coordinator agreed to an absence.</summary>
    Agreement,

    /// <summary>Somebody outside a group who can be named on its events.</summary>
    Guest,

    /// <summary>A noticeboard.</summary>
    Noticeboard,
}

/// <summary>One row of the log: what was before and what came after.</summary>
/// <param name="Sequence">Counts all changes from 1, without order between groups being lost.</param>
/// <param name="Set">The act it belongs to.</param>
/// <param name="At">When.</param>
/// <param name="Actor">Who.</param>
/// <param name="Subject">What kind of thing.</param>
/// <param name="SubjectId">Which one.</param>
/// <param name="Before">Its state before, as stored text; <c>null</c> where it was not there.</param>
/// <param name="After">Its state after; <c>null</c> where it is gone.</param>
public sealed record Change(
    long Sequence,
    ChangeSetId Set,
    Instant At,
    PersonId Actor,
    Subject Subject,
    Guid SubjectId,
    string? Before,
    string? After
);
