using Mortar.Core.Events;
using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Formats.ICalendar;

/// <content>Joins what belongs to one UID: the event or series, and the changes to single occurrences of it.</content>
internal sealed partial class EventReader
{
    private FileEvent? Join(IGrouping<string, Part> parts)
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
            .GroupBy(part => (part.Replaces!.Value.Local, part.Range))
            .Select(same => same.Last())
            .OrderBy(part => part.Replaces!.Value.Local)
            .ToList();
        if (FileLimits.TooManyChanges(changes.Count) is { } tooMuch)
        {
            var one = masters.LastOrDefault() ?? changes[0];
            findings.Add(Finding.Missing(one.Component.Line, Name(one.Component), tooMuch));
            return null;
        }

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
            var pieces = Overrides(changes, first);
            return new FileEvent(
                parts.Key,
                time,
                first.Content,
                new Series { Overrides = [.. pieces.Select(one => one.Override)] },
                source
            )
            {
                Changes = pieces,
                Organizer = FilePeople.Organizer(first.Component),
                SaysWho = FilePeople.Says(first.Component),
            };
        }

        var master = masters[^1];
        var overrides = Overrides(changes, master);
        var series = ReadSeries(master, overrides);
        if (series is not null && RuleLimits.WhyNot(series.Rules, series.ExceptRules) is { } why)
        {
            findings.Add(Finding.Missing(master.Component.Line, Name(master.Component), why));
            return null;
        }

        return new FileEvent(parts.Key, master.Time, master.Content, series, source)
        {
            Changes = overrides,
            Organizer = FilePeople.Organizer(master.Component),
            SaysWho = FilePeople.Says(master.Component),
        };
    }

    private Series? ReadSeries(Part master, List<FileOverride> overrides)
    {
        var name = Name(master.Component);
        var (rules, notShown) = Rules(master, "RRULE", name);
        var (exceptRules, _) = Rules(master, "EXRULE", name);
        var periods = new List<Override>();
        var extra = Dates(master, "RDATE", name, periods);
        if (rules.Count == 0 && notShown is null && extra.Count == 0 && overrides.Count == 0)
        {
            return null;
        }

        var named = overrides.Select(one => one.Override.Replaces).ToHashSet();
        return new Series
        {
            Rules = rules,
            ExceptRules = exceptRules,
            Extra = extra,
            Excluded = Dates(master, "EXDATE", name, []),
            Overrides =
            [
                .. overrides
                    .Select(one => one.Override)
                    .Concat(periods.Where(one => !named.Contains(one.Replaces)))
                    .OrderBy(one => one.Replaces),
            ],
            NotShown = notShown,
            NominalDays = master.NominalDays,
        };
    }

    /// <summary>The rules of a property, and the text of the first that is kept but cannot be computed.</summary>
    private (List<RecurrenceRule> Rules, string? NotShown) Rules(Part master, string property, string name)
    {
        var rules = new List<RecurrenceRule>();
        string? notShown = null;
        foreach (var line in master.Component.All(property))
        {
            var text = line.Value.Trim();
            switch (RecurrenceRule.Parse(text))
            {
                case RuleParse.Ok ok:
                    rules.Add(ok.Rule);
                    break;
                case RuleParse.Bad bad:
                    findings.Add(
                        Finding.Skipped(
                            line.Number,
                            name,
                            $"its repetition ({property}) is wrong at “{Finding.Quote(text[Math.Min(bad.Column, text.Length)..])}”: {bad.Expected} expected; taken without it"
                        )
                    );
                    break;
                case RuleParse.NotShown beyond:
                    findings.Add(
                        Finding.Skipped(
                            line.Number,
                            name,
                            $"it repeats by another calendar ({Finding.Quote(beyond.Part)}), which is kept but not shown; only its own date is on the wall"
                        )
                    );
                    notShown ??= text;
                    break;
            }
        }

        return (rules, notShown);
    }

    /// <summary>The dates of a property, on the series' own clock.</summary>
    /// <param name="master">The series.</param>
    /// <param name="property">RDATE or EXDATE.</param>
    /// <param name="name">The event, as findings name it.</param>
    /// <param name="periods">Takes those that come with a length of their own (RDATE;VALUE=PERIOD): occurrences that differ.</param>
    private List<LocalDateTime> Dates(Part master, string property, string name, List<Override> periods)
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
                var slash = value.IndexOf('/', StringComparison.Ordinal);
                if (!times.TryRead(line, slash < 0 ? value : value[..slash], out var time))
                {
                    findings.Add(
                        Finding.Skipped(
                            line.Number,
                            name,
                            $"“{Finding.Quote(value)}” in its {property} {FileLimits.NoTime}"
                        )
                    );
                    continue;
                }

                var key = Key(time, master);
                dates.Add(key);
                if (slash >= 0 && times.EndOf(line, time, value[(slash + 1)..]) is { } end)
                {
                    var own = master.Time.StartingAt(key);
                    if (
                        own is EventTime.Timed timed
                        && times.OnClockOf(end, master.Start) is var last
                        && last != timed.End
                        && last >= key
                    )
                    {
                        periods.Add(new Override(key, EventTime.InZone(key, last, timed.Zone), master.Content));
                    }
                }
            }
        }

        return [.. dates];
    }

    /// <summary>The start on the series' own clock that a date or time of its file means.</summary>
    private LocalDateTime Key(FileTime time, Part master) =>
        master.Start.IsDate ? times.OnClockOf(time, master.Start).Date.AtMidnight()
        : time.IsDate ? time.Local.Date + master.Start.Local.TimeOfDay
        : times.OnClockOf(time, master.Start);

    private List<FileOverride> Overrides(List<Part> changes, Part master) =>
        [
            .. changes.Select(part => new FileOverride(
                new Override(Key(part.Replaces!.Value, master), part.Time, part.Content, part.Range),
                part.Component
            )),
        ];
}
