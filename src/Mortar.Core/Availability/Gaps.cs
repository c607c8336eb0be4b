using System.Collections.Immutable;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Availability;

/// <summary>Whether somebody has to be there.</summary>
public enum Need
{
    /// <summary>Without them it does not take place.</summary>
    Required,

    /// <summary>Welcome.</summary>
    Optional,
}

/// <summary>Somebody, or a place, that a meeting is to be found for.</summary>
/// <param name="Who">Who.</param>
/// <param name="Need">Whether they have to be there.</param>
/// <param name="Busy">Their time over the window of the question or a longer one.</param>
/// <param name="Hours">Their usual hours; <c>null</c> for any time.</param>
public sealed record Invitee(Participant Who, Need Need, BusyTime Busy, UsualHours? Hours);

/// <summary>How usual hours count in a search.</summary>
public enum HoursWish
{
    /// <summary>Gaps inside everyone's hours come first.</summary>
    Preferred,

    /// <summary>Outside their hours, people count as taken.</summary>
    Kept,
}

/// <summary>What is looked for.</summary>
/// <param name="Invitees">For whom; each once.</param>
/// <param name="Within">Where to look.</param>
/// <param name="Length">How long it is to be; longer than nothing.</param>
public sealed record GapQuestion(IReadOnlyList<Invitee> Invitees, Interval Within, Duration Length)
{
    /// <summary>How usual hours count.</summary>
    public HoursWish Hours { get; init; }

    /// <summary>What has to be free before it, for the way there or for setting up.</summary>
    public Duration Before { get; init; }

    /// <summary>What has to be free after it.</summary>
    public Duration After { get; init; }

    /// <summary>How many of those required may be missing.</summary>
    public int MayBeMissing { get; init; }
}

/// <summary>A stretch in which all but those who are missing are free, with the margins that were asked for around it.</summary>
/// <param name="Span">Start included, end excluded. It cannot be widened without losing somebody who is free in it.</param>
/// <param name="Missing">Those who are taken at some time in it, in order of their ids.</param>
/// <param name="MissingRequired">How many of these are required.</param>
/// <param name="InHours">The first stretch of the wished length that is inside the hours of all who are free; <c>null</c> where there is none.</param>
public sealed record Gap(Interval Span, ImmutableArray<Participant> Missing, int MissingRequired, Interval? InHours)
{
    /// <summary>Those of a pool who are free in it, in order of their ids; empty where none was asked for.</summary>
    public ImmutableArray<Participant> Any { get; init; } = [];

    /// <summary>
    /// Where something of that length is best put: at the start of the first hours that suit all, or of the gap, at the
    /// next quarter of an hour where it fits.
    /// </summary>
    public Interval Suggested(Duration length)
    {
        var (start, end) = InHours is { } inside ? (inside.Start, Span.End) : (Span.Start, Span.End);
        var over = start.ToUnixTimeSeconds() % QuarterHour;
        var round = over == 0 ? start : start + Duration.FromSeconds(QuarterHour - over);
        var at = round + length <= end ? round : start;
        return new Interval(at, at + length);
    }

    /// <summary>Who is named on what is made in it: the people asked for who are free, and so many of the pool.</summary>
    /// <param name="invitees">Those asked for by themselves. Places are booked, not named.</param>
    /// <param name="ofPool">How many of the pool are wanted.</param>
    public ImmutableArray<Participant> Named(IEnumerable<Invitee> invitees, int ofPool) =>
        [.. invitees.Select(one => one.Who).Where(who => !who.IsPlace && !Missing.Contains(who)), .. Any.Take(ofPool)];

    private const int QuarterHour = 15 * 60;

    /// <summary>What the clock of a zone shows for it.</summary>
    public EventTime SeenIn(DateTimeZone zone) => ZoneClock.Shown(Span, zone);

    /// <summary>Compares by content.</summary>
    public bool Equals(Gap? other) =>
        other is not null
        && Span == other.Span
        && MissingRequired == other.MissingRequired
        && InHours == other.InHours
        && Missing.AsSpan().SequenceEqual(other.Missing.AsSpan())
        && Any.AsSpan().SequenceEqual(other.Any.AsSpan());

    /// <inheritdoc />
    public override int GetHashCode() => HashCode.Combine(Span, MissingRequired, Missing.Length);
}

/// <summary>Finds when people can meet.</summary>
/// <remarks>
/// One sweep over everybody's taken stretches in the order of their starts: the window grows to the right until somebody
/// too many would be taken in it, is reported, and shrinks from the left until that one fits in. For each number of
/// missing people there is one such sweep, after a single sorting.
/// </remarks>
public static class Gaps
{
    /// <summary>Gaps in which more than this many of the optional are missing are not looked for, unless there are no others.</summary>
    public const int MostOptionalMissing = 5;

    /// <summary>All maximal gaps, the best first: all required, then most of the optional, then inside everyone's hours, then soonest.</summary>
    /// <remarks>Does not depend on the order of the invitees. Empty where there is none.</remarks>
    /// <exception cref="ArgumentOutOfRangeException">The length is not positive, a margin is negative, or somebody's busy time is not known over the whole window.</exception>
    public static ImmutableArray<Gap> Find(GapQuestion question)
    {
        Check(question);
        var sweep = new GapSweep(question);
        var found = new List<Gap>();
        var optional = question.Invitees.Count(one => one.Need == Need.Optional);
        for (var required = 0; required <= question.MayBeMissing; required++)
        {
            var before = found.Count;
            for (var missing = 0; missing <= optional; missing++)
            {
                if (missing > MostOptionalMissing && found.Count > before)
                {
                    break;
                }

                sweep.Find(required, missing, found);
            }
        }

        return
        [
            .. found
                .OrderBy(gap => gap.MissingRequired)
                .ThenBy(gap => gap.Missing.Length)
                .ThenBy(gap => gap.InHours is null)
                .ThenBy(gap => gap.InHours?.Start ?? gap.Span.Start)
                .ThenBy(gap => gap.Span.Start)
                .ThenBy(gap => gap.Span.End),
        ];
    }

    /// <summary>The nearest times to a wished one at which all required are free for the length: the last not after it and the first not before it.</summary>
    /// <returns>Starts; <c>null</c> on the side where there is none. Both are the wished one where that is free.</returns>
    public static (Instant? Earlier, Instant? Later) Nearest(GapQuestion question, Instant wished)
    {
        Check(question);
        var gaps = new List<Gap>();
        new GapSweep(question with { Invitees = [.. question.Invitees.Where(one => one.Need == Need.Required)] }).Find(
            0,
            0,
            gaps
        );
        Instant? earlier = null;
        Instant? later = null;
        foreach (var gap in gaps)
        {
            var last = gap.Span.End - question.Length;
            if (gap.Span.Start <= wished)
            {
                earlier = Instant.Min(last, wished);
            }

            if (later is null && last >= wished)
            {
                later = Instant.Max(gap.Span.Start, wished);
            }
        }

        return (earlier, later);
    }

    private static void Check(GapQuestion question)
    {
        if (question.Length <= Duration.Zero || question.Before < Duration.Zero || question.After < Duration.Zero)
        {
            throw new ArgumentOutOfRangeException(
                nameof(question),
                "A gap has a length above nothing, and margins of nothing or more."
            );
        }

        if (
            question.Invitees.Any(one =>
                one.Busy.Window.Start > question.Within.Start || one.Busy.Window.End < question.Within.End
            )
        )
        {
            throw new ArgumentOutOfRangeException(
                nameof(question),
                "Somebody's busy time is not known over the whole window; ask for it over a longer one."
            );
        }
    }
}
