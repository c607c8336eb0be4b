using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Events;
using Mortar.Core.Words;

namespace Mortar.Core.Undo;

/// <summary>
/// Who may take what back. An undo is an act of its own: it is judged by what its actor may do now, never by what they might
/// do when they did what they undo. What it would give is judged by <see cref="Giving"/>.
/// </summary>
public static class UndoRules
{
    /// <summary>What undoing a change in a calendar needs at least; each thing is looked at more closely by itself.</summary>
    /// <param name="subject">What kind of thing was changed.</param>
    /// <param name="role">The actor's step on the calendar now.</param>
    public static (Verdict Verdict, Role Needs) InCalendar(Subject subject, Role role) =>
        subject switch
        {
            // Whoever no longer sees a calendar is not told either that something in it has changed.
            Subject.Event or Subject.Proposal => (AccessRules.ToAdd(role), Role.Add),
            // What one said oneself, and a clash that is fine: judged by what it is about.
            Subject.Answer or Subject.Suitings or Subject.FineClash => (Verdict.Granted, Role.Times),
            _ => (AccessRules.ToCoordinate(role), Role.Coordinate),
        };

    /// <summary>
    /// Whether what somebody did can be undone by others than themselves, who then may do the same now: what stands in
    /// calendars and how these are set up. What somebody said or decided about themselves is theirs.
    /// </summary>
    /// <param name="subject">What kind of thing was changed.</param>
    /// <param name="isTheirs">Whether whom it concerns did it.</param>
    public static bool CanBeUndoneByOthers(Subject subject, bool isTheirs) =>
        subject switch
        {
            Subject.Event or Subject.Calendar or Subject.Group or Subject.GroupGrant or Subject.Proposal => true,
            Subject.Grant => !isTheirs,
            _ => false,
        };

    /// <summary>
    /// To bring an event back to an earlier state. What only changes what it is needs what changing it needs; whatever moves
    /// it, deletes it or brings it back, hands it over or gives it to others needs the right to do that where it is and
    /// where it would be.
    /// </summary>
    /// <param name="actor">Who undoes.</param>
    /// <param name="now">The event as it is.</param>
    /// <param name="then">As it would be; <c>null</c> where it would not be there.</param>
    /// <param name="isDeletedNow">Whether it is in the bin.</param>
    /// <param name="isDeletedThen">Whether it would be.</param>
    /// <param name="roleOn">The actor's step on a calendar now.</param>
    public static Verdict OfEvent(
        PersonId actor,
        Event now,
        Event? then,
        bool isDeletedNow,
        bool isDeletedThen,
        Func<CalendarId, Role> roleOn
    )
    {
        var isGivenAway =
            then is null
            || isDeletedNow != isDeletedThen
            || now.CalendarId != then.CalendarId
            || now.AddedBy != then.AddedBy
            || !now.GivenTo.Equals(then.GivenTo)
            || !now.Editors.Equals(then.Editors);
        if (!isGivenAway)
        {
            return AccessRules.ToChange(roleOn(now.CalendarId), actor, now);
        }

        var verdict = AccessRules.ToGiveAway(roleOn(now.CalendarId), actor, now);
        // Whoever moved their own event elsewhere may still be the one who added it there.
        return verdict == Verdict.Granted && then is not null && then.CalendarId != now.CalendarId
            ? AccessRules.ToChange(roleOn(then.CalendarId), actor, then.AddedBy)
            : verdict;
    }

    /// <summary>Why the making of a calendar is not undone; <c>null</c> where it is.</summary>
    /// <param name="hasEvents">Whether anything is in it by now.</param>
    /// <remarks>What others have written since goes from their walls by its name typed, and not by a key.</remarks>
    public static Refusal? WhyNotUnmake(bool hasEvents) =>
        hasEvents
            ? new Refusal.AgainstRule(
                "in-use",
                "There are events in this calendar by now. Delete it in its settings, where its name is typed for that."
            )
            : null;

    /// <summary>To bring a place in a group back: its coordinators; and one's own answer to being asked.</summary>
    /// <param name="isTheirs">Whether it is the actor's own place.</param>
    /// <param name="isMember">Whether the actor is in the group now.</param>
    /// <param name="coordinates">Whether they coordinate it now.</param>
    /// <param name="then">Where it would stand.</param>
    public static Verdict OfPlace(bool isTheirs, bool isMember, bool coordinates, MemberPlace then) =>
        isTheirs && then == MemberPlace.Asked ? Verdict.Granted
        : isMember && coordinates ? Verdict.Granted
        : isMember ? Verdict.Denied
        : Verdict.Hidden;
}
