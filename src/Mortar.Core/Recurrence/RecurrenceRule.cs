using NodaTime;

namespace Mortar.Core.Recurrence;

/// <summary>The step of a rule (FREQ).</summary>
public enum Frequency
{
    /// <summary>Every so many days.</summary>
    Daily,

    /// <summary>Every so many weeks.</summary>
    Weekly,

    /// <summary>Every so many months.</summary>
    Monthly,

    /// <summary>Every so many years.</summary>
    Yearly,
}

/// <summary>A weekday, or the n-th of them in a month or year (<c>-1</c> is the last); <c>null</c> means every one.</summary>
public readonly record struct NthWeekday(int? Ordinal, IsoDayOfWeek Day);

/// <summary>A recurrence rule of RFC 5545, 3.3.10, by days and longer.</summary>
/// <remarks>
/// What is here is what is shown: FREQ from DAILY to YEARLY with INTERVAL, COUNT or UNTIL, BYMONTH, BYMONTHDAY, BYDAY,
/// BYSETPOS and WKST. Rules with other parts parse to <see cref="RuleParse.NotShown"/> and are kept as they came.
/// Compared by content.
/// </remarks>
public sealed partial record RecurrenceRule
{
    private RecurrenceRule() { }

    /// <summary>The step.</summary>
    public Frequency Frequency { get; private init; }

    /// <summary>How many steps lie between; 1 is every one.</summary>
    public int Interval { get; private init; } = 1;

    /// <summary>How it stops.</summary>
    public SeriesEnd End { get; private init; } = new SeriesEnd.Never();

    /// <summary>Months 1 to 12; empty means no limit.</summary>
    public IReadOnlyList<int> ByMonth { get; private init; } = [];

    /// <summary>Days of the month, 1 to 31 or -1 (the last) to -31; empty means none named.</summary>
    public IReadOnlyList<int> ByMonthDay { get; private init; } = [];

    /// <summary>Weekdays; empty means none named.</summary>
    public IReadOnlyList<NthWeekday> ByDay { get; private init; } = [];

    /// <summary>Which of the days of one step are meant, 1 for the first, -1 for the last; empty means all.</summary>
    public IReadOnlyList<int> BySetPos { get; private init; } = [];

    /// <summary>The day a week begins with; it matters to every second week and further.</summary>
    public IsoDayOfWeek WeekStart { get; private init; } = IsoDayOfWeek.Monday;

    /// <summary>Every <paramref name="interval"/> weeks on the start's weekday.</summary>
    /// <exception cref="ArgumentOutOfRangeException"><paramref name="interval"/> is below 1.</exception>
    public static RecurrenceRule Weekly(int interval, SeriesEnd end)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(interval, 1);
        return new RecurrenceRule
        {
            Frequency = Frequency.Weekly,
            Interval = interval,
            End = end,
        };
    }

    /// <inheritdoc />
    public bool Equals(RecurrenceRule? other) => other is not null && ToString() == other.ToString();

    /// <inheritdoc />
    public override int GetHashCode() => ToString().GetHashCode(StringComparison.Ordinal);
}
