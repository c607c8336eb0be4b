using Mortar.Core.Letters;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Letters;

public class MailLifeTests
{
    private static readonly Instant Noon = Instant.FromUtc(2026, 3, 11, 12, 0);

    [Fact]
    public void Pauses_grow_and_end()
    {
        var ofMail = Enumerable.Range(1, 40).Select(tries => MailLife.Next(tries, Noon) - Noon).ToList();
        var ofLine = Enumerable.Range(1, 40).Select(MailLife.LinePause).ToList();

        Assert.Equal([2, 4, 8, 16], ofMail.Take(4).Select(pause => pause.TotalSeconds));
        Assert.Equal([0.5, 1, 2, 4], ofLine.Take(4).Select(pause => pause.TotalSeconds));
        Assert.All([ofMail, ofLine], pauses => Assert.Equal(pauses.Order(), pauses));
        Assert.Equal(MailLife.LongestPause, ofMail[^1]);
        Assert.Equal(Duration.FromMinutes(1), ofLine[^1]);
    }

    [Theory]
    [InlineData(1, MailRank.Awaited)]
    [InlineData(5, MailRank.Awaited)]
    [InlineData(6, MailRank.ToMany)]
    public void What_goes_to_a_crowd_lets_the_others_go_first(int atOnce, MailRank rank) =>
        Assert.Equal(rank, MailRanks.Of(atOnce));
}
