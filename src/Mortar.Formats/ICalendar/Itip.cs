using System.Globalization;
using System.Text;
using Mortar.Core.Events;
using Mortar.Core.Time;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Formats.ICalendar;

/// <summary>Somebody in a message between calendars.</summary>
public sealed record ItipPerson(string Name, string Address);

/// <summary>What somebody answered from another program (RFC 5546, 3.2.3).</summary>
/// <param name="Uid">The event.</param>
/// <param name="Attendee">The mail address it is about.</param>
/// <param name="PartStat">ACCEPTED, DECLINED or TENTATIVE, or something else that is no answer.</param>
/// <param name="Only">The one date of a series, on the clock it was written on; <c>null</c> for the whole.</param>
/// <param name="OnlyInUtc">Whether that is in UTC and not on the event's own clock.</param>
/// <param name="Comment">What they wrote; may be empty.</param>
/// <param name="Counter">Another time they ask for (METHOD:COUNTER, 3.2.7); <c>null</c> for a plain answer.</param>
public sealed record ItipReply(
    string Uid,
    string Attendee,
    string PartStat,
    LocalDateTime? Only,
    bool OnlyInUtc,
    string Comment,
    ItipTime? Counter = null
)
{
    /// <summary>The revision of the event it is about (SEQUENCE); 0 where it says none.</summary>
    public int Sequence { get; init; }

    /// <summary>When it was written (DTSTAMP, in UTC); <c>null</c> where it says no moment there can be.</summary>
    public Instant? Stamp { get; init; }
}

/// <summary>A time as a message gives it.</summary>
/// <param name="End"><c>null</c> where it gives none: it is as long as before.</param>
/// <param name="Zone">The name of its zone; <c>UTC</c> for one with a Z; <c>null</c> for the event's own clock.</param>
public sealed record ItipTime(LocalDateTime Start, LocalDateTime? End, string? Zone);

/// <summary>Messages between calendars: asking somebody whether they come, and reading what they answer (RFC 5546).</summary>
public static class Itip
{
    private static readonly LocalDateTimePattern Local = LocalDateTimePattern.CreateWithInvariantCulture(
        "uuuuMMdd'T'HHmmss"
    );
    private static readonly LocalDatePattern Day = LocalDatePattern.CreateWithInvariantCulture("uuuuMMdd");

    /// <summary>
    /// A request (METHOD:REQUEST, RFC 5546, 3.2.2) to one person. Others who are asked are not in it: whose address is what
    /// is nobody's business but theirs.
    /// </summary>
    /// <param name="whole">The event; a series goes with all its dates.</param>
    /// <param name="organizer">Who asks, with the address that takes the answers.</param>
    /// <param name="attendee">Who is asked.</param>
    /// <param name="now">The instant of the message (DTSTAMP).</param>
    /// <param name="clock">Zone rules.</param>
    public static string Request(
        Event whole,
        ItipPerson organizer,
        ItipPerson attendee,
        Instant now,
        ZoneClock clock
    ) =>
        CalendarFileWriter.WriteMessage(
            "REQUEST",
            new EventToWrite(whole with { Content = whole.Content with { Reminder = null } }, Source: null),
            [
                ContentLine.Of($"ORGANIZER;CN={Quoted(organizer.Name)}", $"mailto:{organizer.Address}"),
                ContentLine.Of(
                    $"ATTENDEE;CN={Quoted(attendee.Name)};CUTYPE=INDIVIDUAL;ROLE=REQ-PARTICIPANT;PARTSTAT=NEEDS-ACTION;RSVP=TRUE",
                    $"mailto:{attendee.Address}"
                ),
            ],
            now,
            clock
        );

