using Mortar.Core.Answers;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Formats.ICalendar;

/// <summary>
/// Takes what a program sent into an event: a program sends back what it knows of, and what it never showed (a property of
/// another program, who is named, that it is private) is not meant to go.
/// </summary>
public static class ObjectTaking
{
    /// <summary>What every program shows: where it is missing, somebody took it away.</summary>
    private static readonly HashSet<string> Shown =
    [
        "SUMMARY",
        "LOCATION",
        "DESCRIPTION",
        "DTSTART",
        "DTEND",
        "DURATION",
        "RRULE",
        "RDATE",
        "EXDATE",
        "RECURRENCE-ID",
        "UID",
        "DTSTAMP",
        "SEQUENCE",
        "CREATED",
        "LAST-MODIFIED",
    ];

    /// <summary>What programs write anew each time, and says nothing of the event.</summary>
    private static readonly HashSet<string> Volatile = ["DTSTAMP", "SEQUENCE", "CREATED", "LAST-MODIFIED"];

    /// <summary>What belongs to a series, and to none of its changed dates (RFC 5545, 3.8.5).</summary>
    private static readonly HashSet<string> OfSeries = ["RRULE", "EXRULE", "RDATE", "EXDATE"];

    private static readonly HashSet<string> Texts = ["SUMMARY", "LOCATION", "DESCRIPTION"];

    /// <summary>A new event.</summary>
    /// <param name="sent">What was sent.</param>
    /// <param name="zone">The calendar's zone.</param>
    /// <param name="clock">Zone rules.</param>
    /// <returns><c>null</c> where nothing can be made of it.</returns>
    public static TakenObject? Anew(this SentObject.Fit sent, string zone, ZoneClock clock)
    {
        var alarms = OwnAlarms.Of(sent.Components);
        return Read([.. sent.Components.Select(Plain)], zone, clock) is { } read
            ? new TakenObject(
                read.Time,
                read.Content,
                read.Series,
                read.Source,
                alarms.Text.Length > 0 ? alarms : null,
                IsOther: true,
                [],
                AnswersForOthers: false,
                NotAsked(sent.Components)
            )
            : null;

        static Component Plain(Component component) => component.WithInside(one => !OwnAlarms.IsAlarm(one));
    }

    /// <summary>What an event becomes that is there already.</summary>
    /// <param name="sent">What was sent.</param>
    /// <param name="sender">Who sent it: somebody who sees all of the event.</param>
    /// <param name="one">The event as it is, with its source.</param>
    /// <param name="names">What those are called who are named on it.</param>
    /// <param name="answers">What they answered.</param>
    /// <param name="before">The sender's own alarms before; <c>null</c> where they had set none.</param>
    /// <param name="zone">The calendar's zone.</param>
    /// <param name="clock">Zone rules.</param>
    /// <returns><c>null</c> where nothing can be made of it.</returns>
    public static TakenObject? Into(
        this SentObject.Fit sent,
        PersonId sender,
        EventToWrite one,
        IReadOnlyDictionary<PersonId, string> names,
        ILookup<EventId, GivenAnswer> answers,
        OwnAlarms? before,
        string zone,
        ZoneClock clock
    )
    {
        var was = CalendarObject.ComponentsOf(one, new PeopleToWrite(names, answers, clock), zone, clock);
        var merged = sent.Components.ConvertAll(component => Merged(component, was));
        if (Read(merged, zone, clock) is not { } read)
        {
            return null;
        }

        var alarms = OwnAlarms.Of(sent.Components);
        var isAsTheEvents = alarms == OwnAlarms.Of(was) && before is null;
        var (mine, isForOthers) = Answers(sent.Components, was, sender, read, zone, clock);
        var content = read.Content with { Reminder = one.Event.Content.Reminder };
        return new TakenObject(
            read.Time,
            content,
            read.Series,
            read.Source,
            isAsTheEvents ? null : alarms,
            read.Time != one.Event.Time
                || content != one.Event.Content
                || !Equals(read.Series, WithoutOrigin(one.Event.Series))
                || IsOtherBeside(merged, was),
            mine,
            isForOthers,
            NotAsked(sent.Components)
        );
    }

    private static FileEvent? Read(List<Component> components, string zone, ZoneClock clock) =>
        CalendarFile.ReadSource(string.Concat(components.Select(component => component.ToText())), zone, clock).Event;

    /// <summary>Of what another event it is the later part is said in no file.</summary>
    private static Series? WithoutOrigin(Series? series) =>
        series is null ? null : series with { ContinuedFrom = null };

