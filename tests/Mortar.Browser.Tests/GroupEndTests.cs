using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Mortar.Server.Tests;
using OpenQA.Selenium;
using Xunit;
using static Mortar.Browser.Tests.Screen;

namespace Mortar.Browser.Tests;

/// <summary>A term is over: the group goes to rest, is read, woken, and goes to the bin and back.</summary>
public class GroupEndTests
{
    [Fact]
    public async Task A_term_goes_to_rest_is_read_there_and_woken_and_goes_to_the_bin_and_back()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        using var hers = await mortar.As(DemoPeople.Priya);
        var (group, calendar) = (Guid.CreateVersion7(), new CalendarId(Guid.CreateVersion7()));
        (
            await api.Put(
                $"/api/groups/{group}",
                new
                {
                    name = "Spring term",
                    sort = "class",
                    zone = "Europe/London",
                    firstDay = "monday",
                }
            )
        ).Is(200);
        (
            await api.Put(
                $"/api/groups/{group}/members",
                new { people = new[] { new { id = DemoPeople.Priya.Id.Value, name = DemoPeople.Priya.Name } } }
            )
        ).Is(200);
        await hers.SayYes(group);
        (
            await api.Put(
                $"/api/calendars/{calendar.Value}",
                World.Calendar("Wheel course", groupDefault: "view", group: group)
            )
        ).Is(200);
        await api.MakeEvent(calendar, "Centring");
        using var priya = new Screen(mortar.Url).SignIn(DemoPeople.Priya).Week();
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        priya.Find(Brick("Centring"));

        ines.Open($"/groups/{group}");
        ines.Click("Put the group to rest");
        ines.WaitForText("Wheel course leaves the walls of its 2 members");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "group-to-rest");
        ines.Click("Put to rest");
        ines.WaitForText("“Spring term” is at rest.");
        priya.WaitGone(Brick("Centring"));

        // It is found again in the menu, and read without anything to take in hand.
        priya.Choose(By.XPath("//header//button[@aria-haspopup='menu'][1]"), "○ Spring term");
        priya.WaitForText("is at rest since");
        priya.Find(Brick("Centring"));
        Assert.Equal(string.Empty, priya.Axe());
        Shot(priya, "group-at-rest");
        priya.Click(Brick("Centring"));
        priya.WaitForText("“Centring”, Thu 12 March");
        priya.Press("n");
        priya.WaitForText("is at rest: whoever coordinates it wakes it");
        Assert.False(priya.Has(Named("button", "Wake it")));

        ines.Open($"/week/2026-03-11?group={group}");
        ines.Click("Wake it");
        ines.WaitForText("is at work again");
        ines.WaitGone(Named("button", "Wake it"));
        priya.WaitGone(By.CssSelector("section[aria-label='Group at rest']"));
        priya.Find(Brick("Centring"));

        Assert.Equal(string.Empty, string.Join("\n", ines.Complaints().Concat(priya.Complaints())));
        ines.Open($"/groups/{group}");
        ines.Click("Put the group in the bin");
        ines.Write("Type its name: Spring term", "spring term");
        ines.Click("Put in the bin");
        ines.WaitForText("A group with 1 calendar");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "group-in-bin");
        priya.WaitGone(Brick("Centring"));
        ines.Click(Containing("button", "Bring back"));
        ines.WaitForText("“Spring term” is back");
        priya.Find(Brick("Centring"));
        // What a screen was asking of the group just as it went is not there; nothing else went wrong.
        Assert.All(
            ines.Complaints().Concat(priya.Complaints()),
            one =>
            {
                Assert.Contains($"/api/groups/{group}", one, StringComparison.Ordinal);
                Assert.Contains("404", one, StringComparison.Ordinal);
            }
        );
    }
}
