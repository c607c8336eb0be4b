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
    private readonly Source[] rules;
    private readonly Source[] exceptions;
    private readonly long[] extra;
    private readonly long[] left;
    private int nextExtra;
    private int nextLeft;
    private bool startIsNext;

    public StartWalk(Event whole, Series series, SeriesClock clock, long first, long last)
    {
        var index = series.Index;
        (this.first, this.last, this.clock) = (first, last, clock);
        start = CivilDays.Second(whole.Time.LocalStart);
        wholeDays = whole.Time is EventTime.AllDay;
        startIsNext = start >= first;
        (extra, left) = (index.Extra, index.Left);
        nextExtra = FirstFrom(extra, first);
        nextLeft = FirstFrom(left, first);
        rules = Walks(series.Rules);
        exceptions = Walks(series.ExceptRules);
        Current = long.MinValue;
    }

    public long Current { get; private set; }

    public bool MoveNext()
    {
        while (Lowest() is { } next && next <= last)
        {
            if (next > Current && !IsLeftOut(next))
            {
                Current = next;
                return true;
            }
        }

        return false;
    }

    /// <summary>Takes the lowest of all sources.</summary>
    private long? Lowest()
    {
        if (rules.Length == 1 && !startIsNext && nextExtra == extra.Length)
        {
            return rules[0].Take();
        }

        var lowest = startIsNext ? start : long.MaxValue;
        if (nextExtra < extra.Length)
        {
            lowest = Math.Min(lowest, extra[nextExtra]);
        }

        foreach (var rule in rules)
        {
            lowest = Math.Min(lowest, rule.Next);
        }

        if (lowest == long.MaxValue)
        {
            return null;
        }

        startIsNext &= lowest != start;
        if (nextExtra < extra.Length && extra[nextExtra] == lowest)
        {
            nextExtra++;
        }

        foreach (var rule in rules)
        {
            if (rule.Next == lowest)
            {
                rule.Take();
            }
        }

        return lowest;
    }

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
            while (exception.Next < second)
            {
                exception.Take();
            }

            if (exception.Next == second)
            {
                return true;
            }
        }

        return false;
    }

    private Source[] Walks(IReadOnlyList<RecurrenceRule> of)
    {
        if (of.Count == 0)
        {
            return [];
        }

        var walks = new Source[of.Count];
        for (var i = 0; i < walks.Length; i++)
        {
            walks[i] = new Source(this, of[i]);
        }

        return walks;
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

    /// <summary>One rule, with its next start at hand.</summary>
    private sealed class Source
    {
        private readonly StartWalk series;
        private readonly RuleWalk walk;
        private readonly long until = long.MaxValue;

        public Source(StartWalk series, RecurrenceRule rule)
        {
            this.series = series;
            walk = new RuleWalk(rule.Plan, series.start, series.wholeDays);
            var limit = RulePlan.LastSecond(rule.End);
            if (rule.End is SeriesEnd.ThroughInstant through && series.clock.Time is EventTime.Timed)
            {
                // Known to the second only once each start has its instant; a day more covers every offset.
                until = through.Last.ToUnixTimeSeconds();
                limit += 2 * CivilDays.SecondsPerDay;
            }

            walk.Seek(series.first, Math.Min(limit, series.last));
            Take();
        }

        /// <summary>The next start; <see cref="long.MaxValue"/> where there is none.</summary>
        public long Next { get; private set; }

        /// <summary>The next start, after which the one after it is next.</summary>
        public long? Take()
        {
            var taken = Next;
            do
            {
                Next =
                    !walk.MoveNext() ? long.MaxValue
                    : series.wholeDays ? (long)CivilDays.DayOf(walk.Current) * CivilDays.SecondsPerDay
                    : walk.Current;
            } while (until != long.MaxValue && Next != long.MaxValue && series.clock.At(Next) > until);

            return taken == long.MaxValue ? null : taken;
        }
    }
}
