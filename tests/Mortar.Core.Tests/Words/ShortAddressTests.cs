using Mortar.Core.Words;
using Xunit;

namespace Mortar.Core.Tests.Words;

public class ShortAddressTests
{
    [Theory]
    [InlineData("raku-club", "raku-club")]
    [InlineData("  Raku-Club ", "raku-club")]
    [InlineData("2026-fairs", "2026-fairs")]
    [InlineData("raku\u202Ebulc", "rakubulc")] // what turns the line around is left out
    public void A_name_is_kept_in_small_letters(string given, string kept)
    {
        var check = ShortAddress.Check(given);

        Assert.True(check.IsFit, string.Join(' ', check.Problems.Select(one => one.Sentence)));
        Assert.Equal(kept, check.Value);
    }

    [Theory]
    [InlineData(null)]
    [InlineData("")]
    [InlineData("ab")]
    [InlineData("a-name-that-has-forty-one-characters-in-it")]
    [InlineData("raku club")]
    [InlineData("raku_club")]
    [InlineData("raku.club")]
    [InlineData("raku/club")]
    [InlineData("ráku")]
    [InlineData("рaku")] // the first letter is Cyrillic
    [InlineData("🏺🏺🏺")]
    [InlineData("-raku")]
    [InlineData("raku-")]
    [InlineData("raku--club")]
    [InlineData("20260314")]
    [InlineData("0123456789abcdef0123456789abcdef")]
    [InlineData("admin")]
    [InlineData("support")]
    [InlineData("mortar-team")]
    [InlineData("m0rtar")]
    [InlineData("mor-tar")]
    [InlineData("rnortar")]
    [InlineData("your-password")]
    [InlineData("sign-in-here")]
    public void What_cannot_be_typed_or_could_mislead_is_refused_with_a_reason(string? given)
    {
        var check = ShortAddress.Check(given);

        Assert.Equal("name", Assert.Single(check.Problems).Path);
    }

    [Theory]
    [InlineData("raku-club", "rakuclub")]
    [InlineData("raku-club", "raku-c1ub")]
    [InlineData("kiln-street", "ki1n-5treet")]
    [InlineData("modern", "rnodern")]
    public void Names_that_look_alike_are_one(string one, string other) =>
        Assert.Equal(ShortAddress.Look(one), ShortAddress.Look(other));

    [Theory]
    [InlineData("Raku club", "raku-club")]
    [InlineData("Söndagskafé på Ö", "sondagskafe-pa-o")]
    [InlineData("Straße & Łódź", "strasse-lodz")]
    [InlineData("Ines’ class!", "ines-class")]
    [InlineData("🏺 Pots 🏺", "pots")]
    [InlineData("חוג קדרות", "")]
    public void A_title_has_a_name_near_to_it(string title, string name) => Assert.Equal(name, ShortAddress.Of(title));

    [Fact]
    public void A_long_title_is_cut_between_words() =>
        Assert.Equal(
            "all-the-weekend-fairs-of-the-raku-club",
            ShortAddress.Of("All the weekend fairs of the Raku club and its friends")
        );

    [Fact]
    public void What_is_offered_instead_can_be_had_and_is_near()
    {
        var instead = ShortAddress.Instead("raku", "Fairs", "Kiln Street Studio", 2026).ToList();

        Assert.All(instead, one => Assert.True(ShortAddress.Check(one).IsFit, one));
        Assert.Equal(instead.Distinct(), instead);
        Assert.Contains("kiln-street-studio-raku", instead);
        Assert.Contains("raku-2026", instead);
    }

    [Fact]
    public void Where_nothing_of_a_name_can_be_kept_the_group_helps_out() =>
        Assert.Contains("raku-club", ShortAddress.Instead("חוג", "🏺", "Raku club", 2026));
}
