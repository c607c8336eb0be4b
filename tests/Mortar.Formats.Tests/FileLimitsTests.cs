using System.Text;
using Mortar.Core.Events;
using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Formats.ICalendar;
using NodaTime;
using Xunit;

namespace Mortar.Formats.Tests;

/// <summary>Files that are made to cost others: what is too much is left out and said by line, and the rest is taken.</summary>
public class FileLimitsTests
{
    private static readonly ZoneClock Clock = new(new KnownZones(DateTimeZoneProviders.Tzdb));

    private static CalendarFileReading Read(params string[] inside) =>
        CalendarFile.Read(
            Encoding.UTF8.GetBytes($"BEGIN:VCALENDAR\r\n{string.Concat(inside)}END:VCALENDAR\r\n"),
            "Europe/London",
            Clock
        );

    private static string Event(string uid, string lines, string start = "DTSTART:20260311T100000Z") =>
        $"BEGIN:VEVENT\r\nUID:{uid}\r\n{start}\r\nSUMMARY:{uid}\r\n{lines}END:VEVENT\r\n";

    private static string Times(int count, string line) => string.Concat(Enumerable.Repeat(line, count));

    public static TheoryData<string, string, string> TooMuch() =>
        new()
        {
            { Times(20_000, "RRULE:FREQ=DAILY\r\n"), "DTSTART:20260311T100000Z", "20000 properties" },
            { Times(21, "RRULE:FREQ=DAILY\r\n"), "DTSTART:20260311T100000Z", "21 rules" },
            { Times(1_001, "ATTENDEE:mailto:a@example.org\r\n"), "DTSTART:20260311T100000Z", "1001 people" },
            {
                $"EXDATE:20260311T100000Z{Times(10_000, ",20260312T100000Z")}\r\n",
                "DTSTART:20260311T100000Z",
                "single dates"
            },
            { $"X-BALLAST:{new string('x', 1_000_001)}\r\n", "DTSTART:20260311T100000Z", "characters" },
            { "", "DTSTART;VALUE=DATE:99991231", "from 1600 to 2400" },
            { "DTEND:99991231T235959Z\r\n", "DTSTART:20260311T100000Z", "from 1600 to 2400" },
            { "DURATION:P9999999D\r\n", "DTSTART:20260311T100000Z", "is not a length of time" },
            { "DURATION:PT2147483647H\r\n", "DTSTART;TZID=Europe/London:20260311T100000", "is not a length of time" },
            { "DURATION:P2147483647W\r\n", "DTSTART;VALUE=DATE:20260311", "is not a length of time" },
            { "RRULE:FREQ=DAILY;COUNT=100001\r\n", "DTSTART:20260311T100000Z", "100001 times" },
            { "RRULE:FREQ=DAILY\r\nEXRULE:FREQ=SECONDLY\r\n", "DTSTART:20260311T100000Z", "many times of a day" },
            { "DTEND:20390311T100000Z\r\n", "DTSTART:20260311T100000Z", "longer than 3660 days" },
        };

    [Theory]
    [MemberData(nameof(TooMuch))]
    public void What_is_too_much_is_left_out_by_line_and_the_rest_is_taken(string lines, string start, string why)
    {
        var file = Assert.IsType<CalendarFileReading.Understood>(
            Read(Event("before", ""), Event("bomb", lines, start), Event("after", ""))
        );

        Assert.Equal(["before", "after"], file.Events.Select(one => one.Uid));
        var finding = Assert.Single(file.Findings);
        Assert.True(finding.LeftOut);
        Assert.Contains(
            why.Replace("20000 properties", "20003 properties", StringComparison.Ordinal),
            finding.Why,
            StringComparison.Ordinal
        );
        Assert.InRange(finding.Line, 6, 12);
    }

    /// <summary>What is odd and can be taken all the same is taken, and said by its line.</summary>
    [Theory]
    [InlineData("DURATION:PT8H", "2026-03-11", "2026-03-11", "is not a number of days")]
    [InlineData("DURATION:P1DT1H", "2026-03-11", "2026-03-12", "is not a number of days")] // RFC 5545, 3.6.1
    [InlineData("DURATION:P2D", "2026-03-11", "2026-03-12", null)]
    [InlineData("DTEND:the day after", "2026-03-11", "2026-03-11", "it is taken without an end")]
    [InlineData("DTEND;VALUE=DATE:", "2026-03-11", "2026-03-11", "it is taken without an end")]
    [InlineData("RRULE:FREQ=DAILY;UNTIL=99991231T000000Z", "2026-03-11", "2026-03-11", null)]
    [InlineData("RRULE:FREQ=DAILY;UNTIL=99991231", "2026-03-11", "2026-03-11", null)]
    public void What_is_odd_is_taken_and_said(string line, string first, string last, string? said)
    {
        var file = Assert.IsType<CalendarFileReading.Understood>(
            Read(Event("odd", $"{line}\r\n", "DTSTART;VALUE=DATE:20260311"))
        );

        var days = Assert.IsType<EventTime.AllDay>(Assert.Single(file.Events).Time);
        Assert.Equal((first, last), (days.First.ToString("uuuu-MM-dd", null), days.Last.ToString("uuuu-MM-dd", null)));
        Assert.Equal(said is null ? 0 : 1, file.Findings.Count(finding => !finding.LeftOut && finding.Line == 6));
        Assert.All(file.Findings, finding => Assert.Contains(said!, finding.Why, StringComparison.Ordinal));
        var summary = FileSummary.Of(file, Clock);
        Assert.Equal(line.StartsWith("RRULE", StringComparison.Ordinal) ? null : days.Last, summary.Last);
    }

