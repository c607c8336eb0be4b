using Mortar.Core.Recurrence;
using NodaTime;

namespace Mortar.Formats.Tests.Differential;

/// <summary>A case in which another evaluator differs, and why we do not.</summary>
/// <param name="Name">The case, and what the standard says of it.</param>
/// <param name="Covers">Whether a series is in it.</param>
/// <param name="IsRare">Whether the rules that are kept do not meet it.</param>
internal sealed record KnownDifference(
    string Name,
    Func<RecurrenceRule, LocalDateTime, bool> Covers,
    bool IsRare = false
);

/// <summary>The cases in which the readers differ. RFC 5545, 3.3.10 decides each.</summary>
internal static class KnownDifferences
{
    public static readonly IReadOnlyList<KnownDifference> OfDateutil =
    [
        new(
            "A week of the year without a day: it takes all seven; the standard takes what the rule does not say from the start.",
            (rule, _) =>
                !rule.ByWeekNo.IsEmpty && rule.ByDay.IsEmpty && rule.ByMonthDay.IsEmpty && rule.ByYearDay.IsEmpty
        ),
        new(
            "Weekdays with and without numbers in one list: it wants both to hold; to the standard a list names alternatives.",
            (rule, _) => rule.ByDay.Any(day => day.Ordinal is null) && rule.ByDay.Any(day => day.Ordinal is not null)
        ),
        new(
            "BYSETPOS in the week of the start: it picks from what is left of the week; to the standard the set is that of the whole step.",
            (rule, start) =>
                rule.Frequency == Frequency.Weekly && !rule.BySetPos.IsEmpty && start.DayOfWeek != rule.WeekStart
        ),
        new(
            "Steps of weeks of the year: it counts calendar years, so that week 1 can lie in two steps or none; a week belongs to one year.",
            (rule, _) => !rule.ByWeekNo.IsEmpty && (rule.Interval > 1 || !rule.BySetPos.IsEmpty),
            IsRare: true
        ),
    ];

    public static readonly IReadOnlyList<KnownDifference> OfIcalNet =
    [
        new(
            "Days of the month in a year without months: it takes the start's month; the table of the standard says Expand, which is every month.",
            (rule, _) => rule.Frequency == Frequency.Yearly && !rule.ByMonthDay.IsEmpty && rule.ByMonth.IsEmpty
        ),
        new(
            "Months beside days or weeks of the year: it takes one or the other and repeats dates; to the standard each part narrows or widens what the one before left.",
            (rule, _) => !rule.ByMonth.IsEmpty && !(rule.ByYearDay.IsEmpty && rule.ByWeekNo.IsEmpty)
        ),
    ];
}
