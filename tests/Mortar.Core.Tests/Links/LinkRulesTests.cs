using Mortar.Core.Access;
using Mortar.Core.Links;
using Mortar.Core.Words;
using Xunit;

namespace Mortar.Core.Tests.Links;

public class LinkRulesTests
{
    [Theory]
    [InlineData(Role.Times, false, 0, "read without an account")]
    [InlineData(Role.Outline, false, 0, "read without an account")]
    [InlineData(Role.View, false, 0, "read without an account")]
    [InlineData(Role.View, true, 0, "read without an account")]
    [InlineData(Role.Add, false, 0, null)]
    [InlineData(Role.Edit, false, 0, null)]
    [InlineData(Role.Add, false, 99, null)]
    [InlineData(Role.Add, false, 100, "which is the most")]
    public void Accounts_are_made_where_one_may_write_and_so_many_in_a_day(
        Role role,
        bool isForOneEvent,
        int today,
        string? whyNot
    )
    {
        var refusal = new LinkTerms("Door", role, MostUses: null, EndsAt: null).WhyNotMakeAccount(isForOneEvent, today);

        Assert.Equal(whyNot is null, refusal is null);
        Assert.Contains(
            whyNot ?? string.Empty,
            (refusal as Refusal.AgainstRule)?.Sentence ?? string.Empty,
            StringComparison.Ordinal
        );
    }
}
