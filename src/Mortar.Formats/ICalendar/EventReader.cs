using System.Security.Cryptography;
using System.Text;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Formats.ICalendar;

/// <summary>Makes events of the VEVENT components of one file; says of each that is left out why.</summary>
internal sealed partial class EventReader(FileTimes times, FindingList findings)
{
    /// <summary>One VEVENT: the series or single event itself, or a change to one occurrence of it.</summary>
    private sealed record Part(
        Component Component,
        string Uid,
        FileTime Start,
        EventTime Time,
        EventContent Content,
        FileTime? Replaces,
        OverrideRange Range,
        int NominalDays,
        int Sequence
    );

    /// <summary>The events, in the order in which their UIDs first stand in the file.</summary>
    public List<FileEvent> Read(IEnumerable<Component> components)
    {
        var parts = components.Select(ReadPart).OfType<Part>().ToList();
        return [.. parts.GroupBy(part => part.Uid, StringComparer.Ordinal).Select(Join).OfType<FileEvent>()];
    }

    private Part? ReadPart(Component component)
    {
        var name = Name(component);
        if (!component.Whole)
        {
            return LeftOut(
                component.Line,
                name,
                "the file ends in the middle of it; it may not have been copied whole"
            );
        }

        if (FileLimits.TooMuch(component) is { } tooMuch)
        {
            return LeftOut(component.Line, name, tooMuch);
        }

        if (component.First("DTSTART") is not { } startLine)
        {
            return LeftOut(component.Line, name, "it has no start (DTSTART)");
        }

        if (!times.TryRead(startLine, startLine.Value, out var start))
        {
            return LeftOut(startLine.Number, name, $"its start “{Finding.Quote(startLine.Value)}” {FileLimits.NoTime}");
        }

        if (ReadTime(component, name, start) is not { } time)
        {
            return null;
        }

        FileTime? replaces = null;
        var reach = OverrideRange.One;
        if (component.First("RECURRENCE-ID") is { } idLine)
        {
            if (!times.TryRead(idLine, idLine.Value, out var id))
            {
                return LeftOut(
                    idLine.Number,
                    name,
                    $"the occurrence it changes, “{Finding.Quote(idLine.Value)}”, {FileLimits.NoTime}"
                );
            }

            replaces = id;
            if (idLine.Parameter("RANGE") is { } range)
            {
                if (range.Equals("THISANDFUTURE", StringComparison.OrdinalIgnoreCase))
                {
                    reach = OverrideRange.AndLater;
                }
                else
                {
                    findings.Add(
                        Finding.Skipped(
                            idLine.Number,
                            name,
                            $"it changes other occurrences too (RANGE={Finding.Quote(range)}, which the standard has given up); only this one is shown changed"
                        )
                    );
                }
            }
        }

        NoteUnknownZone(startLine, name);
        return new Part(
            component,
            Uid(component, name),
            start,
            time,
            FilePeople.Read(component, Content(component, name)),
            replaces,
            reach,
            NominalDays(component),
            Sequence(component)
        );
    }

    private EventTime? ReadTime(Component component, string name, FileTime start)
    {
        // RFC 5545, 3.6.1: what says nothing of its end takes that one day, or no time.
        var end = start.IsDate ? start.Local.PlusDays(1) : start.Local;
        if (component.First("DTEND") is { } endLine)
        {
            if (!times.TryRead(endLine, endLine.Value, out var read))
            {
                var why = $"its end “{Finding.Quote(endLine.Value)}” {FileLimits.NoTime}";
                if (IsDated(endLine.Value))
                {
                    return TimeLeftOut(endLine.Number, name, why);
                }

                // No date at all, and so nothing that was meant to be long: when it begins is worth more than nothing of it.
                findings.Add(Finding.Skipped(endLine.Number, name, $"{why}; it is taken without an end"));
                return Until(end);
            }

            if (read.IsDate != start.IsDate)
            {
                return TimeLeftOut(endLine.Number, name, "one of start and end is a whole day and the other is not");
            }

            end = times.OnClockOf(read, start);
        }
        else if (component.First("DURATION") is { } durationLine)
        {
            if (!FileTimes.TryReadDuration(durationLine.Value, out var duration))
            {
                return TimeLeftOut(
                    durationLine.Number,
                    name,
                    $"its length “{Finding.Quote(durationLine.Value)}” is not a length of time"
                );
            }

            end = times.After(start, duration);
            if (start.IsDate && end.TimeOfDay != LocalTime.Midnight)
            {
                // RFC 5545, 3.6.1: a length of whole days is in days or weeks.
                findings.Add(
                    Finding.Skipped(
                        durationLine.Number,
                        name,
                        $"its length “{Finding.Quote(durationLine.Value)}” is not a number of days; taken as the whole days it touches"
                    )
                );
                end = (end.Date + LocalTime.Midnight).PlusDays(1);
            }
        }

        if (end < start.Local)
        {
            return TimeLeftOut(
                (component.First("DTEND") ?? component.First("DURATION"))!.Number,
                name,
                "it ends before it starts"
            );
        }

        if (Period.DaysBetween(start.Local.Date, end.Date) > EventRules.LongestDays)
        {
            return TimeLeftOut(
                (component.First("DTEND") ?? component.First("DURATION"))!.Number,
                name,
                $"it lasts longer than {EventRules.LongestDays} days"
            );
        }

        return Until(end);

        // RFC 5545 has the end of a whole day excluded; files that give start and end alike mean that one day.
        EventTime Until(LocalDateTime last) =>
            start.IsDate
                ? Days(component, start.Local.Date, last > start.Local ? last.Date.PlusDays(-1) : start.Local.Date)
            : start.Zone is { } zone ? EventTime.InZone(start.Local, last, zone)
            : EventTime.OnEveryClock(start.Local, last);
    }

