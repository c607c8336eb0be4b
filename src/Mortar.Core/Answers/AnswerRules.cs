using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Core.Answers;

/// <summary>What somebody answered to an event they are named on.</summary>
/// <param name="Person">Who.</param>
/// <param name="Answer">What.</param>
/// <param name="Only">The start by which the series counts the one date that is meant; <c>null</c> for a single event, or all of a series.</param>
/// <param name="About">The time they answered to (<see cref="AnswerRules.About"/>): an event that has moved since is another question.</param>
public sealed record GivenAnswer(PersonId Person, Answer Answer, LocalDateTime? Only, string About);

/// <summary>Somebody who is named on an event, and how they stand to it.</summary>
/// <param name="Person">Who.</param>
/// <param name="Answer">What counts now.</param>
/// <param name="ToEarlierTime">Whether they had answered before it was moved.</param>
public sealed record StandingAnswer(PersonId Person, Answer Answer, bool ToEarlierTime);

/// <summary>What somebody who was asked is told of an event by mail.</summary>
public enum ToldOfEvent
{
    /// <summary>Nothing that concerns them has changed.</summary>
    Nothing,

    /// <summary>It is at another time or place, or another thing, or back again.</summary>
    Changed,

    /// <summary>It does not take place.</summary>
    CalledOff,

    /// <summary>It takes place, but they are not asked any more.</summary>
    NotAsked,
}

/// <summary>Which answers count.</summary>
public static class AnswerRules
{
    /// <summary>The longest comment, in UTF-16 units.</summary>
    public const int LongestComment = 500;

    /// <summary>Why some people cannot be asked whether they come: only who is named is; <c>null</c> where they can.</summary>
    public static Refusal? WhyNotAsk(Event whole, IReadOnlyCollection<PersonId> people) =>
        people.Count == 0 || people.Except(whole.Named).Any()
            ? new Refusal.Unfit("personIds", "Ask people who are named on the event. Name them on it first.")
            : null;

    /// <summary>Why another time cannot be suggested with an answer; <c>null</c> where it can.</summary>
    public static Refusal? WhyNotSuggest(Instant start, Instant end) =>
        end <= start ? new Refusal.Unfit("suggested", "The time you suggest would end before it starts.") : null;

    /// <summary>
    /// Whether what became of an event has been so for long enough to be told to those who were asked: a slip that is put
    /// right tells nobody.
    /// </summary>
    /// <param name="changed">When the event was changed last.</param>
    /// <param name="binned">When its calendar was put into the bin, or came out of it; <c>null</c> where that is not what is told.</param>
    /// <param name="rest">How long is enough.</param>
    /// <param name="now">What o'clock it is.</param>
    public static bool HasRested(Instant changed, Instant? binned, Duration rest, Instant now) =>
        Elapsed.Has(rest, changed, now) && (binned is not { } moved || Elapsed.Has(rest, moved, now));

    /// <summary>Makes what is said with an answer safe and checks it.</summary>
    public static Checked<string> Comment(string? given)
    {
        var comment = PlainText.Lines(given);
        return new(
            comment,
            comment.Length <= LongestComment
                ? []
                : [new FieldProblem("comment", $"A comment can have up to {LongestComment} characters.")]
        );
    }

    /// <summary>
    /// Whether a reply by mail comes after the one that was read last: by its SEQUENCE, of like ones by its DTSTAMP (RFC
    /// 5546, 2.1.5). Mails overtake one another.
    /// </summary>
    /// <param name="reply">The one that arrived.</param>
    /// <param name="read">The one that was read last; without a stamp where none was.</param>
    /// <param name="now">A stamp ahead of it says nothing: it would be the newest for ever.</param>
    public static bool IsNewer(ReplyMark reply, ReplyMark read, Instant now) =>
        read.Stamp is not { } last
        || reply.Sequence > read.Sequence
        || (
            reply.Sequence == read.Sequence
            && (reply.Stamp is not { } stamp || last > now + Duration.FromDays(1) || stamp > last)
        );

    /// <summary>For how long a mailed question can be answered, or looked at, after what it asks about is over.</summary>
    public static readonly Duration LinkOutlasts = Duration.FromDays(30);

    /// <summary>To answer: those named on it who see it, and those who answer for them.</summary>
    /// <param name="onEvent">The step of the one who is named on the event (<see cref="AccessRules.OnEvent"/>).</param>
    /// <param name="isNamed">Whether they are named on the date that is meant.</param>
    public static Verdict ToAnswer(Role onEvent, bool isNamed) =>
        onEvent < Role.Outline ? Verdict.Hidden
        : isNamed ? Verdict.Granted
        : Verdict.Denied;