    /// <summary>
    /// That an event is called off, or that one person is not asked any more (METHOD:CANCEL, RFC 5546, 3.2.5). STATUS says
    /// the first and stays away for the second, as the section demands. Nothing else of the event is in it: whoever is not
    /// asked any more does not learn what became of it.
    /// </summary>
    /// <param name="whole">The event; a series goes as a whole.</param>
    /// <param name="organizer">Who asked.</param>
    /// <param name="attendee">Who was asked.</param>
    /// <param name="isCalledOff">Whether it is called off for all, and not for that person alone.</param>
    /// <param name="now">The instant of the message (DTSTAMP).</param>
    public static string Cancel(
        Event whole,
        ItipPerson organizer,
        ItipPerson attendee,
        bool isCalledOff,
        Instant now
    ) =>
        CalendarFileWriter.WriteNameOnly(
            "CANCEL",
            whole,
            [
                ContentLine.Of($"ORGANIZER;CN={Quoted(organizer.Name)}", $"mailto:{organizer.Address}"),
                ContentLine.Of($"ATTENDEE;CN={Quoted(attendee.Name)}", $"mailto:{attendee.Address}"),
                .. isCalledOff ? [ContentLine.Of("STATUS", "CANCELLED")] : Array.Empty<ContentLine>(),
            ],
            now
        );

    /// <summary>Reads a reply, or a wish for another time; <c>null</c> where the text is neither, whatever it is.</summary>
    public static ItipReply? ReadReply(string text)
    {
        var calendar = ComponentReader.Read(text, new FindingList()).Find(one => one.Name == "VCALENDAR");
        var method = calendar?.First("METHOD")?.Value.Trim().ToUpperInvariant();
        var isCounter = method == "COUNTER";
        if (
            (method != "REPLY" && !isCounter)
            || calendar!.Inside.Find(one => one.Name == "VEVENT") is not { } component
            || component.First("UID")?.Unescaped().Trim() is not { Length: > 0 } uid
            || component.First("ATTENDEE") is not { } attendee
            // Whoever asks for another time has not said yes or no to this one.
            || (attendee.Parameter("PARTSTAT") ?? (isCounter ? "NEEDS-ACTION" : null)) is not { } partStat
        )
        {
            return null;
        }

        var counter = isCounter ? CounterOf(component) : null;
        if (isCounter && counter is null)
        {
            return null;
        }

        const string mailto = "mailto:";
        var address = attendee.Value.Trim();
        var recurrence = component.First("RECURRENCE-ID")?.Value.Trim() ?? string.Empty;
        return new ItipReply(
            uid,
            address.StartsWith(mailto, StringComparison.OrdinalIgnoreCase) ? address[mailto.Length..] : address,
            partStat.ToUpperInvariant(),
            DateOf(recurrence),
            recurrence.EndsWith('Z'),
            component.First("COMMENT")?.Unescaped() ?? string.Empty,
            counter
        )
        {
            Sequence = int.TryParse(
                component.First("SEQUENCE")?.Value.Trim(),
                NumberStyles.None,
                CultureInfo.InvariantCulture,
                out var sequence
            )
                ? sequence
                : 0,
            Stamp =
                component.First("DTSTAMP")?.Value.Trim() is { } stamp && stamp.EndsWith('Z') && DateOf(stamp) is { } at
                    ? at.InUtc().ToInstant()
                    : null,
        };
    }

    private static ItipTime? CounterOf(Component component)
    {
        if (component.First("DTSTART") is not { } start || DateOf(start.Value.Trim()) is not { } from)
        {
            return null;
        }

        var to = component.First("DTEND") is { } end ? DateOf(end.Value.Trim()) : null;
        var zone = start.Value.Trim().EndsWith('Z') ? "UTC" : start.Parameter("TZID");
        return to <= from ? null : new ItipTime(from, to, zone);
    }

    /// <summary>A time as it is written; <c>null</c> for none, and for one beyond what any zone can be applied to.</summary>
    private static LocalDateTime? DateOf(string text)
    {
        var time =
            Local.Parse(text.TrimEnd('Z')) is { Success: true } clock ? clock.Value
            : Day.Parse(text) is { Success: true } day ? day.Value.AtMidnight()
            : (LocalDateTime?)null;
        return time is { Year: >= FirstYear and <= LastYear } ? time : null;
    }

    private const int FirstYear = 1900;
    private const int LastYear = 2200;

    /// <summary>A parameter's value in quotes, in which none can be (RFC 5545, 3.2).</summary>
    private static string Quoted(string text)
    {
        var kept = new StringBuilder("\"", text.Length + 2);
        foreach (var c in text.Where(c => c != '"' && !char.IsControl(c)))
        {
            kept.Append(c);
        }

        return kept.Append('"').ToString();
    }
}
