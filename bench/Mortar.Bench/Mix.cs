using System.Globalization;
using System.Text;
using Mortar.Core.Events;
using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using Mortar.Formats.ICalendar;
using NodaTime;

namespace Mortar.Bench;

/// <summary>The series that are measured: six sorts of rules in turn, zoned, begun about six years before the window.</summary>
internal static class Mix
{
    public static readonly ZoneClock Clock = new(DateTimeZoneProviders.Tzdb);

    public static readonly LocalDate Monday = new(2026, 3, 9);

    private static readonly string[] Rules =
    [
        "FREQ=DAILY",
        "FREQ=WEEKLY;BYDAY=MO,WE,FR",
        "FREQ=WEEKLY;INTERVAL=2",
        "FREQ=MONTHLY;BYDAY=-1FR",
        "FREQ=MONTHLY;BYMONTHDAY=15",
        "FREQ=YEARLY",
    ];

    public static Window Window(int days) =>
        new(Monday, Monday.PlusDays(days - 1), DateTimeZoneProviders.Tzdb["Europe/London"]);

    /// <summary>As a file, so that both sides read the same.</summary>
    public static string File(int count)
    {
        var text = new StringBuilder("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:bench\r\n");
        for (var i = 0; i < count; i++)
        {
            var start = new LocalDateTime(2020, 3, 2, 8, 0).PlusDays(i % 28).PlusMinutes(i % 8 * 60);
            text.Append(
                CultureInfo.InvariantCulture,
                $"BEGIN:VEVENT\r\nUID:{i}\r\nSUMMARY:Series {i}\r\nRRULE:{Rules[i % Rules.Length]}\r\n"
            );
            text.Append(
                CultureInfo.InvariantCulture,
                $"DTSTART;TZID=Europe/London:{Text(start)}\r\nDTEND;TZID=Europe/London:{Text(start.PlusHours(1))}\r\nEND:VEVENT\r\n"
            );
        }

        return text.Append("END:VCALENDAR\r\n").ToString();
    }

    public static Event[] Read(string file) =>
        [
            .. (
                (CalendarFileReading.Understood)CalendarFile.Read(Encoding.UTF8.GetBytes(file), "Europe/London", Clock)
            ).Events.Select(one => new Event(
                default,
                default,
                one.Uid,
                default,
                one.Time,
                one.Content,
                one.Series,
                Version: 1
            )),
        ];

    public static Event Series(string rule, LocalDateTime start) =>
        new(
            default,
            default,
            "one",
            default,
            EventTime.InZone(start, start.PlusHours(1), "Europe/London"),
            new EventContent("Firing", string.Empty, string.Empty, ShowAs.Busy, Cancelled: false),
            Core.Events.Series.By(RecurrenceRule.Of(rule)),
            Version: 1
        );

    private static string Text(LocalDateTime time) => time.ToString("uuuuMMdd'T'HHmmss", CultureInfo.InvariantCulture);
}
