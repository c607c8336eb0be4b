using System.Globalization;
using System.Text;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Formats.ICalendar;

/// <summary>Reads an iCalendar file (RFC 5545) into events, each with its source, so that nothing in it is lost.</summary>
public static class CalendarFile
{
    private static readonly UTF8Encoding StrictUtf8 = new(
        encoderShouldEmitUTF8Identifier: false,
        throwOnInvalidBytes: true
    );

    /// <summary>Reads the bytes of a file. Never throws for what is in it.</summary>
    /// <param name="bytes">The file.</param>
    /// <param name="zone">The zone for hours whose own zone nobody knows.</param>
    /// <param name="clock">Zone rules.</param>
    public static CalendarFileReading Read(ReadOnlySpan<byte> bytes, string zone, ZoneClock clock)
    {
        var findings = new FindingList();
        string text;
        try
        {
            text = StrictUtf8.GetString(bytes);
        }
        catch (DecoderFallbackException)
        {
            text = Encoding.Latin1.GetString(bytes);
            findings.Add(Finding.Skipped(1, "the file", "it is not in UTF-8; read as Latin-1, so look at the accents"));
        }

        text = text.TrimStart('\uFEFF', ' ', '\t', '\r', '\n');
        if (text.Length == 0)
        {
            return new CalendarFileReading.NotACalendar("The file is empty. Export it again from where it comes from.");
        }

        if (!text.StartsWith("BEGIN:VCALENDAR", StringComparison.OrdinalIgnoreCase))
        {
            return new CalendarFileReading.NotACalendar(
                $"This is not a calendar file: it begins with “{Finding.Quote(text.Length > 400 ? text[..400] : text)}” where BEGIN:VCALENDAR should be. Choose a file that ends in .ics."
            );
        }

        return Understand(text, zone, clock, findings);
    }

    private static CalendarFileReading Understand(string text, string zone, ZoneClock clock, FindingList findings)
    {
        var calendars = ComponentReader.Read(text, findings).Where(top => top.Name == "VCALENDAR").ToList();
        var inside = calendars.SelectMany(calendar => calendar.Inside).ToList();
        var count = inside.Count(component => component.Name == "VEVENT");
        if (count > FileLimits.MostEvents)
        {
            return new CalendarFileReading.NotACalendar(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"This file has {count} events, and up to {FileLimits.MostEvents} can be taken at once. Export a shorter stretch of time, or split it, and import the parts one after the other."
                )
            );
        }

        var events = new EventReader(new FileTimes(clock, zone, Definitions(inside), Years(inside)), findings).Read(
            inside.Where(component => component.Name == "VEVENT")
        );
        foreach (
            var others in inside
                .Where(component => component.Name is not ("VEVENT" or "VTIMEZONE"))
                .GroupBy(component => component.Name)
        )
        {
            findings.Add(
                Finding.Missing(
                    others.First().Line,
                    $"{others.Count()} × {Finding.Quote(others.Key)}",
                    "it is not an event, and only events are taken"
                )
            );
        }

        if (calendars.Exists(calendar => !calendar.Whole) && inside.TrueForAll(component => component.Whole))
        {
            findings.Add(
                Finding.Skipped(
                    text.AsSpan().Count('\n') + 1,
                    "the end of the file",
                    "END:VCALENDAR is missing; it may not have been copied whole"
                )
            );
        }

        var name = calendars
            .Select(calendar => calendar.First("NAME") ?? calendar.First("X-WR-CALNAME"))
            .FirstOrDefault(line => line is not null);
        return new CalendarFileReading.Understood(
            name is null ? null : Core.Words.PlainText.Shorten(Core.Words.PlainText.OneLine(name.Unescaped()), 80),
            events,
            findings.Kept,
            findings.Count,
            findings.LeftOut
        )
        {
            Description = calendars
                .Select(calendar => calendar.First("DESCRIPTION") ?? calendar.First("X-WR-CALDESC"))
                .FirstOrDefault(line => line is not null)
                is { } said
                ? Core.Words.PlainText.Shorten(Core.Words.PlainText.Lines(said.Unescaped()), LongestDescription)
                : null,
            Refresh = calendars.Select(Refresh).FirstOrDefault(one => one is not null),
        };
    }

    private const int LongestDescription = 500;

    /// <summary>The older X-PUBLISHED-TTL says the same (common practice, no source).</summary>
    private static Duration? Refresh(Component calendar) =>
        (calendar.First("REFRESH-INTERVAL") ?? calendar.First("X-PUBLISHED-TTL")) is { } line
        && FileTimes.TryReadDuration(line.Value, out var period)
        && period is { Years: 0, Months: 0 }
        && period.ToDuration() is var every
        && every > Duration.Zero
            ? every
            : null;

    internal static Dictionary<string, Component> Definitions(IEnumerable<Component> components) =>
        components
            .Where(component => component is { Name: "VTIMEZONE", Whole: true })
            .GroupBy(component => component.First("TZID")?.Value.Trim() ?? string.Empty, StringComparer.Ordinal)
            .ToDictionary(same => same.Key, same => same.First(), StringComparer.Ordinal);

    /// <summary>The years the starts of the events name, and a few more, for series go on.</summary>
    private static (int First, int Last) Years(IEnumerable<Component> components)
    {
        var years = components
            .Where(component => component.Name == "VEVENT")
            .Select(component => component.First("DTSTART")?.Value.Trim())
            .Select(value =>
                value?.Length >= 8
                && int.TryParse(value.AsSpan(0, 4), CultureInfo.InvariantCulture, out var year)
                && year is >= 1900 and <= 2100
                    ? year
                    : 0
            )
            .Where(year => year > 0)
            .DefaultIfEmpty(2000)
            .ToList();
        return (years.Min(), years.Max() + 3);
    }

    /// <summary>Reads a kept source again: the event as its file had it. <c>null</c> where there is none in it.</summary>
    internal static (FileEvent? Event, List<Component> Components) ReadSource(
        string source,
        string zone,
        ZoneClock clock
    )
    {
        var ignored = new FindingList();
        var components = ComponentReader.Read(source, ignored);
        var events = new EventReader(
            new FileTimes(clock, zone, Definitions(components), Years(components)),
            ignored
        ).Read(components.Where(component => component.Name == "VEVENT"));
        return (events.FirstOrDefault(), components);
    }
}
