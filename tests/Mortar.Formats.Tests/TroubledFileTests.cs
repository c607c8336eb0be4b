using Mortar.Core.Time;
using Mortar.Formats.ICalendar;
using Xunit;

namespace Mortar.Formats.Tests;

/// <summary>A file with everything wrong in it: each trouble is named with its line, and the rest is taken.</summary>
public class TroubledFileTests
{
    private static readonly CalendarFileReading.Understood File = Samples.Read(Samples.Bytes("troubled.ics"));

    [Theory]
    [InlineData("“Ends before it starts”", "it ends before it starts")]
    [InlineData("“No start”", "it has no start (DTSTART)")]
    [InlineData("“Start that is no date”", "its start “next Tuesday” is not a date or time from 1600 to 2400")]
    [InlineData("“Day and hour mixed”", "one of start and end is a whole day and the other is not")]
    [InlineData("“Twice, first”", "another event in the file has the same UID; the later one was taken")]
    [InlineData("1 × VTODO", "it is not an event, and only events are taken")]
    [InlineData("“Cut off in the mid”", "the file ends in the middle of it; it may not have been copied whole")]
    public void What_cannot_be_taken_is_left_out_with_the_reason(string what, string why)
    {
        var finding = Assert.Single(File.Findings, finding => finding.What == what);

        Assert.True(finding.LeftOut);
        Assert.Equal(why, finding.Why);
        Assert.True(finding.Line > 3);
    }

    [Theory]
    [InlineData(
        "“Zone nobody knows”",
        "nobody knows its time zone “Atlantis/Lost City”; its hours are read in the calendar's own zone"
    )]
    [InlineData(
        "“No UID”",
        "it has no usable UID; it gets one made from its content, so that the same file is known again"
    )]
    [InlineData(
        "“Rule that is none”",
        "its repetition (RRULE) is wrong at “FORTNIGHTLY”: SECONDLY to YEARLY expected; taken without it"
    )]
    [InlineData(
        "“Rule beyond us”",
        "it repeats by another calendar (RSCALE=HEBREW), which is kept but not shown; only its own date is on the wall"
    )]
    [InlineData("the line “this line is no property”", "it is not NAME:VALUE; the rest of the event was read")]
    [InlineData(
        "“Change to a series that is not here”",
        "it changes other occurrences too (RANGE=THISANDPRIOR, which the standard has given up); only this one is shown changed"
    )]
    public void What_is_not_understood_as_it_stands_is_taken_and_said(string what, string why)
    {
        var finding = Assert.Single(File.Findings, finding => finding.What == what);

        Assert.False(finding.LeftOut);
        Assert.Equal(why, finding.Why);
    }

    [Fact]
    public void The_rest_is_taken()
    {
        string[] taken =
        [
            "Zone nobody knows",
            "No UID",
            "Twice, second",
            "Rule that is none",
            "Rule beyond us",
            "<img src=x onerror=alert(1)> and \"quotes\"",
            "Change to a series that is not here",
        ];

        Assert.Equal(taken, File.Events.Select(one => one.Content.Title));
    }

    [Fact]
    public void Control_characters_are_taken_out_and_markup_is_left_to_be_shown() =>
        Assert.Equal("Bell and escape are taken out", Event("<img").Content.Notes);

    [Fact]
    public void The_same_file_without_uids_is_known_again() =>
        Assert.Equal(
            Event("No UID").Uid,
            Samples.Read(Samples.Bytes("troubled.ics")).Events.Single(one => one.Content.Title == "No UID").Uid
        );

    [Fact]
    public void Hours_in_an_unknown_zone_are_read_in_the_calendars_own() =>
        Assert.Equal("Europe/London", ((EventTime.Timed)Event("Zone").Time).Zone);

    [Fact]
    public void A_change_without_its_series_stands_by_itself()
    {
        var alone = Event("Change to");

        Assert.Single(alone.Series!.Overrides);
        Assert.Equal("10:00:00", alone.Time.LocalStart.TimeOfDay.ToString("HH:mm:ss", null));
        Assert.Equal("11:00:00", alone.Series.Overrides[0].Time.LocalStart.TimeOfDay.ToString("HH:mm:ss", null));
    }

    private static FileEvent Event(string beginning) =>
        File.Events.Single(one => one.Content.Title.StartsWith(beginning, StringComparison.Ordinal));
}