    [Fact]
    public void A_series_with_too_many_changed_dates_is_left_out()
    {
        var changes = Enumerable
            .Range(0, FileLimits.MostChanges + 1)
            .Select(n => Event("bomb", $"RECURRENCE-ID:{new LocalDate(2026, 3, 11).PlusDays(n):uuuuMMdd}T100000Z\r\n"));

        var file = Assert.IsType<CalendarFileReading.Understood>(
            Read([Event("bomb", "RRULE:FREQ=DAILY\r\n"), .. changes, Event("after", "")])
        );

        Assert.Equal("after", Assert.Single(file.Events).Uid);
        Assert.Contains("2001 dates that are changed", Assert.Single(file.Findings).Why, StringComparison.Ordinal);
    }

    [Fact]
    public void Of_very_many_bad_lines_the_first_are_kept_and_all_are_counted()
    {
        var file = Assert.IsType<CalendarFileReading.Understood>(Read(Event("one", Times(100_000, "?\r\n"))));

        Assert.Equal(100_000, file.FindingsInAll);
        Assert.InRange(file.Findings.Count, 100, 1_000);
        Assert.Equal(6, file.Findings[0].Line);
        Assert.Single(file.Events);
    }

    [Fact]
    public void A_file_of_too_many_events_is_refused_with_what_to_do()
    {
        var file = Read([.. Enumerable.Range(0, FileLimits.MostEvents + 1).Select(n => Event($"e{n}", ""))]);

        Assert.Contains(
            "20001 events",
            Assert.IsType<CalendarFileReading.NotACalendar>(file).Sentence,
            StringComparison.Ordinal
        );
    }

    /// <summary>Values at the ends of what can be written, each for any property: nothing that is taken costs the whole import later.</summary>
    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    public void Whatever_is_taken_of_a_file_can_be_placed_shown_and_written(int seed)
    {
        var random = new Random(seed);
        string[] times =
        [
            "00010101T000000Z",
            "00010101",
            "15991231T235959",
            "16000101T000000Z",
            "16000101",
            "20260311T100000",
            "20260311",
            "20260329T013000",
            "20261025T013000",
            "23991231T235959Z",
            "24000101",
            "24001231",
            "24001231T235959",
            "99991231T235959Z",
            "99991231",
            "20260231",
            "",
        ];
        string[] zones = ["", ";VALUE=DATE", ";TZID=Europe/London", ";TZID=Pacific/Apia", ";TZID=Not/Known"];
        string[] lengths = ["P0D", "PT0S", "-P1D", "P3660D", "PT87840H", "PT24H60M", "P1W2D", "PT99999999999S"];
        string[] rules =
        [
            "FREQ=SECONDLY",
            "FREQ=DAILY;UNTIL=99991231",
            "FREQ=DAILY;COUNT=2147483647",
            "FREQ=YEARLY;INTERVAL=2147483647",
            "FREQ=YEARLY;BYYEARDAY=-366",
            "FREQ=MONTHLY;BYDAY=-5SU;BYSETPOS=-1",
            "FREQ=WEEKLY;UNTIL=16000101T000000Z",
            "FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30",
            "FREQ=HOURLY;BYHOUR=1;UNTIL=24001231T235959Z",
        ];
        string[] alarms = ["-P3650000D", "PT0S", "-PT999999999M", "P1D"];
        var taken = 0;
        for (var n = 0; n < 400; n++)
        {
            var lines = new StringBuilder();
            Maybe($"DTEND{Any(zones)}:{Any(times)}", 2);
            Maybe($"DURATION:{Any(lengths)}", 3);
            Maybe($"RRULE:{Any(rules)}", 2);
            Maybe($"RDATE{Any(zones)}:{Any(times)},{Any(times)}", 3);
            Maybe($"EXDATE{Any(zones)}:{Any(times)}", 3);
            Maybe($"BEGIN:VALARM\r\nACTION:DISPLAY\r\nTRIGGER:{Any(alarms)}\r\nEND:VALARM", 4);
            var file = Assert.IsType<CalendarFileReading.Understood>(
                Read(
                    Event("drawn", lines.ToString(), $"DTSTART{Any(zones)}:{Any(times)}"),
                    Event("drawn", $"RECURRENCE-ID{Any(zones)}:{Any(times)}\r\n", $"DTSTART:{Any(times)}")
                )
            );
            foreach (var one in file.Events)
            {
                var whole = new Event(
                    new EventId(Guid.NewGuid()),
                    new CalendarId(Guid.NewGuid()),
                    one.Uid,
                    new PersonId(Guid.NewGuid()),
                    one.Time,
                    one.Content,
                    one.Series,
                    Version: 1
                );
                Assert.True(whole.FirstStart(Clock) <= (whole.LastEnd(Clock) ?? Instant.MaxValue), one.Source);
                // What the store holds every row to.
                Assert.True(whole.Time.LocalStart <= whole.Time.LocalEnd, one.Source);
                foreach (var first in new LocalDate[] { new(1600, 1, 1), new(2026, 3, 25), new(2400, 12, 25) })
                {
                    _ = whole
                        .Shown(new Window(first, first.PlusDays(6), DateTimeZoneProviders.Tzdb["Pacific/Apia"]), Clock)
                        .Count();
                }

                _ = CalendarFileWriter.Write(
                    new FileHead("Drawn", "", "Europe/London"),
                    [new EventToWrite(whole, Source: null), new EventToWrite(whole, one.Source)],
                    Samples.Nobody,
                    Instant.FromUtc(2026, 3, 11, 10, 0),
                    Clock
                );
                taken++;
            }

            void Maybe(string line, int oneIn)
            {
                if (random.Next(oneIn) == 0)
                {
                    lines.Append(line).Append("\r\n");
                }
            }
        }

        Assert.InRange(taken, 40, 400);

        string Any(string[] all) => all[random.Next(all.Length)];
    }
}
