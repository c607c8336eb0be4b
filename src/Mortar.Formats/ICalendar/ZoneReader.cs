using System.Collections.Immutable;
using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using NodaTime;
using NodaTime.Text;
using NodaTime.TimeZones;

namespace Mortar.Formats.ICalendar;

/// <summary>Makes out which zone a VTIMEZONE means (RFC 5545, 3.6.5).</summary>
internal static class ZoneReader
{
    private static readonly LocalDateTimePattern Time = LocalDateTimePattern.CreateWithInvariantCulture(
        "uuuuMMdd'T'HHmmss"
    );

    /// <summary>The definition; <c>null</c> where it cannot be followed.</summary>
    public static ZoneRules? Read(string name, Component definition)
    {
        var changes = ImmutableArray.CreateBuilder<ZoneChange>();
        foreach (var part in definition.Inside.Where(part => part.Name is "STANDARD" or "DAYLIGHT"))
        {
            if (
                !Time.Parse(part.First("DTSTART")?.Value.Trim() ?? string.Empty).TryGetValue(default, out var onset)
                || OffsetOf(part.First("TZOFFSETFROM")) is not { } from
                || OffsetOf(part.First("TZOFFSETTO")) is not { } to
            )
            {
                return null;
            }

            RecurrenceRule? rule = null;
            if (part.First("RRULE") is { } line)
            {
                if (
                    RecurrenceRule.Parse(line.Value.Trim())
                    is not RuleParse.Ok { Rule: { Frequency: Frequency.Yearly } read }
                )
                {
                    return null;
                }

                rule = read;
            }

            changes.Add(new ZoneChange(onset, from, to, rule));
            changes.AddRange(
                part.All("RDATE")
                    .SelectMany(line => line.Value.Split(',', StringSplitOptions.TrimEntries))
                    .Select(date => Time.Parse(date))
                    .Where(date => date.Success)
                    .Select(date => new ZoneChange(date.Value, from, to, null))
            );
        }

        var rules = new ZoneRules(name, changes.ToImmutable());
        return changes.Count == 0 || ZoneRules.FromId(rules.Id) is null ? null : rules;
    }

    /// <summary>
    /// The zone of the database that has the same offsets in the years the file is about: <paramref name="preferred"/>
    /// where it has them, then those that stand for a whole region (the CLDR mapping that comes with NodaTime), then any.
    /// </summary>
    public static string? LikeIn(ZoneRules rules, string preferred, int firstYear, int lastYear, ZoneClock clock)
    {
        var zone = rules.ToZone();
        var during = new Interval(Instant.FromUtc(firstYear, 1, 1, 0, 0), Instant.FromUtc(lastYear + 1, 1, 1, 0, 0));
        var source = TzdbDateTimeZoneSource.Default;
        return source
            .WindowsMapping.PrimaryMapping.Values.Where(id => !id.StartsWith("Etc/", StringComparison.Ordinal))
            .Order(StringComparer.Ordinal)
            .Prepend(preferred)
            .Concat(source.GetIds().Where(id => id.StartsWith("Etc/GMT", StringComparison.Ordinal)))
            .Concat(source.GetIds().Where(id => source.CanonicalIdMap[id] == id).Order(StringComparer.Ordinal))
            .Where(clock.Knows)
            .FirstOrDefault(id => ZoneRules.Agree(zone, clock.Zone(id), during));
    }

    /// <summary>The lines of a definition, for a file that uses the zone.</summary>
    public static IEnumerable<string> Lines(ZoneRules rules)
    {
        yield return "BEGIN:VTIMEZONE";
        yield return $"TZID:{rules.Name}";
        foreach (var change in rules.Changes)
        {
            var kind = change.To > change.From ? "DAYLIGHT" : "STANDARD";
            yield return $"BEGIN:{kind}";
            yield return $"DTSTART:{Time.Format(change.Onset)}";
            if (change.Rule is not null)
            {
                yield return $"RRULE:{change.Rule}";
            }

            yield return $"TZOFFSETFROM:{ZoneDefinition.Text(change.From)}";
            yield return $"TZOFFSETTO:{ZoneDefinition.Text(change.To)}";
            yield return $"END:{kind}";
        }

        yield return "END:VTIMEZONE";
    }

    /// <summary>A UTC-OFFSET (RFC 5545, 3.3.14): +HHMM or +HHMMSS.</summary>
    private static Offset? OffsetOf(ContentLine? line)
    {
        var text = line?.Value.Trim() ?? string.Empty;
        if (text.Length is not (5 or 7) || text[0] is not ('+' or '-') || !text.AsSpan(1).ContainsOnlyDigits())
        {
            return null;
        }

        var seconds = (Two(1) * 3600) + (Two(3) * 60) + (text.Length == 7 ? Two(5) : 0);
        return seconds > 18 * 3600 ? null : Offset.FromSeconds(text[0] == '-' ? -seconds : seconds);

        int Two(int at) => ((text[at] - '0') * 10) + text[at + 1] - '0';
    }

    private static bool ContainsOnlyDigits(this ReadOnlySpan<char> text) => !text.ContainsAnyExceptInRange('0', '9');
}
