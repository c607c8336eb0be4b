using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Events;

/// <summary>How an event repeats: by rule, on dates added, without dates taken out, and with occurrences that differ.</summary>
/// <remarks>
/// Dates are starts on the series' own clock (whole days at midnight), each named once and in order. The event's own start
/// always belongs to the series unless it is left out (RFC 5545, 3.8.5.3). Compared by content.
/// </remarks>
public sealed record Series
{
    private SeriesIndex? index;

    /// <summary>A series without anything; what it is made of is set on it.</summary>
    public Series() { }

    // The index belongs to the lists it was made from and is not taken over by a copy.
    private Series(Series other) =>
        (Rules, ExceptRules, Extra, Excluded, Overrides, NotShown, NominalDays, ContinuedFrom) = (
            other.Rules,
            other.ExceptRules,
            other.Extra,
            other.Excluded,
            other.Overrides,
            other.NotShown,
            other.NominalDays,
            other.ContinuedFrom
        );

    /// <summary>RRULE. One, or none where chosen dates make the series; several only from files (RFC 5545, 3.8.5.3 advises against them).</summary>
    public IReadOnlyList<RecurrenceRule> Rules { get; init; } = [];

    /// <summary>EXRULE, from older files only (RFC 2445, 4.8.5.2): what these fall on does not take place.</summary>
    public IReadOnlyList<RecurrenceRule> ExceptRules { get; init; } = [];

    /// <summary>RDATE: further starts.</summary>
    public IReadOnlyList<LocalDateTime> Extra { get; init; } = [];

    /// <summary>EXDATE: starts that do not take place.</summary>
    public IReadOnlyList<LocalDateTime> Excluded { get; init; } = [];

    /// <summary>Occurrences that differ from the series, by the start they would have had.</summary>
    public IReadOnlyList<Override> Overrides { get; init; } = [];

    /// <summary>The text of a rule in another calendar than the Gregorian, which is kept and not computed; <c>null</c> where there is none.</summary>
    public string? NotShown { get; init; }

    /// <summary>
    /// How many days of the length are days of the calendar, which a clock change makes longer or shorter: those of a
    /// DURATION in days or weeks. 0, the rule for DTEND, is a length in exact time (RFC 5545, 3.8.5.3).
    /// </summary>
    public int NominalDays { get; init; }

    /// <summary>The event of which this is the later part, split off by somebody; its history goes before this one's.</summary>
    public EventId? ContinuedFrom { get; init; }

    /// <summary>A series by one rule.</summary>
    public static Series By(RecurrenceRule rule) => new() { Rules = [rule] };

    /// <summary>The one rule of the series; <c>null</c> where there is none, or several.</summary>
    public RecurrenceRule? Rule => Rules.Count == 1 ? Rules[0] : null;

    internal SeriesIndex Index => index ??= new SeriesIndex(this);

    /// <summary>The series without the occurrence that would start at <paramref name="start"/>.</summary>
    public Series Without(LocalDateTime start) =>
        this with
        {
            Excluded = [.. Excluded.Append(start).Distinct().Order()],
            Overrides = [.. Overrides.Where(one => one.Replaces != start || one.Range == OverrideRange.AndLater)],
        };

    /// <summary>The series with one occurrence replaced.</summary>
    public Series With(Override changed) =>
        this with
        {
            Overrides =
            [
                .. Overrides
                    .Where(one => one.Replaces != changed.Replaces || one.Range != changed.Range)
                    .Append(changed)
                    .OrderBy(one => one.Replaces),
            ],
        };

    /// <summary>Compares by content, since the lists are compared by reference otherwise.</summary>
    public bool Equals(Series? other) =>
        other is not null
        && NotShown == other.NotShown
        && NominalDays == other.NominalDays
        && ContinuedFrom == other.ContinuedFrom
        && Rules.SequenceEqual(other.Rules)
        && ExceptRules.SequenceEqual(other.ExceptRules)
        && Extra.SequenceEqual(other.Extra)
        && Excluded.SequenceEqual(other.Excluded)
        && Overrides.SequenceEqual(other.Overrides);

    /// <inheritdoc />
    public override int GetHashCode() =>
        HashCode.Combine(NotShown, Rules.Count, Extra.Count, Excluded.Count, Overrides.Count);
}

/// <summary>How far an override reaches (the RANGE of a RECURRENCE-ID).</summary>
public enum OverrideRange
{
    /// <summary>The one occurrence.</summary>
    One,

    /// <summary>
    /// It and all later ones, which move by as much and last as long (THISANDFUTURE, RFC 5545, 3.2.13). From files only:
    /// here the series is split instead.
    /// </summary>
    AndLater,
}

/// <summary>One occurrence of a series that differs from it (RECURRENCE-ID).</summary>
/// <param name="Replaces">The start the occurrence would have had, on the series' own clock.</param>
/// <param name="Time">When it takes place instead.</param>
/// <param name="Content">What it is instead.</param>
/// <param name="Range">How far it reaches.</param>
public sealed record Override(
    LocalDateTime Replaces,
    EventTime Time,
    EventContent Content,
    OverrideRange Range = OverrideRange.One
);
