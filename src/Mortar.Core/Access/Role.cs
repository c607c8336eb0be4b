using System.Diagnostics.CodeAnalysis;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Access;

/// <summary>The ladder: what somebody may do with a calendar. Each step includes those before it.</summary>
public enum Role
{
    /// <summary>The calendar is not there for them.</summary>
    None = 0,

    /// <summary>When the calendar is busy, and nothing else.</summary>
    Times = 1,

    /// <summary>Also titles and places.</summary>
    Outline = 2,

    /// <summary>Also notes, attendees, everything.</summary>
    View = 3,

    /// <summary>Also add events, and change or delete those they added.</summary>
    Add = 4,

    /// <summary>Also change or delete any event.</summary>
    Edit = 5,

    /// <summary>Also give and take access, change settings, publish, delete the calendar.</summary>
    Coordinate = 6,
}

/// <summary>How somebody comes to a step.</summary>
[SuppressMessage("Naming", "CA1720:Identifier contains type name", Justification = "No type is meant.")]
public enum Way
{
    /// <summary>It was given to them.</summary>
    Own,

    /// <summary>It was given to a group they are in.</summary>
    Group,

    /// <summary>Every member of the calendar's group has it.</summary>
    Default,

    /// <summary>They hold a link.</summary>
    Link,

    /// <summary>Somebody they see and answer for has it.</summary>
    Guardian,
}

/// <summary>One reason for which somebody reaches a calendar.</summary>
/// <param name="Role">The step it gives.</param>
/// <param name="Way">How they come to it.</param>
/// <param name="EndsAt">From when on it counts no more; <c>null</c> where it has no end.</param>
/// <param name="Through">The group it was given to; <c>null</c> unless it came by <see cref="Way.Group"/>.</param>
public readonly record struct Grant(Role Role, Way Way, Instant? EndsAt = null, GroupId? Through = null)
{
    /// <summary>Whether it gives anything at a moment; the end itself is past it.</summary>
    public bool CountsAt(Instant now) => Role > Role.None && (EndsAt is not { } end || now < end);

    /// <summary>
    /// What somebody has once they are given a step beside it: nothing is lowered by it, and of two like ones the later end
    /// counts.
    /// </summary>
    /// <param name="role">The step.</param>
    /// <param name="endsAt">Its end; <c>null</c> where it has none.</param>
    /// <param name="now">What o'clock it is: what is over gives nothing.</param>
    public Grant Raised(Role role, Instant? endsAt, Instant now) =>
        !CountsAt(now) || role > Role ? this with { Role = role, EndsAt = endsAt }
        : role == Role && EndsAt is { } end
            ? this with
            {
                EndsAt = endsAt is { } other ? Instant.Max(end, other) : null,
            }
        : this;
}
