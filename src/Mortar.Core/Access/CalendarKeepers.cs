using Mortar.Core.Words;

namespace Mortar.Core.Access;

/// <summary>
/// Who of a group keeps one of its calendars: members with an account who coordinate it for good. Somebody who left the group
/// still has what was given to them by name, and keeps the calendar for nobody there.
/// </summary>
/// <param name="Calendar">Which.</param>
/// <param name="Name">What it is called.</param>
/// <param name="IsSomebodysOwn">Whether it is of one person's time: that stays theirs, whoever comes and goes.</param>
/// <param name="People">Who keeps it.</param>
public sealed record CalendarKeepers(
    CalendarId Calendar,
    string Name,
    bool IsSomebodysOwn,
    IReadOnlySet<PersonId> People
)
{
    /// <summary>Whether nobody of the group keeps it, so that those who coordinate the group can take it over.</summary>
    public bool IsLeft => !IsSomebodysOwn && People.Count == 0;

    /// <summary>Whether nobody would keep it once somebody is gone.</summary>
    public bool IsLeftBy(PersonId whose) => !IsSomebodysOwn && People.Count == 1 && People.Contains(whose);

    /// <summary>Why a calendar cannot be taken over; <c>null</c> where it can be.</summary>
    /// <param name="isMember">Whether they are in its group.</param>
    /// <param name="coordinates">Whether they coordinate the group.</param>
    /// <param name="isKnown">Whether they see the calendar in some way; to others one that is kept is not there.</param>
    public Refusal? WhyNotTakeOver(bool isMember, bool coordinates, bool isKnown) =>
        !isMember || (!IsLeft && !isKnown) ? new Refusal.NotThere("calendar")
        : !coordinates ? new Refusal.NotAllowed("That is for those who coordinate the group.")
        : IsLeft ? null
        : new Refusal.AgainstRule(
            "kept",
            IsSomebodysOwn
                ? "It is of one person’s own time, and stays theirs."
                : "Somebody of the group coordinates this calendar. Ask them."
        );

    /// <summary>Why somebody cannot go yet: what they alone keep is handed on first; <c>null</c> where there is nothing, or it is.</summary>
    /// <param name="left">What nobody would keep.</param>
    /// <param name="isOwn">Whether they go by themselves.</param>
    /// <param name="to">Who is to keep it from now on; <c>null</c> where that was not said.</param>
    /// <param name="canKeep">Whether those are in the group, with an account, and stay.</param>
    public static Refusal? WhyNotGo(IReadOnlyList<CalendarKeepers> left, bool isOwn, PersonId? to, bool canKeep)
    {
        if (left.Count == 0)
        {
            return null;
        }

        if (to is null)
        {
            var (who, are) = (isOwn ? "you" : "they", left.Count == 1 ? "is" : "are");
            return new Refusal.AgainstRule(
                "coordinates-alone",
                $"{Names(left)} {are} coordinated by nobody else of the group. Say who does that from now on before {who} go."
            );
        }

        return canKeep
            ? null
            : new Refusal.Unfit("handOnTo", "Choose somebody of the group who has an account and stays.");
    }

    private static string Names(IReadOnlyList<CalendarKeepers> left)
    {
        var first = string.Join(", ", left.Take(3).Select(one => $"“{one.Name}”"));
        return left.Count > 3 ? FormattableString.Invariant($"{first} and {left.Count - 3} more") : first;
    }
}
