using Mortar.Core.Accounts;
using Mortar.Core.Words;
using Xunit;

namespace Mortar.Core.Tests.Accounts;

public class AccountEndTests
{
    private static readonly GroupLeft Kept = new("Studio", Others: 3, IsKept: true, [], []);

    public static TheoryData<string, GroupLeft, string[]> Groups() =>
        new()
        {
            { "others keep it", Kept, [] },
            { "nobody else is in it", Kept with { Others = 0, IsKept = false, Alone = ["Rota"] }, [] },
            { "nobody else coordinates it", Kept with { IsKept = false }, ["the group “Studio”"] },
            {
                "nor a calendar of it",
                Kept with
                {
                    IsKept = false,
                    Alone = ["Rota"],
                },
                ["the group “Studio”", "the calendar “Rota”"]
            },
            {
                "a calendar of it",
                Kept with
                {
                    Alone = ["Rota", "Away"],
                },
                ["the calendar “Rota”", "the calendar “Away”"]
            },
            {
                "nobody else is in it, and somebody from outside coordinates a calendar there",
                Kept with
                {
                    Others = 0,
                    IsKept = false,
                    OfOthers = ["Shared"],
                },
                ["“Shared” in “Studio”, which others coordinate"]
            },
        };

    [Theory]
    [MemberData(nameof(Groups))]
    public void What_nobody_else_would_keep_is_handed_on_first(string why, GroupLeft group, string[] toHandOn)
    {
        Assert.True(AccountEnd.ToHandOn([Kept, group]).SequenceEqual(toHandOn), why);
        var refusal = AccountEnd.WhyNot([Kept, group]);
        Assert.Equal(toHandOn.Length == 0, refusal is null);
        Assert.All(
            toHandOn,
            one => Assert.Contains(one, Assert.IsType<Refusal.AgainstRule>(refusal).Sentence, StringComparison.Ordinal)
        );
    }
}