    private static Component Merged(Component sent, List<Component> was)
    {
        if (sent.Name != "VEVENT")
        {
            return sent;
        }

        var key = OwnAlarms.KeyOf(sent);
        var same = was.Find(component => component.Name == "VEVENT" && OwnAlarms.KeyOf(component) == key);
        // A date that is changed by itself has, beside that, what its series has.
        var before =
            same ?? was.Find(component => component.Name == "VEVENT" && OwnAlarms.KeyOf(component).Length == 0);
        var merged = sent.WithInside(inside => !OwnAlarms.IsAlarm(inside));
        if (before is null)
        {
            return merged;
        }

        var said = sent.Lines.Select(line => line.Name).ToHashSet(StringComparer.Ordinal);
        var isDay = sent.First("DTSTART")?.Value.Trim().Length == 8;
        merged.Lines.AddRange(
            before.Lines.Where(line =>
                !said.Contains(line.Name)
                && !Shown.Contains(line.Name)
                && (same is not null || !OfSeries.Contains(line.Name))
                && (isDay || line.Name != CalendarFileWriter.TimesToBeSet)
            )
        );
        var inside = sent.Inside.Select(one => one.Name).ToHashSet(StringComparer.Ordinal);
        merged.Inside.AddRange(before.Inside.Where(one => OwnAlarms.IsAlarm(one) || !inside.Contains(one.Name)));
        return merged;
    }

    /// <summary>Whether anything is another beside what Mortar knows of: what only other programs know.</summary>
    private static bool IsOtherBeside(List<Component> now, List<Component> was)
    {
        var (after, before) = (Lines(now), Lines(was));
        return !after.SetEquals(before);

        static HashSet<string> Lines(List<Component> components) =>
            [
                .. from component in components
                where component.Name == "VEVENT"
                from line in component.Lines
                where !Volatile.Contains(line.Name) && !FilePeople.IsOurs(line)
                where !Shown.Contains(line.Name) || Texts.Contains(line.Name)
                select $"{OwnAlarms.KeyOf(component)} {(Texts.Contains(line.Name) ? line.Name + line.Unescaped() : line.Text)}",
                .. from component in components
                where component.Name == "VEVENT"
                from inside in component.Inside
                where !OwnAlarms.IsAlarm(inside)
                select inside.ToText(),
            ];
    }

    private static (List<SentAnswer> Mine, bool IsForOthers) Answers(
        List<Component> sent,
        List<Component> was,
        PersonId sender,
        FileEvent read,
        string zone,
        ZoneClock clock
    )
    {
        var (mine, isForOthers) = (new List<SentAnswer>(), false);
        foreach (var component in sent.Where(component => component.Name == "VEVENT"))
        {
            var key = OwnAlarms.KeyOf(component);
            var before =
                was.Find(one => one.Name == "VEVENT" && OwnAlarms.KeyOf(one) == key)
                ?? was.Find(one => one.Name == "VEVENT" && OwnAlarms.KeyOf(one).Length == 0);
            foreach (var line in component.All("ATTENDEE"))
            {
                // What is not said is left as it is.
                if (
                    FilePeople.Person(line) is not { } person
                    || line.Parameter("PARTSTAT") is not { } text
                    || AnswerOf(text) is not { } answer
                    || answer == AnswerIn(before, person)
                )
                {
                    continue;
                }

                if (person == sender)
                {
                    mine.Add(new SentAnswer(Only(component, read, zone, clock), answer));
                }
                else if (answer != Answer.NeedsAction)
                {
                    isForOthers = true;
                }
            }
        }

        return (mine, isForOthers);
    }

    private static LocalDateTime? Only(Component component, FileEvent read, string zone, ZoneClock clock) =>
        component.First("RECURRENCE-ID") is not { } line ? null
        : read.Changes.FirstOrDefault(one => OwnAlarms.KeyOf(one.Component) == line.Value.Trim()) is { } change
            ? change.Override.Replaces
        : new FileTimes(clock, zone, new Dictionary<string, Component>(StringComparer.Ordinal), (2000, 2050)).TryRead(
            line,
            line.Value,
            out var time
        )
            ? time.Local
        : null;

    private static Answer AnswerIn(Component? component, PersonId person) =>
        component?.All("ATTENDEE").FirstOrDefault(line => FilePeople.Person(line) == person)?.Parameter("PARTSTAT")
            is { } text
            ? AnswerOf(text) ?? Answer.NeedsAction
            : Answer.NeedsAction;

    private static Answer? AnswerOf(string text) =>
        text.ToUpperInvariant() switch
        {
            "NEEDS-ACTION" => Answer.NeedsAction,
            "ACCEPTED" => Answer.Accepted,
            "DECLINED" => Answer.Declined,
            "TENTATIVE" => Answer.Tentative,
            _ => null,
        };

    private static HashSet<PersonId> NotAsked(IEnumerable<Component> components) =>
        [
            .. components
                .SelectMany(component => component.All("ATTENDEE"))
                .Where(line => line.Parameter("SCHEDULE-AGENT")?.ToUpperInvariant() is "CLIENT" or "NONE")
                .Select(FilePeople.Person)
                .OfType<PersonId>(),
        ];
}
