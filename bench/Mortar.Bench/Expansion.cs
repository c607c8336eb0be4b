using System.Globalization;
using System.Text;
using BenchmarkDotNet.Attributes;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Formats.ICalendar;
using NodaTime;

namespace Mortar.Bench;

/// <summary>A year and a week of 1,000 mixed series that began six years before, beside Ical.Net's evaluator on the same file.</summary>
[MemoryDiagnoser]
public class Expansion
{
    private static readonly ZoneClock Clock = new(DateTimeZoneProviders.Tzdb);

    private Ical.Net.Calendar theirs = null!;
    private Event[] ours = [];
    private Window window = null!;

    /// <summary>How many days are asked for.</summary>
    [Params(7, 365)]
    public int Days { get; set; }

    [GlobalSetup]
    public void Read()
    {
        var text = File();
        theirs = Ical.Net.Calendar.Load(text)!;
        var read = (CalendarFileReading.Understood)
            CalendarFile.Read(Encoding.UTF8.GetBytes(text), "Europe/London", Clock);
        ours =
        [
            .. read.Events.Select(one => new Event(
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
        window = new Window(
            new LocalDate(2026, 3, 9),
            new LocalDate(2026, 3, 9).PlusDays(Days - 1),
            DateTimeZoneProviders.Tzdb["Europe/London"]
        );
    }

    [Benchmark]
    public int Ours() => ours.Sum(one => one.Occurrences(window, Clock).Count());

    [Benchmark(Baseline = true)]
    public int IcalNet()
    {
        var end = new DateTime(2026, 3, 9, 0, 0, 0, DateTimeKind.Utc).AddDays(Days);
        return theirs
            .GetOccurrences(new Ical.Net.DataTypes.CalDateTime(2026, 3, 9, 0, 0, 0, "UTC"))
            .TakeWhile(one => one.Period.StartTime.AsUtc < end)
            .Count();
    }

    private static string File()
    {
        string[] rules =
        [
            "FREQ=DAILY",
            "FREQ=WEEKLY;BYDAY=MO,WE,FR",
            "FREQ=WEEKLY;INTERVAL=2",
            "FREQ=MONTHLY;BYDAY=-1FR",
            "FREQ=MONTHLY;BYMONTHDAY=15",
            "FREQ=YEARLY",
        ];
        var text = new StringBuilder("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:bench\r\n");
        for (var i = 0; i < 1_000; i++)
        {
            var start = new LocalDateTime(2020, 3, 2, 8, 0).PlusDays(i % 28).PlusMinutes(i % 8 * 60);
            text.Append(
                CultureInfo.InvariantCulture,
                $"BEGIN:VEVENT\r\nUID:{i}\r\nSUMMARY:Series {i}\r\nRRULE:{rules[i % rules.Length]}\r\n"
            );
            text.Append(
                CultureInfo.InvariantCulture,
                $"DTSTART;TZID=Europe/London:{Text(start)}\r\nDTEND;TZID=Europe/London:{Text(start.PlusHours(1))}\r\nEND:VEVENT\r\n"
            );
        }

        return text.Append("END:VCALENDAR\r\n").ToString();
    }

    private static string Text(LocalDateTime time) => time.ToString("uuuuMMdd'T'HHmmss", CultureInfo.InvariantCulture);
}
