using System.Collections.Immutable;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Availability;

/// <summary>How somebody is at a time, the best first.</summary>
public enum Presence
{
    /// <summary>There, and nothing is taken.</summary>
    Free,

    /// <summary>Nothing is taken, but it is outside their usual hours.</summary>
    OutsideHours,

    /// <summary>Perhaps taken.</summary>
    Tentative,

    /// <summary>Taken by an event.</summary>
    Busy,

    /// <summary>Absent.</summary>
    Away,
}

/// <summary>Answers "who is free then?".</summary>
public static class FreeAt
{
    /// <summary>How each of them is, at an instant (an empty stretch) or over a stretch, of which the worst moment counts.</summary>
    /// <exception cref="ArgumentOutOfRangeException">The stretch lies outside somebody's busy time, of which nothing is known there.</exception>
    public static ImmutableSortedDictionary<Participant, Presence> Ask(IEnumerable<Invitee> invitees, Interval when) =>
        invitees.ToImmutableSortedDictionary(one => one.Who, one => Of(one, when));

    /// <summary>
    /// The nearest times to a wished one that can be offered: all are free for as long, in their usual hours. What is longer
    /// than a day of theirs is in nobody's hours; there only what is taken counts.
    /// </summary>
    /// <param name="invitees">For whom; all have to be there.</param>
    /// <param name="within">Where to look: not before now, since nothing is offered that is over.</param>
    /// <param name="wished">The time that was asked for.</param>
    /// <param name="asker">The usual hours of who asks, which hold where nobody asked for has any: a kiln is there at night as well.</param>
    /// <returns>The last start not after the wished one and the first not before it; <c>null</c> where there is none.</returns>
    public static (Instant? Earlier, Instant? Later) Offers(
        IReadOnlyList<Invitee> invitees,
        Interval within,
        Interval wished,
        UsualHours asker
    )
    {
        if (within.Duration <= Duration.Zero)
        {
            return (null, null);
        }

        var framed = invitees.InHoursOf(asker);
        var length = Duration.Max(wished.Duration, Duration.FromMinutes(1));
        var fits = framed.All(one => one.Hours?.Within(within).Any(open => open.Duration >= length) != false);
        return Gaps.Nearest(
            new GapQuestion(framed, within, length) { Hours = fits ? HoursWish.Kept : HoursWish.Preferred },
            wished.Start
        );
    }

    /// <summary>The same, with the usual hours of who asks where nobody has any.</summary>
    public static IReadOnlyList<Invitee> InHoursOf(this IReadOnlyList<Invitee> invitees, UsualHours asker) =>
        invitees.Any(one => one.Hours is not null) ? invitees : [.. invitees.Select(one => one with { Hours = asker })];

    private static Presence Of(Invitee one, Interval when)
    {
        if (when.Start < one.Busy.Window.Start || when.End > one.Busy.Window.End)
        {
            throw new ArgumentOutOfRangeException(
                nameof(when),
                when,
                $"Nothing is known outside {one.Busy.Window}; ask for the busy time of a longer window."
            );
        }

        return Stretches.Meets(one.Busy.Away, when) ? Presence.Away
            : Stretches.Meets(one.Busy.Busy, when) ? Presence.Busy
            : Stretches.Meets(one.Busy.Tentative, when) ? Presence.Tentative
            : one.Hours is { } hours && !IsInside(hours, when) ? Presence.OutsideHours
            : Presence.Free;
    }

    private static bool IsInside(UsualHours hours, Interval when)
    {
        var around = new Interval(when.Start - Duration.FromDays(1), when.End + Duration.FromDays(1));
        return hours
            .Within(around)
            .Any(open => open.Start <= when.Start && when.End <= open.End && when.Start < open.End);
    }
}