    /// <summary>Whether a text begins as a date does (RFC 5545, 3.3.4), whatever is wrong with it.</summary>
    private static bool IsDated(string text) =>
        text.Trim() is { Length: >= 8 } date && date[..8].All(char.IsAsciiDigit);

    private static EventTime Days(Component component, LocalDate first, LocalDate last) =>
        component.First(CalendarFileWriter.TimesToBeSet) is not null
            ? EventTime.DaysToBeSet(first, last)
            : EventTime.Days(first, last);

    /// <summary>The days and weeks of a DURATION; DTEND gives exact time (RFC 5545, 3.8.5.3).</summary>
    private static int NominalDays(Component component) =>
        component.First("DTEND") is null
        && component.First("DURATION") is { } line
        && FileTimes.TryReadDuration(line.Value, out var duration)
            ? duration.Days + (duration.Weeks * 7)
            : 0;

    private EventContent Content(Component component, string name)
    {
        var cancelled = Is(component, "STATUS", "CANCELLED");
        var showAs =
            Is(component, "TRANSP", "TRANSPARENT") ? ShowAs.Free
            : Is(component, "STATUS", "TENTATIVE") ? ShowAs.Tentative
            : ShowAs.Busy;
        return new EventContent(
            Short(component, "SUMMARY", name, PlainText.OneLine, EventRules.LongestLine),
            Short(component, "LOCATION", name, PlainText.OneLine, EventRules.LongestLine),
            Short(component, "DESCRIPTION", name, PlainText.Lines, EventRules.LongestNotes),
            showAs,
            cancelled
        )
        {
            Kind = Kind(component),
            Private = Is(component, "CLASS", "PRIVATE") || Is(component, "CLASS", "CONFIDENTIAL"),
            Reminder = Reminder(component),
        };
    }

    /// <summary>The first of its categories (RFC 5545, 3.8.1.2); the others are kept in the source.</summary>
    private static string Kind(Component component)
    {
        var value = component.First("CATEGORIES")?.Value ?? string.Empty;
        var end = 0;
        while (end < value.Length && value[end] != ',')
        {
            end += value[end] == '\\' ? 2 : 1;
        }

        var first = ContentLine.Of("CATEGORIES", value[..Math.Min(end, value.Length)]).Unescaped();
        return PlainText.Shorten(PlainText.OneLine(first), EventRules.LongestKind);
    }

    /// <summary>The first alarm so long before the start (RFC 5545, 3.6.6); others are kept in the source.</summary>
    private static int? Reminder(Component component) =>
        component
            .Inside.Where(inside => inside.Name == "VALARM")
            .Select(alarm => alarm.First("TRIGGER"))
            .Where(trigger => trigger is not null && trigger.Parameter("RELATED") is null or "START")
            .Select(trigger => MinutesBefore(trigger!.Value))
            .FirstOrDefault(minutes => minutes is not null);

    private static int? MinutesBefore(string trigger) =>
        (trigger.StartsWith('-') || trigger.Trim() is "PT0S" or "PT0M")
        && FileTimes.TryReadDuration(trigger.TrimStart('-'), out var before)
        && before.Months == 0
        && before.Years == 0
        && before.ToDuration().TotalMinutes is >= 0 and <= EventRules.LongestReminder and var minutes
            ? (int)minutes
            : null;

    private string Short(Component component, string property, string name, Func<string?, string> clean, int longest)
    {
        if (component.First(property) is not { } line)
        {
            return string.Empty;
        }

        var text = clean(line.Unescaped());
        if (text.Length > longest)
        {
            findings.Add(
                Finding.Skipped(
                    line.Number,
                    name,
                    $"its {property} has {text.Length} characters; the first {longest} are shown, all of it is kept"
                )
            );
        }

        return PlainText.Shorten(text, longest);
    }

    private string Uid(Component component, string name)
    {
        if (component.First("UID")?.Value.Trim() is { Length: > 0 and <= 1_000 } uid)
        {
            return uid;
        }

        findings.Add(
            Finding.Skipped(
                component.Line,
                name,
                "it has no usable UID; it gets one made from its content, so that the same file is known again"
            )
        );
        return Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(component.ToText())).AsSpan(0, 16))
            + "@content.mortar";
    }

    private void NoteUnknownZone(ContentLine start, string name)
    {
        if (
            start.Parameter("TZID") is { Length: > 0 } zone
            && !start.Value.TrimEnd().EndsWith('Z')
            && start.Value.Contains('T', StringComparison.Ordinal)
            && times.ZoneOf(zone) is null
        )
        {
            findings.Add(
                Finding.Skipped(
                    start.Number,
                    name,
                    $"nobody knows its time zone “{Finding.Quote(zone)}”; its hours are read in the calendar's own zone"
                )
            );
        }
    }

    private Part? LeftOut(int line, string name, string why)
    {
        findings.Add(Finding.Missing(line, name, why));
        return null;
    }

    private EventTime? TimeLeftOut(int line, string name, string why)
    {
        findings.Add(Finding.Missing(line, name, why));
        return null;
    }

    private static int Sequence(Component component) =>
        int.TryParse(
            component.First("SEQUENCE")?.Value.Trim(),
            System.Globalization.CultureInfo.InvariantCulture,
            out var sequence
        )
            ? sequence
            : 0;

    private static bool Is(Component component, string property, string value) =>
        string.Equals(component.First(property)?.Value.Trim(), value, StringComparison.OrdinalIgnoreCase);

    private static string Name(Component component) =>
        component.First("SUMMARY")?.Unescaped() is { } title && Finding.Quote(title) is { Length: > 0 } quoted
            ? $"“{quoted}”"
            : "an event without a title";
}
