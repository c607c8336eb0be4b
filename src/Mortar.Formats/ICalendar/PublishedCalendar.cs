using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Mortar.Core.Answers;
using Mortar.Core.Calendars;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Formats.ICalendar;

/// <summary>What a published calendar says of itself (RFC 7986).</summary>
/// <param name="Name">What it is called.</param>
/// <param name="Description">Lines of text; may be empty.</param>
/// <param name="Hue">Its colour.</param>
/// <param name="Page">Where people read it; <c>null</c> for nowhere.</param>
/// <param name="Source">Where programs fetch it again; <c>null</c> for what is taken once.</param>
/// <param name="Refresh">How often they are asked to.</param>
public sealed record PublishedHead(
    string Name,
    string Description,
    Hue Hue,
    string? Page,
    string? Source,
    Duration Refresh
)
{
    /// <summary>
    /// Whether it names people: then it is somebody's own copy of what they see, and no publication, in which nobody may be
    /// named (RFC 5545, 3.8.4.1; RFC 5546, 3.2.1).
    /// </summary>
    public bool NamesPeople { get; init; }
}

/// <summary>Somebody named on a published event.</summary>
public sealed record PublishedPerson(PersonId Id, string Name, Answer Answer = Answer.NeedsAction);

/// <summary>One time something takes place in a published calendar.</summary>
/// <param name="Uid">Its name, the same each time it is published.</param>
/// <param name="Sequence">How often it was changed; <c>null</c> where that is not told.</param>
/// <param name="Time">When, on any clock.</param>
/// <param name="Span">That in real time.</param>
/// <param name="Title">What; may be empty.</param>
public sealed record PublishedEvent(string Uid, int? Sequence, EventTime Time, Interval Span, string Title)
{
    /// <summary>Where; may be empty.</summary>
    public string Place { get; init; } = string.Empty;

    /// <summary>More about it; may be empty.</summary>
    public string Notes { get; init; } = string.Empty;

    /// <summary>What sort of event; may be empty.</summary>
    public string Kind { get; init; } = string.Empty;

    /// <summary>Called off.</summary>
    public bool Cancelled { get; init; }

    /// <summary>Not settled.</summary>
    public bool Tentative { get; init; }

    /// <summary>Whether it takes nobody's time.</summary>
    public bool Free { get; init; }

    /// <summary>Where people read it; <c>null</c> for nowhere.</summary>
    public string? Page { get; init; }

    /// <summary>Who organizes it; <c>null</c> where that is not told.</summary>
    public PublishedPerson? Organizer { get; init; }

    /// <summary>Who is named on it, with their answers; nobody where that is not told.</summary>
    public IReadOnlyList<PublishedPerson> People { get; init; } = [];
}

/// <summary>A stretch of which only that it is taken is published.</summary>
public sealed record PublishedBusy(Interval Span, bool Tentative);

/// <summary>
/// Writes a calendar for others to read, each date by itself. It tells nobody's address, and names people only where it is
/// somebody's own copy. Of equal contents and the same stamp it is equal to the byte.
/// </summary>
public static class PublishedCalendar
{
    private static readonly LocalDatePattern Date = LocalDatePattern.CreateWithInvariantCulture("uuuuMMdd");
    private static readonly LocalDateTimePattern DateTime = LocalDateTimePattern.CreateWithInvariantCulture(
        "uuuuMMdd'T'HHmmss"
    );
    private static readonly InstantPattern Utc = InstantPattern.CreateWithInvariantCulture("uuuuMMdd'T'HHmmss'Z'");

    /// <summary>What ends a file.</summary>
    public const string End = "END:VCALENDAR\r\n";

    /// <summary>The whole file.</summary>
    /// <param name="head">What stands for the calendar.</param>
    /// <param name="events">What takes place, in the order in which it is to stand.</param>
    /// <param name="busy">Stretches that are only taken; they stand in one VFREEBUSY.</param>
    /// <param name="reach">From when to when it tells; of busy times nothing is said outside it.</param>
    /// <param name="stamp">When its contents were last changed (DTSTAMP and LAST-MODIFIED).</param>
    public static string Write(
        PublishedHead head,
        IEnumerable<PublishedEvent> events,
        IReadOnlyCollection<PublishedBusy> busy,
        Interval reach,
        Instant stamp
    ) =>
        string.Concat([Begin(head, stamp), .. events.Select(one => Of(one, stamp)), Of(head, busy, reach, stamp), End]);

    /// <summary>What begins a file, up to its first component; for a file that is written piece by piece.</summary>
    public static string Begin(PublishedHead head, Instant stamp)
    {
        var text = new StringBuilder();
        Line(text, "BEGIN:VCALENDAR");
        Line(text, "VERSION:2.0");
        Line(text, "PRODID:-//Mortar//Mortar//EN");
        if (!head.NamesPeople)
        {
            Line(text, "METHOD:PUBLISH");
        }

        Text(text, "NAME", head.Name);
        Text(text, "X-WR-CALNAME", head.Name);
        Text(text, "DESCRIPTION", head.Description);
        Line(text, $"COLOR:{ColorName(head.Hue)}");
        Line(text, $"LAST-MODIFIED:{Utc.Format(stamp)}");
        Line(
            text,
            $"REFRESH-INTERVAL;VALUE=DURATION:PT{((long)head.Refresh.TotalMinutes).ToString(CultureInfo.InvariantCulture)}M"
        );
        if (head.Page is { } page)
        {
            Line(text, $"URL:{page}");
        }

        if (head.Source is { } source)
        {
            Line(text, $"SOURCE;VALUE=URI:{source}");
        }

        return text.ToString();
    }

