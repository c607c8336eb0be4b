using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Events;

/// <summary>How something repeats or is going to, shown before it is saved: made by the very change that saving makes.</summary>
/// <param name="Sentence">How it repeats, in words, with the dates left out and changed.</param>
/// <param name="Next">Its next starts on its own clock, at most <see cref="MostNext"/>: those that take place.</param>
/// <param name="Time">When the occurrence in question is, on its own clock.</param>
/// <param name="Rule">The one rule it repeats by then, with its end as a day; <c>null</c> where no single rule says it.</param>
/// <param name="Problem">Why it cannot be so; <c>null</c> where it can.</param>
public sealed record RulePreview(
    string Sentence,
    IReadOnlyList<LocalDateTime> Next,
    EventTime Time,
    RecurrenceRule? Rule,
    string? Problem
)
{
    /// <summary>How many starts are shown.</summary>
    public const int MostNext = 5;

    /// <summary>What a change comes to that is meant for the whole series, from the changed occurrence on.</summary>
    /// <param name="whole">The event; one that is not there yet with the time it is to have.</param>
    /// <param name="change">What is wanted.</param>
    /// <param name="clock">Zone rules.</param>
    public static RulePreview Of(Event whole, EventChange change, ZoneClock clock)
    {
        var time = clock.KeptIn(change.Time, whole.Time is EventTime.Timed timed ? timed.Zone : null);
        var zone = time is EventTime.Timed own ? clock.Zone(own.Zone) : DateTimeZone.Utc;
        return whole.Changed(change with { Reach = Reach.Whole }, default, clock) switch
        {
            EventEdit.Done { Event: { Series: { } series } changed } => new RulePreview(
                SeriesSentence.For(changed.Time, series, time.LocalStart.Year, zone),
                [.. Starts(changed, series, time.LocalStart, clock)],
                time,
                series.Rule?.EndingByDay(changed.Time.LocalStart, zone),
                Problem: null
            ),
            EventEdit.Refused refused => new RulePreview(string.Empty, [], time, Rule: null, refused.Sentence),
            _ => new RulePreview(string.Empty, [], time, Rule: null, "Say how it is to repeat."),
        };
    }

    /// <summary>The starts that take place from one on, those changed by themselves where they are now.</summary>
    private static IEnumerable<LocalDateTime> Starts(
        Event changed,
        Series series,
        LocalDateTime from,
        ZoneClock clock
    ) =>
        changed
            .StartsFrom(from, clock)
            .Take(MostNext)
            .Concat(
                series
                    .Overrides.Where(one => one.Range == OverrideRange.One && !one.Content.Cancelled)
                    .Select(one => one.Time.LocalStart)
                    .Where(start => start >= from)
            )
            .Order()
            .Take(MostNext);
}
