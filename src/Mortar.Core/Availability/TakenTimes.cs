using Mortar.Core.Answers;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Availability;

/// <summary>How a stretch of somebody's time is taken, the weakest first.</summary>
public enum Taken
{
    /// <summary>Perhaps.</summary>
    Tentative,

    /// <summary>By an event.</summary>
    Busy,

    /// <summary>By an absence.</summary>
    Away,
}

/// <summary>One occurrence that takes the time of one person or place.</summary>
/// <param name="Who">Whose time.</param>
/// <param name="Occurrence">What takes it; its span is in the zone of the one whose time it is.</param>
/// <param name="How">How it is taken.</param>
public readonly record struct TakenTime(Participant Who, Occurrence Occurrence, Taken How)
{
    /// <summary>Whether it is an absence, be it agreed to or only proposed.</summary>
    public bool IsAbsence { get; init; }
}

/// <summary>Finds what takes whose time.</summary>
public static class TakenTimes
{
    /// <summary>Every time taken in the calendars that touches the window; cancelled, free and declined ones are none.</summary>
    /// <param name="calendars">All calendars that count.</param>
    /// <param name="window">The window.</param>
    /// <param name="zones">The zone of each person, whose own day a whole day is; the window's zone for those not in it.</param>
    /// <param name="clock">Zone rules.</param>
    /// <returns>Lazy, calendar by calendar; not in the order of time.</returns>
    public static IEnumerable<TakenTime> In(
        IEnumerable<CountedCalendar> calendars,
        Window window,
        IReadOnlyDictionary<PersonId, DateTimeZone> zones,
        ZoneClock clock
    ) =>
        from calendar in calendars
        from one in calendar.Events
        from takenTime in Of(calendar, one, window, zones, clock)
        select takenTime;

    /// <summary>
    /// Whether an event can take anybody's time or a place, be it as nobody's but those named on it: most events of most
    /// calendars name nobody, and are told apart before anything is made of them.
    /// </summary>
    public static bool CanTake(Purpose purpose, WhoseTime takes, Event whole) =>
        purpose == Purpose.Place
        || takes is WhoseTime.Group or WhoseTime.Person
        || whole.Content.Attendees.Count > 0
        || whole.Series is { } series && series.Overrides.Any(one => one.Content.Attendees.Count > 0);

    private static IEnumerable<TakenTime> Of(
        CountedCalendar calendar,
        CountedEvent counted,
        Window window,
        IReadOnlyDictionary<PersonId, DateTimeZone> zones,
        ZoneClock clock
    )
    {
        var whole = counted.Event;
        if (
            counted.Named.IsEmpty
            && counted.Places.IsEmpty
            && !CanTake(calendar.Purpose, calendar.Takes, counted.Event)
        )
        {
            yield break;
        }

        // Dates that were changed by themselves may name others, or nobody.
        var byContent = whole
            .Contents.DistinctBy(content => content.Attendees)
            .ToDictionary(content => content.Attendees, content => Takers(calendar, counted, content).ToHashSet());
        var takers = byContent.Values.SelectMany(those => those).Distinct().ToList();
        if (takers.Count == 0)
        {
            yield break;
        }

        // A timed event is the same stretch for everybody; a whole day is each one's own day.
        var byZone = takers.GroupBy(taker =>
            IsTheSameForAll(counted.Event) || taker.Who.IsPlace
                ? window.Reader
                : zones.GetValueOrDefault(new PersonId(taker.Who.Id), window.Reader)
        );
        foreach (var same in byZone)
        {
            var seen = same.Key.Equals(window.Reader)
                ? window
                : new Window(window.First.PlusDays(-1), window.Last.PlusDays(1), same.Key);
            foreach (var one in counted.Event.Shown(seen, clock))
            {
                if (one.Content is { Cancelled: true } or { ShowAs: ShowAs.Free } || !window.Touches(one.Span))
                {
                    continue;
                }

                var named = byContent[one.Content.Attendees];
                foreach (var taker in same.Where(named.Contains))
                {
                    var answer =
                        counted.Answers.IsEmpty || taker.Who.IsPlace
                            ? taker.Answer
                            : AnswerRules.Of(new PersonId(taker.Who.Id), counted.Answers, one, clock).Answer;
                    if (answer != Answer.Declined)
                    {
                        yield return new TakenTime(taker.Who, one, How(calendar.Purpose, one.Content.ShowAs, answer))
                        {
                            IsAbsence = calendar.Purpose == Purpose.Away,
                        };
                    }
                }
            }
        }
    }

    private static bool IsTheSameForAll(Event whole) =>
        whole.Time is EventTime.Timed && (whole.Series?.Overrides ?? []).All(one => one.Time is EventTime.Timed);

    private static IEnumerable<(Participant Who, Answer Answer)> Takers(
        CountedCalendar calendar,
        CountedEvent counted,
        EventContent content
    )
    {
        var named = counted.Named.Select(one => one.Person).Concat(content.Attendees);
        var answers = counted.Named.ToLookup(one => one.Person, one => one.Answer);
        var people = calendar.Takes switch
        {
            WhoseTime.Named => named,
            WhoseTime.Person => calendar.Person is { } one ? named.Prepend(one) : named,
            WhoseTime.Group => calendar.Group.Concat(named),
            _ => [],
        };
        var places = calendar.Purpose == Purpose.Place ? counted.Places.Append(calendar.Id) : counted.Places;
        return people
            .Distinct()
            .Where(person => calendar.Willing?.Has(person) != false)
            .Select(person => (Participant.Of(person), answers[person].FirstOrDefault()))
            .Where(taker => taker.Item2 != Answer.Declined)
            .Concat(places.Distinct().Select(place => (Participant.Of(place), Answer.Accepted)));
    }

    private static Taken How(Purpose purpose, ShowAs showAs, Answer answer) =>
        showAs == ShowAs.Tentative || answer == Answer.Tentative ? Taken.Tentative
        : purpose == Purpose.Away ? Taken.Away
        : Taken.Busy;
}
