using Mortar.Core.Time;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Time;

/// <summary>Clock changes, with UTC instants worked out from the IANA database's transitions for 2026.</summary>
public class ZoneClockTests
{
    // Europe/London goes from UTC+0 to UTC+1 on 29 March 2026 at 01:00 UTC and back on 25 October at 01:00 UTC.
    [Theory]
    [InlineData("Europe/London", 2026, 3, 29, 0, 30, "2026-03-29T00:30:00Z")] // before the gap
    [InlineData("Europe/London", 2026, 3, 29, 1, 30, "2026-03-29T01:30:00Z")] // in the gap: the offset before it (RFC 5545, 3.3.5)
    [InlineData("Europe/London", 2026, 3, 29, 2, 30, "2026-03-29T01:30:00Z")] // after the gap
    [InlineData("Europe/London", 2026, 10, 25, 1, 30, "2026-10-25T00:30:00Z")] // twice: the first (RFC 5545, 3.3.5)
    [InlineData("Europe/London", 2026, 10, 25, 2, 30, "2026-10-25T02:30:00Z")]
    [InlineData("America/Halifax", 2026, 3, 8, 2, 15, "2026-03-08T06:15:00Z")] // in the gap of 8 March, UTC-4 before it
    [InlineData("Australia/Lord_Howe", 2026, 4, 5, 1, 45, "2026-04-04T14:45:00Z")] // twice, half an hour apart: the first, UTC+11
    [InlineData("Asia/Kathmandu", 2026, 6, 1, 12, 0, "2026-06-01T06:15:00Z")] // UTC+5:45
    public void A_local_time_has_one_instant(
        string zone,
        int year,
        int month,
        int day,
        int hour,
        int minute,
        string expected
    )
    {
        var instant = ZoneClock.At(new LocalDateTime(year, month, day, hour, minute), Studio.Zone(zone));

        Assert.Equal(expected, instant.ToString());
    }

    [Fact]
    public void An_event_that_lies_in_the_gap_takes_no_time_and_never_less()
    {
        var time = EventTime.InZone(
            new LocalDateTime(2026, 3, 29, 1, 0),
            new LocalDateTime(2026, 3, 29, 2, 0),
            Studio.London
        );

        var span = Studio.Clock.Span(time, DateTimeZone.Utc);

        Assert.Equal("2026-03-29T01:00:00Z", span.Start.ToString());
        Assert.Equal("2026-03-29T01:00:00Z", span.End.ToString());
    }

    [Fact]
    public void A_day_takes_as_long_as_it_has_hours_where_the_reader_is()
    {
        var time = EventTime.Days(new LocalDate(2026, 3, 29), new LocalDate(2026, 3, 29));

        Assert.Equal(Duration.FromHours(23), Studio.Clock.Span(time, Studio.Zone(Studio.London)).Duration);
        Assert.Equal(Duration.FromHours(24), Studio.Clock.Span(time, Studio.Zone("America/Halifax")).Duration);
    }

    [Fact]
    public void A_reader_elsewhere_sees_a_timed_event_on_their_own_clock()
    {
        var time = Studio.Hours(new LocalDateTime(2026, 3, 12, 16, 0), 120);

        var seen = Studio.Clock.AsSeenIn(time, Studio.Zone("America/Halifax"));

        Assert.Equal(Studio.Hours(new LocalDateTime(2026, 3, 12, 13, 0), 120, "America/Halifax"), seen);
    }

    [Fact]
    public void Whole_days_and_floating_times_are_the_same_for_every_reader()
    {
        var days = EventTime.Days(new LocalDate(2026, 3, 12), new LocalDate(2026, 3, 14));
        var floating = EventTime.OnEveryClock(
            new LocalDateTime(2026, 3, 12, 8, 0),
            new LocalDateTime(2026, 3, 12, 9, 0)
        );

        Assert.Equal(days, Studio.Clock.AsSeenIn(days, Studio.Zone("America/Halifax")));
        Assert.Equal(floating, Studio.Clock.AsSeenIn(floating, Studio.Zone("America/Halifax")));
    }

    [Fact]
    public void A_time_set_on_one_clock_is_kept_on_that_of_its_event()
    {
        var set = Studio.Hours(new LocalDateTime(2026, 3, 12, 16, 0), 60);

        var kept = Studio.Clock.KeptIn(set, "America/Halifax");

        Assert.Equal(Studio.Hours(new LocalDateTime(2026, 3, 12, 13, 0), 60, "America/Halifax"), kept);
    }
}
