using System.Collections.Immutable;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Recurrence;

/// <summary>A rule made ready for walking: sets as bits and short arrays. Made once for a rule, whatever the start.</summary>
internal sealed class RulePlan
{
    public RulePlan(RecurrenceRule rule)
    {
        Rule = rule;
        Months = Bits(rule.ByMonth);
        Hours = Bits(rule.ByHour);
        Minutes = BitsOf60(rule.ByMinute);
        Seconds = BitsOf60(rule.BySecond);
        foreach (var day in rule.ByDay)
        {
            Weekdays |= 1 << ((int)day.Day - 1);
            HasOrdinals |= day.Ordinal is not null;
        }

        UsualBases = rule.Frequency switch
        {
            Frequency.Yearly or Frequency.Monthly => Math.Max(2, rule.ByMonthDay.Length * 2),
            Frequency.Weekly => Math.Max(1, System.Numerics.BitOperations.PopCount((uint)Weekdays)),
            _ => 1,
        };
    }

    public RecurrenceRule Rule { get; }

    /// <summary>Bit n for month n; 0 where no month is named.</summary>
    public int Months { get; }

    /// <summary>Bit 0 for Monday; 0 where no weekday is named.</summary>
    public int Weekdays { get; }

    public bool HasOrdinals { get; }

    /// <summary>Bit n for hour n; 0 where none is named.</summary>
    public int Hours { get; }

    public long Minutes { get; }

    public long Seconds { get; }

    /// <summary>How far the starts of a series were counted, for COUNT.</summary>
    /// <param name="Start">The local second at which the series starts.</param>
    /// <param name="WholeDays">Whether it has whole days.</param>
    /// <param name="Through">The local second up to which all are counted, included.</param>
    /// <param name="Left">How many may still come after it.</param>
    /// <param name="Last">The last that was counted.</param>
    internal sealed record CountedStarts(long Start, bool WholeDays, long Through, int Left, long Last);

    /// <summary>What was counted last: true for everybody who counts, so it may be written by several at once.</summary>
    public CountedStarts? Counted { get; set; }

    private sealed record FoundOffsets(int TimeOfDay, bool WholeDays, int[] All);

    private FoundOffsets? offsets;

    public int WeekStart => (int)Rule.WeekStart - 1;

    /// <summary>How many days one step usually has.</summary>
    public int UsualBases { get; }

    /// <summary>The offsets from the beginning of a step's day (hour, minute) at which it takes place, in order.</summary>
    /// <param name="timeOfDay">The start's second of the day.</param>
    /// <param name="wholeDays">Whether BYHOUR, BYMINUTE and BYSECOND count (RFC 5545, 3.3.10: ignored for a DATE).</param>
    public int[] Offsets(int timeOfDay, bool wholeDays)
    {
        // A rule belongs to one series, so it is asked for the same again and again.
        var found = offsets;
        return found is not null && found.TimeOfDay == timeOfDay && found.WholeDays == wholeDays
            ? found.All
            : (offsets = new FoundOffsets(timeOfDay, wholeDays, FindOffsets(timeOfDay, wholeDays))).All;
    }

    private int[] FindOffsets(int timeOfDay, bool wholeDays)
    {
        if (wholeDays)
        {
            return [0];
        }

        if (Rule.ByHour.IsEmpty && Rule.ByMinute.IsEmpty && Rule.BySecond.IsEmpty)
        {
            return Rule.Frequency switch
            {
                Frequency.Secondly => [0],
                Frequency.Minutely => [timeOfDay % 60],
                Frequency.Hourly => [timeOfDay % 3600],
                _ => [timeOfDay],
            };
        }

        int[] hours = Rule.ByHour.IsEmpty ? [timeOfDay / 3600] : [.. Rule.ByHour];
        int[] minutes = Rule.ByMinute.IsEmpty ? [timeOfDay / 60 % 60] : [.. Rule.ByMinute];
        int[] seconds = Rule.BySecond.IsEmpty
            ? [timeOfDay % 60]
            : [.. Rule.BySecond.Select(second => Math.Min(second, 59)).Distinct()];
        return Rule.Frequency switch
        {
            Frequency.Secondly => [0],
            Frequency.Minutely => seconds,
            Frequency.Hourly => [.. minutes.SelectMany(minute => seconds.Select(second => (minute * 60) + second))],
            _ =>
            [
                .. hours.SelectMany(hour =>
                    minutes.SelectMany(minute => seconds.Select(second => (hour * 3600) + (minute * 60) + second))
                ),
            ],
        };
    }

    public IEnumerable<LocalDateTime> Starts(LocalDateTime start, LocalDateTime from)
    {
        var walk = new RuleWalk(this, CivilDays.Second(start), wholeDays: false);
        walk.Seek(CivilDays.Second(from), CivilDays.LastSecond, clock: null);
        while (walk.MoveNext())
        {
            yield return CivilDays.ToTime(walk.Current);
        }
    }

    /// <summary>The last local second an end allows, as if the clock were UTC; COUNT is the walk's own business.</summary>
    public static long LastSecond(SeriesEnd end) =>
        end switch
        {
            SeriesEnd.Through through => ((CivilDays.Of(through.LastDay) + 1L) * CivilDays.SecondsPerDay) - 1,
            SeriesEnd.ThroughTime through => CivilDays.Second(through.Last),
            SeriesEnd.ThroughInstant through => through.Last.ToUnixTimeSeconds(),
            _ => CivilDays.LastSecond,
        };

    private static int Bits(ImmutableArray<int> values) => values.Aggregate(0, (bits, value) => bits | (1 << value));

    private static long BitsOf60(ImmutableArray<int> values) =>
        values.Aggregate(0L, (bits, value) => bits | (1L << Math.Min(value, 59)));
}
