using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Events;

/// <summary>What changing a whole series came to.</summary>
public abstract record SeriesChange
{
    private SeriesChange() { }

    /// <summary>It is changed.</summary>
    /// <param name="Event">The series as it is now.</param>
    /// <param name="Lost">The changed occurrences that it no longer counts, as they were; the reader is to be told.</param>
    public sealed record Done(Event Event, IReadOnlyList<Override> Lost) : SeriesChange;

    /// <summary>Its rule cannot follow.</summary>
    /// <param name="Sentence">Why, and the way out.</param>
    public sealed record Refused(string Sentence) : SeriesChange;
}

/// <summary>What splitting a series came to.</summary>
public abstract record SeriesSplit
{
    private SeriesSplit() { }

    /// <summary>Two series.</summary>
    /// <param name="Earlier">The event, which ends before the occurrence.</param>
    /// <param name="Later">A new event, which begins with it and knows where it comes from.</param>
    public sealed record Split(Event Earlier, Event Later) : SeriesSplit;

    /// <summary>Nothing lies before the occurrence: "this one and later" is the whole series.</summary>
    public sealed record IsWhole : SeriesSplit;

    /// <summary>The event does not take place then.</summary>
    public sealed record NotThere : SeriesSplit;

    /// <summary>A series of a form that only files have, which two series cannot say.</summary>
    /// <param name="Sentence">Why, and the way out.</param>
    public sealed record Refused(string Sentence) : SeriesSplit;
}

/// <summary>The changes people make to a series as a whole, and to a part of it. One occurrence alone is an <see cref="Override"/>.</summary>
public static class SeriesEdits
{
    /// <summary>How many starts of a parted series are held against the whole one; more than any cycle of steps people make.</summary>
    private const int Compared = 60;

    /// <summary>Moves and rewrites a whole series.</summary>
    /// <param name="whole">The series.</param>
    /// <param name="key">The start by which the series counts the occurrence that was moved; <c>null</c> for the first.</param>
    /// <param name="to">When that occurrence is to take place; all others move by as much and last as long.</param>
    /// <param name="content">What all are to be, but for what was set for single ones.</param>
    /// <param name="clock">Zone rules.</param>
    /// <remarks>
    /// Dates left out and added move along. An occurrence that had been moved by itself stays where it was put; one that
    /// was only rewritten moves along, and what it had in common with the series it keeps in common.
    /// </remarks>
    /// <exception cref="ArgumentException">The event is no series.</exception>
    public static SeriesChange Moved(
        this Event whole,
        LocalDateTime? key,
        EventTime to,
        EventContent content,
        ZoneClock clock
    )
    {
        var series = whole.Series ?? throw new ArgumentException("Only a series is moved as one.", nameof(whole));
        var move = new SeriesMove(whole.Time, key ?? whole.Time.LocalStart, to, clock);
        var rules = new List<RecurrenceRule>();
        foreach (var rule in series.Rules)
        {
            if (RuleShift.By(rule, whole.Time.LocalStart, move.Start(whole.Time.LocalStart)) is not { } shifted)
            {
                return new SeriesChange.Refused(
                    $"It takes place {RuleSentence.Of(whole.Time, rule)}, which cannot be moved by as much. Change how it repeats instead."
                );
            }

            rules.Add(shifted.Ending(move.End(rule, whole.Time.LocalStart)));
        }

        var moved = whole with
        {
            Time = to.StartingAt(move.Start(whole.Time.LocalStart)),
            Content = content,
            Series = series with
            {
                Rules = rules,
                Extra = [.. series.Extra.Select(move.Start).Distinct().Order()],
                Excluded = [.. series.Excluded.Select(move.Start).Distinct().Order()],
                Overrides = [.. series.Overrides.Select(one => Along(one, whole, move, to, content))],
                NominalDays =
                    to.LocalEnd - to.LocalStart == whole.Time.LocalEnd - whole.Time.LocalStart ? series.NominalDays : 0,
            },
        };
        return Kept(moved, series.Overrides, clock);
    }

    /// <summary>Lets a series repeat otherwise.</summary>
    /// <exception cref="ArgumentException">The event is no series.</exception>
    public static SeriesChange Repeating(this Event whole, RecurrenceRule rule, ZoneClock clock)
    {
        var series = whole.Series ?? throw new ArgumentException("Only a series has a rule.", nameof(whole));
        return Kept(
            whole with
            {
                Series = series with { Rules = [rule], ExceptRules = [], NotShown = null },
            },
            series.Overrides,
            clock
        );
    }

