using System.Diagnostics.CodeAnalysis;
using Mortar.Core.Events;
using Mortar.Core.Time;
using NodaTime;
using NodaTime.Text;
using NodaTime.TimeZones;

namespace Mortar.Formats.ICalendar;

/// <summary>A DATE or DATE-TIME of a file: one of the forms of RFC 5545, 3.3.4 and 3.3.5.</summary>
/// <param name="Local">The date (at midnight) or the time on its clock.</param>
/// <param name="IsDate">Whether it is a whole day.</param>
/// <param name="Zone">The IANA zone; <c>null</c> for a floating time and a date.</param>
internal readonly record struct FileTime(LocalDateTime Local, bool IsDate, string? Zone);

/// <summary>Reads the times of one file.</summary>
/// <param name="clock">Zone rules.</param>
/// <param name="fallback">The zone for TZIDs that nobody knows: the calendar's own.</param>
/// <param name="definitions">The VTIMEZONE components of the file, by TZID.</param>
/// <param name="years">The first and last year the file is about.</param>
internal sealed class FileTimes(
    ZoneClock clock,
    string fallback,
    IReadOnlyDictionary<string, Component> definitions,
    (int First, int Last) years
)
{
    private static readonly LocalDatePattern Date = LocalDatePattern.CreateWithInvariantCulture("uuuuMMdd");
    private static readonly LocalDateTimePattern DateTime = LocalDateTimePattern.CreateWithInvariantCulture(
        "uuuuMMdd'T'HHmmss"
    );

    private readonly Dictionary<string, string?> matched = new(StringComparer.Ordinal);

    public bool TryRead(ContentLine line, string value, out FileTime time)
    {
        value = value.Trim();
        if (Date.Parse(value) is { Success: true } date && IsInReach(date.Value.Year))
        {
            time = new FileTime(date.Value.AtMidnight(), IsDate: true, null);
            return true;
        }

        var utc = value.EndsWith('Z');
        if (DateTime.Parse(utc ? value[..^1] : value) is { Success: true } local && IsInReach(local.Value.Year))
        {
            time = new FileTime(
                local.Value,
                IsDate: false,
                utc ? "UTC"
                    : line.Parameter("TZID") is { Length: > 0 } name ? ZoneOf(name) ?? fallback
                    : null
            );
            return true;
        }

        time = default;
        return false;
    }

    private static bool IsInReach(int year) => year is >= FileLimits.FirstYear and <= FileLimits.LastYear;

    /// <summary>The time on the clock of another time of the same event, so that the two can be compared.</summary>
    public LocalDateTime OnClockOf(FileTime time, FileTime other)
    {
        if (time.IsDate || time.Zone == other.Zone || time.Zone is null || other.Zone is null)
        {
            return time.Local;
        }

        return ZoneClock.At(time.Local, clock.Zone(time.Zone)).InZone(clock.Zone(other.Zone)).LocalDateTime;
    }

    /// <summary>The local end of a length: days on the calendar, hours in exact time (RFC 5545, 3.3.6).</summary>
    public LocalDateTime After(FileTime start, Period length)
    {
        var days = start.Local.PlusWeeks(length.Weeks).PlusDays(length.Days);
        var rest =
            Duration.FromHours(length.Hours)
            + Duration.FromMinutes(length.Minutes)
            + Duration.FromSeconds(length.Seconds);
        return start.Zone is { } zone
            ? (ZoneClock.At(days, clock.Zone(zone)) + rest).InZone(clock.Zone(zone)).LocalDateTime
            : days.PlusSeconds((long)rest.TotalSeconds);
    }

    /// <summary>The end of a period (RFC 5545, 3.3.9), which gives it as a time or as a length; <c>null</c> where it is neither.</summary>
    public FileTime? EndOf(ContentLine line, FileTime start, string end) =>
        TryRead(line, end, out var time) ? time
        : TryReadDuration(end, out var length) ? start with { Local = After(start, length) }
        : null;

    /// <summary>
    /// The zone meant by a TZID: by its name, by its last part (some programs put a path before it), by the name the
    /// definition gives, or as a Windows zone name (the CLDR mapping that comes with NodaTime); failing these, the zone
    /// that behaves as the definition does in the years of the file, and else the definition itself. <c>null</c> where
    /// there is none that can be followed.
    /// </summary>
    public string? ZoneOf(string name)
    {
        if (!matched.TryGetValue(name, out var zone))
        {
            zone = matched[name] = Candidates(name).FirstOrDefault(clock.Knows) ?? Defined(name);
        }

        return zone;
    }

    /// <summary>The definitions in the file of those zones a component uses that are not in the IANA database by that name.</summary>
    public IEnumerable<Component> ForeignZones(Component component) =>
        component
            .Lines.Select(line => line.Parameter("TZID"))
            .OfType<string>()
            .Distinct(StringComparer.Ordinal)
            .Where(name => !clock.Knows(name) && definitions.ContainsKey(name))
            .Select(name => definitions[name]);

    private string? Defined(string name)
    {
        if (!definitions.TryGetValue(name, out var definition) || ZoneReader.Read(name, definition) is not { } rules)
        {
            return null;
        }

        return ZoneReader.LikeIn(rules, fallback, years.First, years.Last, clock)
            ?? (clock.Knows(rules.Id) ? rules.Id : null);
    }

    private IEnumerable<string> Candidates(string name)
    {
        yield return name;
        var parts = name.Split('/', StringSplitOptions.RemoveEmptyEntries);
        for (var length = Math.Min(3, parts.Length); length > 1; length--)
        {
            yield return string.Join('/', parts[^length..]);
        }

        if (definitions.TryGetValue(name, out var definition) && definition.First("X-LIC-LOCATION") is { } location)
        {
            yield return location.Value.Trim();
        }

        if (TzdbDateTimeZoneSource.Default.WindowsMapping.PrimaryMapping.TryGetValue(name, out var iana))
        {
            yield return iana;
        }
    }

    /// <summary>A DURATION (RFC 5545, 3.3.6), days nominal and hours exact; negative ones are not taken, nor what no event lasts.</summary>
    public static bool TryReadDuration(string value, [NotNullWhen(true)] out Period? duration)
    {
        var parsed = PeriodPattern.Roundtrip.Parse(value.Trim().TrimStart('+').ToUpperInvariant());
        duration = parsed.Success && Lasts(parsed.Value) ? parsed.Value : null;
        return duration is not null;

        static bool Lasts(Period length) =>
            Math.Abs(
                (length.Years * 365.0)
                    + (length.Months * 30.0)
                    + (length.Weeks * 7.0)
                    + length.Days
                    + (length.Hours / 24.0)
                    + (length.Minutes / 1_440.0)
                    + (length.Seconds / 86_400.0)
            ) <= EventRules.LongestDays;
    }
}
