using Mortar.Core.Access;
using Xunit;

namespace Mortar.Core.Tests.Access;

public class InvitationRulesTests
{
    [Theory]
    [InlineData(InvitationState.Waiting, true)]
    [InlineData(InvitationState.Accepted, false)]
    [InlineData(InvitationState.Declined, false)]
    [InlineData(InvitationState.Withdrawn, false)]
    public void Only_one_that_waits_can_be_answered(InvitationState state, bool open) =>
        Assert.Equal(open, state.IsOpen());

    [Theory]
    [InlineData(InvitationState.Accepted, "accepted already")]
    [InlineData(InvitationState.Declined, "send another")]
    [InlineData(InvitationState.Withdrawn, "taken back")]
    public void One_that_is_closed_says_why_and_what_to_do(InvitationState state, string words) =>
        Assert.Contains(words, state.WhyClosed(), StringComparison.Ordinal);

    [Fact]
    public void An_open_one_has_no_reason_to_be_closed() =>
        Assert.Throws<ArgumentOutOfRangeException>(() => InvitationState.Waiting.WhyClosed());
}