    /// <summary>The time an answer is about, as text: of the one date, or of the event with how it repeats.</summary>
    /// <remarks>What is changed beside that (a title, notes, who else comes) leaves an answer as it is (RFC 5546, 3.2.2.1).</remarks>
    public static string About(Event whole, LocalDateTime? only, ZoneClock clock) =>
        only is { } start
            ? whole.OccurrenceAt(start, clock, DateTimeZone.Utc) is { } occurrence
                ? Text(occurrence.Time)
                : string.Empty
            : string.Join('|', [Text(whole.Time), .. (whole.Series?.Rules ?? []).Select(rule => rule.ToString())]);

    /// <summary>How somebody stands to one date: what they answered to it, else to the whole, unless it has been moved since.</summary>
    public static StandingAnswer Of(
        PersonId person,
        IEnumerable<GivenAnswer> given,
        Occurrence occurrence,
        ZoneClock clock
    )
    {
        var theirs = given.Where(one => one.Person == person).ToList();
        var toDate = theirs.Find(one => one.Only == occurrence.Start);
        if (toDate is not null && occurrence.Start is not null)
        {
            return Standing(toDate, Text(occurrence.Time));
        }

        var toAll = theirs.Find(one => one.Only is null);
        var isMoved = occurrence.Start is { } start && occurrence.Time.LocalStart != start;
        return toAll is null ? new StandingAnswer(person, Answer.NeedsAction, ToEarlierTime: false)
            : isMoved ? new StandingAnswer(person, Answer.NeedsAction, ToEarlierTime: true)
            : Standing(toAll, About(occurrence.Event, only: null, clock));
    }

    /// <summary>How somebody stands to a whole event, whatever they answered to single dates of it.</summary>
    public static StandingAnswer ToWhole(
        PersonId person,
        IEnumerable<GivenAnswer> given,
        Event whole,
        ZoneClock clock
    ) =>
        given.FirstOrDefault(one => one.Person == person && one.Only is null) is { } toAll
            ? Standing(toAll, About(whole, only: null, clock))
            : new StandingAnswer(person, Answer.NeedsAction, ToEarlierTime: false);

    /// <summary>What somebody who was asked has to be told of what became of an event since they were last told.</summary>
    /// <param name="person">Who.</param>
    /// <param name="told">The event as they were told of it; <c>null</c> where they were told that it is off.</param>
    /// <param name="now">The event as it is; <c>null</c> where it is gone.</param>
    public static ToldOfEvent ToTell(PersonId person, Event? told, Event? now)
    {
        var (was, stays) = (told?.GivenTo.Has(person) == true, now?.GivenTo.Has(person) == true);
        return (was, stays) switch
        {
            (false, false) => ToldOfEvent.Nothing,
            (true, false) => now is null ? ToldOfEvent.CalledOff : ToldOfEvent.NotAsked,
            (false, true) => now!.Content.Cancelled ? ToldOfEvent.Nothing : ToldOfEvent.Changed,
            _ => IsNews(told!, now!)
                ? (now!.Content.Cancelled ? ToldOfEvent.CalledOff : ToldOfEvent.Changed)
                : ToldOfEvent.Nothing,
        };
    }

    /// <summary>Whether it takes place at another time or place, is another thing, or takes place no more or again.</summary>
    private static bool IsNews(Event told, Event now) =>
        told.Time != now.Time
        || !Equals(told.Series, now.Series)
        || told.Content.Title != now.Content.Title
        || told.Content.Place != now.Content.Place
        || told.Content.Cancelled != now.Content.Cancelled;

    private static StandingAnswer Standing(GivenAnswer given, string about) =>
        given.About == about
            ? new StandingAnswer(given.Person, given.Answer, ToEarlierTime: false)
            : new StandingAnswer(given.Person, Answer.NeedsAction, ToEarlierTime: true);

    private static string Text(EventTime time) =>
        $"{LocalDateTimePattern.GeneralIso.Format(time.LocalStart)}/{LocalDateTimePattern.GeneralIso.Format(time.LocalEnd)}/{(time as EventTime.Timed)?.Zone ?? time.GetType().Name}";
}

/// <summary>What orders the replies that come by mail (RFC 5546, 2.1.4 and 2.1.5).</summary>
/// <param name="Sequence">The revision of the event a reply is about.</param>
/// <param name="Stamp">When it was written; <c>null</c> where that is not known.</param>
public readonly record struct ReplyMark(int Sequence, Instant? Stamp);
