using Mortar.Server.Features.Demo;
using Mortar.Server.Tests;
using OpenQA.Selenium;
using Xunit;
using static Mortar.Browser.Tests.Screen;

namespace Mortar.Browser.Tests;

/// <summary>Who has no pointer gets everywhere, and is not sent the long way round (WCAG 2.2, 2.4.1 and 2.4.3).</summary>
public class KeyboardTests
{
    [Theory]
    [InlineData("/week/2026-03-11")]
    [InlineData("/print")]
    [InlineData("/preferences")]
    public async Task The_first_stop_leads_past_the_bar(string page)
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Open(page);
        ines.Find(By.CssSelector("main button, main input, main select"));
        var where = ines.Path;

        ines.Press(Keys.Tab);
        Assert.Equal("Skip the bar", ines.Script<string>("return document.activeElement.textContent"));
        ines.Find(Named("button", "Skip the bar"));
        Assert.Equal(string.Empty, ines.Axe());

        ines.Go(Keys.Enter);
        Assert.Equal("MAIN", ines.Script<string>("return document.activeElement.tagName"));
        ines.Go(Keys.Tab);
        Assert.True(ines.Script<bool>("return document.querySelector('main').contains(document.activeElement)"));
        Assert.Equal(where, ines.Path);
    }
}