    /// <summary>Parts a series before one of its occurrences, so that "this one and later" can be changed by itself.</summary>
    /// <param name="whole">The series.</param>
    /// <param name="key">The start by which it counts the first occurrence of the later part.</param>
    /// <param name="id">The id of the new event.</param>
    /// <param name="uid">Its name in files.</param>
    /// <param name="clock">Zone rules.</param>
    /// <remarks>
    /// Together the two take place exactly when the one did. A COUNT is shared out; dates left out, added and changed
    /// go to the part they lie in. What the rule took from the start is written into the rule where the new start does
    /// not say it any more (the 31st, begun again in February under SKIP).
    /// </remarks>
    public static SeriesSplit SplitBefore(this Event whole, LocalDateTime key, EventId id, string uid, ZoneClock clock)
    {
        if (whole.Series is not { } series || !whole.CountsAt(key, clock))
        {
            return new SeriesSplit.NotThere();
        }

        if (whole.FirstCounted(clock) is not { } first || first >= key)
        {
            return new SeriesSplit.IsWhole();
        }

        var start = whole.Time.LocalStart;
        var earlier = series with
        {
            Rules = [.. series.Rules.Select(rule => rule.Ending(Earlier(rule, whole.Time, key, clock)))],
            Extra = [.. series.Extra.Where(one => one < key)],
            Excluded = [.. series.Excluded.Where(one => one < key)],
            Overrides = [.. series.Overrides.Where(one => one.Replaces < key)],
        };
        var rules = series.Rules.Select(rule => Later(rule, start, key)).OfType<RecurrenceRule>().ToList();

        // A new start has to be one the rule falls on, or every second week would be counted from elsewhere.
        var next = series.Rules.SelectMany(rule => rule.Starts(start, key).Take(1)).ToList();
        var newStart = next.Count == 0 || next.Contains(key) ? key : next.Min();
        var later = series with
        {
            Rules = [.. rules.Select(rule => rule.Anchored(start))],
            Extra = [.. series.Extra.Where(one => one >= key && one != newStart)],
            Excluded = [.. series.Excluded.Where(one => one >= key)],
            Overrides = [.. series.Overrides.Where(one => one.Replaces >= key)],
            ContinuedFrom = whole.Id,
        };
        var split = new SeriesSplit.Split(
            whole with
            {
                Series = earlier,
            },
            whole with
            {
                Id = id,
                Uid = uid,
                Time = whole.Time.StartingAt(newStart),
                Series = later,
                Version = 1,
            }
        );
        return series.Index.Later.Length == 0 && IsTheSame(whole, split.Later, key, clock)
            ? split
            : new SeriesSplit.Refused(
                "This series came from a file in a form that cannot be parted here. Change single dates, or the whole series."
            );
    }

    /// <summary>Several rules, or a day that SKIP pushed over the end of its month, may not begin anew in the same step.</summary>
    private static bool IsTheSame(Event whole, Event later, LocalDateTime key, ZoneClock clock) =>
        whole.StartsFrom(key, clock).Take(Compared).SequenceEqual(later.StartsFrom(key, clock).Take(Compared));

    /// <summary>The first start the series counts, left out or changed ones too.</summary>
    private static LocalDateTime? FirstCounted(this Event whole, ZoneClock clock)
    {
        var bare = whole.Series! with { Excluded = [], Overrides = [] };
        return (whole with { Series = bare })
            .StartsFrom(CivilDays.ToTime(CivilDays.FirstSecond), clock)
            .Select(one => (LocalDateTime?)one)
            .FirstOrDefault();
    }

    /// <summary>
    /// The end of the earlier part: where the rule falls once a day, with the day before, as people say it, so that the day
    /// of the later part is not named as its last.
    /// </summary>
    private static SeriesEnd EndBefore(RecurrenceRule rule, EventTime time, LocalDateTime key, ZoneClock clock)
    {
        var isDayBefore = rule.IsByDay() && key.TimeOfDay <= time.LocalStart.TimeOfDay;
        var last = (isDayBefore ? key.Date.AtMidnight() : key).PlusSeconds(-1);
        return time switch
        {
            EventTime.AllDay => new SeriesEnd.Through(key.Date.PlusDays(-1)),
            EventTime.Timed timed => new SeriesEnd.ThroughInstant(ZoneClock.At(last, clock.Zone(timed.Zone))),
            _ => new SeriesEnd.ThroughTime(last),
        };
    }

    private static SeriesEnd Earlier(RecurrenceRule rule, EventTime time, LocalDateTime key, ZoneClock clock) =>
        rule.End is SeriesEnd.After
            ? new SeriesEnd.After(Before(rule, time.LocalStart, key))
            : EndBefore(rule, time, key, clock);

    private static RecurrenceRule? Later(RecurrenceRule rule, LocalDateTime start, LocalDateTime key) =>
        rule.End is not SeriesEnd.After after ? rule
        : after.Occurrences - Before(rule, start, key) is var left && left > 0 ? rule.Ending(new SeriesEnd.After(left))
        : null;

    /// <summary>How many of a rule's occurrences come before a start; the series' own start always counts.</summary>
    private static int Before(RecurrenceRule rule, LocalDateTime start, LocalDateTime key)
    {
        var starts = rule.Starts(start, start).TakeWhile(one => one < key).ToList();
        return starts.FirstOrDefault() == start ? starts.Count : starts.Count + 1;
    }

