using System.Collections.Immutable;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Availability;

/// <summary>Somebody, or a place, that stands in the way of a gap.</summary>
/// <param name="Who">Who.</param>
/// <param name="Taken">How much of the time that was searched they are taken.</param>
/// <param name="First">The first gap there would be without them; <c>null</c> where they are not the only ones in the way.</param>
public sealed record Obstacle(Participant Who, Duration Taken, Interval? First);

/// <summary>Why there is no gap, and what would make room.</summary>
/// <param name="Obstacles">Those who have to be there: first those without whom there would be one, then who is taken most.</param>
/// <param name="Longest">The longest stretch in which all who have to be there are free; <c>null</c> where there is none of five minutes.</param>
public sealed record WhyNoGap(ImmutableArray<Obstacle> Obstacles, Interval? Longest)
{
    private static readonly Duration Shortest = Duration.FromMinutes(5);

    /// <summary>Explains a question to which there is no answer.</summary>
    public static WhyNoGap Of(GapQuestion question)
    {
        var required = question.Invitees.Where(one => one.Need == Need.Required).ToList();
        var obstacles =
            from one in required
            let without = Gaps.Find(question with { Invitees = [.. required.Where(other => other != one)] })
            let taken = Stretches.Total(Stretches.Both(one.Busy.All, [question.Within]))
            where taken > Duration.Zero || (question.Hours == HoursWish.Kept && one.Hours is not null)
            let first = without.IsEmpty ? (Interval?)null : without.MinBy(gap => gap.Span.Start)!.Span
            orderby first is null, taken descending, one.Who
            select new Obstacle(one.Who, taken, first);
        var brief = Gaps.Find(question with { Invitees = required, Length = Shortest });
        return new WhyNoGap([.. obstacles], brief.IsEmpty ? null : brief.MaxBy(gap => gap.Span.Duration)!.Span);
    }
}
