using Mortar.Core.Time;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Time;

public class ElapsedTests
{
    private static readonly Instant Noon = Instant.FromUtc(2026, 3, 11, 12, 0);

    [Theory]
    [InlineData(-61, true)]
    [InlineData(-60, true)]
    [InlineData(-59, false)]
    [InlineData(0, false)]
    [InlineData(1, true)] // the clock was put back meanwhile
    [InlineData(3600, true)]
    public void A_minute_is_over_when_it_is_and_when_nobody_can_know(int since, bool isOver) =>
        Assert.Equal(isOver, Elapsed.Has(Duration.FromMinutes(1), Noon + Duration.FromSeconds(since), Noon));
}
