using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Preferences;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Reminders;

/// <summary>One change of an event, out of those since somebody was last told.</summary>
/// <param name="Before">How it was; <c>null</c> where it was not there.</param>
/// <param name="After">How it was then; <c>null</c> where it was gone.</param>
/// <param name="By">The name of who changed it.</param>
public sealed record EventStep(Event? Before, Event? After, string By);

/// <summary>What a digest tells, and when.</summary>
public static class DigestRules
{
    /// <summary>The most events that one digest names; of the rest it tells how many they are.</summary>
    public const int MostEvents = 100;

    /// <summary>When the latest digest was due: as usual hours began today or before, or on the latest first day of a week; <c>null</c> for never.</summary>
    /// <param name="preferences">Those of who is told.</param>
    /// <param name="zone">Their zone.</param>
    /// <param name="now">Now.</param>
    public static Instant? LastDue(PersonPreferences preferences, DateTimeZone zone, Instant now)
    {
        if (preferences.Digest == DigestRhythm.Never)
        {
            return null;
        }

        var day = now.InZone(zone).Date;
        if (At(day) > now)
        {
            day = day.PlusDays(-1);
        }

        while (preferences.Digest == DigestRhythm.Weekly && day.DayOfWeek != preferences.FirstDay)
        {
            day = day.PlusDays(-1);
        }

        return At(day);

        Instant At(LocalDate on) => ZoneClock.At(on + preferences.DayBegins, zone);
    }

    /// <summary>Whether it is to be written now; what it tells begins where the last one ended, whatever the clock showed then.</summary>
    /// <param name="due">When the latest was due.</param>
    /// <param name="last">When the last one was written, by what the clock showed then.</param>
    /// <param name="now">Now; more than a rhythm before the last one where the clock was far ahead then.</param>
    public static bool IsDue(Instant due, Instant last, Instant now) => last < due || last > now + Duration.FromDays(1);

    /// <summary>What a digest says of one event, as far as the reader may know it; <c>null</c> where they may not, or where it is as it was.</summary>
    /// <param name="steps">Its changes in order, one at least. Who changed only what the reader does not see is not named.</param>
    /// <param name="role">The reader's step on a calendar.</param>
    /// <param name="reader">Who is told.</param>
    /// <param name="zone">Their zone.</param>
    /// <param name="clock">Zone rules.</param>
    public static string? Sentence(
        IReadOnlyList<EventStep> steps,
        Func<CalendarId, Role> role,
        PersonId reader,
        DateTimeZone zone,
        ZoneClock clock
    )
    {
        var known = steps.Select(step => (Before: Known(step.Before), After: Known(step.After), step.By)).ToList();
        var (before, after) = (known[0].Before, known[^1].After);
        if ((before ?? after) is null || IsSame(before, after))
        {
            return null;
        }

        var one = after ?? before!;
        var title = one.Content.Title.Length > 0 ? $"“{one.Content.Title}”" : "An event without a title";
        var when = RangeSentence.For(clock.AsSeenIn(one.Time, zone), one.Time.LocalStart.Year);
        var by = Wording.List(known.Where(step => !IsSame(step.Before, step.After)).Select(step => step.By).Distinct());
        return before is null ? $"{title}, {when}: new, by {by}."
            : after is null ? $"{title}, {when}: gone, by {by}."
            : $"{title}: {by} {Wording.List(EventDifference.Between(before, after, zone, clock))}.";

        Event? Known(Event? state) => state is null ? null : VisibleEvent.Known(role(state.CalendarId), reader, state);
    }

    private static bool IsSame(Event? before, Event? after) =>
        (before is null && after is null)
        || before is not null
            && after is not null
            && before.CalendarId == after.CalendarId
            && before.Time == after.Time
            && before.Content == after.Content
            && Equals(before.Series, after.Series);
}
