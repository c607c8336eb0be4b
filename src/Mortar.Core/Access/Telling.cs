using Mortar.Core.Changes;
using Mortar.Core.Events;
using Mortar.Core.Words;

namespace Mortar.Core.Access;

/// <summary>
/// To whom it shows on an open wall that something about a calendar changed. Who has access, who was asked for it and what is
/// proposed shows on nobody's: those whom it concerns are told of that by itself.
/// </summary>
public static class Telling
{
    /// <summary>Whether a change of such a thing can change who may see what.</summary>
    public static bool DecidesAccess(this Subject subject) =>
        subject
            is Subject.Calendar
                or Subject.Group
                or Subject.Grant
                or Subject.GroupGrant
                or Subject.Member
                or Subject.Guardian
                or Subject.Link
                or Subject.LinkHolder;

    /// <summary>Whether it shows to whoever has that step on a calendar that a clash in it was marked as fine.</summary>
    public static bool FineClashShowsTo(Role role) => role >= Role.View;

    /// <summary>Whether somebody's answer to an event shows to a reader: who sees that they are named on it.</summary>
    /// <param name="role">The reader's step on the calendar.</param>
    /// <param name="reader">Who reads.</param>
    /// <param name="whole">The event.</param>
    /// <param name="answers">Who answered.</param>
    public static bool AnswerShowsTo(Role role, PersonId reader, Event whole, PersonId answers) =>
        VisibleEvent.SeesEverything(role, reader, whole)
        && VisibleEvent.WithNamesSeen(role, reader, whole).Named.Contains(answers);
}
