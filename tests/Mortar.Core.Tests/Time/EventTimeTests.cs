using Mortar.Core.Time;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Time;

public class EventTimeTests
{
    private static readonly LocalDateTime Nine = new(2026, 3, 12, 9, 0);

    [Fact]
    public void An_event_cannot_end_before_it_starts()
    {
        Assert.Throws<ArgumentOutOfRangeException>(() => EventTime.InZone(Nine, Nine.PlusMinutes(-1), Studio.London));
        Assert.Throws<ArgumentOutOfRangeException>(() => EventTime.OnEveryClock(Nine, Nine.PlusMinutes(-1)));
        Assert.Throws<ArgumentOutOfRangeException>(() => EventTime.Days(Nine.Date, Nine.Date.PlusDays(-1)));
    }

    [Fact]
    public void A_moment_takes_no_time()
    {
        var moment = EventTime.InZone(Nine, Nine, Studio.London);

        Assert.True(Studio.Clock.Span(moment, DateTimeZone.Utc).Duration == Duration.Zero);
    }

    [Fact]
    public void The_last_day_is_included()
    {
        var days = (EventTime.AllDay)EventTime.Days(new LocalDate(2026, 3, 18), new LocalDate(2026, 3, 20));

        Assert.Equal(3, days.DayCount);
        Assert.Equal(new LocalDateTime(2026, 3, 21, 0, 0), days.LocalEnd);
    }

    [Fact]
    public void Started_elsewhere_it_lasts_as_long()
    {
        var days = EventTime.Days(new LocalDate(2026, 2, 27), new LocalDate(2026, 3, 1));
        var hours = Studio.Hours(Nine, 90);

        Assert.Equal(
            EventTime.Days(new LocalDate(2028, 2, 27), new LocalDate(2028, 2, 29)),
            days.StartingAt(new LocalDateTime(2028, 2, 27, 0, 0))
        );
        Assert.Equal(Studio.Hours(Nine.PlusDays(7), 90), hours.StartingAt(Nine.PlusDays(7)));
    }

    [Theory]
    [InlineData(9, 0, true)] // starts with the window
    [InlineData(8, 60, false)] // ends as it starts
    [InlineData(8, 61, true)]
    [InlineData(8, 2000, true)] // across all of it
    [InlineData(10, 0, true)] // a moment inside
    public void A_window_is_touched_by_what_reaches_into_it(int hour, int minutes, bool expected)
    {
        // A window of days begins at midnight, so the hour 9 stands for midnight of the 12th.
        var window = new Window(Nine.Date, Nine.Date, DateTimeZone.Utc);
        var start = Nine.Date.AtMidnight().PlusHours(hour - 9).InUtc().ToInstant();

        Assert.Equal(expected, window.Touches(new Interval(start, start + Duration.FromMinutes(minutes))));
    }
}
