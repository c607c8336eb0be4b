using System.Security.Cryptography;
using System.Text;
using Mortar.Core.Events;
using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Formats.ICalendar;

/// <summary>Makes events of the VEVENT components of one file; says of each that is left out why.</summary>
internal sealed class EventReader(FileTimes times, List<Finding> findings)
{
    /// <summary>One VEVENT: the series or single event itself, or a change to one occurrence of it.</summary>
    private sealed record Part(
        Component Component,
        string Uid,
        FileTime Start,
        EventTime Time,
        EventContent Content,
        FileTime? Replaces,
        int Sequence
    );

    /// <summary>The events, in the order in which their UIDs first stand in the file.</summary>
    public List<FileEvent> Read(IEnumerable<Component> components)
    {
        var parts = components.Select(ReadPart).OfType<Part>().ToList();
        return [.. parts.GroupBy(part => part.Uid, StringComparer.Ordinal).Select(Join)];
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

        if (component.First("DTSTART") is not { } startLine)
        {
            return LeftOut(component.Line, name, "it has no start (DTSTART)");
        }

        if (!times.TryRead(startLine, startLine.Value, out var start))
        {
            return LeftOut(
                startLine.Number,
                name,
                $"its start “{Finding.Quote(startLine.Value)}” is not a date or time"
            );
        }

        if (ReadTime(component, name, start) is not { } time)
        {
            return null;
        }

        FileTime? replaces = null;
        if (component.First("RECURRENCE-ID") is { } idLine)
        {
            if (!times.TryRead(idLine, idLine.Value, out var id))
            {
                return LeftOut(
                    idLine.Number,
                    name,
                    $"the occurrence it changes, “{Finding.Quote(idLine.Value)}”, is not a date or time"
                );
            }

            replaces = id;
            if (idLine.Parameter("RANGE") is { } range)
            {
                findings.Add(
                    Finding.Skipped(
                        idLine.Number,
                        name,
                        $"it changes all later occurrences too (RANGE={Finding.Quote(range)}); only this one is shown changed"
                    )
                );
            }
        }

        NoteUnknownZone(startLine, name);
        return new Part(
            component,
            Uid(component, name),
            start,
            time,
            Content(component, name),
            replaces,
            Sequence(component)
        );
    }

