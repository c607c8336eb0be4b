using Mortar.Core.Access;
using Mortar.Core.Words;
using Xunit;

namespace Mortar.Core.Tests.Access;

public class OpenAskTests
{
    private static readonly PersonId Me = new(Guid.NewGuid());
    private static readonly PersonId Mei = new(Guid.NewGuid());
    private static readonly PersonId OtherMei = new(Guid.NewGuid());
    private static readonly GroupId Raku = new(Guid.NewGuid());
    private static readonly GroupId OtherRaku = new(Guid.NewGuid());

    [Fact]
    public void An_address_is_whoever_has_it_and_no_name()
    {
        var found = new Namesakes(Mei, [OtherMei], [Raku]);

        Assert.Equal([new AskedParty(Mei, null)], OpenAsk.Means(Me, "mei@example.org", found).Value);
        Assert.Equal([new AskedParty(OtherMei, null)], OpenAsk.Means(Me, "Mei", found).Value);
    }

    [Fact]
    public void A_name_is_that_of_somebody_known_before_any_group()
    {
        Assert.Equal(
            [new AskedParty(Mei, null)],
            OpenAsk.Means(Me, "Raku", new Namesakes(AtAddress: null, [Mei], [Raku])).Value
        );
        Assert.Equal(
            [new AskedParty(null, Raku), new AskedParty(null, OtherRaku)],
            OpenAsk.Means(Me, "Raku", new Namesakes(AtAddress: null, [], [Raku, OtherRaku])).Value
        );
    }

    [Fact]
    public void Nobody_and_oneself_are_no_mistake()
    {
        foreach (
            var asked in new[]
            {
                OpenAsk.Means(Me, "nobody@example.org", new Namesakes(AtAddress: null, [], [])),
                OpenAsk.Means(Me, "me@example.org", new Namesakes(Me, [], [])),
                OpenAsk.Means(Me, "Nobody", new Namesakes(AtAddress: null, [], [])),
                OpenAsk.Means(Me, "Ines", new Namesakes(AtAddress: null, [Me], [])),
            }
        )
        {
            Assert.True(asked.IsFit);
            Assert.Empty(asked.Value);
        }
    }

    [Fact]
    public void Two_who_are_known_by_one_name_are_told_apart_by_address()
    {
        var two = OpenAsk.Means(Me, "Mei", new Namesakes(AtAddress: null, [Mei, OtherMei], []));

        var problem = Assert.Single(two.Problems);
        Assert.Equal(
            ("to", "2 people you know are called so. Use the address instead."),
            (problem.Path, problem.Sentence)
        );
        Assert.Equal(
            [new AskedParty(Mei, null)],
            OpenAsk.Means(Me, "Mei", new Namesakes(AtAddress: null, [Mei, Me], [])).Value
        );
        Assert.Equal("to", Assert.Single(OpenAsk.Means(Me, "", new Namesakes(AtAddress: null, [], [])).Problems).Path);
    }
}