    /// <summary>One event.</summary>
    public static string Of(PublishedEvent one, Instant stamp)
    {
        var text = new StringBuilder();
        Event(text, one, stamp);
        return text.ToString();
    }

    /// <summary>When it is busy and nothing else (RFC 5545, 3.6.4), ordered by start; nothing where it never is.</summary>
    public static string Of(PublishedHead head, IReadOnlyCollection<PublishedBusy> busy, Interval reach, Instant stamp)
    {
        var text = new StringBuilder();
        if (busy.Count > 0)
        {
            Busy(text, head.Source ?? head.Name, busy, reach, stamp);
        }

        return text.ToString();
    }

    private static void Event(StringBuilder text, PublishedEvent one, Instant stamp)
    {
        Line(text, "BEGIN:VEVENT");
        Line(text, ContentLine.OfText("UID", one.Uid).Text);
        Line(text, $"DTSTAMP:{Utc.Format(stamp)}");
        if (one.Sequence is { } sequence)
        {
            Line(text, $"SEQUENCE:{sequence.ToString(CultureInfo.InvariantCulture)}");
        }

        switch (one.Time)
        {
            case EventTime.AllDay days:
                Line(text, $"DTSTART;VALUE=DATE:{Date.Format(days.First)}");
                Line(text, $"DTEND;VALUE=DATE:{Date.Format(days.Last.PlusDays(1))}");
                if (days.TimesToBeSet)
                {
                    Line(text, $"{CalendarFileWriter.TimesToBeSet}:TRUE");
                }

                break;
            case EventTime.Floating floating:
                Line(text, $"DTSTART:{DateTime.Format(floating.Start)}");
                if (floating.End > floating.Start)
                {
                    Line(text, $"DTEND:{DateTime.Format(floating.End)}");
                }

                break;
            default:
                Line(text, $"DTSTART:{Utc.Format(one.Span.Start)}");
                if (one.Span.End > one.Span.Start)
                {
                    Line(text, $"DTEND:{Utc.Format(one.Span.End)}");
                }

                break;
        }

        Text(text, "SUMMARY", one.Title);
        Text(text, "LOCATION", one.Place);
        Text(text, "DESCRIPTION", one.Notes);
        Text(text, "CATEGORIES", one.Kind);
        if (one.Cancelled || one.Tentative)
        {
            Line(text, $"STATUS:{(one.Cancelled ? "CANCELLED" : "TENTATIVE")}");
        }

        if (one.Free)
        {
            Line(text, "TRANSP:TRANSPARENT");
        }

        if (one.Page is { } page)
        {
            Line(text, $"URL:{page}");
        }

        if (one.Organizer is { } organizer)
        {
            Line(text, FilePeople.Line("ORGANIZER", organizer.Id, organizer.Name).Text);
        }

        foreach (var person in one.People)
        {
            Line(text, FilePeople.Line($"ATTENDEE{FilePeople.PartStat(person.Answer)}", person.Id, person.Name).Text);
        }

        Line(text, "END:VEVENT");
    }

    private static void Busy(
        StringBuilder text,
        string from,
        IReadOnlyCollection<PublishedBusy> busy,
        Interval reach,
        Instant stamp
    )
    {
        Line(text, "BEGIN:VFREEBUSY");
        // Named after where it comes from, without saying it: the address may be a secret.
        var name = SHA256.HashData(Encoding.UTF8.GetBytes(from));
        Line(text, $"UID:busy-{Convert.ToHexStringLower(name)[..32]}");
        Line(text, $"DTSTAMP:{Utc.Format(stamp)}");
        Line(text, $"DTSTART:{Utc.Format(reach.Start)}");
        Line(text, $"DTEND:{Utc.Format(reach.End)}");
        foreach (var one in busy.OrderBy(one => one.Span.Start).ThenBy(one => one.Span.End))
        {
            Line(
                text,
                $"FREEBUSY;FBTYPE={(one.Tentative ? "BUSY-TENTATIVE" : "BUSY")}:{Utc.Format(one.Span.Start)}/{Utc.Format(one.Span.End)}"
            );
        }

        Line(text, "END:VFREEBUSY");
    }

    private static void Text(StringBuilder text, string property, string value)
    {
        if (value.Length > 0)
        {
            Line(text, ContentLine.OfText(property, value).Text);
        }
    }

    private static void Line(StringBuilder text, string line) => CalendarFileWriter.Line(text, line);

    /// <summary>Only when it is busy, as a whole file.</summary>
    public static string FreeBusy(IReadOnlyCollection<PublishedBusy> busy, Interval reach, Instant stamp)
    {
        var text = new StringBuilder();
        Line(text, "BEGIN:VCALENDAR");
        Line(text, "VERSION:2.0");
        Line(text, "PRODID:-//Mortar//Mortar//EN");
        Busy(text, "free-busy", busy, reach, stamp);
        return text.Append(End).ToString();
    }

    /// <summary>The name that is nearest to a hue of those a COLOR can have (RFC 7986, 5.9: the names of CSS Color Level 3, 4.3).</summary>
    public static string ColorName(Hue hue) =>
        hue switch
        {
            Hue.Iron => "firebrick",
            Hue.Ember => "chocolate",
            Hue.Ochre => "darkgoldenrod",
            Hue.Olive => "olive",
            Hue.Moss => "forestgreen",
            Hue.Copper => "seagreen",
            Hue.Teal => "teal",
            Hue.Lake => "steelblue",
            Hue.Cobalt => "royalblue",
            Hue.Violet => "mediumpurple",
            Hue.Plum => "darkorchid",
            Hue.Rose => "mediumvioletred",
            _ => throw new System.Diagnostics.UnreachableException(),
        };
}