    private EventTime? ReadTime(Component component, string name, FileTime start)
    {
        var end = start.Local;
        if (component.First("DTEND") is { } endLine)
        {
            if (!times.TryRead(endLine, endLine.Value, out var read))
            {
                return TimeLeftOut(
                    endLine.Number,
                    name,
                    $"its end “{Finding.Quote(endLine.Value)}” is not a date or time"
                );
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

            end = start.Local + duration;
        }
        else if (start.IsDate)
        {
            end = start.Local.PlusDays(1);
        }

        if (end < start.Local)
        {
            return TimeLeftOut(
                (component.First("DTEND") ?? component.First("DURATION"))!.Number,
                name,
                "it ends before it starts"
            );
        }

        // RFC 5545 has the end of a whole day excluded; files that give start and end alike mean that one day.
        return start.IsDate
                ? EventTime.Days(start.Local.Date, end > start.Local ? end.Date.PlusDays(-1) : start.Local.Date)
            : start.Zone is { } zone ? EventTime.InZone(start.Local, end, zone)
            : EventTime.OnEveryClock(start.Local, end);
    }

    private FileEvent Join(IGrouping<string, Part> parts)
    {
        var masters = parts
            .Where(part => part.Replaces is null)
            .OrderBy(part => part.Sequence)
            .ThenBy(part => part.Component.Line)
            .ToList();
        foreach (var other in masters.SkipLast(1))
        {
            findings.Add(
                Finding.Missing(
                    other.Component.Line,
                    Name(other.Component),
                    "another event in the file has the same UID; the later one was taken"
                )
            );
        }

        var changes = parts
            .Where(part => part.Replaces is not null)
            .OrderBy(part => part.Sequence)
            .GroupBy(part => part.Replaces!.Value.Local)
            .Select(same => same.Last())
            .OrderBy(part => part.Replaces!.Value.Local)
            .ToList();
        var taken = masters.TakeLast(1).Concat(changes).ToList();
        var source = string.Concat(taken.Select(part => part.Component.ToText()));
        var zones = taken
            .Select(part => part.Component)
            .SelectMany(times.ForeignZones)
            .Distinct()
            .Select(zone => zone.ToText());
        source = string.Concat(zones) + source;
        if (masters.Count == 0)
        {
            // Changes to a series that is not in the file: each stands by itself, and the series has nothing else.
            var first = changes[0];
            var time = first.Time.StartingAt(times.OnClockOf(first.Replaces!.Value, first.Start));
            return new FileEvent(
                parts.Key,
                time,
                first.Content,
                new Series(null, [], [], Overrides(changes, first)),
                source
            );
        }

        var master = masters[^1];
        return new FileEvent(parts.Key, master.Time, master.Content, ReadSeries(master, changes), source);
    }

    private Series? ReadSeries(Part master, List<Part> changes)
    {
        var name = Name(master.Component);
        var rules = master.Component.All("RRULE").ToList();
        string? text = null;
        foreach (var rule in rules)
        {
            switch (RecurrenceRule.Parse(rule.Value.Trim()))
            {
                case RuleParse.Bad bad:
                    findings.Add(
                        Finding.Skipped(
                            rule.Number,
                            name,
                            $"its repetition is wrong at “{Finding.Quote(rule.Value[Math.Min(bad.Column, rule.Value.Length)..])}”: {bad.Expected} expected; taken as a single event"
                        )
                    );
                    break;
                case RuleParse.NotShown beyond:
                    findings.Add(
                        Finding.Skipped(
                            rule.Number,
                            name,
                            $"it repeats by {beyond.Part}, which is kept but not shown yet; only the first is on the wall"
                        )
                    );
                    text ??= rule.Value.Trim();
                    break;
                default:
                    text ??= rule.Value.Trim();
                    break;
            }
        }

        if (rules.Count > 1)
        {
            findings.Add(Finding.Skipped(rules[1].Number, name, "it has several rules; only the first is shown"));
        }

        if (master.Component.First("EXRULE") is { } exclusion)
        {
            findings.Add(
                Finding.Skipped(
                    exclusion.Number,
                    name,
                    "it leaves dates out by a rule (EXRULE), which is kept but not shown"
                )
            );
        }

        var extra = Dates(master, "RDATE", name);
        return text is null && extra.Count == 0 && changes.Count == 0
            ? null
            : new Series(text, extra, Dates(master, "EXDATE", name), Overrides(changes, master));
    }

    private List<LocalDateTime> Dates(Part master, string property, string name)
    {
        var dates = new SortedSet<LocalDateTime>();
        foreach (var line in master.Component.All(property))
        {
            foreach (
                var value in line.Value.Split(
                    ',',
                    StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries
                )
            )
            {
                // A period (RDATE;VALUE=PERIOD) is taken by its start; its own length is kept in the source only.
                if (times.TryRead(line, value.Split('/')[0], out var time))
                {
                    dates.Add(
                        time.IsDate && !master.Start.IsDate
                            ? time.Local.Date + master.Start.Local.TimeOfDay
                            : times.OnClockOf(time, master.Start)
                    );
                }
                else
                {
                    findings.Add(
                        Finding.Skipped(
                            line.Number,
                            name,
                            $"“{Finding.Quote(value)}” in its {property} is not a date or time"
                        )
                    );
                }
            }
        }

        return [.. dates];
    }

    private List<Override> Overrides(List<Part> changes, Part master) =>
        [
            .. changes.Select(part => new Override(
                times.OnClockOf(part.Replaces!.Value, master.Start),
                part.Time,
                part.Content
            )),
        ];

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
        );
    }

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
