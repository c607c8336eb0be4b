using Mortar.Core.Access;
using Mortar.Core.Groups;
using Xunit;

namespace Mortar.Core.Tests.Groups;

public class MemberRulesTests
{
    /// <summary>A guest goes by whoever brought them while they are in the group, and by whoever coordinates it.</summary>
    [Theory]
    [InlineData(true, false, true, Verdict.Granted)]
    [InlineData(true, true, false, Verdict.Granted)]
    [InlineData(true, false, false, Verdict.Denied)]
    [InlineData(false, false, true, Verdict.Hidden)] // who left the group, and those they brought, have nothing to do with each other
    [InlineData(false, false, false, Verdict.Hidden)]
    public void To_take_out_a_guest(bool isMember, bool coordinates, bool broughtThem, Verdict verdict) =>
        Assert.Equal(
            verdict,
            MemberRules.ToEndGuest(
                isMember,
                coordinates,
                Studio.Priya,
                addedBy: broughtThem ? Studio.Priya : Studio.Ines
            )
        );

    [Fact]
    public void A_guest_who_is_not_there_was_brought_by_nobody() =>
        Assert.Equal(
            Verdict.Denied,
            MemberRules.ToEndGuest(isMember: true, coordinates: false, Studio.Priya, addedBy: null)
        );
}
