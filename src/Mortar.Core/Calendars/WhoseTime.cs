using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Words;

namespace Mortar.Core.Calendars;

/// <summary>Whose time the events of a calendar take.</summary>
public enum WhoseTime
{
    /// <summary>Those named on the event.</summary>
    Named,

    /// <summary>Everybody in the calendar's group, and those named.</summary>
    Group,

    /// <summary>One person's, whose own calendar it is, and those named.</summary>
    Person,

    /// <summary>Nobody's: the calendar is only to be looked at.</summary>
    Nobody,
}

/// <summary>What follows from what a calendar is for.</summary>
public static class PurposeRules
{
    /// <summary>Who is named on an event: those who are wished, and on an absence that names nobody the one who added it.</summary>
    public static Attendees Named(this Purpose purpose, Attendees wished, PersonId addedBy) =>
        purpose == Purpose.Away && wished.Count == 0 ? Attendees.Of([addedBy]) : wished;

    /// <summary>
    /// Whether somebody may name these people on an event: with the step <see cref="Role.Add"/> absences are one's own, or
    /// those of people for whom one answers.
    /// </summary>
    /// <param name="purpose">What the calendar is for.</param>
    /// <param name="role">The step on it.</param>
    /// <param name="own">Oneself and those for whom one answers.</param>
    /// <param name="named">Those named who were not named before.</param>
    public static bool MayName(
        this Purpose purpose,
        Role role,
        IEnumerable<PersonId> own,
        IEnumerable<PersonId> named
    ) => purpose != Purpose.Away || role >= Role.Edit || !named.Except(own).Any();
}
