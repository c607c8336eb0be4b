using Mortar.Core.Access;
using Mortar.Core.Answers;
using Mortar.Core.Noticeboards;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Letters;

/// <summary>What somebody is told in their inbox that others did; <c>null</c> where a change says nothing new to them.</summary>
public static class NoticeSentence
{
    /// <summary>That one's own place in a group changed.</summary>
    /// <param name="actor">The name of who did it.</param>
    /// <param name="group">The group's name.</param>
    /// <param name="before">Where one stood, and whether one coordinated it.</param>
    /// <param name="after">Where one stands.</param>
    public static string? OfPlace(
        string actor,
        string group,
        (MemberPlace Place, bool Coordinates) before,
        (MemberPlace Place, bool Coordinates) after
    ) =>
        (before, after) switch
        {
            ((MemberPlace.Member, _), (MemberPlace.Outside, _)) => $"{actor} took you out of “{group}”.",
            ((MemberPlace.Outside, _), (MemberPlace.Member, _)) => $"{actor} added you to “{group}”.",
            ((_, false), (MemberPlace.Member, true)) => $"{actor} made you a coordinator of “{group}”.",
            ((_, true), (MemberPlace.Member, false)) => $"You no longer coordinate “{group}”: {actor} changed that.",
            _ => null,
        };

    /// <summary>That a noticeboard one keeps is not read any more, or is again, or was ended.</summary>
    /// <param name="actor">The name of who did it, or by whose act it came.</param>
    /// <param name="title">What stands above it.</param>
    /// <param name="before">How it was left, and whether it was there.</param>
    /// <param name="after">How it is.</param>
    public static string? OfNoticeboard(
        string actor,
        string title,
        (BoardState State, bool IsThere) before,
        (BoardState State, bool IsThere) after
    ) =>
        (before, after) switch
        {
            ((_, true), (_, false)) => $"{actor} ended your noticeboard “{title}”.",
            ((_, false), (_, true)) => $"{actor} brought back your noticeboard “{title}”.",
            ((BoardState.Open, _), (BoardState.Paused, _)) =>
                $"Your noticeboard “{title}” is paused: by what {actor} changed. Nobody reads it until it is opened again.",
            (_, (BoardState.Open, _)) when before.State != BoardState.Open =>
                $"{actor} opened your noticeboard “{title}”.",
            _ => null,
        };

    /// <summary>What somebody did about their own place in a group one coordinates.</summary>
    /// <param name="who">Their name.</param>
    /// <param name="group">The group's name.</param>
    /// <param name="before">Where they stood.</param>
    /// <param name="after">Where they stand.</param>
    public static string? OfTheirPlace(string who, string group, MemberPlace before, MemberPlace after) =>
        (before, after) switch
        {
            (MemberPlace.Asked, MemberPlace.Member) => $"{who} said yes and is in “{group}” now.",
            (MemberPlace.Asked, MemberPlace.Outside) => $"{who} does not want to be in “{group}”.",
            (MemberPlace.Member, MemberPlace.Outside) => $"{who} left “{group}”.",
            _ => null,
        };

    /// <summary>That somebody took over a name without an account in a group one coordinates.</summary>
    public static string OfClaim(string who, string name, string group) =>
        $"{who} took over the name {name} in “{group}”.";

    /// <summary>That one's own step on a calendar changed.</summary>
    public static string? OfStep(string actor, string calendar, Role before, Role after) =>
        (before, after) switch
        {
            _ when before == after => null,
            (_, Role.None) => $"{actor} ended your access to “{calendar}”.",
            (Role.None, _) => $"{actor} gave you the step {RoleSentence.Name(after)} on “{calendar}”.",
            _ =>
                $"{actor} changed your step on “{calendar}” from {RoleSentence.Name(before)} to {RoleSentence.Name(after)}.",
        };

    /// <summary>What became of an invitation that one sent or was sent.</summary>
    public static string? OfInvitation(string actor, string calendar, InvitationState after, bool isNew) =>
        after switch
        {
            InvitationState.Accepted => $"{actor} accepted your invitation to “{calendar}”.",
            InvitationState.Declined => $"{actor} declined your invitation to “{calendar}”.",
            InvitationState.Withdrawn when !isNew => $"{actor} took back the invitation to “{calendar}”.",
            _ => null,
        };

    /// <summary>What became of one's request for access; that it was granted is told by the step.</summary>
    public static string? OfAsk(string actor, AskState after) =>
        after == AskState.Refused ? $"{actor} did not give you the access you asked for." : null;

    /// <summary>What somebody answered to an event one organizes.</summary>
    /// <param name="who">Who comes or not.</param>
    /// <param name="actor">Who said so: they, or who answers for them.</param>
    /// <param name="title">What the event is called; may be empty.</param>
    /// <param name="answer">What was said.</param>
    /// <param name="suggested">The other time that came with it, on the reader's clock, said in words; <c>null</c> for none.</param>
    public static string? OfAnswer(string who, string actor, string title, Answer answer, string? suggested)
    {
        var comes = answer switch
        {
            Answer.Accepted => "comes",
            Answer.Tentative => "perhaps comes",
            Answer.Declined => "does not come",
            _ => null,
        };
        var by = who == actor ? string.Empty : $" ({actor} answered)";
        var other = suggested is null
            ? string.Empty
            : $" They suggest {suggested}; it can be taken where the event is.";
        return comes is null ? null : $"{who} {comes} to {Spoken(title, "an untitled event")}{by}.{other}";
    }

    /// <summary>Whether a coordinator agreed to one's absence.</summary>
    /// <param name="actor">Who answered.</param>
    /// <param name="title">What it is called; may be empty.</param>
    /// <param name="when">When it is, in words.</param>
    /// <param name="agrees">Whether they agreed.</param>
    /// <param name="comment">What they wrote; may be empty.</param>
    public static string OfAgreement(string actor, string title, string when, bool agrees, string comment)
    {
        var words = comment.Length > 0 ? $" They write: “{comment}”" : string.Empty;
        var what = $"{Spoken(title, "your absence")}, {when}";
        return agrees
            ? $"{actor} agreed to {what}.{words}"
            : $"{actor} did not agree to {what}; it is off the plan.{words}";
    }

    /// <summary>How many times of one's question suit somebody.</summary>
    public static string OfSuitings(string who, string title, int suit) =>
        $"“{title}”: {Wording.Count(suit, "of the times suits", "of the times suit")} {who}.";

    /// <summary>What somebody changed about an event that one was asked to.</summary>
    /// <param name="actor">Who did it.</param>
    /// <param name="title">What it was called; may be empty.</param>
    /// <param name="what">What they did, as words that follow the name.</param>
    public static string OfEvent(string actor, string title, IReadOnlyList<string> what) =>
        $"{Spoken(title, "An untitled event")}: {actor} {Wording.List(what)}.";

    /// <summary>When something is, as its reader's clock has it: "Mon 23 March, 9:00 to 10:00".</summary>
    public static string When(EventTime time, DateTimeZone reader, Instant now, ZoneClock zones) =>
        RangeSentence.For(zones.AsSeenIn(time, reader), now.InZone(reader).Year);

    private static string Spoken(string title, string untitled) => title.Length > 0 ? $"“{title}”" : untitled;
}
