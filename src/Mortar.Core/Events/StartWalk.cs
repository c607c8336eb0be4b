using Mortar.Core.Recurrence;
using Mortar.Core.Time;

namespace Mortar.Core.Events;

/// <summary>Walks the starts that a series counts: its own, those of its rules and added dates, less what is left out.</summary>
internal sealed class StartWalk
{
    private readonly long start;
    private readonly bool wholeDays;
    private readonly long first;
    private readonly long last;
    private readonly SeriesClock clock;
    private readonly RuleWalk? rule;
    private readonly RuleWalk[] otherRules;
    private readonly RuleWalk[] exceptions;
    private readonly long[] extra;
    private readonly long[] left;
    private int nextExtra;
    private int nextLeft;
    private bool startIsNext;

    public StartWalk(Event whole, Series series, SeriesClock clock, long first, long last)
    {
        var index = series.Index;
        (this.first, this.last, this.clock) = (first, last, clock);
        start = whole.Time.StartSecond;
        wholeDays = whole.Time is EventTime.AllDay;
        startIsNext = start >= first;
        (extra, left) = (index.Extra, index.Left);
        nextExtra = FirstFrom(extra, first);
        nextLeft = FirstFrom(left, first);
        rule = index.Rules.Length > 0 ? Walk(index.Rules[0]) : null;
        otherRules = index.Rules.Length > 1 ? [.. index.Rules.Skip(1).Select(Walk)] : [];
        exceptions = index.ExceptRules.Length > 0 ? [.. index.ExceptRules.Select(Walk)] : [];
        Current = long.MinValue;
    }

    public long Current { get; private set; }

    public bool MoveNext()
    {
        for (var next = Lowest(); next <= last; next = Lowest())
        {
            if (next > Current && !IsLeftOut(next))
            {
                Current = next;
                return true;
            }
        }

        return false;
    }

    /// <summary>Takes the lowest of all sources; <see cref="long.MaxValue"/> where there is none.</summary>
    private long Lowest()
    {
        var lowest = rule is null ? long.MaxValue : StartOf(rule);
        if (!startIsNext && nextExtra == extra.Length && otherRules.Length == 0)
        {
            rule?.MoveNext();
            return lowest;
        }

        if (startIsNext)
        {
            lowest = Math.Min(lowest, start);
        }

        if (nextExtra < extra.Length)
        {
            lowest = Math.Min(lowest, extra[nextExtra]);
        }

        foreach (var other in otherRules)
        {
            lowest = Math.Min(lowest, StartOf(other));
        }

        Pass(lowest);
        return lowest;
    }

    /// <summary>Moves every source on that is at <paramref name="taken"/>.</summary>
    private void Pass(long taken)
    {
        startIsNext &= taken != start;
        if (nextExtra < extra.Length && extra[nextExtra] == taken)
        {
            nextExtra++;
        }

        if (rule is not null && StartOf(rule) == taken)
        {
            rule.MoveNext();
        }

        foreach (var other in otherRules)
        {
            if (StartOf(other) == taken)
            {
                other.MoveNext();
            }
        }
    }

    /// <summary>Where a rule is; of a rule by hours, whole days take the day.</summary>
    private long StartOf(RuleWalk walk) =>
        wholeDays && walk.Current != long.MaxValue
            ? (long)CivilDays.DayOf(walk.Current) * CivilDays.SecondsPerDay
            : walk.Current;

    private bool IsLeftOut(long second)
    {
        while (nextLeft < left.Length && left[nextLeft] < second)
        {
            nextLeft++;
        }

        if (nextLeft < left.Length && left[nextLeft] == second)
        {
            return true;
        }

        foreach (var exception in exceptions)
        {
            while (StartOf(exception) < second)
            {
                exception.MoveNext();
            }

            if (StartOf(exception) == second)
            {
                return true;
            }
        }

        return false;
    }

    private RuleWalk Walk(RulePlan of)
    {
        var walk = new RuleWalk(of, start, wholeDays);
        walk.Seek(first, last, clock.OwnZone);
        walk.MoveNext();
        return walk;
    }

    private static int FirstFrom(long[] sorted, long first)
    {
        if (sorted.Length == 0)
        {
            return 0;
        }

        var place = Array.BinarySearch(sorted, first);
        return place < 0 ? ~place : place;
    }
}
