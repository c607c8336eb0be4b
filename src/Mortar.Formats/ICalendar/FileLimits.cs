namespace Mortar.Formats.ICalendar;

/// <summary>
/// How much of a file is taken. Far more than calendars have; what is beyond is left out and said, since what one person
/// brings must not cost the others.
/// </summary>
public static class FileLimits
{
    /// <summary>The most events, changes to single dates included.</summary>
    public const int MostEvents = 20_000;

    /// <summary>The most rules of one event, and as many exceptions to them.</summary>
    public const int MostRules = 20;

    /// <summary>The most dates that are named one by one, to be there or not to be.</summary>
    public const int MostDates = 10_000;

    /// <summary>The most dates that are changed by themselves.</summary>
    public const int MostChanges = 2_000;

    /// <summary>The most people on one event.</summary>
    public const int MostPeople = 1_000;

    /// <summary>The most properties of one event.</summary>
    public const int MostProperties = 12_000;

    /// <summary>The longest source of one event that is kept, in UTF-16 units.</summary>
    public const int LongestSource = 1_000_000;

    /// <summary>The years that a time of a file can be in: no zone has rules before, and nobody plans after.</summary>
    public const int FirstYear = 1600;

    /// <summary>The last of those years.</summary>
    public const int LastYear = 2400;

    internal const string NoTime = "is not a date or time from 1600 to 2400";

    /// <summary>Why an event cannot be taken for its size; <c>null</c> where it can.</summary>
    internal static string? TooMuch(Component component) =>
        Over(component.Lines.Count, MostProperties, "properties")
        ?? Over(component.All("ATTENDEE").Count(), MostPeople, "people")
        ?? Over(component.All("RRULE").Count(), MostRules, "rules by which it repeats")
        ?? Over(component.All("EXRULE").Count(), MostRules, "exception rules")
        ?? Over(
            component.All("RDATE").Concat(component.All("EXDATE")).Sum(line => line.Value.AsSpan().Count(',') + 1),
            MostDates,
            "single dates"
        )
        ?? Over(component.Lines.Sum(line => line.Value.Length), LongestSource, "characters");

    /// <summary>Why a series cannot be taken for its changes; <c>null</c> where it can.</summary>
    internal static string? TooManyChanges(int changes) =>
        Over(changes, MostChanges, "dates that are changed by themselves");

    private static string? Over(int count, int most, string what) =>
        count > most ? FormattableString.Invariant($"it has {count} {what}, and {most} can be taken") : null;
}
