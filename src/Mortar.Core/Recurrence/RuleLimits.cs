namespace Mortar.Core.Recurrence;

/// <summary>
/// What of a rule is taken from outside. All that can be computed is computed; this is what nobody means and what would cost
/// whoever reads the calendar.
/// </summary>
public static class RuleLimits
{
    /// <summary>The most occurrences that COUNT may name: where no division finds the last of them, they are counted one by one.</summary>
    public const int MostCounted = 100_000;

    /// <summary>The most times of a day at which a rule can take place for it not to be a fine one: the quarters of its hours.</summary>
    public const int MostOfADay = 96;

    /// <summary>Whether a day of the rule can have more dates than quarters of an hour; cheap, and never wrong where it says no.</summary>
    public static bool IsFine(this RecurrenceRule rule) => rule.MostADay() > MostOfADay;

    /// <summary>No day of the rule has more dates than this; may be too many, never too few.</summary>
    internal static long MostADay(this RecurrenceRule rule) =>
        rule.Frequency <= Frequency.Hourly
            ? long.MaxValue
            : (long)Math.Max(1, rule.ByHour.Length)
                * Math.Max(1, rule.ByMinute.Length)
                * Math.Max(1, rule.BySecond.Length);

    /// <summary>Why rules are not taken, to follow on what has them (“it …”); <c>null</c> where they are.</summary>
    /// <param name="rules">The rules by which something repeats.</param>
    /// <param name="exceptRules">Those on which it does not take place.</param>
    public static string? WhyNot(IEnumerable<RecurrenceRule> rules, IEnumerable<RecurrenceRule> exceptRules)
    {
        foreach (var rule in rules.Concat(exceptRules))
        {
            if (rule.End is SeriesEnd.After { Occurrences: > MostCounted } after)
            {
                return FormattableString.Invariant(
                    $"it repeats {after.Occurrences} times, and {MostCounted} can be counted; let it end on a date, or never"
                );
            }
        }

        // Where each leaves out what the other gives, the next is looked for through thousands of years.
        return exceptRules.Any(IsFine)
            ? "its exception rule falls on many times of a day, and exceptions can fall on some dates only"
            : null;
    }
}
