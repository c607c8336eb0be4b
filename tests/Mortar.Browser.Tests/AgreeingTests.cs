using Mortar.Server.Features.Demo;
using Mortar.Server.Tests;
using OpenQA.Selenium;
using Xunit;
using static Mortar.Browser.Tests.Screen;

namespace Mortar.Browser.Tests;

/// <summary>What waits for somebody's yes, and what others did that concerns one.</summary>
public class AgreeingTests
{
    [Fact]
    public async Task An_absence_is_proposed_and_agreed_to_with_the_cover_before_ones_eyes()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        ines.Open($"/roster/2026-03-16?desk=calendar~{DemoPeople.Stable("calendar Away")}~settings");
        ines.Click(Containing("label", "Those who coordinate it agree to each absence"));
        ines.Click("Save settings");
        ines.WaitForText("Changed the settings of “Away”");
        using var priya = new Screen(mortar.Url).SignIn(DemoPeople.Priya);
        priya.Open("/day/2026-03-18");
        priya.WaitForWall();
        priya.Press("n");
        priya.Find(By.CssSelector("aside select")).SendKeys("Away");
        priya.Pick("Away for", "the whole day");
        priya.WaitForText("Those who coordinate “Away” agree to it.");
        priya.WaitForText("Back on Thu 19");
        priya.Type("Title", "Family visit");
        Assert.Equal(string.Empty, priya.Axe());
        priya.Click(By.CssSelector("aside button[type=submit]"));
        priya.WaitForText("Added “Family visit” to Away.");

        ines.Find(By.XPath("//a[normalize-space()='Inbox 2']")).Click(); // live: the absence, and what collides with it
        ines.WaitForText("Priya Raman would like to be away: Wed 18 March, back on Thu 19");
        ines.Find(
            By.XPath(
                "//table[@aria-label='Cover on these days']//tr[contains(., 'Wed 18')][contains(., '5 of 6, too few')]"
            )
        );
        ines.WaitForText("Wed 18 March, 13:00: Priya Raman changed one of them.");
        Assert.Equal(string.Empty, ines.Axe());
        ines.Open($"/groups/{World.StudioTeam}/cover?month=2026-03");
        ines.Find(By.CssSelector("td[title^='Priya Raman is perhaps away on Wed 18 March']"));
        Assert.Equal(string.Empty, ines.Axe());
        ines.Open("/inbox");
        ines.Type("A word to them", "Tomasz minds the desk");
        ines.Click("Agree");
        ines.WaitForText("Agreed: Priya Raman is away.");
        ines.WaitGone(Containing("h2", "would like to be away"));

        priya.Open("/inbox");
        priya.WaitForText("Ines Varga agreed to “Family visit”, Wed 18 March. They write: “Tomasz minds the desk”");
        ines.Click("Undo");
        ines.WaitForText("Priya Raman would like to be away");
        ines.Click("Do not agree");
        ines.WaitForText("Not agreed: it is off the plan, and Priya Raman is told.");
        priya.WaitForText("Ines Varga did not agree to “Family visit”");
        Assert.Empty(ines.Complaints());
    }

    [Fact]
    public async Task A_whole_group_and_a_guest_are_named_and_the_list_is_kept_from_others()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();
        ines.Press("n");
        ines.Find(By.CssSelector("aside select")).SendKeys("Rota");
        ines.Type("Title", "Supplier");
        ines.Type("Who", "Nina Bell <nina@");
        ines.Click(Containing("button", "who is not in the group"));
        ines.WaitForText("Write one mail address, as nina@example.org");
        ines.Type("Who", "Nina Bell <nina@example.org>");
        ines.Click(Containing("button", "who is not in the group"));
        ines.Find(Named("button", "Take off Nina Bell"));
        ines.Click("Everybody in Studio team (6)");
        ines.Find(Named("button", "Take off Hanne Lind"));
        ines.Click(Containing("label", "Keep to yourself who is named"));
        Assert.Equal(string.Empty, ines.Axe());
        ines.Click(By.CssSelector("aside button[type=submit]"));
        ines.WaitForText("Added “Supplier” to Rota.");
        ines.Click(Brick("Supplier"));
        ines.Click("Ask these 6 whether they come");
        ines.WaitForText("Asked 6 people, by inbox and mail.");

        using var dele = new Screen(mortar.Url).SignIn(DemoPeople.Dele).Week();
        dele.Click(Brick("Supplier"));
        dele.WaitForText("Who is named is kept to those who may change it.");
        dele.WaitForText("Dele Okoro");
        Assert.False(dele.Has(By.XPath("//aside[contains(., 'Nina Bell') or contains(., 'Hanne Lind')]")));
        Assert.Equal(string.Empty, dele.Axe());

        ines.Open($"/groups/{World.StudioTeam}/people");
        ines.Find(By.XPath("//section[@aria-label='Guests'][contains(., 'nina@example.org')]"));
        Assert.Equal(string.Empty, ines.Axe());
        ines.Click(By.XPath("//section[@aria-label='Guests']//button"));
        ines.WaitForText("Took Nina Bell out.");
        ines.WaitGone(By.CssSelector("section[aria-label='Guests']"));
        ines.Click("Undo");
        ines.Find(By.CssSelector("section[aria-label='Guests']"));
        Assert.DoesNotContain(ines.Complaints(), one => !one.Contains("422", StringComparison.Ordinal)); // what was no address
    }
}
