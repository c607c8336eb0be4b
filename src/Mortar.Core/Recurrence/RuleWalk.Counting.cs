using System.Collections.Immutable;
using System.Numerics;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Core.Recurrence;

/// <content>
/// COUNT, turned into the last start it allows. Nearly every rule people make has equally many occurrences in each step
/// ("every second Tuesday and Thursday", "the last Friday of the month") or in each seven ("every day but Sunday"), and
/// then the last one is found by division. The others (the 31st, every weekday of March) are counted once, at about ten
/// nanoseconds each, and no further than is asked; the rule then remembers.
/// </content>
internal sealed partial class RuleWalk
{
    /// <summary>How far is counted one by one for where a rule ends: nobody plans after, and 8,000 years of what hardly ever falls take long.</summary>
    private static readonly long LastCountedSecond = CivilDays.Second(new LocalDateTime(2400, 12, 31, 23, 59, 59));

    /// <summary>No start of the rule lies after this; <see cref="CivilDays.LastSecond"/> or more where it goes on for ever, or for centuries.</summary>
    public long LastStart() =>
        rule.End is SeriesEnd.After after
            ? LastCounted(after.Occurrences, Math.Max(start, LastCountedSecond))
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

        return Cycle() is { } cycle ? LastByDivision(left, cycle.Steps, cycle.Starts) : LastByCounting(left, end);
    }

    /// <summary>Counts on from where it was counted to before, no further than is asked.</summary>
    private long LastByCounting(int left, long end)
    {
        var known =
            plan.Counted is { } before && before.Start == start && before.WholeDays == wholeDays
                ? before
                : new RulePlan.CountedStarts(start, wholeDays, start - 1, left, start);
        if (known.Left > 0 && known.Through < end)
        {
            Go(known.Through + 1, end);
            var (still, last) = (known.Left, known.Last);
            while (still > 0 && MoveNext())
            {
                (still, last) = (still - 1, Current);
            }

            plan.Counted = known = known with { Through = still > 0 ? end : last, Left = still, Last = last };
        }

        return known.Left > 0 ? long.MaxValue : known.Last;
    }

    private long LastByDivision(long count, int steps, int starts)
    {
        Go(start, CivilDays.LastSecond);
        var inFirst = 0;
        for (var going = MoveNext(); going && step <= steps; going = MoveNext())
        {
            inFirst++;
            if (inFirst == count)
            {
                return Current;
            }
        }

        var rest = count - inFirst - 1;
        Go(start, CivilDays.LastSecond);
        step = (1 + (rest / starts)) * steps;
        for (rest %= starts; Fill(); rest -= total)
        {
            if (rest < total)
            {
                return SecondAt((int)rest);
            }
        }

        return long.MaxValue;
    }

    /// <summary>After how many steps the same number of starts comes again, and how many; <c>null</c> where that is not known.</summary>
    private (int Steps, int Starts)? Cycle() =>
        rule.Skip != Skip.Omit
        || BasesPerStep() is not { } perStep
        || Picked(perStep * offsets.Length) is not { } starts
            ? null
        : rule.Frequency == Frequency.Daily && plan.Weekdays != 0
            ? StepsOnNamedWeekdays() is > 0 and var passing ? (7, starts * passing)
                : null
        : (1, starts);

    /// <summary>How many of a step's starts BYSETPOS leaves; <c>null</c> for none.</summary>
    private int? Picked(int all) =>
        rule.BySetPos.IsEmpty ? all
        : Picks(all).Length is > 0 and var picked ? picked
        : null;

    /// <summary>Of seven steps by days, how many fall on a weekday that is named.</summary>
    private int StepsOnNamedWeekdays() =>
        Enumerable
            .Range(0, 7)
            .Count(number => (plan.Weekdays >> CivilDays.Weekday(startDay + (number * (rule.Interval % 7))) & 1) != 0);

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
            Frequency.Daily => limited || plan.HasOrdinals ? null : 1,
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
