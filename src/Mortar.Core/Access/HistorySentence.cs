using System.Globalization;
using NodaTime;

namespace Mortar.Core.Access;

/// <summary>Says what somebody did about access; the name of who did it stands before.</summary>
public static class HistorySentence
{
    /// <summary>A step that was given, changed or ended: "gave Priya View until Fri 27 March 2026"; <c>null</c> where nothing of it changed.</summary>
    /// <param name="whom">A person or a group, as the reader knows them; <c>null</c> where somebody did it for themselves.</param>
    /// <param name="before">The step before, and its last day.</param>
    /// <param name="after">The step after.</param>
    public static string? OfStep(
        string? whom,
        (Role Role, LocalDate? LastDay) before,
        (Role Role, LocalDate? LastDay) after
    )
    {
        if (before == after)
        {
            return null;
        }

        var until = after.LastDay is { } day
            ? $" until {day.ToString("ddd d MMMM uuuu", CultureInfo.InvariantCulture)}"
            : string.Empty;
        var step = RoleSentence.Name(after.Role) + until;
        return (before.Role, after.Role, whom) switch
        {
            (Role.None, Role.None, _) => null,
            (_, Role.None, null) => "left",
            (_, Role.None, _) => $"ended the access of {whom}",
            (Role.None, _, null) => $"took the step {step}",
            (Role.None, _, _) => $"gave {whom} {step}",
            (_, _, null) => $"went from {RoleSentence.Name(before.Role)} to {step}",
            _ when before.Role == after.Role => after.LastDay is null
                ? $"took the end off the access of {whom}"
                : $"gave {whom}{until}, at {RoleSentence.Name(after.Role)} as before",
            _ => $"changed {whom} from {RoleSentence.Name(before.Role)} to {step}",
        };
    }

    /// <summary>What became of an invitation.</summary>
    /// <param name="whom">The address, or the name where the reader knows it.</param>
    /// <param name="role">The step.</param>
    /// <param name="before">Where it stood; <c>null</c> where it was just made.</param>
    /// <param name="after">Where it stands.</param>
    public static string OfInvitation(string whom, Role role, InvitationState? before, InvitationState after) =>
        (before, after) switch
        {
            (null, _) => $"invited {whom} to {RoleSentence.Name(role)}",
            (_, InvitationState.Accepted) => $"accepted the invitation to {RoleSentence.Name(role)}",
            (_, InvitationState.Declined) => "declined the invitation",
            (_, InvitationState.Withdrawn) => $"took back the invitation to {whom}",
            _ => $"sent the invitation to {whom} again",
        };

    /// <summary>What became of a request.</summary>
    public static string OfAsk(string whom, Role role, AskState? before, AskState after) =>
        (before, after) switch
        {
            (_, AskState.Granted) => $"answered the request of {whom} with {RoleSentence.Name(role)}",
            (_, AskState.Refused) => $"said no to the request of {whom}",
            (_, AskState.Withdrawn) => "took the request back",
            _ => $"asked for {RoleSentence.Name(role)}",
        };

    /// <summary>What became of somebody's place in a group, by which its calendars reach them; <c>null</c> where nothing of that changed.</summary>
    /// <param name="whom">Who; <c>null</c> where they did it themselves.</param>
    /// <param name="before">Where they stood, and whether they coordinated it.</param>
    /// <param name="after">Where they stand.</param>
    public static string? OfMember(
        string? whom,
        (MemberPlace Place, bool Coordinates) before,
        (MemberPlace Place, bool Coordinates) after
    ) =>
        (before, after) switch
        {
            ((not MemberPlace.Member, _), (MemberPlace.Member, _)) => whom is null
                ? "joined the group"
                : $"added {whom} to the group",
            ((MemberPlace.Member, _), (MemberPlace.Outside, _)) => whom is null
                ? "left the group"
                : $"took {whom} out of the group",
            ((not MemberPlace.Asked, _), (MemberPlace.Asked, _)) => $"asked {whom ?? "themselves"} to be in the group",
            ((MemberPlace.Asked, _), (MemberPlace.Outside, _)) => whom is null
                ? "did not want to be in the group"
                : $"asked {whom} no longer to be in the group",
            ((_, false), (MemberPlace.Member, true)) => $"made {whom ?? "themselves"} a coordinator of the group",
            ((_, true), (MemberPlace.Member, false)) => whom is null
                ? "stopped coordinating the group"
                : $"took the coordination of the group from {whom}",
            _ => null,
        };

    /// <summary>What became of a noticeboard.</summary>
    /// <param name="before">Whether the world could read it, and whether it was there; <c>null</c> where it was just made.</param>
    /// <param name="after">Whether it can, and whether it is.</param>
    public static string OfNoticeboard((bool IsOpen, bool IsThere)? before, (bool IsOpen, bool IsThere) after) =>
        (before, after) switch
        {
            (null, _) => "made the noticeboard",
            ((_, true), (_, false)) => "ended the noticeboard",
            ((_, false), (_, true)) => "brought the noticeboard back",
            ((false, _), (true, _)) => "opened the noticeboard",
            ((true, _), (false, _)) => "closed the noticeboard",
            _ => "changed the noticeboard",
        };

    /// <summary>What became of a guardian, who sees what their ward sees; <c>null</c> where nothing did.</summary>
    /// <param name="guardian">Who sees; <c>null</c> where it is they who did it.</param>
    /// <param name="ward">For whom; <c>null</c> where it is they who did it.</param>
    /// <param name="before">Where it stood.</param>
    /// <param name="after">Where it stands.</param>
    public static string? OfGuardian(string? guardian, string? ward, MemberPlace before, MemberPlace after)
    {
        var what =
            $"{guardian ?? "they"} {(guardian is null ? "see and answer" : "sees and answers")} for {ward ?? "them"}";
        return (before, after) switch
        {
            (MemberPlace.Asked, MemberPlace.Member) => $"said yes to it that {what}",
            (MemberPlace.Outside, MemberPlace.Member) =>
                $"let {guardian ?? "themselves"} see and answer for {ward ?? "them"}",
            (MemberPlace.Outside, MemberPlace.Asked) =>
                $"asked whether {guardian ?? "they"} may see and answer for {ward ?? "them"}",
            (MemberPlace.Asked, MemberPlace.Outside) => $"said no to it that {what}",
            (MemberPlace.Member, MemberPlace.Outside) => $"ended that {what}",
            _ => null,
        };
    }
}
