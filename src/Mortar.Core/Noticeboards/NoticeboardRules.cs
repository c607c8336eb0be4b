using Mortar.Core.Access;
using Mortar.Core.Groups;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Noticeboards;

/// <summary>Whether a noticeboard can be read by the world.</summary>
public enum BoardState
{
    /// <summary>It was never open.</summary>
    Draft,

    /// <summary>Anybody reads it.</summary>
    Open,

    /// <summary>Nobody reads it until somebody opens it again.</summary>
    Paused,
}

/// <summary>Who keeps a noticeboard, and when the world sees it.</summary>
public static class NoticeboardRules
{
    /// <summary>The most noticeboards that one person keeps, or ended not so long ago that their addresses are free.</summary>
    public const int Most = 100;

    /// <summary>For how long an old address leads on after a change, and belongs to nobody else after an end: printed ones are about.</summary>
    public static Duration OldAddressesLead { get; } = Duration.FromDays(180);

    /// <summary>The most old addresses that lead on at a time; the oldest go first.</summary>
    public const int MostOldAddresses = 5;

    /// <summary>Why somebody may not make, change or open it: what it gives the world of a calendar is its coordinators' to give. <c>null</c> where they may.</summary>
    /// <param name="steps">Their steps on its calendars.</param>
    public static Refusal? WhyNotKeep(IEnumerable<Role> steps) =>
        steps.Select(AccessRules.ToCoordinate).DefaultIfEmpty(Verdict.Granted).Max() switch
        {
            Verdict.Granted => null,
            Verdict.Hidden => new Refusal.NotThere("calendar"),
            _ => new Refusal.NotAllowed(
                "Only calendars that you coordinate can be on a noticeboard. Leave the others out, or ask their coordinators."
            ),
        };

    /// <summary>Whether somebody may change, pause and end it: who keeps it, and who coordinates all that is on it.</summary>
    public static bool MayTouch(bool isKeeper, IEnumerable<CalendarId> calendars, Reader reader)
    {
        var all = calendars.ToList();
        return isKeeper || (all.Count > 0 && WhyNotKeep(all.Select(reader.RoleOn)) is null);
    }

    /// <summary>Whether somebody finds it: also who coordinates one of its calendars, once the world could read it.</summary>
    public static bool MayFind(bool isKeeper, BoardState state, IEnumerable<CalendarId> calendars, Reader reader)
    {
        var all = calendars.ToList();
        return MayTouch(isKeeper, all, reader)
            || (state != BoardState.Draft && all.Exists(calendar => WhyNotKeep([reader.RoleOn(calendar)]) is null));
    }

    /// <summary>The calendars of which the world would be told more if it became as it would be: what has to be somebody's to give.</summary>
    /// <param name="now">As it is.</param>
    /// <param name="isOpen">Whether it is open.</param>
    /// <param name="then">As it would be.</param>
    public static IEnumerable<CalendarId> Given(Noticeboard now, bool isOpen, Noticeboard then)
    {
        // Beside which calendars are on it and at which step, everything counts for all of them.
        var isSame = isOpen && now.ShowsAs(then);
        return then
            .Layers.Where(layer =>
                !isSame || !now.Layers.Any(one => one.CalendarId == layer.CalendarId && one.Role >= layer.Role)
            )
            .Select(layer => layer.CalendarId);
    }

    /// <summary>Whether the world reads it now: it is open, its group is at work, and who keeps it coordinates every calendar on it.</summary>
    /// <param name="state">As it was left.</param>
    /// <param name="group">How it is with the group on whose pages it is kept.</param>
    /// <param name="steps">The keeper's steps on its calendars; on those in the bin and those whose group has ended they have none.</param>
    public static bool IsRead(BoardState state, GroupState group, IEnumerable<Role> steps) =>
        state == BoardState.Open && group == GroupState.There && WhyNotKeep(steps) is null;

    /// <summary>
    /// Whether it was open and is not its keeper's to show any more: it is paused then, and is open again only by somebody's
    /// hand. What is off the walls with its group is not lost: it comes back with it as it was.
    /// </summary>
    /// <param name="state">As it was left.</param>
    /// <param name="steps">The keeper's steps on its calendars, also on those whose group has ended.</param>
    public static bool IsLost(BoardState state, IEnumerable<Role> steps) =>
        state == BoardState.Open && WhyNotKeep(steps) is not null;

    /// <summary>Why it cannot be opened as it is; <c>null</c> where it can.</summary>
    public static Refusal? WhyNotOpen(Noticeboard board) =>
        board.Layers.IsEmpty
            ? new Refusal.AgainstRule(
                "nothing-on-it",
                "There is no calendar on this noticeboard. Choose one before you open it."
            )
            : null;
}
