using System.Collections.Immutable;
using NodaTime;

namespace Mortar.Core.Recurrence;

/// <summary>A recurrence rule of RFC 5545, 3.3.10, whole, with SKIP of RFC 7529 for the Gregorian calendar.</summary>
/// <remarks>
/// Made by <see cref="Parse"/> or a factory; one that breaks a "MUST NOT" of the section cannot be built. Lists are in
/// order and without repeats: from 1 upwards, then the negative ones. Compared by content.
/// </remarks>
public sealed partial record RecurrenceRule
{
    private RulePlan? plan;

    private RecurrenceRule() { }

    // The plan belongs to the values it was made from and is not taken over by a copy.
    private RecurrenceRule(RecurrenceRule other) =>
        (
            Frequency,
            Interval,
            End,
            ByMonth,
            ByWeekNo,
            ByYearDay,
            ByMonthDay,
            ByDay,
            ByHour,
            ByMinute,
            BySecond,
            BySetPos,
            WeekStart,
            Skip
        ) = (
            other.Frequency,
            other.Interval,
            other.End,
            other.ByMonth,
            other.ByWeekNo,
            other.ByYearDay,
            other.ByMonthDay,
            other.ByDay,
            other.ByHour,
            other.ByMinute,
            other.BySecond,
            other.BySetPos,
            other.WeekStart,
            other.Skip
        );

    /// <summary>The step.</summary>
    public Frequency Frequency { get; private init; }

    /// <summary>How many steps lie between; 1 is every one.</summary>
    public int Interval { get; private init; } = 1;

    /// <summary>How it stops.</summary>
    public SeriesEnd End { get; private init; } = new SeriesEnd.Never();

    /// <summary>Months 1 to 12; empty means no limit.</summary>
    public ImmutableArray<int> ByMonth { get; private init; } = [];

    /// <summary>Weeks of the year, 1 to 53 or -1 (the last) to -53; only with YEARLY.</summary>
    public ImmutableArray<int> ByWeekNo { get; private init; } = [];

    /// <summary>Days of the year, 1 to 366 or -1 (the last) to -366; not with DAILY, WEEKLY and MONTHLY.</summary>
    public ImmutableArray<int> ByYearDay { get; private init; } = [];

    /// <summary>Days of the month, 1 to 31 or -1 (the last) to -31; not with WEEKLY.</summary>
    public ImmutableArray<int> ByMonthDay { get; private init; } = [];

    /// <summary>Weekdays; numbered ones only with MONTHLY and YEARLY, and there not beside BYWEEKNO.</summary>
    public ImmutableArray<NthWeekday> ByDay { get; private init; } = [];

    /// <summary>Hours 0 to 23; not counted where the series has whole days.</summary>
    public ImmutableArray<int> ByHour { get; private init; } = [];

    /// <summary>Minutes 0 to 59; not counted where the series has whole days.</summary>
    public ImmutableArray<int> ByMinute { get; private init; } = [];

    /// <summary>Seconds 0 to 60; 60, the leap second, is 59 here (RFC 5545, 3.3.12). Not counted where the series has whole days.</summary>
    public ImmutableArray<int> BySecond { get; private init; } = [];

    /// <summary>Which of one step's occurrences are meant, 1 for the first, -1 for the last; empty means all.</summary>
    public ImmutableArray<int> BySetPos { get; private init; } = [];

    /// <summary>The day a week begins with; it matters to every second week and further, and to BYWEEKNO.</summary>
    public IsoDayOfWeek WeekStart { get; private init; } = IsoDayOfWeek.Monday;

    /// <summary>What becomes of dates that do not exist.</summary>
    public Skip Skip { get; private init; }

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

    /// <summary>A rule written down in code, for example <c>Of("FREQ=WEEKLY;BYDAY=TU,TH")</c>; for text from outside there is <see cref="Parse"/>.</summary>
    /// <exception cref="ArgumentException">The text is no rule.</exception>
    public static RecurrenceRule Of(string text) =>
        Parse(text) is RuleParse.Ok ok ? ok.Rule : throw new ArgumentException($"“{text}” is no rule.", nameof(text));

    /// <summary>The same rule, stopping otherwise.</summary>
    public RecurrenceRule Ending(SeriesEnd end) => this with { End = end };

    /// <summary>
    /// The same rule with what it takes from a start written into it, where another start would not say it: the 31st,
    /// of which SKIP makes the 28th in February.
    /// </summary>
    internal RecurrenceRule Anchored(LocalDateTime start)
    {
        if (Skip == Skip.Omit || !ByDay.IsEmpty || !ByMonthDay.IsEmpty || !ByYearDay.IsEmpty || !ByWeekNo.IsEmpty)
        {
            return this;
        }

        return Frequency switch
        {
            Frequency.Monthly => this with { ByMonthDay = [start.Day] },
            Frequency.Yearly => this with
            {
                ByMonthDay = [start.Day],
                ByMonth = ByMonth.IsEmpty ? [start.Month] : ByMonth,
            },
            _ => this,
        };
    }

    /// <summary>The same rule on weekdays some days later. Weeks begin as much later, so that each stays in its week.</summary>
    internal RecurrenceRule OnWeekdays(ImmutableArray<NthWeekday> weekdays, int later) =>
        this with
        {
            ByDay = [.. weekdays.Select(day => day with { Day = Later(day.Day, later) }).OrderBy(day => day.Day)],
            WeekStart =
                Frequency == Frequency.Weekly && (Interval > 1 || !BySetPos.IsEmpty)
                    ? Later(WeekStart, later)
                    : WeekStart,
        };

    /// <summary>The same rule on other days of the month.</summary>
    internal RecurrenceRule OnMonthDays(ImmutableArray<int> days) => this with { ByMonthDay = days };

    private static IsoDayOfWeek Later(IsoDayOfWeek day, int days) =>
        (IsoDayOfWeek)(((((int)day - 1 + days) % 7) + 7) % 7 + 1);

    /// <summary>The local starts on which the rule falls, from <paramref name="from"/> on, for a series that starts at <paramref name="start"/>.</summary>
    /// <remarks>
    /// Lazy, in order, each once; costs what is consumed, wherever <paramref name="from"/> lies. The start itself is in
    /// it only where the rule falls on it, but COUNT counts it always (RFC 5545, 3.3.10). UNTIL in UTC is read as if the
    /// start's clock were UTC; <c>SeriesExpansion</c> knows the zone. What is below a second is dropped. Ends with the
    /// year 9999; a rule that never matches has been looked through until then in some tens of milliseconds.
    /// </remarks>
    public IEnumerable<LocalDateTime> Starts(LocalDateTime start, LocalDateTime from) => Plan.Starts(start, from);

    internal RulePlan Plan => plan ??= new RulePlan(this);

    /// <inheritdoc />
    public bool Equals(RecurrenceRule? other) => other is not null && ToString() == other.ToString();

    /// <inheritdoc />
    public override int GetHashCode() => ToString().GetHashCode(StringComparison.Ordinal);
}
