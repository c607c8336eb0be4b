using System.Diagnostics;
using System.Numerics;
using Mortar.Core.Time;

namespace Mortar.Core.Recurrence;

/// <summary>Walks the starts of one rule for one start, in whole local seconds, in order.</summary>
/// <remarks>
/// <para>
/// A step of the rule (a year, a month, … a second) has a set of occurrences: some bases (days, or the step itself where
/// it is shorter than a day) times the same offsets within each. BYSETPOS picks from that product by number, so that it
/// is never written out. Steps are reached by multiplication from the start; a window late in a long series costs no
/// more than an early one, and so does COUNT where each step has equally many (see the part on counting).
/// </para>
/// <para>
/// The parts apply in the order of RFC 5545, 3.3.10. Where several expand the same step they narrow each other. A step
/// of a year under BYWEEKNO is a year of weeks: its first week may begin in December before.
/// </para>
/// </remarks>
internal sealed partial class RuleWalk
{
    private readonly RulePlan plan;
    private readonly RecurrenceRule rule;
    private readonly long start;
    private readonly bool wholeDays;
    private readonly int startDay;
    private readonly (int Year, int Month, int Day) startDate;
    private readonly int[] offsets;

    private long from;
    private long limit;
    private long step;

    private long[] bases;
    private int baseCount;
    private int[]? picks;
    private int total;
    private int at;
    private ZoneWalk? zone;
    private bool dayAtOnce;
    private long until = long.MaxValue;

    /// <param name="plan">The rule.</param>
    /// <param name="start">The local second of the series' start.</param>
    /// <param name="wholeDays">Whether the series has whole days, so that times of day in the rule are ignored.</param>
    public RuleWalk(RulePlan plan, long start, bool wholeDays)
    {
        this.plan = plan;
        this.start = start;
        this.wholeDays = wholeDays;
        rule = plan.Rule;
        startDay = CivilDays.DayOf(start);
        startDate = CivilDays.Date(startDay);
        offsets = plan.Offsets((int)(start - ((long)startDay * CivilDays.SecondsPerDay)), wholeDays);
        bases = new long[plan.UsualBases];
        Current = long.MinValue;
    }

    /// <summary>The start the walk is at, only after <see cref="MoveNext"/>; <see cref="long.MaxValue"/> at its end.</summary>
    public long Current { get; private set; }

    /// <summary>Goes to where the next start is the first not before <paramref name="earliest"/>; nothing after <paramref name="last"/> is shown.</summary>
    /// <param name="earliest">A local second.</param>
    /// <param name="last">A local second, included.</param>
    /// <param name="clock">The zone of the series, in which UNTIL in UTC is meant; <c>null</c> where it has none, and UTC is read as local.</param>
    public void Seek(long earliest, long last, ZoneWalk? clock)
    {
        var end = Math.Min(last, RulePlan.LastSecond(rule.End));
        if (rule.End is SeriesEnd.After after)
        {
            end = Math.Min(end, LastCounted(after.Occurrences, end));
        }
        else if (rule.End is SeriesEnd.ThroughInstant through && clock is not null)
        {
            // Known to the second only once each start has its instant; the margin covers every offset.
            (zone, until) = (clock, through.Last.ToUnixTimeSeconds());
            end = Math.Min(last, until + ZoneWalk.Margin);
        }

        dayAtOnce = wholeDays;
        Go(earliest, end);
    }

    private void Go(long earliest, long last)
    {
        from = Math.Max(earliest, start);
        limit = last;
        total = at = 0;
        Current = long.MinValue;
        step = StepBefore(from);
        if (PicksNothing() || (rule.Frequency < Frequency.Daily && !CanMatchWithinDay()))
        {
            limit = long.MinValue;
        }
    }

    public bool MoveNext()
    {
        while (true)
        {
            while (at < total)
            {
                var second = SecondAt(at++);
                if (second > limit)
                {
                    return Ended();
                }

                // Under SKIP two steps can meet on one day: 1 May and "31 April, forward".
                if (second >= from && second > Current && (zone is null || zone.At(second) <= until))
                {
                    Current = second;
                    return true;
                }
            }

            if (!Fill())
            {
                return Ended();
            }
        }
    }

    /// <summary>Takes up the next step that has anything; <c>false</c> when the limit is passed.</summary>
    private bool Fill() => rule.Frequency < Frequency.Daily ? FillWithinDay() : FillDays();

    private bool Ended()
    {
        (total, limit) = (0, long.MinValue);
        Current = long.MaxValue;
        return false;
    }

