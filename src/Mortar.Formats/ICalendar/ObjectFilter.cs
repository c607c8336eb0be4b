using System.Globalization;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Formats.ICalendar;

/// <summary>A stretch of time that is asked for (CALDAV:time-range, RFC 4791, 9.9); an end that is not named is open.</summary>
/// <param name="Start">Included.</param>
/// <param name="End">Excluded.</param>
public sealed record TimeRange(Instant? Start, Instant? End);

/// <summary>A text that is looked for in another (CALDAV:text-match, RFC 4791, 9.7.5).</summary>
/// <param name="Text">The text.</param>
/// <param name="MindsCase">Whether it is compared octet by octet (i;octet, RFC 4790, 9.3), and not without minding the case of ASCII letters (9.2).</param>
/// <param name="IsNot">Whether it is to be missing.</param>
public sealed record TextMatch(string Text, bool MindsCase, bool IsNot)
{
    internal bool Matches(string value) => Contains(value) != IsNot;

    private bool Contains(string value) =>
        MindsCase
            ? value.Contains(Text, StringComparison.Ordinal)
            : Folded(value).Contains(Folded(Text), StringComparison.Ordinal);

    /// <summary>i;ascii-casemap folds ASCII letters and nothing else.</summary>
    private static string Folded(string text) =>
        string.Create(
            text.Length,
            text,
            (folded, from) =>
            {
                for (var i = 0; i < from.Length; i++)
                {
                    folded[i] = from[i] is >= 'a' and <= 'z' ? (char)(from[i] - 32) : from[i];
                }
            }
        );
}

/// <summary>What a parameter has to be (CALDAV:param-filter, RFC 4791, 9.7.3).</summary>
/// <param name="Name">Its name in upper case.</param>
/// <param name="IsNotDefined">Whether it is to be missing.</param>
/// <param name="Text">What its value has; <c>null</c> for anything.</param>
public sealed record ParameterFilter(string Name, bool IsNotDefined, TextMatch? Text);

/// <summary>What a property has to be (CALDAV:prop-filter, RFC 4791, 9.7.2).</summary>
/// <param name="Name">Its name in upper case.</param>
/// <param name="IsNotDefined">Whether it is to be missing.</param>
/// <param name="Range">When the time it has is to be; <c>null</c> for any.</param>
/// <param name="Text">What its value has; <c>null</c> for anything.</param>
/// <param name="Parameters">What its parameters have to be.</param>
public sealed record PropertyFilter(
    string Name,
    bool IsNotDefined,
    TimeRange? Range,
    TextMatch? Text,
    IReadOnlyList<ParameterFilter> Parameters
);

/// <summary>What a component has to be (CALDAV:comp-filter, RFC 4791, 9.7.1).</summary>
/// <param name="Name">Its name in upper case.</param>
/// <param name="IsNotDefined">Whether there is to be none.</param>
/// <param name="Range">When it is to take place; <c>null</c> for any time.</param>
/// <param name="Properties">What its properties have to be.</param>
/// <param name="Inside">What there has to be inside it.</param>
public sealed record ComponentFilter(
    string Name,
    bool IsNotDefined,
    TimeRange? Range,
    IReadOnlyList<PropertyFilter> Properties,
    IReadOnlyList<ComponentFilter> Inside
)
{
    /// <summary>Whether an object passes a filter of a whole calendar (VCALENDAR).</summary>
    /// <param name="one">The object.</param>
    /// <param name="takesPlace">Whether its event takes place in a stretch.</param>
    public bool Matches(CalendarObject one, Func<TimeRange, bool> takesPlace) =>
        Name == "VCALENDAR"
        && !IsNotDefined
        && Properties.All(property => PropertyOfCalendar(property))
        && Inside.All(inside => Has(one.Components, inside, takesPlace));

    private static readonly string[] OfCalendar = ["VERSION:2.0", "PRODID:-//Mortar//Mortar//EN"];

    private static bool PropertyOfCalendar(PropertyFilter filter) =>
        Matches(filter, [.. OfCalendar.Select(line => ContentLine.TryParse(0, line)!)]);

    private static bool Has(
        IReadOnlyList<Component> components,
        ComponentFilter filter,
        Func<TimeRange, bool> takesPlace
    )
    {
        var named = components.Where(component => component.Name == filter.Name).ToList();
        return filter.IsNotDefined
            ? named.Count == 0
            : named.Exists(component =>
                filter.Properties.All(property => Matches(property, component.Lines))
                && filter.Inside.All(inside => Has(component.Inside, inside, takesPlace))
            ) && (filter.Range is not { } range || takesPlace(range));
    }

    private static bool Matches(PropertyFilter filter, IReadOnlyList<ContentLine> lines)
    {
        var named = lines.Where(line => line.Name == filter.Name).ToList();
        return filter.IsNotDefined
            ? named.Count == 0
            : named.Exists(line =>
                (filter.Range is not { } range || IsWithin(line, range))
                && filter.Text?.Matches(line.Unescaped()) != false
                && filter.Parameters.All(parameter => Matches(parameter, line))
            );
    }

    private static bool Matches(ParameterFilter filter, ContentLine line) =>
        line.Parameter(filter.Name) is not { } value ? filter.IsNotDefined
        : filter.IsNotDefined ? false
        : filter.Text?.Matches(value) != false;

    /// <summary>A time that is in no zone is taken in UTC: so little is asked for by it.</summary>
    private static bool IsWithin(ContentLine line, TimeRange range)
    {
        var value = line.Value.Trim().TrimEnd('Z');
        value = value.Length == 8 ? $"{value}T000000" : value;
        return LocalDateTimePattern
                .Create("uuuuMMdd'T'HHmmss", CultureInfo.InvariantCulture)
                .Parse(value)
                .TryGetValue(default, out var at)
            && (range.Start is not { } start || at.InUtc().ToInstant() >= start)
            && (range.End is not { } end || at.InUtc().ToInstant() < end);
    }
}
