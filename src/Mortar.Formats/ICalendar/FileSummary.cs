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

    private static LocalDate? LastDay(Event whole, ZoneClock clock) =>
        whole.Series is null ? LastDay(whole.Time) : whole.LastEnd(clock)?.InUtc().Date;

    private static LocalDate LastDay(EventTime time) => time is EventTime.AllDay days ? days.Last : time.LocalEnd.Date;
}
