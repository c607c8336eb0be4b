using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Events;

/// <summary>How much of a series a change is meant for.</summary>
public enum Reach
{
    /// <summary>The one occurrence.</summary>
    OnlyThis,

    /// <summary>It and all later ones.</summary>
    AndLater,

    /// <summary>All of it.</summary>
    Whole,
}

/// <summary>How an event is to repeat from now on.</summary>
public abstract record RepeatWish
{
    private RepeatWish() { }

    /// <summary>As it does.</summary>
    public sealed record AsBefore : RepeatWish;

    /// <summary>Not at all.</summary>
    public sealed record Once : RepeatWish;

    /// <summary>By a rule.</summary>
    public sealed record By(RecurrenceRule Rule) : RepeatWish;

    /// <summary>Reads a wish from the text of a rule: empty for not at all, <c>null</c> for as before.</summary>
    /// <returns>The wish; <c>null</c> where the text is none that is taken here.</returns>
    public static Checked<RepeatWish?> Read(string? text) =>
        text switch
        {
            null => new(new AsBefore()),
            "" => new(new Once()),
            _ => RecurrenceRule.Parse(text) switch
            {
                RuleParse.Ok ok when RuleLimits.WhyNot([ok.Rule], []) is { } why => Wrong(
                    $"{char.ToUpperInvariant(why[0])}{why[1..]}."
                ),
                RuleParse.Ok ok => new(new By(ok.Rule)),
                RuleParse.Bad bad => Wrong(
                    $"At place {bad.Column + 1} of the rule stands something else than {bad.Expected}."
                ),
                _ => Wrong("Rules in another reckoning than the Gregorian are kept from files, not made."),
            },
        };

    private static Checked<RepeatWish?> Wrong(string sentence) => new(null, [new FieldProblem("repeats", sentence)]);
}

/// <summary>A change somebody wants to an event, checked.</summary>
/// <param name="Key">The start by which the series counts the occurrence they had before them; <c>null</c> for a single event, or the series from its first.</param>
/// <param name="Reach">How far it goes, where the event is a series.</param>
/// <param name="Time">When that occurrence is to be.</param>
/// <param name="Content">What it is to be.</param>
/// <param name="Repeats">How it is to repeat; only with <see cref="Reach.AndLater"/> and <see cref="Reach.Whole"/>.</param>
public sealed record EventChange(
    LocalDateTime? Key,
    Reach Reach,
    EventTime Time,
    EventContent Content,
    RepeatWish Repeats
);

/// <summary>What a change came to.</summary>
public abstract record EventEdit
{
    private EventEdit() { }

    /// <summary>It is done.</summary>
    /// <param name="Event">The event as it is now.</param>
    /// <param name="Later">The new event that its later part became, where it was parted.</param>
    /// <param name="Lost">Occurrences changed by themselves that the series no longer counts.</param>
    public sealed record Done(Event Event, Event? Later, IReadOnlyList<Override> Lost) : EventEdit;

    /// <summary>Nothing of it is left: it goes to the bin.</summary>
    public sealed record Gone : EventEdit;

    /// <summary>The event does not take place then.</summary>
    public sealed record NotThere : EventEdit;

    /// <summary>It cannot be done.</summary>
    /// <param name="Type">A stable name for the rule.</param>
    /// <param name="Sentence">Why, and the way out.</param>
    public sealed record Refused(string Type, string Sentence) : EventEdit;
}

/// <summary>Changes to an event, single or a series, as far as they are meant to reach.</summary>
public static class EventEdits
{
    /// <summary>Changes an event.</summary>
    /// <param name="whole">The event as it is.</param>
    /// <param name="change">What is wanted.</param>
    /// <param name="later">The id that the later part gets, where the series is parted.</param>
    /// <param name="clock">Zone rules.</param>
    /// <remarks>Whoever is not named on it any more is not given it by itself either.</remarks>
    public static EventEdit Changed(this Event whole, EventChange change, EventId later, ZoneClock clock) =>
        ChangedAlone(whole, change, later, clock) switch
        {
            EventEdit.Done done => done with
            {
                Event = done.Event.WithoutStrangers(),
                Later = done.Later?.WithoutStrangers(),
            },
            var other => other,
        };

