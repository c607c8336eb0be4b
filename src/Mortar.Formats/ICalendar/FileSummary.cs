using Mortar.Core.Events;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Formats.ICalendar;

/// <summary>What somebody wants to know of a file before they take it.</summary>
/// <param name="Events">How many events, a series counted once.</param>
/// <param name="Series">How many of them are series.</param>
/// <param name="First">The day of the earliest; <c>null</c> where there are none.</param>
/// <param name="Last">The day of the latest; <c>null</c> where there are none or one goes on for ever.</param>
public sealed record FileSummary(int Events, int Series, LocalDate? First, LocalDate? Last)
{
    /// <summary>Sums up a file.</summary>
    public static FileSummary Of(CalendarFileReading.Understood file, ZoneClock clock)
    {
        if (file.Events.Count == 0)
        {
            return new FileSummary(0, 0, null, null);
        }

        var wholes = file
            .Events.Select(one => new Event(
                default,
                default,
                one.Uid,
                default,
                one.Time,
                one.Content,
                one.Series,
                Version: 1
            ))
            .ToList();
        var ends = wholes.Select(whole => LastDay(whole, clock)).ToList();
        return new FileSummary(
            wholes.Count,
            wholes.Count(whole => whole.Series is not null),
            wholes.Min(whole => whole.Time.LocalStart.Date),
            ends.Contains(null) ? null : ends.Max()
        );
    }

    /// <summary>How many days before the end of a series are looked through for its last date, fewer first.</summary>
    private static readonly int[] LookedThrough = [10, 100, Window.LongestDays];

    private static LocalDate? LastDay(Event whole, ZoneClock clock)
    {
        if (whole.Series is null)
        {
            return LastDay(whole.Time);
        }

        if (whole.LastEnd(clock)?.InUtc().Date is not { } end)
        {
            return null;
        }

        // The end of a series is known to some days; its last date is found among the days before.
        var first = whole.Time.LocalStart.Date;
        return LookedThrough
                .Select(days => end.Year < 2 ? first : LocalDate.Max(first, end.PlusDays(-days)))
                .Select(from =>
                    whole
                        .Shown(new Window(from, LocalDate.Max(from, end), DateTimeZone.Utc), clock)
                        .Select(one => (LocalDate?)LastDay(one.Time))
                        .Max()
                )
                .FirstOrDefault(last => last is not null)
            ?? end;
    }

    private static LocalDate LastDay(EventTime time) => time is EventTime.AllDay days ? days.Last : time.LocalEnd.Date;
}
