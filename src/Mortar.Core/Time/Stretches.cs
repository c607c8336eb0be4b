using System.Collections.Immutable;
using NodaTime;

namespace Mortar.Core.Time;

/// <summary>Sets of time as ordered, disjoint stretches, none empty and no two touching; starts included, ends excluded.</summary>
internal static class Stretches
{
    /// <summary>The set of all moments that any of the stretches has, cut to <paramref name="within"/>.</summary>
    public static ImmutableArray<Interval> Merged(IEnumerable<Interval> stretches, Interval within)
    {
        var ordered = stretches
            .Select(one => (Start: Instant.Max(one.Start, within.Start), End: Instant.Min(one.End, within.End)))
            .Where(one => one.Start < one.End)
            .ToArray();
        Array.Sort(ordered, static (left, right) => left.Start.CompareTo(right.Start));
        var merged = ImmutableArray.CreateBuilder<Interval>();
        foreach (var (start, end) in ordered)
        {
            if (merged.Count > 0 && start <= merged[^1].End)
            {
                merged[^1] = new Interval(merged[^1].Start, Instant.Max(merged[^1].End, end));
            }
            else
            {
                merged.Add(new Interval(start, end));
            }
        }

        return merged.ToImmutable();
    }

    /// <summary>What is in <paramref name="set"/> and not in <paramref name="taken"/>.</summary>
    public static ImmutableArray<Interval> Less(ImmutableArray<Interval> set, ImmutableArray<Interval> taken)
    {
        var left = ImmutableArray.CreateBuilder<Interval>();
        var next = 0;
        foreach (var one in set)
        {
            var start = one.Start;
            while (next < taken.Length && taken[next].End <= start)
            {
                next++;
            }

            for (var i = next; i < taken.Length && taken[i].Start < one.End; i++)
            {
                if (start < taken[i].Start)
                {
                    left.Add(new Interval(start, taken[i].Start));
                }

                start = Instant.Max(start, taken[i].End);
            }

            if (start < one.End)
            {
                left.Add(new Interval(start, one.End));
            }
        }

        return left.ToImmutable();
    }

    /// <summary>What is in both.</summary>
    public static ImmutableArray<Interval> Both(ImmutableArray<Interval> one, ImmutableArray<Interval> other)
    {
        var both = ImmutableArray.CreateBuilder<Interval>();
        var (i, j) = (0, 0);
        while (i < one.Length && j < other.Length)
        {
            var start = Instant.Max(one[i].Start, other[j].Start);
            var end = Instant.Min(one[i].End, other[j].End);
            if (start < end)
            {
                both.Add(new Interval(start, end));
            }

            if (one[i].End < other[j].End)
            {
                i++;
            }
            else
            {
                j++;
            }
        }

        return both.ToImmutable();
    }

    /// <summary>What of the set lies within one stretch.</summary>
    public static ImmutableArray<Interval> Within(ImmutableArray<Interval> set, Interval stretch)
    {
        var first = FirstAfter(set, stretch.Start);
        var last = first;
        for (; last < set.Length && set[last].Start < stretch.End; last++) { }

        return first == last
            ? []
            : ImmutableArray.CreateRange(
                set,
                first,
                last - first,
                static (one, stretch) =>
                    new Interval(Instant.Max(one.Start, stretch.Start), Instant.Min(one.End, stretch.End)),
                stretch
            );
    }

    /// <summary>Whether the set shares a moment with a stretch; an empty stretch is the moment it stands on.</summary>
    public static bool Meets(ImmutableArray<Interval> set, Interval stretch)
    {
        var first = FirstAfter(set, stretch.Start);
        return first < set.Length
            && (stretch.Start == stretch.End ? set[first].Start <= stretch.Start : set[first].Start < stretch.End);
    }

    /// <summary>Which of the set is the first that ends after a moment.</summary>
    private static int FirstAfter(ImmutableArray<Interval> set, Instant moment)
    {
        var (low, high) = (0, set.Length);
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (set[middle].End <= moment)
            {
                low = middle + 1;
            }
            else
            {
                high = middle;
            }
        }

        return low;
    }

    public static Duration Total(ImmutableArray<Interval> set) =>
        set.Aggregate(Duration.Zero, (sum, one) => sum + one.Duration);
}