    private static EventEdit ChangedAlone(Event whole, EventChange change, EventId later, ZoneClock clock)
    {
        var wished = change with { Time = clock.KeptIn(change.Time, ZoneOf(whole)) };
        if (whole.Series is not { } series)
        {
            return wished.Key is null
                ? Repeating(whole with { Time = wished.Time, Content = wished.Content }, [], wished.Repeats, clock)
                : new EventEdit.Refused(
                    "not-one-of-a-series",
                    "Only the whole of this event can be changed like that."
                );
        }

        if (wished.Key is { } key && !whole.CountsAt(key, clock))
        {
            return new EventEdit.NotThere();
        }

        return (wished.Reach, wished.Key) switch
        {
            (Reach.OnlyThis, { } only) => new EventEdit.Done(
                whole with
                {
                    Series = series.With(new Override(only, wished.Time, wished.Content)),
                },
                Later: null,
                Lost: []
            ),
            (Reach.AndLater, { } from) => FromThenOn(whole, from, wished, later, clock),
            _ => AllOf(whole, wished.Key, wished, clock),
        };
    }

    /// <summary>Why it does not go to another calendar so far; <c>null</c> where it does: a series only as a whole.</summary>
    /// <param name="whole">The event.</param>
    /// <param name="key">The occurrence that is meant; <c>null</c> for the event.</param>
    /// <param name="reach">How far from it.</param>
    public static Refusal? WhyNotLeave(this Event whole, LocalDateTime? key, Reach reach) =>
        whole.Series is not null && key is not null && reach != Reach.Whole
            ? new Refusal.AgainstRule(
                "not-one-of-a-series",
                "A series moves to another calendar as a whole. Choose the whole series, or keep this date where it is."
            )
            : null;

    /// <summary>Takes an event away, as far as is meant.</summary>
    public static EventEdit Without(this Event whole, LocalDateTime? key, Reach reach, EventId later, ZoneClock clock)
    {
        if (key is not { } start || reach == Reach.Whole)
        {
            return new EventEdit.Gone();
        }

        if (whole.Series is not { } series || !whole.CountsAt(start, clock))
        {
            return new EventEdit.NotThere();
        }

        if (reach == Reach.OnlyThis)
        {
            var left = whole with { Series = series.Without(start) };
            return
                left.StartsFrom(CivilDays.ToTime(CivilDays.FirstSecond), clock).Any() || left.Series.Overrides.Count > 0
                ? new EventEdit.Done(left, Later: null, Lost: [])
                : new EventEdit.Gone();
        }

        return whole.SplitBefore(start, later, whole.Uid, clock) switch
        {
            SeriesSplit.Split split => new EventEdit.Done(split.Earlier, Later: null, Lost: []),
            SeriesSplit.IsWhole => new EventEdit.Gone(),
            SeriesSplit.Refused refused => new EventEdit.Refused("series-form", refused.Sentence),
            _ => new EventEdit.NotThere(),
        };
    }

    private static EventEdit FromThenOn(
        Event whole,
        LocalDateTime key,
        EventChange wished,
        EventId id,
        ZoneClock clock
    ) =>
        whole.SplitBefore(key, id, $"{id.Value}@mortar", clock) switch
        {
            SeriesSplit.IsWhole => AllOf(whole, key, wished, clock),
            SeriesSplit.Refused refused => new EventEdit.Refused("series-form", refused.Sentence),
            SeriesSplit.Split split => AllOf(split.Later, key, wished, clock) switch
            {
                EventEdit.Done done => new EventEdit.Done(split.Earlier, done.Event, done.Lost),
                var refused => refused,
            },
            _ => new EventEdit.NotThere(),
        };

