using Mortar.Server.Features.Demo;
using Mortar.Server.Tests;
using OpenQA.Selenium;
using Xunit;
using static Mortar.Browser.Tests.Screen;

namespace Mortar.Browser.Tests;

/// <summary>
/// At 400 % a window of 1280 by 1024 is one of 320 by 256 CSS pixels, and a phone that is held across is hardly higher: nothing is
/// lost there, and nothing has to be scrolled two ways (WCAG 2.2, 1.4.10).
/// </summary>
public class ZoomTests
{
    /// <summary>How much of what scrolls in the page is seen, once one has scrolled to it.</summary>
    private const string Seen = """
        const main = document.querySelector('main')
        main.scrollIntoView()
        const box = (main.querySelector('[data-scroller]') ?? main).getBoundingClientRect()
        return Math.round(Math.min(box.bottom, innerHeight) - Math.max(box.top, 0))
        """;

    [Fact]
    public async Task At_four_hundred_per_cent_the_wall_is_read_and_changed()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url, 320, 256).SignIn(DemoPeople.Ines);
        foreach (var view in new[] { "Month", "Agenda", "Roster", "Day", "Week" })
        {
            ines.Show(view);
            ines.Find(By.CssSelector("[data-brick]"));
            Assert.Equal(320, ines.Script<long>("return document.documentElement.scrollWidth"));
            Assert.InRange(ines.Script<long>(Seen), 150, 256);
        }

        // What is over the wall and under it is there, further up and down.
        ines.Click("Clashes 3");
        ines.Find(By.CssSelector("aside"));
        ines.Click("Close the desk (Esc)");
        ines.Click("Sets");
        ines.Press(Keys.Escape);

        ines.Keys_(ines.Find(Brick("School visit")), Keys.Enter);
        ines.Click("Change");
        ines.Type("Title", "Visit of a school");
        ines.Click("Save");
        ines.Find(Brick("Visit of a school"));
        using var priya = await mortar.As(DemoPeople.Priya);
        Assert.Contains(
            await priya.Bricks(new(DemoPeople.Stable("calendar Classes"))),
            brick => brick.Text("title") == "Visit of a school"
        );
    }

    [Theory]
    [InlineData("/preferences")]
    [InlineData("/inbox")]
    [InlineData("/bin")]
    [InlineData("/history")]
    public async Task A_page_of_its_own_scrolls_as_a_whole(string page)
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url, 320, 256).SignIn(DemoPeople.Ines).Open(page);
        ines.Find(By.CssSelector("main h1"));

        Assert.Equal(320, ines.Script<long>("return document.documentElement.scrollWidth"));
        Assert.Equal(
            0,
            ines.Script<long>(
                "const main = document.querySelector('main'); return main.scrollHeight - main.clientHeight"
            )
        );
        Assert.Equal(string.Empty, ines.Axe());
    }
}
