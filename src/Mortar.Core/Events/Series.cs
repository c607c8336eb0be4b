using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Events;

/// <summary>How an event repeats: the rule, what was added to it, what was taken out, and the occurrences that differ.</summary>
/// <param name="RuleText">The RRULE as it came; <c>null</c> where only extra dates make the series. A rule that is not shown stays here untouched.</param>
/// <param name="Extra">RDATE: further starts on the series' own clock.</param>
/// <param name="Excluded">EXDATE: starts on the series' own clock that do not take place.</param>
/// <param name="Overrides">Occurrences that differ from the series, by the start they would have had.</param>
public sealed record Series(
    string? RuleText,
    IReadOnlyList<LocalDateTime> Extra,
    IReadOnlyList<LocalDateTime> Excluded,
    IReadOnlyList<Override> Overrides
)
{
    /// <summary>The rule; <c>null</c> where there is none or its occurrences are not computed.</summary>
    public RecurrenceRule? Rule =>
        RuleText is not null && RecurrenceRule.Parse(RuleText) is RuleParse.Ok ok ? ok.Rule : null;

    /// <summary>Whether some of its occurrences are not computed, so that only the first is on the wall.</summary>
    public bool IsBeyondUs => RuleText is not null && Rule is null;

    /// <summary>The series without the occurrence that would start at <paramref name="start"/>.</summary>
    public Series Without(LocalDateTime start) =>
        this with
        {
            Excluded = [.. Excluded.Append(start).Distinct().Order()],
            Overrides = [.. Overrides.Where(one => one.Replaces != start)],
        };

    /// <summary>The series with one occurrence replaced.</summary>
    public Series With(Override changed) =>
        this with
        {
            Overrides =
            [
                .. Overrides
                    .Where(one => one.Replaces != changed.Replaces)
                    .Append(changed)
                    .OrderBy(one => one.Replaces),
            ],
        };

    /// <summary>Compares by content, since the lists are compared by reference otherwise.</summary>
    public bool Equals(Series? other) =>
        other is not null
        && RuleText == other.RuleText
        && Extra.SequenceEqual(other.Extra)
        && Excluded.SequenceEqual(other.Excluded)
        && Overrides.SequenceEqual(other.Overrides);

    /// <inheritdoc />
    public override int GetHashCode() => HashCode.Combine(RuleText, Extra.Count, Excluded.Count, Overrides.Count);
}

/// <summary>One occurrence of a series that differs from it (RECURRENCE-ID).</summary>
/// <param name="Replaces">The start the occurrence would have had, on the series' own clock.</param>
/// <param name="Time">When it takes place instead.</param>
/// <param name="Content">What it is instead.</param>
public sealed record Override(LocalDateTime Replaces, EventTime Time, EventContent Content);
