using Mortar.Core.Preferences;
using NodaTime;
using NodaTime.Text;
using Xunit;

namespace Mortar.Core.Tests.Preferences;

/// <summary>Hours in which nothing comes by itself, on the clock of whose they are.</summary>
public class QuietHoursTests
{
    private static readonly QuietHours Night = new(new LocalTime(20, 0), new LocalTime(7, 0));
    private static readonly QuietHours Noon = new(new LocalTime(12, 0), new LocalTime(14, 0));

    [Theory]
    // London is on UTC until 29 March 2026, 1:00, and an hour ahead of it until 25 October (tz database, rule EU).
    [InlineData("2026-03-11T19:59:59Z", null)]
    [InlineData("2026-03-11T20:00:00Z", "2026-03-12T07:00:00Z")]
    [InlineData("2026-03-12T06:59:59Z", "2026-03-12T07:00:00Z")]
    [InlineData("2026-03-12T07:00:00Z", null)]
    // The night in which an hour is left out, and the one that has an hour twice.
    [InlineData("2026-03-28T20:00:00Z", "2026-03-29T06:00:00Z")]
    [InlineData("2026-10-25T00:30:00Z", "2026-10-25T07:00:00Z")]
    [InlineData("2026-10-25T06:30:00Z", "2026-10-25T07:00:00Z")]
    public void A_night_goes_past_midnight(string now, string? until) =>
        Assert.Equal(At(until), Night.Until(At(now)!.Value, London));

    [Theory]
    [InlineData("2026-03-11T11:59:00Z", null)]
    [InlineData("2026-03-11T12:00:00Z", "2026-03-11T14:00:00Z")]
    [InlineData("2026-03-11T14:00:00Z", null)]
    public void Noon_is_within_a_day(string now, string? until) =>
        Assert.Equal(At(until), Noon.Until(At(now)!.Value, London));

    [Fact]
    public void Elsewhere_they_are_at_another_time() =>
        Assert.Equal(
            At("2026-03-12T11:00:00Z"),
            Night.Until(At("2026-03-12T01:00:00Z")!.Value, Studio.Zone("America/New_York")) // 21:00, an hour after 2:00 on 8 March
        );

    [Fact]
    public void In_them_nothing_is_shown_over_a_screen_and_else_what_one_chose()
    {
        var me = PersonPreferences.In(Studio.London) with { Quiet = Night };
        var (day, night) = (At("2026-03-11T09:00:00Z")!.Value, At("2026-03-11T21:00:00Z")!.Value);

        Assert.True(me.IsOnScreen(NoticeTopic.Plan, day, London));
        Assert.False(me.IsOnScreen(NoticeTopic.Keeping, day, London));
        Assert.False(me.IsOnScreen(NoticeTopic.Plan, night, London));
        Assert.True((me with { Quiet = null }).IsOnScreen(NoticeTopic.Plan, night, London));
    }

    private static DateTimeZone London => Studio.Zone(Studio.London);

    private static Instant? At(string? text) => text is null ? null : InstantPattern.General.Parse(text).Value;
}