    private static EventEdit AllOf(Event whole, LocalDateTime? key, EventChange wished, ZoneClock clock) =>
        whole.Moved(key, wished.Time, wished.Content, clock) switch
        {
            SeriesChange.Done moved => Repeating(moved.Event, moved.Lost, wished.Repeats, clock),

            // A new rule says by itself when the series takes place, so nothing has to follow the old one.
            SeriesChange.Refused when wished.Repeats is not RepeatWish.AsBefore => Repeating(
                whole with
                {
                    Time = wished.Time,
                    Content = wished.Content,
                },
                [],
                wished.Repeats,
                clock
            ),
            SeriesChange.Refused refused => new EventEdit.Refused("series-time", refused.Sentence),
            _ => throw new System.Diagnostics.UnreachableException(),
        };

    private static EventEdit Repeating(Event whole, IReadOnlyList<Override> lost, RepeatWish repeats, ZoneClock clock)
    {
        switch (repeats)
        {
            case RepeatWish.Once:
                return new EventEdit.Done(whole with { Series = null }, Later: null, whole.Series?.Overrides ?? []);
            case RepeatWish.By by:
                var rule = by.Rule.Ending(EndOn(by.Rule.End, whole.Time, clock));
                if (BeginningWith(whole.Time, by.Rule, clock) is not { } begins)
                {
                    return new EventEdit.Refused(
                        "series-rule",
                        "By this rule it never takes place: it would be over before it begins, or there are no such dates. Let it end later, or choose other days."
                    );
                }

                var begun = whole with { Time = begins };
                if (whole.Series is null)
                {
                    return new EventEdit.Done(begun with { Series = Series.By(rule) }, Later: null, lost);
                }

                if (whole.Series is { Rules: [var known], ExceptRules.Count: 0, NotShown: null } && known.Equals(rule))
                {
                    return new EventEdit.Done(whole, Later: null, lost);
                }

                return begun.Repeating(rule, clock) switch
                {
                    SeriesChange.Done done => new EventEdit.Done(done.Event, Later: null, [.. lost, .. done.Lost]),
                    SeriesChange.Refused refused => new EventEdit.Refused("series-rule", refused.Sentence),
                    _ => throw new System.Diagnostics.UnreachableException(),
                };
            default:
                return new EventEdit.Done(whole, Later: null, lost);
        }
    }

    /// <summary>
    /// When something begins that is to repeat by a rule: at the first date from its start on that the rule has. The start
    /// would be a date of the series whatever the rule says (RFC 5545, 3.8.5.3), and nobody who asks for Tuesdays means a Monday.
    /// </summary>
    /// <returns><c>null</c> where the rule has no date from there on.</returns>
    private static EventTime? BeginningWith(EventTime time, RecurrenceRule rule, ZoneClock clock)
    {
        var start = time.LocalStart;
        var zone = time is EventTime.Timed timed ? clock.Zone(timed.Zone) : DateTimeZone.Utc;
        return rule.EndingByDay(start, zone)
            .Starts(start, start)
            .Select(first => (LocalDateTime?)first)
            .FirstOrDefault() switch
        {
            null => null,
            { } first when first == start => time,
            { } first => time.StartingAt(first),
        };
    }

    /// <summary>People name the last day; for an event with a zone that is an instant in UTC (RFC 5545, 3.3.10, on UNTIL).</summary>
    private static SeriesEnd EndOn(SeriesEnd end, EventTime time, ZoneClock clock) =>
        (end, time) switch
        {
            (SeriesEnd.Through through, EventTime.Timed timed) => new SeriesEnd.ThroughInstant(
                clock.Zone(timed.Zone).AtStartOfDay(through.LastDay.PlusDays(1)).ToInstant() - Duration.FromSeconds(1)
            ),
            (SeriesEnd.Through through, EventTime.Floating) => new SeriesEnd.ThroughTime(
                through.LastDay.PlusDays(1).AtMidnight().PlusSeconds(-1)
            ),
            _ => end,
        };

    private static string? ZoneOf(Event whole) => whole.Time is EventTime.Timed timed ? timed.Zone : null;
}
