using NodaTime;

namespace Mortar.Core.Recurrence;

/// <summary>The step of a rule (FREQ), shortest first.</summary>
public enum Frequency
{
    /// <summary>Every so many seconds.</summary>
    Secondly,

    /// <summary>Every so many minutes.</summary>
    Minutely,

    /// <summary>Every so many hours.</summary>
    Hourly,

    /// <summary>Every so many days.</summary>
    Daily,

    /// <summary>Every so many weeks.</summary>
    Weekly,

    /// <summary>Every so many months.</summary>
    Monthly,

    /// <summary>Every so many years.</summary>
    Yearly,
}

/// <summary>What becomes of a date that a month or year does not have, such as 31 April (SKIP of RFC 7529, 4.1).</summary>
public enum Skip
{
    /// <summary>It is left out: what RFC 5545, 3.3.10 says where nothing else is said.</summary>
    Omit,

    /// <summary>The last day before it: 30 April.</summary>
    Backward,

    /// <summary>The first day after it: 1 May.</summary>
    Forward,
}

/// <summary>A weekday, or the n-th of them in a month or year (<c>-1</c> is the last); <c>null</c> means every one.</summary>
public readonly record struct NthWeekday(int? Ordinal, IsoDayOfWeek Day);
