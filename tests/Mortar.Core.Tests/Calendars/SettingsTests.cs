using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Groups;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Calendars;

public class SettingsTests
{
    private static readonly CalendarSettings Fit = new(
        "Glaze tests",
        "Every tile",
        Hue.Lake,
        Mark.Drop,
        Studio.London,
        Purpose.Events,
        Role.None
    );

    [Fact]
    public void Fit_settings_have_no_problems_and_their_texts_are_made_safe()
    {
        var (settings, problems) = CalendarSettings.Check(Fit with { Name = " Glaze\u0000\ntests " }, Studio.Clock);

        Assert.Empty(problems);
        Assert.Equal("Glaze tests", settings.Name);
    }

    [Fact]
    public void Every_setting_that_cannot_be_is_named()
    {
        var bad = Fit with
        {
            Name = " \n",
            Description = new string('x', 2_001),
            Zone = "Mars/Base",
            GroupDefault = Role.Coordinate,
        };

        var (_, problems) = CalendarSettings.Check(bad, Studio.Clock);

        Assert.Equal(["name", "description", "zone", "groupDefault"], problems.Select(problem => problem.Path));
    }

    [Fact]
    public void A_name_is_not_longer_than_a_shelf_can_show() =>
        Assert.Equal(
            "name",
            Assert.Single(CalendarSettings.Check(Fit with { Name = new string('n', 81) }, Studio.Clock).Problems).Path
        );

    [Fact]
    public void A_group_has_a_name_a_zone_and_a_first_day()
    {
        Assert.Empty(
            GroupSettings
                .Check(new GroupSettings("Raku club", GroupSort.Club, Studio.London, IsoDayOfWeek.Monday), Studio.Clock)
                .Problems
        );
        Assert.Equal(
            ["name", "zone", "firstDay"],
            GroupSettings
                .Check(new GroupSettings("", GroupSort.Club, "Mars/Base", IsoDayOfWeek.None), Studio.Clock)
                .Problems.Select(problem => problem.Path)
        );
    }
}
