using System.Text;
using Mortar.Formats.ICalendar;
using NodaTime;
using Xunit;

namespace Mortar.Formats.Tests;

/// <summary>What a file says of itself and not of an event (RFC 7986, 5).</summary>
public class CalendarHeadTests
{
    [Theory]
    [InlineData("REFRESH-INTERVAL;VALUE=DURATION:P1W", 7 * 24 * 60)] // the example of RFC 7986, 5.7
    [InlineData("REFRESH-INTERVAL;VALUE=DURATION:PT15M", 15)]
    [InlineData("X-PUBLISHED-TTL:PT1H", 60)]
    [InlineData("X-PUBLISHED-TTL:PT1H\r\nREFRESH-INTERVAL;VALUE=DURATION:PT2H", 120)]
    [InlineData("REFRESH-INTERVAL;VALUE=DURATION:P1M", null)]
    [InlineData("REFRESH-INTERVAL;VALUE=DURATION:-PT1H", null)]
    [InlineData("REFRESH-INTERVAL;VALUE=DURATION:often", null)]
    [InlineData("VERSION:2.0", null)]
    public void It_asks_to_be_fetched_again(string lines, int? minutes) =>
        Assert.Equal(minutes is { } some ? Duration.FromMinutes(some) : null, Read(lines).Refresh);

    [Theory]
    [InlineData("DESCRIPTION:Every match\\, home and away", "Every match, home and away")]
    [InlineData("X-WR-CALDESC:Every match", "Every match")]
    [InlineData("X-WR-CALDESC:Older\r\nDESCRIPTION:Newer", "Newer")]
    [InlineData("VERSION:2.0", null)]
    public void It_is_described(string lines, string? description) =>
        Assert.Equal(description, Read(lines).Description);

    private static CalendarFileReading.Understood Read(string lines) =>
        Samples.Read(Encoding.UTF8.GetBytes($"BEGIN:VCALENDAR\r\n{lines}\r\nEND:VCALENDAR\r\n"));
}
