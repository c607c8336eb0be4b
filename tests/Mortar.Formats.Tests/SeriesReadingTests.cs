using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Formats.ICalendar;
using NodaTime;
using Xunit;

namespace Mortar.Formats.Tests;

/// <summary>Series of files in full: changes that reach on, periods, rules that leave out, lengths in days.</summary>
public class SeriesReadingTests
{
    private static readonly Window March = new(
        new LocalDate(2026, 3, 1),
        new LocalDate(2026, 4, 5),
        DateTimeZoneProviders.Tzdb["Europe/London"]
    );

    private static readonly string[] Thursdays =
    [
        "BEGIN:VEVENT",
        "UID:thursdays@example.org",
        "SUMMARY:Throwing",
        "DTSTART;TZID=Europe/London:20260305T190000",
        "DTEND;TZID=Europe/London:20260305T210000",
        "RRULE:FREQ=WEEKLY;COUNT=5",
        "END:VEVENT",
    ];

    /// <summary>RFC 5545, 3.2.13: the change applies to the given occurrence and all after it.</summary>
    [Fact]
    public void A_change_that_reaches_on_moves_lengthens_and_renames_all_later_ones()
    {
        string[] changed =
        [
            "BEGIN:VEVENT",
            "UID:thursdays@example.org",
            "SUMMARY:Late throwing",
            "RECURRENCE-ID;RANGE=THISANDFUTURE;TZID=Europe/London:20260319T190000",
            "DTSTART;TZID=Europe/London:20260320T200000",
            "DTEND;TZID=Europe/London:20260320T230000",
            "END:VEVENT",
            "BEGIN:VEVENT",
            "UID:thursdays@example.org",
            "SUMMARY:Back on Thursday once",
            "RECURRENCE-ID;TZID=Europe/London:20260326T190000",
            "DTSTART;TZID=Europe/London:20260326T190000",
            "DTEND;TZID=Europe/London:20260326T200000",
            "END:VEVENT",
        ];

        Assert.Equal(
            [
                "2026-03-05T19:00:00 2026-03-05T21:00:00 Throwing",
                "2026-03-12T19:00:00 2026-03-12T21:00:00 Throwing",
                "2026-03-20T20:00:00 2026-03-20T23:00:00 Late throwing",
                "2026-03-26T19:00:00 2026-03-26T20:00:00 Back on Thursday once",
                "2026-04-03T20:00:00 2026-04-03T23:00:00 Late throwing",
            ],
            Expand([.. Thursdays, .. changed])
        );
    }

    [Fact]
    public void A_change_that_reaches_on_is_written_as_such()
    {
        var file = Samples.Read(
            Samples.File_([
                .. Thursdays,
                "BEGIN:VEVENT",
                "UID:thursdays@example.org",
                "RECURRENCE-ID;RANGE=THISANDFUTURE;TZID=Europe/London:20260319T190000",
                "DTSTART;TZID=Europe/London:20260320T200000",
                "DTEND;TZID=Europe/London:20260320T230000",
                "END:VEVENT",
            ])
        );

        Assert.Equal(file.Events[0].Series, Again(file.Events[0], source: null).Series);
        Assert.Equal(file.Events[0].Series, Again(file.Events[0], file.Events[0].Source).Series);
    }

    [Fact]
    public void Extra_dates_can_be_days_times_and_periods_of_their_own_length()
    {
        string[] dates =
        [
            "BEGIN:VEVENT",
            "UID:dates@example.org",
            "SUMMARY:Glazing",
            "DTSTART;TZID=Europe/London:20260305T190000",
            "DTEND;TZID=Europe/London:20260305T210000",
            "RDATE;VALUE=DATE:20260310",
            "RDATE;TZID=Europe/London:20260311T100000",
            "RDATE;VALUE=PERIOD;TZID=Europe/London:20260312T100000/PT30M,20260313T100000/20260313T180000",
            "RDATE;VALUE=PERIOD:20260330T090000Z/PT1H",
            "END:VEVENT",
        ];

        Assert.Equal(
            [
                "2026-03-05T19:00:00 2026-03-05T21:00:00 Glazing",
                "2026-03-10T19:00:00 2026-03-10T21:00:00 Glazing",
                "2026-03-11T10:00:00 2026-03-11T12:00:00 Glazing",
                "2026-03-12T10:00:00 2026-03-12T10:30:00 Glazing",
                "2026-03-13T10:00:00 2026-03-13T18:00:00 Glazing",
                "2026-03-30T10:00:00 2026-03-30T11:00:00 Glazing",
            ],
            Expand(dates)
        );

        var read = Samples.Read(Samples.File_(dates)).Events[0];
        Assert.Equal(read.Series, Again(read, read.Source).Series);
        Assert.Equal(read.Series, Again(read, source: null).Series);
    }

