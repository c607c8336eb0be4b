using Mortar.Core.Preferences;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Preferences;

public class PreferencesTests
{
    private static readonly PersonPreferences First = PersonPreferences.In(Studio.London);

    public static TheoryData<string, PersonPreferences> Wrong() =>
        new()
        {
            { "zone", First with { Zone = "Mars/Olympus" } },
            { "secondZone", First with { SecondZone = "Nowhere" } },
            { "firstDay", First with { FirstDay = IsoDayOfWeek.None } },
            { "locale", First with { Locale = "en_GB" } },
            { "locale", First with { Locale = new string('a', 36) } },
            { "dayEnds", First with { DayEnds = First.DayBegins } },
            { "eventMinutes", First with { EventMinutes = 4 } },
            { "eventMinutes", First with { EventMinutes = 1_441 } },
            { "quiet.to", First with { Quiet = new QuietHours(new LocalTime(20, 0), new LocalTime(20, 0)) } },
            {
                "told.asks.inbox",
                First with
                {
                    Told = new ToldTable { Asks = new NoticeWays(Inbox: false, Screen: true, MailWay.AtOnce) },
                }
            },
        };

    [Fact]
    public void Every_sort_of_thing_has_a_row_and_nothing_is_kept_from_an_inbox_at_first() =>
        Assert.All(Enum.GetValues<NoticeTopic>(), topic => Assert.True(First.Told.Of(topic).Inbox));

    [Fact]
    public void What_somebody_begins_with_is_fit() => Assert.Empty(First.Check(Studio.Clock).Problems);

    [Theory]
    [MemberData(nameof(Wrong))]
    public void What_is_wrong_is_named_by_field(string field, PersonPreferences wrong) =>
        Assert.Equal(field, Assert.Single(wrong.Check(Studio.Clock).Problems).Path);

    [Theory]
    [InlineData("")]
    [InlineData("en-GB")]
    [InlineData("zh-Hant-TW")]
    public void A_language_is_named_as_the_web_names_it(string locale) =>
        Assert.Empty((First with { Locale = locale, SecondZone = "America/Halifax" }).Check(Studio.Clock).Problems);
}
