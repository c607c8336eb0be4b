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
    /// <summary>Whether a change of a calendar's own shows to whoever has that step on it; events and answers are looked at one by one.</summary>
    /// <param name="subject">What was changed.</param>
    /// <param name="role">The reader's step on the calendar.</param>
    public static bool ShowsTo(Subject subject, Role role) =>
        subject switch
        {
            Subject.Calendar => true,
            Subject.FineClash => role >= Role.View,
            _ => false,
        };

    /// <summary>Whether somebody's answer to an event shows to a reader: who sees that they are named on it.</summary>
    /// <param name="role">The reader's step on the calendar.</param>
    /// <param name="reader">Who reads.</param>
    /// <param name="whole">The event.</param>
    /// <param name="answers">Who answered.</param>
    public static bool AnswerShowsTo(Role role, PersonId reader, Event whole, PersonId answers) =>
        VisibleEvent.SeesEverything(role, reader, whole)
        && VisibleEvent.WithNamesSeen(role, reader, whole).Named.Contains(answers);
}