    /// <summary>EXRULE of RFC 2445, 4.8.5.2, which RFC 5545 has given up; older files have it.</summary>
    [Fact]
    public void A_rule_that_leaves_out_is_followed() =>
        Assert.Equal(
            ["2026-03-12T19:00:00", "2026-03-19T19:00:00", "2026-03-26T19:00:00"],
            Expand([.. Thursdays.SkipLast(1), "EXRULE:FREQ=MONTHLY;BYDAY=1TH", "END:VEVENT"]).Select(one => one[..19])
        );

    [Fact]
    public void Two_rules_are_laid_together() =>
        Assert.Equal(
            ["2026-03-05", "2026-03-10", "2026-03-12", "2026-03-19", "2026-03-26", "2026-04-02"],
            Expand([.. Thursdays.SkipLast(1), "RRULE:FREQ=MONTHLY;BYDAY=2TU;UNTIL=20260401T000000Z", "END:VEVENT"])
                .Select(one => one[..10])
        );

    [Fact]
    public void Hours_of_a_duration_are_exact_and_its_days_are_days()
    {
        string[] series =
        [
            "BEGIN:VEVENT",
            "UID:fairs@example.org",
            "SUMMARY:Fair",
            "DTSTART;TZID=Europe/London:20260321T180000",
            "DURATION:P1DT2H",
            "RRULE:FREQ=WEEKLY;COUNT=2",
            "END:VEVENT",
        ];

        Assert.Equal(
            ["2026-03-21T18:00:00 2026-03-22T20:00:00 Fair", "2026-03-28T18:00:00 2026-03-29T20:00:00 Fair"],
            Expand(series)
        );
        var read = Samples.Read(Samples.File_(series)).Events[0];
        Assert.Equal(1, read.Series!.NominalDays);
        Assert.Equal(read.Series, Again(read, source: null).Series);
    }

    [Fact]
    public void A_whole_day_can_be_changed_to_hours_and_hours_to_a_whole_day() =>
        Assert.Equal(
            [
                "2026-03-05T19:00:00 2026-03-05T21:00:00 Throwing",
                "2026-03-12 2026-03-13 Open day",
                "2026-03-19T19:00:00 2026-03-19T21:00:00 Throwing",
                "2026-03-26T19:00:00 2026-03-26T21:00:00 Throwing",
                "2026-04-02T19:00:00 2026-04-02T21:00:00 Throwing",
            ],
            Expand([
                .. Thursdays,
                "BEGIN:VEVENT",
                "UID:thursdays@example.org",
                "SUMMARY:Open day",
                "RECURRENCE-ID;TZID=Europe/London:20260312T190000",
                "DTSTART;VALUE=DATE:20260312",
                "END:VEVENT",
            ])
        );

    private static IEnumerable<string> Expand(params string[] lines) =>
        FileExpansion
            .Of(Samples.Read(Samples.File_(lines)), March, Samples.Clock)
            .Occurrences.Select(one => $"{one.Start} {one.End} {one.Summary}");

    private static FileEvent Again(FileEvent one, string? source)
    {
        var whole = new Event(default, default, one.Uid, default, one.Time, one.Content, one.Series, Version: 1);
        var text = CalendarFileWriter.Write(
            new FileHead("Studio", string.Empty, "Europe/London"),
            [new EventToWrite(whole, source)],
            Samples.Nobody,
            Samples.Now,
            Samples.Clock
        );
        return Assert.Single(Samples.Read(text).Events);
    }
}
