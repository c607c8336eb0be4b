using Mortar.Core.Events;
using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Binned;

/// <summary>What one change took out of a series: single dates, or all from one on.</summary>
/// <param name="Dates">The starts by which the series counts the dates, in order.</param>
/// <param name="From">The first of the dates that went with all later ones; <c>null</c> where it ends as before.</param>
public sealed record TakenOut(IReadOnlyList<LocalDateTime> Dates, LocalDateTime? From)
{
    /// <summary>By how many days the index may say that a series ends later than it does.</summary>
    private const int Slack = 4;

    /// <summary>How many dates around its end are looked at for the first that went.</summary>
    private const int MostLookedAt = 1_000;

    /// <summary>What one change took out; <c>null</c> where it took nothing, or did more than that to when the series is.</summary>
    /// <param name="before">The event before the change.</param>
    /// <param name="after">The event after it.</param>
    /// <param name="clock">Zone rules.</param>
    public static TakenOut? Between(Event before, Event after, ZoneClock clock)
    {
        if (before.Series is not { } was || after.Series is not { } now || before.Time != after.Time)
        {
            return null;
        }

        var from = was.Rules.SequenceEqual(now.Rules) ? null : EndedBefore(before, after, clock);
        var dates = now.Excluded.Except(was.Excluded).Order().ToList();
        return dates.Count > 0 || from is not null ? new TakenOut(dates, from) : null;
    }

    /// <summary>What of it is still out, by the starts at which the series counts it now; <c>null</c> where nothing is, or nothing of it would fit.</summary>
    /// <param name="after">The event after the change.</param>
    /// <param name="now">The event as it is.</param>
    /// <param name="clock">Zone rules.</param>
    public TakenOut? Still(Event after, Event now, ZoneClock clock)
    {
        if (now.Series is not { } series)
        {
            return null;
        }

        var bare = Bare(now);
        var dates = Moved(after, now, clock)
            .Where(one => series.Excluded.Contains(one.Now) && bare.CountsAt(one.Now, clock))
            .Select(one => one.Now)
            .ToList();
        var from = EndsAsThen(after, now) ? From : null;
        return dates.Count > 0 || from is not null ? new TakenOut(dates, from) : null;
    }

    /// <summary>Brings back what is still out, as it was: dates that had been changed by themselves come back so.</summary>
    /// <param name="before">The event before the change.</param>
    /// <param name="after">The event after it.</param>
    /// <param name="now">The event as it is.</param>
    /// <param name="clock">Zone rules.</param>
    /// <returns>The event with them; <c>null</c> where nothing is still out.</returns>
    public Event? BringBack(Event before, Event after, Event now, ZoneClock clock)
    {
        if (Still(after, now, clock) is not { } still)
        {
            return null;
        }

        var (was, series) = (before.Series!, now.Series!);
        var back = still.Dates.ToHashSet();
        var changed = Moved(after, now, clock)
            .Where(one => back.Contains(one.Now))
            .SelectMany(one => was.Overrides.Where(old => old.Replaces == one.Then).Select(old => Along(old, one.Now)));
        series = series with { Excluded = [.. series.Excluded.Where(one => !back.Contains(one))] };
        if (still.From is { } from)
        {
            changed = changed.Concat(was.Overrides.Where(one => one.Replaces >= from));
            series = series with
            {
                Rules = was.Rules,
                Extra = [.. series.Extra.Union(was.Extra.Where(one => one >= from)).Order()],
                Excluded = [.. series.Excluded.Union(was.Excluded.Where(one => one >= from)).Order()],
            };
        }

        return now with
        {
            Series = changed.Aggregate(series, (made, one) => made.With(one)),
        };

        // What was only rewritten goes where the series is now; what had been moved by itself stays where it was put.
        Override Along(Override old, LocalDateTime key) =>
            old with
            {
                Replaces = key,
                Time = old.Time == before.Time.StartingAt(old.Replaces) ? now.Time.StartingAt(key) : old.Time,
            };
    }

    /// <summary>Each date, with where the series counts it now.</summary>
    private IEnumerable<(LocalDateTime Then, LocalDateTime Now)> Moved(Event after, Event now, ZoneClock clock)
    {
        var move = new SeriesMove(after.Time, after.Time.LocalStart, now.Time, clock);
        return Dates.Select(one => (one, after.Time == now.Time ? one : move.Start(one)));
    }

    /// <summary>Later dates fit where the series has ended as it did then ever since.</summary>
    private bool EndsAsThen(Event after, Event now) =>
        From is not null && now.Time == after.Time && now.Series!.Rules.SequenceEqual(after.Series!.Rules);

    /// <summary>The first date that a series has no more because it ends earlier by the same rules.</summary>
    private static LocalDateTime? EndedBefore(Event before, Event after, ZoneClock clock)
    {
        if (
            !Endless(before.Series!).SequenceEqual(Endless(after.Series!))
            || Bare(after).LastEnd(clock) is not { } lastEnd
        )
        {
            return null;
        }

        var zone = after.Time is EventTime.Timed timed ? clock.Zone(timed.Zone) : DateTimeZone.Utc;
        var last = lastEnd.InZone(zone).LocalDateTime - (after.Time.LocalEnd - after.Time.LocalStart);
        var bare = Bare(after);
        return Bare(before)
            .StartsFrom(last.PlusDays(-Slack), clock)
            .Take(MostLookedAt)
            .Where(one => !bare.CountsAt(one, clock))
            .Select(one => (LocalDateTime?)one)
            .FirstOrDefault();
    }

    private static IEnumerable<RecurrenceRule> Endless(Series series) =>
        series.Rules.Select(rule => rule.Ending(new SeriesEnd.Never()));

    private static Event Bare(Event whole) =>
        whole with
        {
            Series = whole.Series! with { Excluded = [], Overrides = [] },
        };
}
