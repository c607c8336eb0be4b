using Mortar.Core.Availability;
using Xunit;

namespace Mortar.Core.Tests.Availability;

public class GapWishTests
{
    private static readonly GapWish Fit = new(Asked: 4, Minutes: 90, Before: 0, After: 15, Any: null, Among: 0);

    public static TheoryData<string?, GapWish> Wishes() =>
        new()
        {
            { null, Fit },
            { null, Fit with { Asked = 500, Minutes = 5, Before = 1_440, After = 1_440 } },
            { null, Fit with { Minutes = 14 * 24 * 60, Any = 2, Among = GapPool.MostAmong } },
            { null, Fit with { Among = GapPool.MostAmong + 1 } }, // of whom nobody is asked for
            { "required", Fit with { Asked = 0 } },
            { "required", Fit with { Asked = 501 } },
            { "minutes", Fit with { Minutes = 4 } },
            { "minutes", Fit with { Minutes = (14 * 24 * 60) + 1 } },
            { "before", Fit with { Before = -1 } },
            { "before", Fit with { After = 1_441 } },
            { "any", Fit with { Any = 0, Among = 3 } },
            { "any", Fit with { Any = 1, Among = GapPool.MostAmong + 1 } },
        };

    [Theory]
    [MemberData(nameof(Wishes))]
    public void What_can_be_asked_at_once_has_bounds(string? wrong, GapWish wish) =>
        Assert.Equal(wrong is null ? [] : [wrong], wish.Check().Problems.Select(problem => problem.Path));

    [Fact]
    public void All_that_is_wrong_is_named_at_once() =>
        Assert.Equal(
            ["required", "minutes", "before", "any"],
            new GapWish(Asked: 0, Minutes: 0, Before: -1, After: 0, Any: 0, Among: 0)
                .Check()
                .Problems.Select(problem => problem.Path)
        );
}