    private long SecondAt(int index)
    {
        var number = picks is null ? index : picks[index];
        return offsets.Length == 1
            ? bases[number] + offsets[0]
            : bases[number / offsets.Length] + offsets[number % offsets.Length];
    }

    /// <summary>The last step that begins safely before <paramref name="second"/>: what SKIP and weeks push over an edge is not missed.</summary>
    private long StepBefore(long second)
    {
        var day = CivilDays.DayOf(second);
        long units;
        switch (rule.Frequency)
        {
            case Frequency.Yearly:
                units = CivilDays.Date(day).Year - 1 - FirstYear();
                break;
            case Frequency.Monthly:
                var (year, month, _) = CivilDays.Date(day);
                units = ((year - startDate.Year) * 12) + month - startDate.Month - (rule.Skip == Skip.Omit ? 0 : 1);
                break;
            case Frequency.Weekly:
                units = (day - WeekOf(startDay)) / 7;
                break;
            case Frequency.Daily:
                units = day - startDay;
                break;
            default:
                units = CivilDays.FloorDiv(second - WithinDayAnchor(), WithinDayUnit());
                break;
        }

        return Math.Max(0, units / rule.Interval);
    }

    /// <summary>Puts the set of the next step that has one into the bases; <c>false</c> when the limit is passed.</summary>
    private bool FillDays()
    {
        // A set can reach back before its step: week 1 into December, "-31 June, backward" into May.
        var spill = rule.Skip == Skip.Omit && rule.ByWeekNo.IsEmpty ? 0 : 31L * CivilDays.SecondsPerDay;
        while (true)
        {
            var units = step++ * rule.Interval;
            var first = rule.Frequency switch
            {
                Frequency.Yearly => FirstYear() + units > 9_999 ? long.MaxValue : YearBegin((int)(FirstYear() + units)),
                Frequency.Monthly => MonthBegin(units),
                Frequency.Weekly => WeekOf(startDay) + (units * 7),
                _ => startDay + units,
            };
            if (
                first > CivilDays.LastSecond / CivilDays.SecondsPerDay
                || (first * CivilDays.SecondsPerDay) - spill > limit
            )
            {
                return false;
            }

            baseCount = 0;
            switch (rule.Frequency)
            {
                case Frequency.Yearly:
                    DaysOfYear((int)(FirstYear() + units));
                    break;
                case Frequency.Monthly:
                    DaysOfMonth(units);
                    break;
                case Frequency.Weekly:
                    DaysOfWeek((int)first);
                    break;
                default:
                    if (DayPasses((int)first))
                    {
                        Add((int)first);
                    }

                    break;
            }

            if (baseCount > 0 && Picked())
            {
                return true;
            }
        }
    }

    private static long YearBegin(int year) => CivilDays.Of(year, 1, 1);

    private long MonthBegin(long units)
    {
        var month = (startDate.Year * 12L) + startDate.Month - 1 + units;
        return month / 12 > 9_999 ? long.MaxValue : CivilDays.Of((int)(month / 12), (int)(month % 12) + 1, 1);
    }

    /// <summary>Orders the bases, applies BYSETPOS and passes over what lies before the window.</summary>
    /// <returns>Whether anything is left.</returns>
    private bool Picked()
    {
        Order();
        var all = baseCount * offsets.Length;
        at = 0;
        if (!rule.BySetPos.IsEmpty)
        {
            picks = Picks(all);
            total = picks.Length;
            return total > 0;
        }

        total = all;
        if (baseCount > 1 || offsets.Length > 1)
        {
            var whole = 0;
            while (whole < baseCount && bases[whole] + offsets[^1] < from)
            {
                whole++;
            }

            at = whole * offsets.Length;
            if (whole < baseCount && offsets.Length > 8 && bases[whole] < from)
            {
                var place = Array.BinarySearch(offsets, (int)(from - bases[whole]));
                at += place < 0 ? ~place : place;
            }
        }

        return at < total;
    }

    private int[] Picks(int all) =>
        [
            .. rule
                .BySetPos.Select(position => position > 0 ? position - 1 : all + position)
                .Where(index => index >= 0 && index < all)
                .Distinct()
                .Order(),
        ];

    private void Order()
    {
        var inOrder = true;
        for (var i = 1; i < baseCount && inOrder; i++)
        {
            inOrder = bases[i - 1] < bases[i];
        }

        if (inOrder)
        {
            return;
        }

        Array.Sort(bases, 0, baseCount);
        var kept = 1;
        for (var i = 1; i < baseCount; i++)
        {
            if (bases[i] != bases[kept - 1])
            {
                bases[kept++] = bases[i];
            }
        }

        baseCount = kept;
    }

