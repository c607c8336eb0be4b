using Mortar.Core.Events;
using Mortar.Core.WebCalendars;
using Mortar.Core.Words;

namespace Mortar.Core.Access;

/// <summary>The answer to "may they?".</summary>
public enum Verdict
{
    /// <summary>They may.</summary>
    Granted,

    /// <summary>They may not, and may know that the thing is there.</summary>
    Denied,

    /// <summary>For them the thing is not there; an outsider learns nothing.</summary>
    Hidden,
}

/// <summary>Who may do what with a calendar: one rule each, beside the ladder of <see cref="Role"/>.</summary>
public static class AccessRules
{
    /// <summary>To know that the calendar is there, and when it is busy.</summary>
    public static Verdict ToSee(Role role) => AtLeast(role, Role.Times);

    /// <summary>To take everything with them as a file.</summary>
    public static Verdict ToExport(Role role) => AtLeast(role, Role.View);

    /// <summary>To read what was done in the calendar, as far as one sees it there.</summary>
    public static Verdict ToReadHistory(Role role) => AtLeast(role, Role.View);

    /// <summary>To put events in, by hand or from a file.</summary>
    public static Verdict ToAdd(Role role) => AtLeast(role, Role.Add);

    /// <summary>Why nothing can be put into a calendar; <c>null</c> where it can.</summary>
    /// <param name="role">The step on it.</param>
    /// <param name="fromWeb">Whether its events come from the web.</param>
    public static Refusal? WhyNotAdd(Role role, bool fromWeb) =>
        ToAdd(role).WhyNot("calendar", "Add") ?? (fromWeb ? WebCalendarRules.WhyNotAdd : null);

    /// <summary>To change, move or delete an event of a calendar, whomever it is given to by itself.</summary>
    /// <param name="role">The step on the event's calendar.</param>
    /// <param name="actor">Who asks.</param>
    /// <param name="addedBy">Who put the event in.</param>
    public static Verdict ToChange(Role role, PersonId actor, PersonId addedBy) =>
        role switch
        {
            // At Times only nothing tells one event from another, so no single one is there.
            Role.None or Role.Times => Verdict.Hidden,
            // What comes from the web is changed where it is kept.
            _ when addedBy == WebCalendarRules.TheWeb => Verdict.Denied,
            >= Role.Edit => Verdict.Granted,
            Role.Add when actor == addedBy => Verdict.Granted,
            _ => Verdict.Denied,
        };

    /// <summary>The step on one event: that on its calendar, or a higher one where the event is given by itself.</summary>
    /// <param name="role">The step on the event's calendar.</param>
    /// <param name="reader">Whose.</param>
    /// <param name="whole">The event.</param>
    public static Role OnEvent(Role role, PersonId reader, Event whole) =>
        role < Role.Edit && whole.Editors.Has(reader) ? Role.Edit
        : role < Role.View && whole.GivenTo.Has(reader) ? Role.View
        : role;

    /// <summary>To change an event where it is.</summary>
    public static Verdict ToChange(Role role, PersonId actor, Event whole) =>
        ToChange(OnEvent(role, actor, whole), actor, whole.AddedBy);

    /// <summary>
    /// To delete an event, move it to another calendar, hand it over or give it to others: not for those to whom it is
    /// given by itself.
    /// </summary>
    public static Verdict ToGiveAway(Role role, PersonId actor, Event whole) =>
        ToChange(role, actor, whole.AddedBy) switch
        {
            Verdict.Hidden when OnEvent(role, actor, whole) >= Role.Outline => Verdict.Denied,
            var verdict => verdict,
        };

    /// <summary>Whether somebody can be handed an event: they could have put it in themselves.</summary>
    /// <param name="role">Their step on the event's calendar.</param>
    public static bool CanOrganize(Role role) => role >= Role.Add;

    /// <summary>To see what a private event is, beyond when: those who may change it, and those named on it.</summary>
    /// <param name="role">The step on the event's calendar.</param>
    /// <param name="reader">Who asks.</param>
    /// <param name="addedBy">Who put the event in.</param>
    /// <param name="isNamed">Whether the reader is named on it.</param>
    public static bool SeesPrivate(Role role, PersonId reader, PersonId addedBy, bool isNamed) =>
        isNamed || role >= Role.Edit || ToChange(role, reader, addedBy) == Verdict.Granted;

    /// <summary>
    /// Those named on an event whom a reader finds there: everybody, unless it keeps that to those who may change it; then
    /// at most themselves.
    /// </summary>
    /// <param name="role">The reader's step on its calendar; one that shows who is named at all.</param>
    /// <param name="reader">Who reads.</param>
    /// <param name="whole">The event.</param>
    /// <param name="content">What it is on the date that is meant.</param>
    public static Attendees NamesSeen(Role role, PersonId reader, Event whole, EventContent content) =>
        !content.HidesAttendees || ToChange(role, reader, whole) == Verdict.Granted
            ? content.Attendees
            : Attendees.Of(content.Attendees.Where(one => one == reader));

    /// <summary>To give and take access, change settings, delete the calendar, and see who else has access.</summary>
    public static Verdict ToCoordinate(Role role) => AtLeast(role, Role.Coordinate);

    /// <summary>To end one person's access: a coordinator for anybody, everybody for themselves.</summary>
    public static Verdict ToEnd(Role role, PersonId actor, PersonId whose) =>
        role > Role.None && actor == whose ? Verdict.Granted : ToCoordinate(role);

    private static Verdict AtLeast(Role role, Role needed) =>
        role == Role.None ? Verdict.Hidden
        : role >= needed ? Verdict.Granted
        : Verdict.Denied;
}
