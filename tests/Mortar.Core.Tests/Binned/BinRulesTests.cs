using Mortar.Core.Access;
using Mortar.Core.Binned;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Binned;

public class BinRulesTests
{
    private static readonly Instant Now = Instant.FromUtc(2026, 3, 11, 11, 12);

    [Fact]
    public void The_bin_keeps_for_thirty_days()
    {
        Assert.True(BinRules.IsKept(Now, Now + Duration.FromDays(30) - Duration.Epsilon));
        Assert.False(BinRules.IsKept(Now, Now + Duration.FromDays(30)));
    }

    [Theory]
    [InlineData(" big  KILN ", true)]
    [InlineData("kiln", false)]
    [InlineData("", false)]
    [InlineData(null, false)]
    public void A_name_is_taken_as_it_is_said(string? typed, bool expected) =>
        Assert.Equal(expected, BinRules.Check("Big kiln", typed, "its name").IsFit);

    [Fact]
    public void What_has_to_be_typed_is_named()
    {
        var problem = Assert.Single(BinRules.Check("Big kiln", "", "this to have it go for good").Problems);

        Assert.Equal("Type this to have it go for good: Big kiln", problem.Sentence);
    }

    [Theory]
    [InlineData("Celadon", "Celadon")]
    [InlineData(" ", "Glaze tests")] // untitled
    public void One_thing_is_called_by_its_title(string title, string spoken) =>
        Assert.Equal(spoken, BinRules.Spoken([title], "Glaze tests"));

    [Fact]
    public void Several_are_called_by_their_calendar() =>
        Assert.Equal("Glaze tests", BinRules.Spoken(["Celadon", "Tenmoku"], "Glaze tests"));

    [Fact]
    public void Only_who_coordinates_takes_out_for_good()
    {
        foreach (var role in Enum.GetValues<Role>())
        {
            Assert.Equal(
                role == Role.None ? Verdict.Hidden
                    : role == Role.Coordinate ? Verdict.Granted
                    : Verdict.Denied,
                BinRules.ToErase(role)
            );
        }
    }
}
