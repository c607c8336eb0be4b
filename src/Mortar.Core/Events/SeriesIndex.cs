using Mortar.Core.Recurrence;
using Mortar.Core.Time;

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
