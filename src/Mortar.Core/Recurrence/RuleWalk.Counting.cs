using System.Collections.Immutable;
using System.Numerics;
using Mortar.Core.Time;

namespace Mortar.Core.Recurrence;

/// <content>
/// COUNT, turned into the last start it allows. Nearly every rule people make has equally many occurrences in each step
/// ("every second Tuesday and Thursday", "the last Friday of the month"), and then the last one is found by division.
/// The others (the 31st, every weekday of March) are counted once, at about ten nanoseconds each, and no further than is
/// asked; the rule then remembers.
/// </content>
internal sealed partial class RuleWalk
{
    /// <summary>No start of the rule lies after this; <see cref="CivilDays.LastSecond"/> or more where it goes on for ever.</summary>
    public long LastStart() =>
        rule.End is SeriesEnd.After after
            ? LastCounted(after.Occurrences, CivilDays.LastSecond)
            : RulePlan.LastSecond(rule.End);

    /// <summary>The start of the last occurrence that counts, or something after <paramref name="end"/> where that comes first.</summary>
    private long LastCounted(int count, long end)
    {
        // The start counts as the first, whether the rule falls on it or not (RFC 5545, 3.3.10).
        Go(start, start);
        var left = MoveNext() ? count : count - 1;
        if (left == 0)
        {
            return start;
        }

        if (PerStep() is { } perStep)
        {
            return LastByDivision(left, perStep);
        }

        if (plan.Counted is { } known && known.Start == start && known.WholeDays == wholeDays)
        {
            return known.Last;
        }

        Go(start, end);
        while (left > 0 && MoveNext())
        {
            left--;
        }

        if (left > 0)
        {
            return long.MaxValue;
        }

        plan.Counted = new RulePlan.CountedLast(start, wholeDays, Current);
        return Current;
    }

    private long LastByDivision(long count, int perStep)
    {
        Go(start, CivilDays.LastSecond);
        var inFirst = 0;
        for (var going = MoveNext(); going && step == 1; going = MoveNext())
        {
            inFirst++;
            if (inFirst == count)
            {
                return Current;
            }
        }

        var rest = count - inFirst - 1;
        Go(start, CivilDays.LastSecond);
        step = 1 + (rest / perStep);
        if (!(rule.Frequency < Frequency.Daily ? FillWithinDay() : FillDays()))
        {
            return long.MaxValue;
        }

        at = 0;
        return SecondAt((int)(rest % perStep));
    }

    /// <summary>How many occurrences each step has, where that is the same number for all; otherwise <c>null</c>.</summary>
    private int? PerStep()
    {
        if (rule.Skip != Skip.Omit || BasesPerStep() is not { } perStep)
        {
            return null;
        }

        var all = perStep * offsets.Length;
        return rule.BySetPos.IsEmpty ? all
            : rule
                .BySetPos.Select(position => position > 0 ? position - 1 : all + position)
                .Where(index => index >= 0 && index < all)
                .Distinct()
                .Count()
                is > 0
                    and var picked
                ? picked
            : null;
    }

    private int? BasesPerStep()
    {
        var limited = plan.Months != 0 || !rule.ByMonthDay.IsEmpty || !rule.ByYearDay.IsEmpty;
        return rule.Frequency switch
        {
            Frequency.Weekly => limited ? null
            : plan.Weekdays == 0 ? 1
            : BitOperations.PopCount((uint)plan.Weekdays),
            Frequency.Monthly => plan.Months == 0 ? InEachMonth() : null,
            Frequency.Yearly => InEachYear(),
            Frequency.Daily => limited || plan.Weekdays != 0 ? null : 1,
            _ => limited
            || plan.Weekdays != 0
            || plan.Hours != 0
            || (rule.Frequency <= Frequency.Minutely && plan.Minutes != 0)
            || (rule.Frequency == Frequency.Secondly && plan.Seconds != 0)
                ? null
                : 1,
        };
    }

    private int? InEachYear()
    {
        if (!rule.ByWeekNo.IsEmpty || !rule.ByYearDay.IsEmpty)
        {
            return null;
        }

        if (plan.Months == 0 && rule.ByMonthDay.IsEmpty && plan.Weekdays != 0)
        {
            return Alike(rule.ByDay.Select(day => day.Ordinal ?? 0), 52);
        }

        var months =
            plan.Months != 0 ? BitOperations.PopCount((uint)plan.Months)
            : rule.ByMonthDay.IsEmpty ? 1
            : 12;
        return InEachMonth() * months;
    }

    private int? InEachMonth() =>
        (rule.ByMonthDay, plan.Weekdays) switch
        {
            ({ IsEmpty: true }, 0) => startDate.Day <= 28 ? 1 : null,
            ({ IsEmpty: true }, _) => Alike(rule.ByDay.Select(day => day.Ordinal ?? 0), 4),
            (var days, 0) => Alike(days, 28),
            _ => null,
        };

    /// <summary>How many places there are, where every month or year has all of them and no two can be the same day.</summary>
    private static int? Alike(IEnumerable<int> places, int most)
    {
        var all = places.ToImmutableArray();
        return all.All(place => place > 0 && place <= most) || all.All(place => place < 0 && place >= -most)
            ? all.Length
            : null;
    }
}
