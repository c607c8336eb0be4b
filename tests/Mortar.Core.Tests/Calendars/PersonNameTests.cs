using Mortar.Core.Groups;
using Xunit;

namespace Mortar.Core.Tests.Calendars;

public class PersonNameTests
{
    [Theory]
    [InlineData(" Nina\tHolt ", "Nina Holt", true)]
    [InlineData("Ní \u0000Mháille", "Ní Mháille", true)]
    [InlineData("", "", false)]
    [InlineData(" \n ", "", false)]
    [InlineData(null, "", false)]
    public void A_name_is_one_line_and_not_empty(string? given, string name, bool fit)
    {
        var (clean, problems) = PersonName.Check(given);

        Assert.Equal(name, clean);
        Assert.Equal(fit, problems.Count == 0);
    }

    [Fact]
    public void A_name_that_is_too_long_says_how_long_it_is_and_may_be() =>
        Assert.Contains(
            "1 to 80",
            Assert.Single(PersonName.Check(new string('n', 81)).Problems).Sentence,
            StringComparison.Ordinal
        );
}
