using Mortar.Core.Words;

namespace Mortar.Core.Access;

/// <summary>Where a request for access stands.</summary>
public enum AskState
{
    /// <summary>Not answered.</summary>
    Waiting,

    /// <summary>A step was given: the one that was asked for, a lower or a higher one.</summary>
    Granted,

    /// <summary>A coordinator said no.</summary>
    Refused,

    /// <summary>Taken back by whoever asked.</summary>
    Withdrawn,
}

/// <summary>A request for a step on a calendar.</summary>
/// <param name="Role">The step that is asked for.</param>
/// <param name="Note">What is said with it; may be empty.</param>
public sealed record Ask(Role Role, string Note)
{
    /// <summary>The longest note, in UTF-16 units.</summary>
    public const int LongestNote = 1_000;

    /// <summary>Makes the note safe and checks the request.</summary>
    /// <remarks>Nothing here depends on the calendar: whether there is one is not told.</remarks>
    public static Checked<Ask> Check(Role role, string? note)
    {
        var ask = new Ask(role, PlainText.Lines(note));
        var problems = new List<FieldProblem>();
        if (role is Role.None or Role.Coordinate)
        {
            problems.Add(
                new FieldProblem(
                    "role",
                    "Ask for a step from Times only to Edit. Coordinators are made by coordinators."
                )
            );
        }

        if (ask.Note.Length > LongestNote)
        {
            problems.Add(
                new FieldProblem(
                    "note",
                    FormattableString.Invariant($"A note can have up to {LongestNote} characters. Shorten it.")
                )
            );
        }

        return new(ask, problems);
    }

    /// <summary>Whether asking makes sense for somebody who stands there already.</summary>
    public static bool IsMore(Role wished, Role has) => wished > has;
}
