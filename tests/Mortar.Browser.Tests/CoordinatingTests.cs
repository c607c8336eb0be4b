using Mortar.Server.Features.Demo;
using Mortar.Server.Tests;
using OpenQA.Selenium;
using Xunit;
using static Mortar.Browser.Tests.Screen;

namespace Mortar.Browser.Tests;

/// <summary>The coordinator's questions: when can they all, who is free then, what collides.</summary>
public class CoordinatingTests
{
    private static readonly By Gaps = By.CssSelector("section[aria-label='Gaps found'] li button");

    [Fact]
    public async Task A_gap_is_found_lit_in_every_view_and_filled_in()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        ines.Show("Roster");
        ines.WaitForText("Together");
        Shot(ines, "together");

        ines.Press("f");
        ines.Find(Gaps);
        ines.Click("Leave Hanne Lind out");
        ines.Click("Leave Mei Sato out");
        ines.WaitForText("Of Priya Raman only what lies on your layers is known.");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "gaps-roster");
        foreach (var view in new[] { "Week", "Day", "Month", "Agenda" })
        {
            ines.Show(view);
            if (view == "Day")
            {
                ines.Press("]"); // there is no gap today any more
            }

            ines.Find(By.CssSelector("[data-lit=true]"));
            Assert.Equal(string.Empty, ines.Axe());
            Shot(ines, $"gaps-{view}");
        }

        ines.Show("Week");
        ines.Pick("For", "2 h");
        ines.Find(By.CssSelector("[data-lit=true]"));
        var words = ines.Find(Gaps).Text.Split('\n')[0];
        ines.Click(Gaps);
        ines.WaitForText("goes to");
        Shot(ines, "gap-taken");
        ines.Type("Title", "Autumn plan");
        ines.Click(By.CssSelector("aside button[type=submit]"));
        ines.WaitForText("Added “Autumn plan”");
        Assert.Contains(words.Split(' ')[1], ines.Text(Brick("Autumn plan")), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Who_is_free_is_answered_by_two_presses_on_a_phone()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        ines.Resize(390, 844);
        ines.Open("/day/2026-03-12");
        ines.WaitForWall();

        ines.Click("Free?"); // one
        ines.WaitForText("of 6 are free");
        ines.PressAt(200, 380); // two
        ines.WaitForText("Thu 12 March, 08:15 – 09:15");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "free-phone");
    }

    [Fact]
    public async Task Who_is_free_is_asked_by_typing_and_leads_on()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();
        ines.Press("w");
        ines.WaitForText("Who is free?");
        ines.Find(By.CssSelector("input[aria-label='A day, a time and names']"))
            .SendKeys($"thu 14:00 priya tomasz{Keys.Enter}");
        ines.WaitForText("1 of 2 is free");
        ines.WaitForText("Unload, Glaze testing");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "free");

        ines.Find(By.CssSelector("input[aria-label='A day, a time and names']")).SendKeys($"thu quentin{Keys.Enter}");
        ines.WaitForText("“quentin” is no day, time or name here.");
        ines.Click(Containing("button", "Next for them"));
        ines.WaitForText("2 of 2 are free");
        ines.Click("Make an event then");
        ines.WaitForText("goes to");
        ines.Find(By.CssSelector("button[aria-label='Take off Priya Raman']"));
        ines.Find(By.CssSelector("button[aria-label='Take off Tomasz Wilk']"));
    }

    [Fact]
    public async Task A_clash_is_resolved_by_the_offered_move_and_another_marked_as_fine()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();
        ines.WaitForText("Clashes 3");
        ines.Press("k");
        ines.WaitForText("in the eight weeks ahead");
        ines.WaitForText("Priya Raman taken twice");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "clashes");

        ines.Click(By.XPath("//li[contains(., 'Priya Raman')]//li[contains(., 'Glaze testing')]//button[.='Move it']"));
        ines.Click(Containing("button", "to Thu 12 March, 14:30"));
        ines.Find(By.XPath("//*[@data-hand='carried'][contains(., '14:30 to 16:00')]")); // drawn before it is saved
        ines.WaitForText("Priya Raman is free then.");
        Shot(ines, "clash-move");
        ines.Click("Save");
        ines.WaitForText("Changed “Glaze testing”.");
        ines.WaitForText("Clashes 2");

        ines.Press("k");
        ines.Click("It is fine");
        ines.WaitForText("Marked as fine, until one of the two changes.");
        ines.WaitForText("Clashes 1");
        Assert.Empty(ines.Complaints());
    }

    private static void Shot(Screen screen, string name)
    {
        if (Environment.GetEnvironmentVariable("SHOTS") is { } folder)
        {
            Directory.CreateDirectory(folder);
            screen.Photograph(Path.Combine(folder, $"{name}.png"));
        }
    }
}