    private void Add(int day)
    {
        if (baseCount == bases.Length)
        {
            Array.Resize(ref bases, baseCount * 4);
        }

        bases[baseCount++] = (long)day * CivilDays.SecondsPerDay;
    }

    private int WeekOf(int day) => day - CivilDays.FloorMod(CivilDays.Weekday(day) - plan.WeekStart, 7);

    private int WithinDayUnit() =>
        rule.Frequency switch
        {
            Frequency.Hourly => 3600,
            Frequency.Minutely => 60,
            Frequency.Secondly => 1,
            _ => throw new UnreachableException(),
        };

    private long WithinDayAnchor() => CivilDays.FloorDiv(start, WithinDayUnit()) * WithinDayUnit();

    /// <summary>Steps shorter than a day: whatever does not pass is jumped over whole, a day, an hour or a minute at once.</summary>
    private bool FillWithinDay()
    {
        var unit = WithinDayUnit();
        var anchor = WithinDayAnchor();
        var every = (long)unit * rule.Interval;
        var checkedDay = int.MinValue;
        while (true)
        {
            var second = anchor + (step * every);
            if (second > limit)
            {
                return false;
            }

            var day = CivilDays.DayOf(second);
            var midnight = (long)day * CivilDays.SecondsPerDay;
            if (day != checkedDay && !DayPasses(day))
            {
                Jump(midnight + CivilDays.SecondsPerDay);
                continue;
            }

            checkedDay = day;
            if (WhereNext((int)(second - midnight), unit) is { } next)
            {
                Jump(midnight + next);
                continue;
            }

            step++;
            bases[0] = second;
            baseCount = 1;
            if (Picked())
            {
                if (dayAtOnce && second >= from)
                {
                    Jump(midnight + CivilDays.SecondsPerDay); // the rest of the day is the same day
                }

                return true;
            }
        }

        void Jump(long target) => step = Math.Max(step + 1, (target - anchor + every - 1) / every);
    }

    /// <summary>The second of the day at which to look next where this one does not pass; <c>null</c> where it does.</summary>
    private int? WhereNext(int second, int unit)
    {
        var hour = second / 3600;
        if (plan.Hours != 0 && (plan.Hours >> hour & 1) == 0)
        {
            var later = plan.Hours >> hour;
            return later == 0 ? CivilDays.SecondsPerDay : (hour + BitOperations.TrailingZeroCount(later)) * 3600;
        }

        var minute = second / 60 % 60;
        if (unit <= 60 && plan.Minutes != 0 && (plan.Minutes >> minute & 1) == 0)
        {
            var later = plan.Minutes >> minute;
            return later == 0
                ? (hour + 1) * 3600
                : (hour * 3600) + ((minute + BitOperations.TrailingZeroCount(later)) * 60);
        }

        var rest = second % 60;
        if (unit == 1 && plan.Seconds != 0 && (plan.Seconds >> rest & 1) == 0)
        {
            var later = plan.Seconds >> rest;
            return later == 0 ? second - rest + 60 : second + BitOperations.TrailingZeroCount(later);
        }

        return null;
    }

    /// <summary>
    /// Whether BYSETPOS leaves nothing of any step: one of a day or less has as many starts as any other of the rule, so the
    /// tenth of three is known never to be there without looking through centuries of minutes.
    /// </summary>
    private bool PicksNothing() =>
        !rule.BySetPos.IsEmpty && rule.Frequency <= Frequency.Daily && Picks(offsets.Length).Length == 0;

    /// <summary>
    /// Whether steps of this length ever meet the hours, minutes and seconds that are named. They meet only where both
    /// leave the same rest by the greatest common divisor of the step and the day, so this is known without looking
    /// through 8,000 years of seconds.
    /// </summary>
    private bool CanMatchWithinDay()
    {
        var unit = WithinDayUnit();
        var common = (int)BigInteger.GreatestCommonDivisor((long)unit * rule.Interval, CivilDays.SecondsPerDay);
        var rest = (int)(WithinDayAnchor() % common + common) % common;
        var second = rest;
        while (second < CivilDays.SecondsPerDay && WhereNext(second, unit) is { } next)
        {
            second = Math.Max(second + common, next + ((rest - next % common + common) % common));
        }

        return second < CivilDays.SecondsPerDay;
    }
}
