using Mortar.Core.WebCalendars;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.WebCalendars;

/// <summary>When a calendar of the web is fetched again.</summary>
public class FetchRhythmTests
{
    private static readonly Instant Now = Instant.FromUtc(2026, 3, 11, 9, 0);

    [Theory]
    [InlineData(null, 240)]
    [InlineData(-5, 240)]
    [InlineData(1, 15)]
    [InlineData(30, 30)]
    [InlineData(1_440, 1_440)]
    [InlineData(100_000, 1_440)]
    public void It_is_fetched_as_often_as_it_asks_for_within_bounds(int? asked, int minutes) =>
        Assert.Equal(
            Duration.FromMinutes(minutes),
            FetchRhythm.Every(asked is { } wish ? Duration.FromMinutes(wish) : null)
        );

    [Theory]
    [InlineData(null, null)]
    [InlineData(0, 60)]
    [InlineData(45, 15)]
    [InlineData(60, null)]
    [InlineData(-3_600, null)] // the clock was put back
    public void Who_asks_for_it_now_waits_a_minute_after_the_last_who_did(int? secondsAgo, int? wait) =>
        Assert.Equal(
            wait is { } seconds ? Duration.FromSeconds(seconds) : null,
            FetchRhythm.WhyNotNow(secondsAgo is { } ago ? Now - Duration.FromSeconds(ago) : null, null, Now)?.Wait
        );

    [Theory]
    [InlineData(0, 0)]
    [InlineData(FetchRhythm.Much - 1, 0)]
    [InlineData(FetchRhythm.Much, 4)]
    [InlineData(FetchRhythm.VeryMuch, 24)]
    [InlineData(20_000, 24)]
    public void One_in_which_very_much_is_another_is_left_alone_for_a_while(int lost, int hours) =>
        Assert.Equal(Duration.FromHours(hours), FetchRhythm.Rest(lost));

    [Theory]
    [InlineData(-1, null)]
    [InlineData(0, null)]
    [InlineData(1, 1)]
    [InlineData(1_440, 1_440)]
    [InlineData(1_441, null)] // the clock was put back
    public void Meanwhile_nobody_has_it_fetched(int restsFor, int? wait) =>
        Assert.Equal(
            wait is { } minutes ? Duration.FromMinutes(minutes) : null,
            FetchRhythm.WhyNotNow(Now - Duration.FromHours(1), Now + Duration.FromMinutes(restsFor), Now)?.Wait
        );

    [Theory]
    [InlineData(0, null, 60)]
    [InlineData(1, null, 15)]
    [InlineData(2, null, 30)]
    [InlineData(3, null, 60)]
    [InlineData(7, null, 960)]
    [InlineData(8, null, 1_440)]
    [InlineData(1_000, null, 1_440)]
    [InlineData(1, 120, 120)]
    [InlineData(4, 5, 120)]
    [InlineData(1, 100_000, 1_440)]
    public void After_each_failure_the_wait_is_longer(int failures, int? asked, int minutes) =>
        Assert.Equal(
            Now + Duration.FromMinutes(minutes),
            FetchRhythm.Next(
                Now,
                Duration.FromHours(1),
                failures,
                asked is { } wish ? Duration.FromMinutes(wish) : null
            )
        );
}
