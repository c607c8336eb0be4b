using Mortar.Core.Events;
using Mortar.Core.Time;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Formats.ICalendar;

/// <summary>Which part of a component is asked for (CALDAV:comp, RFC 4791, 9.6.1).</summary>
/// <param name="Name">Its name in upper case.</param>
/// <param name="Properties">The names of its properties in upper case, with whether their values are told; <c>null</c> for all.</param>
/// <param name="Inside">What of the components inside it; <c>null</c> for all.</param>
public sealed record ComponentPart(
    string Name,
    IReadOnlyDictionary<string, bool>? Properties,
    IReadOnlyList<ComponentPart>? Inside
);

/// <summary>What of calendar object resources is asked for (CALDAV:calendar-data, RFC 4791, 9.6).</summary>
/// <param name="Part">Which part, from VCALENDAR on; <c>null</c> for all.</param>
/// <param name="Expand">Each date of a series by itself, in this stretch; <c>null</c> for the series.</param>
/// <param name="Limit">Of a series only those changed dates that touch this stretch; <c>null</c> for all.</param>
public sealed record ObjectData(ComponentPart? Part, TimeRange? Expand, TimeRange? Limit)
{
    /// <summary>All of them.</summary>
    public static ObjectData All { get; } = new(null, null, null);

    private static readonly InstantPattern Utc = InstantPattern.CreateWithInvariantCulture("uuuuMMdd'T'HHmmss'Z'");

    /// <summary>The text of an object, as much as is asked for.</summary>
    /// <param name="one">The object.</param>
    /// <param name="taking">Its occurrences in a stretch, each with the start by which the series counts it.</param>
    /// <param name="clock">Zone rules.</param>
    public string Of(CalendarObject one, Func<TimeRange, IEnumerable<Occurrence>> taking, ZoneClock clock)
    {
        if (this == All)
        {
            return one.Text;
        }

        var components = one.Components;
        if (Expand is { } range)
        {
            components = [.. taking(range).Select(occurrence => Alone(one, occurrence, clock)).OfType<Component>()];
        }
        else if (Limit is { } limit && one.Event.Series is { } series)
        {
            // Changed dates count that were to be in it, or are (RFC 4791, 9.6.6).
            var kept = taking(limit).Select(occurrence => occurrence.Start).ToHashSet();
            var left = series
                .Overrides.Where(changed =>
                    !kept.Contains(changed.Replaces) && !IsIn(limit, changed.Replaces, one.Event.Time, clock)
                )
                .Select(changed => KeyOf(changed.Replaces, one.Event.Time))
                .ToHashSet(StringComparer.Ordinal);
            components = [.. components.Where(component => !left.Contains(OwnAlarms.KeyOf(component)))];
        }

        return Part is { } part && part.Inside is { } parts
            ? one.With([.. components.Select(component => Cut(component, parts)).OfType<Component>()], clock)
            : one.With(components, clock);
    }

    private static bool IsIn(TimeRange range, LocalDateTime start, EventTime time, ZoneClock clock)
    {
        var at = clock.Span(time.StartingAt(start), DateTimeZone.Utc).Start;
        return (range.Start is not { } from || at >= from) && (range.End is not { } to || at < to);
    }

    /// <summary>One date as an event of its own, in UTC, named by when it was to be (RFC 4791, 9.6.5).</summary>
    private static Component? Alone(CalendarObject one, Occurrence occurrence, ZoneClock clock)
    {
        var series = one.Components.FirstOrDefault(component =>
            component.Name == "VEVENT" && OwnAlarms.KeyOf(component).Length == 0
        );
        var key = occurrence.Start is { } start ? KeyOf(start, one.Event.Time) : string.Empty;
        var from =
            one.Components.FirstOrDefault(component => component.Name == "VEVENT" && OwnAlarms.KeyOf(component) == key)
            ?? series;
        if (from is null)
        {
            return null;
        }

        var alone = from.WithInside(_ => true);
        alone.Lines.RemoveAll(line => line.Name is "RRULE" or "RDATE" or "EXDATE" or "EXRULE" or "DURATION");
        var isDay = one.Event.Time is EventTime.AllDay;
        if (!isDay)
        {
            alone.Replace("DTSTART", ContentLine.Of("DTSTART", Utc.Format(occurrence.Span.Start)));
            alone.Replace("DTEND", ContentLine.Of("DTEND", Utc.Format(occurrence.Span.End)));
        }
        else if (occurrence.Time is EventTime.AllDay days)
        {
            alone.Replace("DTSTART", Day("DTSTART", days.First));
            alone.Replace("DTEND", Day("DTEND", days.Last.PlusDays(1)));
        }

        if (occurrence.Start is { } named)
        {
            alone.Replace(
                "RECURRENCE-ID",
                isDay
                    ? Day("RECURRENCE-ID", named.Date)
                    : ContentLine.Of(
                        "RECURRENCE-ID",
                        Utc.Format(clock.Span(one.Event.Time.StartingAt(named), DateTimeZone.Utc).Start)
                    )
            );
        }

        return alone;
    }

    private static ContentLine Day(string property, LocalDate day) =>
        ContentLine.Of($"{property};VALUE=DATE", LocalDatePattern.CreateWithInvariantCulture("uuuuMMdd").Format(day));

    /// <summary>How a date of a series is named in the components of its file.</summary>
    private static string KeyOf(LocalDateTime start, EventTime time) =>
        time is EventTime.AllDay
            ? LocalDatePattern.CreateWithInvariantCulture("uuuuMMdd").Format(start.Date)
            : LocalDateTimePattern.CreateWithInvariantCulture("uuuuMMdd'T'HHmmss").Format(start)
                + (time is EventTime.Timed { Zone: "UTC" } ? "Z" : string.Empty);

    private static Component? Cut(Component component, IReadOnlyList<ComponentPart> parts)
    {
        if (component.Name == "VTIMEZONE" || parts.FirstOrDefault(part => part.Name == component.Name) is not { } part)
        {
            return component.Name == "VTIMEZONE" ? component : null;
        }

        var cut = new Component(component.Name, 0) { Whole = true };
        cut.Lines.AddRange(
            component
                .Lines.Where(line => part.Properties?.ContainsKey(line.Name) != false)
                .Select(line =>
                    part.Properties?.GetValueOrDefault(line.Name, defaultValue: true) == false
                        ? ContentLine.Of(line.Name, string.Empty)
                        : line
                )
        );
        cut.Inside.AddRange(
            part.Inside is { } inside
                ? component.Inside.Select(one => Cut(one, inside)).OfType<Component>()
                : component.Inside
        );
        return cut;
    }
}
