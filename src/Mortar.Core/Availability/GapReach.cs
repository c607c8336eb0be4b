using NodaTime;

namespace Mortar.Core.Availability;

/// <summary>
/// How far ahead a question for gaps is answered. What it costs grows with how many are asked and how many choices there are
/// among them; so many days are looked through as that leaves, and the answer says up to when.
/// </summary>
public static class GapReach
{
    /// <summary>How many days of one person each are looked through, at most.</summary>
    public const int MostPersonDays = 40_000;

    /// <summary>The same where there is a choice of people, for each choice.</summary>
    public const int MostChoiceDays = 40_000;

    /// <summary>At least so many days, whatever is asked.</summary>
    public const int LeastDays = 28;

    /// <summary>The part of a stretch that is looked through: all of it, or its first days.</summary>
    /// <param name="within">The stretch that is asked for.</param>
    /// <param name="people">How many are asked.</param>
    /// <param name="choices">How many choices there are among some of them; 1 for none.</param>
    public static Interval Of(Interval within, int people, int choices)
    {
        var days = Math.Max(
            LeastDays,
            Math.Min(MostPersonDays / Math.Max(1, people), MostChoiceDays / Math.Max(1, choices))
        );
        return within.Duration <= Duration.FromDays(days)
            ? within
            : new Interval(within.Start, within.Start + Duration.FromDays(days));
    }

    /// <summary>How many choices of so many there are among some.</summary>
    public static int Choices(int among, int count)
    {
        var choices = 1;
        for (var i = 1; i <= count; i++)
        {
            choices = choices * (among - count + i) / i;
        }

        return choices;
    }
}
