using Microsoft.Extensions.DependencyInjection;
using Mortar.Server.Features.Demo;
using Mortar.Server.StandIns;
using Mortar.Server.Tests;
using NodaTime;
using OpenQA.Selenium;
using Xunit;
using static Mortar.Browser.Tests.Screen;

namespace Mortar.Browser.Tests;

/// <summary>A league's list is added from the web, moves by itself on everybody's wall, and says what is wrong on a bad day.</summary>
public class WebCalendarTests
{
    [Fact]
    public async Task A_list_of_the_web_is_looked_at_added_and_moves_by_itself()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock, Repository.Web);
        var host = mortar.Services.GetRequiredService<WebHost>();
        host.Fixtures[1] = new LocalDate(2026, 3, 12);
        using var priya = new Screen(mortar.Url).SignIn(DemoPeople.Priya).Week();
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();

        ines.Open("/week/2026-03-11?desk=newCalendar");
        ines.Click("From the web");
        ines.Type("Its address on the web", "http://127.0.0.1/league.ics");
        ines.Click("Look at it");
        ines.WaitForText("“127.0.0.1” is not found on the public web");
        Assert.Equal(string.Empty, ines.Axe());
        ines.Write("Its address on the web", $"http://{WebHost.Name}/league.ics");
        ines.Click("Look at it");
        ines.WaitForText("Harbour league");
        ines.WaitForText("12 March 2026");
        ines.Pick("Every member of Studio team gets", "View");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "web-look");
        ines.Click("Make the calendar");
        ines.WaitForText($"From {WebHost.Name}, as of");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "web-calendar");
        priya.Find(Brick("Match 1"));

        // It moves where it is kept, and then here, on whose wall it lies.
        host.Fixtures[1] = new LocalDate(2026, 3, 13);
        host.Fixtures[2] = new LocalDate(2026, 3, 10);
        clock.Now += Duration.FromMinutes(2);
        ines.Click("Fetch now");
        priya.Find(Brick("Match 2"));
        // Nobody takes it in hand.
        priya.Click(Brick("Match 2"));
        priya.WaitForText("Harbour league");
        Assert.False(priya.Has(Named("button", "Delete")));

        host.BadDay = "503";
        clock.Now += Duration.FromMinutes(2);
        ines.Click("Fetch now");
        ines.WaitForText($"“{WebHost.Name}” asks to be left alone for a while.");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "web-failing");
        priya.Find(Brick("Match 1"));
        priya.Open("/week/2026-03-11");
        priya.WaitForWall();
        priya.Find(By.CssSelector("[data-layer='Harbour league'] [aria-label^='not fetched from the web since']"));
        priya.Choose(Named("button", "More for Harbour league"), "Only this one");
        Shot(priya, "web-failing-layer");
    }
}
