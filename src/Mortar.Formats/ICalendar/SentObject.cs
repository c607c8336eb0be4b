using System.Text;
using Mortar.Core.Answers;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Formats.ICalendar;

/// <summary>What is wrong with a calendar object resource that was sent, by the precondition it misses (RFC 4791, 5.3.2.1).</summary>
public enum ObjectFault
{
    /// <summary>It is no text/calendar at all.</summary>
    SupportedCalendarData,

    /// <summary>It breaks RFC 5545, or it is more than can be taken.</summary>
    ValidCalendarData,

    /// <summary>It is no calendar object resource (RFC 4791, 4.1).</summary>
    ValidCalendarObjectResource,

    /// <summary>What is in it is no event.</summary>
    SupportedCalendarComponent,
}

/// <summary>A calendar object resource that a program sent.</summary>
public abstract record SentObject
{
    private SentObject() { }

    /// <summary>It can be taken.</summary>
    public sealed record Fit : SentObject
    {
        internal Fit(string uid, List<Component> components) => (Uid, Components) = (uid, components);

        /// <summary>Its UID.</summary>
        public string Uid { get; }

        internal List<Component> Components { get; }

        /// <summary>The same with somebody named by who they are, where it names them by a mail address of theirs.</summary>
        /// <param name="person">Who.</param>
        /// <param name="addresses">Their addresses.</param>
        public Fit Naming(PersonId person, IReadOnlyCollection<string> addresses)
        {
            var theirs = addresses.Select(address => $"mailto:{address}").ToHashSet(StringComparer.OrdinalIgnoreCase);
            foreach (var component in Components)
            {
                for (var at = 0; at < component.Lines.Count; at++)
                {
                    var line = component.Lines[at];
                    if (line.Name is "ATTENDEE" or "ORGANIZER" && theirs.Contains(line.Value.Trim()))
                    {
                        component.Lines[at] = FilePeople.As(line, person);
                    }
                }
            }

            return this;
        }
    }

    /// <summary>It cannot.</summary>
    /// <param name="Fault">Which precondition it misses.</param>
    /// <param name="Sentence">What is wrong.</param>
    public sealed record Unfit(ObjectFault Fault, string Sentence) : SentObject;

    /// <summary>Reads one. Never throws for what is in it.</summary>
    /// <param name="bytes">What was sent.</param>
    /// <param name="zone">The calendar's zone.</param>
    /// <param name="clock">Zone rules.</param>
    public static SentObject Read(ReadOnlySpan<byte> bytes, string zone, ZoneClock clock)
    {
        string text;
        try
        {
            text = new UTF8Encoding(false, throwOnInvalidBytes: true).GetString(bytes);
        }
        catch (DecoderFallbackException)
        {
            return new Unfit(ObjectFault.ValidCalendarData, "It is not in UTF-8.");
        }

        if (CalendarFile.Read(bytes, zone, clock) is not CalendarFileReading.Understood file)
        {
            return new Unfit(ObjectFault.SupportedCalendarData, "It is no calendar file: BEGIN:VCALENDAR is missing.");
        }

        var tops = ComponentReader.Read(text.TrimStart('\uFEFF', ' ', '\t', '\r', '\n'), new FindingList());
        if (tops is not [{ Name: "VCALENDAR", Whole: true } calendar])
        {
            return Object("It has to be one calendar, from BEGIN:VCALENDAR to END:VCALENDAR.");
        }

        if (calendar.First("METHOD") is not null)
        {
            return Object("It is a message (METHOD) and not an event to be kept.");
        }

        var inside = calendar.Inside.Where(component => component.Name != "VTIMEZONE").ToList();
        if (inside.Find(component => component.Name != "VEVENT") is { } other)
        {
            return new Unfit(
                ObjectFault.SupportedCalendarComponent,
                $"Only events are kept here (VEVENT), and there is a {Finding.Quote(other.Name)} in it."
            );
        }

        var uids = inside.Select(component => component.First("UID")?.Value.Trim()).Distinct().ToList();
        if (uids is not [{ Length: > 0 and <= 1_000 } uid])
        {
            return Object(
                inside.Count == 0 ? "There is no event in it."
                : uids.Count > 1 ? "There are several events in it (UID); each is sent by itself."
                : "The event has no name (UID), or one that is too long."
            );
        }

        if (file.LeftOut > 0)
        {
            var why = file.Findings.First(finding => finding.LeftOut);
            return new Unfit(ObjectFault.ValidCalendarData, $"{why.What}: {why.Why}.");
        }

        var definitions = CalendarFile.Definitions(calendar.Inside);
        var times = new FileTimes(clock, zone, definitions, (2000, 2050));
        if (
            inside
                .SelectMany(component => component.Lines)
                .Where(line => line.Name is "DTSTART" or "DTEND" or "RECURRENCE-ID" or "RDATE" or "EXDATE")
                .Select(line => line.Parameter("TZID"))
                .FirstOrDefault(name => name is { Length: > 0 } && times.ZoneOf(name) is null) is
            { } unknown
        )
        {
            return new Unfit(
                ObjectFault.ValidCalendarData,
                $"Nobody knows its time zone “{Finding.Quote(unknown)}”, and it does not say what it is (VTIMEZONE)."
            );
        }

        return new Fit(uid, [.. calendar.Inside]);

        static Unfit Object(string sentence) => new(ObjectFault.ValidCalendarObjectResource, sentence);
    }
}

/// <summary>What somebody answers by what they sent (PARTSTAT, RFC 5545, 3.2.12).</summary>
/// <param name="Only">To which date of a series; <c>null</c> for a single event, or all of it.</param>
public sealed record SentAnswer(LocalDateTime? Only, Answer Answer);

/// <summary>What an event is to be after somebody sent it.</summary>
/// <param name="Time">When.</param>
/// <param name="Content">What.</param>
/// <param name="Series">How it repeats.</param>
/// <param name="Source">Its components, with all that it had and the sender's program did not show.</param>
/// <param name="Alarms">The sender's own; <c>null</c> where they are those of the event.</param>
/// <param name="IsOther">Whether anything of the event itself is another than before.</param>
/// <param name="Answers">What the sender answers by it.</param>
/// <param name="AnswersForOthers">Whether it changes what somebody else answered.</param>
/// <param name="NotAsked">Whom the sender's program asks by itself (SCHEDULE-AGENT, RFC 6638, 7.1).</param>
public sealed record TakenObject(
    EventTime Time,
    EventContent Content,
    Series? Series,
    string Source,
    OwnAlarms? Alarms,
    bool IsOther,
    IReadOnlyList<SentAnswer> Answers,
    bool AnswersForOthers,
    IReadOnlySet<PersonId> NotAsked
);
