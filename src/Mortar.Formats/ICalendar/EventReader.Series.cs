using Mortar.Core.Events;
using Mortar.Core.Recurrence;
using NodaTime;

namespace Mortar.Formats.ICalendar;

/// <content>Joins what belongs to one UID: the event or series, and the changes to single occurrences of it.</content>
internal sealed partial class EventReader
{
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
}
