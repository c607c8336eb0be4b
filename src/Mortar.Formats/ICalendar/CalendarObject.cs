using System.Security.Cryptography;
using System.Text;
using Mortar.Core.Answers;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Formats.ICalendar;

/// <summary>
/// One event as a resource of its own: a calendar object resource (RFC 4791, 4.1), a series with all its changed dates. Of
/// the same event, seen alike, it is equal to the byte, whenever it is written; so it has a strong entity tag.
/// </summary>
public sealed class CalendarObject
{
    /// <summary>
    /// Stands for when an event from here was revised (DTSTAMP), which is told by its entity tag: were it told here, what
    /// somebody reads would change with what they do not see.
    /// </summary>
    internal static readonly Instant Stamp = Instant.FromUtc(2000, 1, 1, 0, 0);

    private CalendarObject(Event whole, string text) => (Event, Text) = (whole, text);

    /// <summary>The event as its reader sees it.</summary>
    public Event Event { get; }

    /// <summary>The whole file.</summary>
    public string Text { get; }

    /// <summary>Its UID, as its file has it.</summary>
    public string Uid =>
        Components.FirstOrDefault(component => component.Name == "VEVENT")?.First("UID")?.Value.Trim() ?? Event.Uid;

    /// <summary>Stands for its text, in quotes (RFC 9110, 8.8.3).</summary>
    public string ETag => field ??= TagOf(Text);

    /// <summary>Its components, with the definitions of zones; read when they are asked for, since mostly the text alone is.</summary>
    internal IReadOnlyList<Component> Components =>
        field ??= ComponentReader.Read(Text, new FindingList()).SelectMany(whole => whole.Inside).ToList();

    /// <summary>The entity tag of a text.</summary>
    public static string TagOf(string text) =>
        $"\"{Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(text)).AsSpan(0, 16))}\"";

    /// <summary>Writes one.</summary>
    /// <param name="one">The event as its reader sees it, and its source where they see all of it.</param>
    /// <param name="names">What those are called who are named on it.</param>
    /// <param name="answers">What they answered.</param>
    /// <param name="own">The reader's own alarms; <c>null</c> where they have set none and it has those of the event.</param>
    /// <param name="zone">The calendar's zone.</param>
    /// <param name="clock">Zone rules.</param>
    public static CalendarObject Of(
        EventToWrite one,
        IReadOnlyDictionary<PersonId, string> names,
        ILookup<EventId, GivenAnswer> answers,
        OwnAlarms? own,
        string zone,
        ZoneClock clock
    )
    {
        var components = ComponentsOf(one, new PeopleToWrite(names, answers, clock), zone, clock);
        own?.Put(components);
        return Of(one.Event, components, clock);
    }

    /// <summary>A stretch of which nothing is told but that it is taken.</summary>
    /// <param name="uid">Its name.</param>
    /// <param name="span">Start included, end excluded.</param>
    /// <param name="tentative">Whether nothing in it is settled.</param>
    /// <param name="clock">Zone rules.</param>
    public static CalendarObject Busy(string uid, Interval span, bool tentative, ZoneClock clock)
    {
        var content = EventContent.Blank with { Title = "Busy", ShowAs = tentative ? ShowAs.Tentative : ShowAs.Busy };
        var whole = new Event(
            default,
            default,
            uid,
            default,
            EventTime.InZone(span.Start.InUtc().LocalDateTime, span.End.InUtc().LocalDateTime, "UTC"),
            content,
            Series: null,
            Version: 1
        );
        return Of(
            whole,
            [.. CalendarFileWriter.Components(new EventToWrite(whole, null), "UTC", null, Stamp, clock)],
            clock
        );
    }

    /// <summary>The components of an event, with alarms that are everybody's.</summary>
    internal static List<Component> ComponentsOf(
        EventToWrite one,
        PeopleToWrite people,
        string zone,
        ZoneClock clock
    ) =>
        // Which revision it is (SEQUENCE) is told by nothing, for the same reason as when that was.
        [
            .. CalendarFileWriter.Components(
                one with
                {
                    Event = one.Event with { Version = 1 },
                },
                zone,
                people,
                Stamp,
                clock
            ),
        ];

    private static CalendarObject Of(Event whole, IReadOnlyList<Component> components, ZoneClock clock) =>
        new(whole, CalendarFileWriter.Whole([], components, [whole], now: null, clock));

    /// <summary>The same with other components of the same event, as where only part of it is asked for.</summary>
    internal string With(IReadOnlyList<Component> components, ZoneClock clock) =>
        CalendarFileWriter.Whole([], components, [Event], now: null, clock);
}
