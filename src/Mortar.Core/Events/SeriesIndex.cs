using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Events;

/// <summary>The lists of a series in local seconds and in order, so that a window finds its part by halving.</summary>
internal sealed class SeriesIndex
{
    public SeriesIndex(Series series)
    {
        Rules = [.. series.Rules.Select(rule => rule.Plan)];
        ExceptRules = [.. series.ExceptRules.Select(rule => rule.Plan)];
        Extra = [.. series.Extra.Select(CivilDays.Second).Order()];
        var single = series
            .Overrides.Where(one => one.Range == OverrideRange.One)
            .OrderBy(one => one.Replaces)
            .ToList();
        Single = [.. single];
        Later = [.. series.Overrides.Where(one => one.Range == OverrideRange.AndLater).OrderBy(one => one.Replaces)];
        Left =
        [
            .. series
                .Excluded.Select(CivilDays.Second)
                .Concat(single.Select(one => CivilDays.Second(one.Replaces)))
                .Distinct()
                .Order(),
        ];
    }

    private sealed record Said(EventTime Time, int Year, DateTimeZone Zone, string Text);

    private Said? said;

    /// <summary>The series in words; a wall asks for each of its bricks, so the last answer is kept.</summary>
    public string Sentence(EventTime time, Series series, int year, DateTimeZone zone)
    {
        var known = said;
        if (known is null || !ReferenceEquals(known.Time, time) || known.Year != year || !known.Zone.Equals(zone))
        {
            said = known = new Said(time, year, zone, SeriesSentence.For(time, series, year, zone));
        }

        return known.Text;
    }

    private sealed record Shown(LocalDateTime Start, DateTimeZone Zone, RecurrenceRule? Rule);

    private Shown? shown;

    /// <summary>The one rule with its end as a day; kept as the words are.</summary>
    public RecurrenceRule? Rule(LocalDateTime start, Series series, DateTimeZone zone)
    {
        var known = shown;
        if (known is null || known.Start != start || !known.Zone.Equals(zone))
        {
            shown = known = new Shown(start, zone, series.Rule?.EndingByDay(start, zone));
        }

        return known.Rule;
    }

    /// <summary>RRULE, ready for walking.</summary>
    public RulePlan[] Rules { get; }

    /// <summary>EXRULE, ready for walking.</summary>
    public RulePlan[] ExceptRules { get; }

    /// <summary>RDATE.</summary>
    public long[] Extra { get; }

    /// <summary>Starts that do not take place as the series has them: EXDATE, and those replaced singly.</summary>
    public long[] Left { get; }

    /// <summary>The overrides of one occurrence each.</summary>
    public Override[] Single { get; }

    /// <summary>The overrides that reach on.</summary>
    public Override[] Later { get; }
}
