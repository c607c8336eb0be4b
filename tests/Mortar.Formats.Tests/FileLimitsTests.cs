using System.Text;
using Mortar.Core.Recurrence;
using Mortar.Core.Time;
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
        Assert.InRange(finding.Line, 7, 12);
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
}
