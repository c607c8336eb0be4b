using System.Globalization;
using System.Text;

namespace Mortar.Core.Recurrence;

/// <content>The text form.</content>
public sealed partial record RecurrenceRule
{
    /// <summary>Reads the value of an RRULE property. Never throws, whatever the text; nothing is half-read.</summary>
    /// <remarks>
    /// Names and values in any case, parts in any order (RFC 5545, 3.3.10). RSCALE other than GREGORIAN is
    /// <see cref="RuleParse.NotShown"/>.
    /// </remarks>
    public static RuleParse Parse(string text) => new Reader(text).Read();

    /// <summary>
    /// The rule in canonical form: parts in the order in which they apply, lists in order, and what says nothing
    /// (INTERVAL=1, WKST=MO, SKIP=OMIT) left out. Two rules are equal where these texts are.
    /// </summary>
    public override string ToString()
    {
        var text = new StringBuilder(Skip == Skip.Omit ? "FREQ=" : "RSCALE=GREGORIAN;FREQ=");
        text.Append(Name(Frequency));
        text.Append(
            End switch
            {
                SeriesEnd.After after => string.Create(CultureInfo.InvariantCulture, $";COUNT={after.Occurrences}"),
                SeriesEnd.Through through => ";UNTIL=" + DateText.Format(through.LastDay),
                SeriesEnd.ThroughTime through => ";UNTIL=" + TimeText.Format(through.Last),
                SeriesEnd.ThroughInstant through => ";UNTIL=" + InstantText.Format(through.Last),
                _ => string.Empty,
            }
        );
        if (Interval > 1)
        {
            text.Append(CultureInfo.InvariantCulture, $";INTERVAL={Interval}");
        }

        Append(text, "BYMONTH", ByMonth);
        Append(text, "BYWEEKNO", ByWeekNo);
        Append(text, "BYYEARDAY", ByYearDay);
        Append(text, "BYMONTHDAY", ByMonthDay);
        Append(text, "BYDAY", ByDay.Select(day => $"{day.Ordinal}{Weekdays[(int)day.Day - 1].Code}"));
        Append(text, "BYHOUR", ByHour);
        Append(text, "BYMINUTE", ByMinute);
        Append(text, "BYSECOND", BySecond);
        Append(text, "BYSETPOS", BySetPos);
        if (WeekStart != NodaTime.IsoDayOfWeek.Monday)
        {
            text.Append(";WKST=").Append(Weekdays[(int)WeekStart - 1].Code);
        }

        return Skip switch
        {
            Skip.Backward => text.Append(";SKIP=BACKWARD").ToString(),
            Skip.Forward => text.Append(";SKIP=FORWARD").ToString(),
            _ => text.ToString(),
        };
    }

    private static string Name(Frequency frequency) => frequency.ToString().ToUpperInvariant();

    private static void Append<T>(StringBuilder text, string name, IEnumerable<T> values)
    {
        var list = string.Join(',', values);
        if (list.Length > 0)
        {
            text.Append(';').Append(name).Append('=').Append(list);
        }
    }
}
