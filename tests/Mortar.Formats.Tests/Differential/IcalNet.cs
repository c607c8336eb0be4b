using System.Globalization;
using NodaTime;

namespace Mortar.Formats.Tests.Differential;

/// <summary>Ical.Net's evaluator, asked about one rule.</summary>
internal static class IcalNet
{
    /// <summary>The first starts of a series at a floating time; the start itself only where the rule falls on it.</summary>
    public static IReadOnlyList<LocalDateTime> Starts(string rule, LocalDateTime start, int count)
    {
        var file = Samples.Event_(
            $"DTSTART:{start.ToString("uuuuMMdd'T'HHmmss", CultureInfo.InvariantCulture)}",
            $"RRULE:{rule}"
        );
        var whole = Ical.Net.Calendar.Load(file)!.Events[0]!;
        return
        [
            .. whole.GetOccurrences().Select(one => LocalDateTime.FromDateTime(one.Period.StartTime.Value)).Take(count),
        ];
    }
}
