using System.Collections.Concurrent;
using System.Text;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Formats.ICalendar;

/// <summary>A VTIMEZONE for an IANA zone (RFC 5545, 3.6.5), from the transitions in the zone database.</summary>
/// <remarks>
/// Transitions with the same offsets and name are one observance with their dates listed (RDATE). That says what the
/// database says, without guessing at rules.
/// </remarks>
internal static class ZoneDefinition
{
    /// <summary>How many years past now a definition reaches; programs that know the name use their own database after.</summary>
    private const int YearsAhead = 10;

    private static readonly LocalDateTimePattern DateTime = LocalDateTimePattern.CreateWithInvariantCulture(
        "uuuuMMdd'T'HHmmss"
    );

    /// <summary>How many definitions are kept: a calendar that is read event by event has the same one each time.</summary>
    private const int MostKept = 500;

    private static readonly ConcurrentDictionary<(DateTimeZone Zone, int FirstYear, int LastYear), string> Kept = new();

    /// <summary>The definition for some years, folded and worked out once.</summary>
    /// <param name="zone">The zone.</param>
    /// <param name="firstYear">The first year that has to do with it.</param>
    /// <param name="lastYear">The last.</param>
    public static string KeptText(DateTimeZone zone, int firstYear, int lastYear)
    {
        if (Kept.TryGetValue((zone, firstYear, lastYear), out var known))
        {
            return known;
        }

        if (Kept.Count >= MostKept)
        {
            Kept.Clear();
        }

        var text = new StringBuilder();
        foreach (var line in Lines(zone, Begin(firstYear - 1), Begin(lastYear + 2)))
        {
            CalendarFileWriter.Line(text, line);
        }

        return Kept[(zone, firstYear, lastYear)] = text.ToString();
    }

    public static IEnumerable<string> Lines(DateTimeZone zone, int firstYear, Instant now)
    {
        var from = Begin(firstYear - 1);
        return Lines(zone, from, Instant.Max(from, now) + Duration.FromDays(366 * YearsAhead));
    }

    private static Instant Begin(int year) =>
        new LocalDate(Math.Clamp(year, 1900, 2200), 1, 1).AtMidnight().InUtc().ToInstant();

    private static IEnumerable<string> Lines(DateTimeZone zone, Instant from, Instant to)
    {
        var intervals = zone.GetZoneIntervals(new Interval(from, to)).ToList();
        var observances = intervals
            .Skip(1)
            .Zip(
                intervals,
                (after, before) => (Onset: after.Start.WithOffset(before.WallOffset).LocalDateTime, before, after)
            )
            .GroupBy(change =>
                (
                    change.before.WallOffset,
                    After: change.after.WallOffset,
                    change.after.Name,
                    Summer: change.after.Savings > Offset.Zero
                )
            )
            .ToList();

        yield return "BEGIN:VTIMEZONE";
        yield return $"TZID:{zone.Id}";
        var first = intervals[0];
        foreach (
            var line in Observance(
                first.Savings > Offset.Zero,
                first.Name,
                first.WallOffset,
                first.WallOffset,
                [from.WithOffset(first.WallOffset).LocalDateTime]
            )
        )
        {
            yield return line;
        }

        foreach (var same in observances)
        {
            foreach (
                var line in Observance(
                    same.Key.Summer,
                    same.Key.Name,
                    same.Key.WallOffset,
                    same.Key.After,
                    [.. same.Select(change => change.Onset)]
                )
            )
            {
                yield return line;
            }
        }

        yield return "END:VTIMEZONE";
    }

    private static IEnumerable<string> Observance(
        bool summer,
        string name,
        Offset from,
        Offset to,
        IReadOnlyList<LocalDateTime> onsets
    )
    {
        var kind = summer ? "DAYLIGHT" : "STANDARD";
        yield return $"BEGIN:{kind}";
        yield return $"DTSTART:{DateTime.Format(onsets[0])}";
        foreach (var onset in onsets.Skip(1))
        {
            yield return $"RDATE:{DateTime.Format(onset)}";
        }

        yield return $"TZNAME:{name}";
        yield return $"TZOFFSETFROM:{Text(from)}";
        yield return $"TZOFFSETTO:{Text(to)}";
        yield return $"END:{kind}";
    }

    /// <summary>A UTC-OFFSET (RFC 5545, 3.3.14).</summary>
    public static string Text(Offset offset) =>
        (offset < Offset.Zero ? "-" : "+")
        + OffsetPattern
            .CreateWithInvariantCulture(offset.Seconds % 60 == 0 ? "HHmm" : "HHmmss")
            .Format(offset < Offset.Zero ? -offset : offset);
}