    private static Override Along(Override one, Event whole, SeriesMove move, EventTime to, EventContent content)
    {
        var key = move.Start(one.Replaces);
        var time =
            one.Time == whole.Time.StartingAt(one.Replaces) ? to.StartingAt(key)
            : one.Range == OverrideRange.AndLater ? one.Time.StartingAt(move.Start(one.Time.LocalStart))
            : one.Time;
        var (was, now) = (whole.Content, one.Content);
        return one with
        {
            Replaces = key,
            Time = time,
            Content = new EventContent(
                now.Title == was.Title ? content.Title : now.Title,
                now.Place == was.Place ? content.Place : now.Place,
                now.Notes == was.Notes ? content.Notes : now.Notes,
                now.ShowAs == was.ShowAs ? content.ShowAs : now.ShowAs,
                now.Cancelled == was.Cancelled ? content.Cancelled : now.Cancelled
            )
            {
                Attendees = now.Attendees.Equals(was.Attendees) ? content.Attendees : now.Attendees,
                Kind = now.Kind == was.Kind ? content.Kind : now.Kind,
                Private = now.Private == was.Private ? content.Private : now.Private,
                Reminder = now.Reminder == was.Reminder ? content.Reminder : now.Reminder,
                HidesAttendees = now.HidesAttendees == was.HidesAttendees ? content.HidesAttendees : now.HidesAttendees,
            },
        };
    }

    /// <summary>Drops the exceptions that the series no longer counts, and names those that said something.</summary>
    private static SeriesChange.Done Kept(Event changed, IReadOnlyList<Override> before, ZoneClock clock)
    {
        var series = changed.Series!;
        var bare = changed with { Series = series with { Excluded = [], Overrides = [] } };
        var counted = series.Overrides.Select(one => bare.CountsAt(one.Replaces, clock)).ToList();
        return new SeriesChange.Done(
            changed with
            {
                Series = series with
                {
                    Excluded = [.. series.Excluded.Where(one => bare.CountsAt(one, clock))],
                    Overrides = [.. series.Overrides.Where((_, place) => counted[place])],
                },
            },
            [.. before.Where((_, place) => !counted[place])]
        );
    }
}

/// <summary>How local times of a series move when one of them does.</summary>
internal sealed class SeriesMove(EventTime was, LocalDateTime from, EventTime to, ZoneClock clock)
{
    private readonly long seconds = to.StartSecond - CivilDays.Second(from);

    private int Days => Period.DaysBetween(from.Date, to.LocalStart.Date);

    /// <summary>Where a start goes. Between whole days and hours, the day moves and the time of day is the new one.</summary>
    public LocalDateTime Start(LocalDateTime start) =>
        to is EventTime.AllDay ? start.Date.PlusDays(Days).AtMidnight()
        : was is EventTime.AllDay ? start.Date.PlusDays(Days) + to.LocalStart.TimeOfDay
        : start.PlusSeconds(seconds);

    /// <summary>Where an end goes, in the form that fits the new time (RFC 5545, 3.3.10, on UNTIL).</summary>
    /// <param name="rule">The rule that ends.</param>
    /// <param name="start">The start of the series before.</param>
    public SeriesEnd End(RecurrenceRule rule, LocalDateTime start)
    {
        var end = rule.End;
        if (
            was is not EventTime.AllDay
            && to is not EventTime.AllDay
            && end is not SeriesEnd.Through
            && rule.IsByDay()
            && rule.LastDay(start, Zone(was)) is { } lastDay
        )
        {
            // An hour later it is until the same day, and not until an hour after midnight of the next.
            var day = lastDay.PlusDays(Period.DaysBetween(start.Date, Start(start).Date));
            var over = day.PlusDays(1).AtMidnight().PlusSeconds(-1);
            return to is EventTime.Timed
                ? new SeriesEnd.ThroughInstant(ZoneClock.At(over, Zone(to)))
                : new SeriesEnd.ThroughTime(over);
        }

        LocalDateTime? last = end switch
        {
            SeriesEnd.Through through => through.LastDay + LocalTime.MaxValue.With(TimeAdjusters.TruncateToSecond),
            SeriesEnd.ThroughTime through => through.Last,
            SeriesEnd.ThroughInstant through => through.Last.InZone(Zone(was)).LocalDateTime,
            _ => null,
        };
        if (last is not { } local)
        {
            return end;
        }

        return (end, to) switch
        {
            (SeriesEnd.Through through, _) when to is EventTime.AllDay || was is not EventTime.AllDay =>
                new SeriesEnd.Through(through.LastDay.PlusDays(Days)),
            (_, EventTime.AllDay) => new SeriesEnd.Through(local.Date.PlusDays(Days)),
            (_, EventTime.Timed timed) => new SeriesEnd.ThroughInstant(
                ZoneClock.At(was is EventTime.AllDay ? local.PlusDays(Days) : Start(local), clock.Zone(timed.Zone))
            ),
            _ => new SeriesEnd.ThroughTime(was is EventTime.AllDay ? local.PlusDays(Days) : Start(local)),
        };
    }

    private DateTimeZone Zone(EventTime time) =>
        time is EventTime.Timed timed ? clock.Zone(timed.Zone) : DateTimeZone.Utc;
}
