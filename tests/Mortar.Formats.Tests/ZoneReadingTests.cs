using Mortar.Core.Events;
using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using Mortar.Formats.ICalendar;
using NodaTime;
using Xunit;

namespace Mortar.Formats.Tests;

/// <summary>What a TZID means: by name, by alias, by behaviour, and else what its definition says.</summary>
public class ZoneReadingTests
{
    private static readonly string[] Ruled =
    [
        "BEGIN:STANDARD",
        "DTSTART:16010101T030000",
        "RRULE:FREQ=YEARLY;BYDAY=-1SU;BYMONTH=10",
        "TZOFFSETFROM:+0200",
        "TZOFFSETTO:+0100",
        "END:STANDARD",
        "BEGIN:DAYLIGHT",
        "DTSTART:16010101T020000",
        "RRULE:FREQ=YEARLY;BYDAY=-1SU;BYMONTH=3",
        "TZOFFSETFROM:+0100",
        "TZOFFSETTO:+0200",
        "END:DAYLIGHT",
    ];

    private static readonly string[] NorthernSummerByFourHours =
    [
        "BEGIN:STANDARD",
        "DTSTART:20200101T000000",
        "TZOFFSETFROM:+0320",
        "TZOFFSETTO:+0320",
        "END:STANDARD",
    ];

    [Theory]
    [InlineData("Europe/Berlin", "Europe/Berlin")]
    [InlineData("/example.org/20260101/Europe/Berlin", "Europe/Berlin")]
    [InlineData("W. Europe Standard Time", "Europe/Berlin")]
    public void By_name_or_alias(string name, string zone) => Assert.Equal(zone, ZoneOf(Read(name, [])));

    [Fact]
    public void By_behaviour_where_no_name_helps_and_a_zone_for_a_region_first() =>
        Assert.Equal("Europe/Berlin", ZoneOf(Read("Studio time", Ruled)));

    [Fact]
    public void By_behaviour_the_calendars_own_zone_comes_before_others()
    {
        var london = Ruled.Select(line =>
            line.Replace("+0100", "+0000", StringComparison.Ordinal)
                .Replace("+0200", "+0100", StringComparison.Ordinal)
                .Replace("T030000", "T020000", StringComparison.Ordinal)
                .Replace(
                    "16010101T020000",
                    line.Contains("T030000", StringComparison.Ordinal) ? "16010101T020000" : "16010101T010000",
                    StringComparison.Ordinal
                )
        );

        Assert.Equal("Europe/London", ZoneOf(Read("Studio time", [.. london])));
    }

    [Fact]
    public void A_zone_like_no_other_is_kept_and_followed()
    {
        var file = Read("Kiln yard; time", NorthernSummerByFourHours);
        var one = Assert.Single(file.Events);

        Assert.Empty(file.Findings);
        Assert.Equal("Kiln yard; time", ZoneRules.NameOf(ZoneOf(file)));
        Assert.Equal("2026-03-12T15:40:00Z", Samples.Clock.Span(one.Time, DateTimeZone.Utc).Start.ToString());
    }

    [Fact]
    public void A_kept_zone_is_written_with_its_definition_and_read_again()
    {
        var one = Assert.Single(Read("Kiln yard; time", NorthernSummerByFourHours).Events);
        var whole = new Event(default, default, one.Uid, default, one.Time, one.Content, one.Series, Version: 1);

        var text = CalendarFileWriter.Write(
            new FileHead("Kiln", string.Empty, "Europe/London"),
            [new EventToWrite(whole, null)],
            Samples.Nobody,
            Samples.Now,
            Samples.Clock
        );

        Assert.Contains("DTSTART;TZID=\"Kiln yard; time\":20260312T190000", text, StringComparison.Ordinal);
        Assert.Equal(one.Time, Assert.Single(Samples.Read(text).Events).Time);
    }

    [Theory]
    [InlineData("TZOFFSETTO:+0320", "TZOFFSETTO:soon")]
    [InlineData("TZOFFSETTO:+0320", "TZOFFSETTO:+9900")]
    [InlineData("DTSTART:20200101T000000", "DTSTART:once")]
    [InlineData("DTSTART:20200101T000000", "DTSTART:20200101T000000\r\nRRULE:FREQ=SECONDLY")]
    public void A_definition_that_cannot_be_followed_is_said(string line, string wrong)
    {
        var file = Read("Kiln time", [.. NorthernSummerByFourHours.Select(one => one == line ? wrong : one)]);

        Assert.Equal("Europe/London", ZoneOf(file));
        Assert.Contains("nobody knows its time zone", Assert.Single(file.Findings).Why, StringComparison.Ordinal);
    }

    private static string ZoneOf(CalendarFileReading.Understood file) =>
        Assert.IsType<EventTime.Timed>(Assert.Single(file.Events).Time).Zone;

    private static CalendarFileReading.Understood Read(string name, string[] parts) =>
        Samples.Read(
            Samples.File_([
                "BEGIN:VTIMEZONE",
                $"TZID:{name}",
                .. parts,
                "END:VTIMEZONE",
                "BEGIN:VEVENT",
                "UID:one@example.org",
                "SUMMARY:Firing",
                $"DTSTART;TZID=\"{name}\":20260312T190000",
                $"DTEND;TZID=\"{name}\":20260312T200000",
                "END:VEVENT",
            ])
        );
}
