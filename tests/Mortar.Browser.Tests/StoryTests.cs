using Mortar.Server.Features.Demo;
using Mortar.Server.Tests;
using OpenQA.Selenium;
using Xunit;
using static Mortar.Browser.Tests.Screen;

namespace Mortar.Browser.Tests;

/// <summary>A shared calendar from end to end: two people, one wall, each in a browser session of their own.</summary>
public class StoryTests
{
    [Fact]
    public async Task A_calendar_is_made_filled_given_shared_and_taken_back()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();

        MakeCalendar(ines);
        ImportAndUndo(ines);
        WorkOnTheWall(ines);
        Give(
            ines,
            "tomasz@example.org",
            "View",
            "Tomasz Wilk will see everything in “Glaze tests” and change nothing."
        );
        Give(
            ines,
            "priya@example.org",
            "Edit",
            "Priya Raman will see everything in “Glaze tests” and can add, change and delete any event."
        );
        Give(
            ines,
            "nina@example.org",
            "Outline",
            "nina@example.org will see titles and places in “Glaze tests”, not notes."
        );

        using var other = new Screen(mortar.Url);
        JoinByMail(other);
        Accept(other.Open().SignInAgain(DemoPeople.Tomasz));
        ReadOnly(other);
        using var priya = new Screen(mortar.Url).SignIn(DemoPeople.Priya);
        Accept(priya);
        HideAndShow(priya);

        priya.Move("Celadon", -1, 2);
        ines.WaitForBrick("Celadon", "12:00 to 14:30");
        Assert.Equal(
            "Somebody changed the wall.",
            ines.Script<string>("return document.querySelector('[data-news]').textContent")
        );
        EndAccess(ines, "Priya Raman");
        priya.WaitGone(Layer("Glaze tests"));
        Assert.False(priya.Has(Brick("Celadon")));

        Assert.Equal(string.Empty, string.Join("\n", ines.Complaints().Concat(priya.Complaints())));
        Assert.Empty(ines.RequestsElsewhere());
    }

    private static void MakeCalendar(Screen ines)
    {
        ines.Choose(Named("button", "Studio team"), "New calendar in Studio team");
        ines.Type("Name", "Glaze tests");
        ines.Type("Description", "Every tile, every cone.");
        Assert.Equal("Europe/London", ines.Find(Labelled("Time zone")).GetAttribute("value"));
        ines.Pick("Time zone", "Europe/Dublin");
        Assert.Equal("view", ines.Find(Labelled("Every member of Studio team gets")).GetAttribute("value"));
        ines.Pick("Every member of Studio team gets", "nothing, until they are given it");
        ines.Click("Make the calendar");
        ines.Find(Layer("Glaze tests"));
        ines.WaitForText("Made the calendar “Glaze tests”.");
    }

    private static void ImportAndUndo(Screen ines)
    {
        ines.Choose(Named("button", "More for Glaze tests"), "Import a file");
        ines.Find(By.CssSelector("input[type=file]"))
            .SendKeys(Path.Combine(AppContext.BaseDirectory, "Samples", "troubled.ics"));
        ines.WaitForText("7, 2 of them series");
        ines.WaitForText("it ends before it starts");
        Assert.False(ines.Has(Brick("Zone nobody knows")));
        ines.Click("Import 7 into Glaze tests");
        ines.WaitForText("Imported 7 into “Glaze tests”.");
        ines.Find(Brick("Zone nobody knows"));
        // Markup in a title is text on a brick, and nothing it asks for happens.
        ines.Find(By.XPath("//*[@role='status']//button[normalize-space()='Undo']")).Click();
        ines.WaitGone(Brick("Zone nobody knows"));
        ines.Click("Close the desk (Esc)");
    }

    private static void WorkOnTheWall(Screen ines)
    {
        ines.Draw((6, 9.1), (6, 10.5));
        Assert.Equal("goes to", ines.Find(By.CssSelector("aside label")).Text.Split('\n')[0].Trim());
        ines.Type("Title", "Celadon");
        ines.Find(By.XPath("//*[@data-hand='carried'][contains(normalize-space(), '09:00 to 10:30, Celadon')]"));
        ines.Click("Add to Glaze tests");
        ines.WaitForBrick("Celadon", "09:00 to 10:30");
        ines.WaitGone(By.CssSelector("aside"));

        ines.DrawDays(3, 5);
        Assert.Equal(
            ("Thu 12 Mar 2026", "Sat 14 Mar 2026"),
            (
                ines.Find(Labelled("First day")).GetAttribute("value"),
                ines.Find(Labelled("Last day")).GetAttribute("value")
            )
        );
        ines.WaitForText("Over on Sun 15");
        ines.Type("Title", "Tiles drying");
        ines.Click("Add to Glaze tests");
        ines.WaitForBrick("Tiles drying", "all day");
        ines.WaitGone(By.CssSelector("aside"));

        ines.Move("Celadon", -1, 8);
        ines.WaitForBrick("Celadon", "17:00 to 18:30");
        ines.WaitForText("Moved “Celadon” to Sat 14.");
        ines.Stretch("Celadon", 1);
        ines.WaitForBrick("Celadon", "17:00 to 19:30");
        ines.Move("Celadon", 1, -7);
        ines.WaitForBrick("Celadon", "10:00 to 12:30");

        ines.Click(Brick("Tiles drying"));
        ines.Click("Delete");
        ines.WaitGone(Brick("Tiles drying"));
        ines.WaitForText("Deleted “Tiles drying”.");
        ines.Press("z");
        ines.WaitForBrick("Tiles drying", "all day");
    }

    private static void Give(Screen ines, string address, string step, string sentence)
    {
        if (!ines.Has(Labelled("Mail address")))
        {
            ines.Choose(Named("button", "More for Glaze tests"), "Give access");
        }

        ines.Type("Mail address", address);
        ines.Pick("Step", step);
        ines.WaitForText(sentence);
        ines.Click(By.XPath("//form//button[normalize-space()='Give access']"));
        ines.WaitForText($"Invitation sent to {address}.");
    }

    private static void JoinByMail(Screen nina)
    {
        nina.Open("/post-room");
        nina.Click(Containing("button", "nina@example.org"));
        nina.Click(By.XPath("//a[contains(., '/invitation/')]"));
        nina.WaitForText("Ines Varga invites you to “Glaze tests”");
        nina.Type("Your name, as others know you", "Nina Holt");
        nina.Type("A password", "tiles and more tiles");
        nina.Click("Make the account");
        nina.Click("Accept");
        nina.Find(Layer("Glaze tests"));
        nina.Click(Brick("Celadon"));
        nina.WaitForText("You can read this calendar.");
    }

    private static void Accept(Screen screen)
    {
        screen.Click(Containing("a", "Inbox"));
        screen.WaitForText("Ines Varga invites you to “Glaze tests”");
        screen.Click("Accept");
        screen.WaitForText("“Glaze tests” is a layer on your shelf now.");
        screen.Click(By.CssSelector("header a"));
        screen.Find(Layer("Glaze tests"));
        screen.Week();
    }

    private static void ReadOnly(Screen tomasz)
    {
        tomasz.Click(Brick("Celadon"));
        tomasz.WaitForText("You can read this calendar.");
        Assert.False(tomasz.Has(Named("button", "Save")));
        Assert.False(tomasz.Has(Named("button", "Delete")));
        tomasz.Move("Celadon", -1, 0);
        tomasz.WaitForBrick("Celadon", "10:00 to 12:30");
    }

    private static void HideAndShow(Screen priya)
    {
        priya.Find(Layer("Priya’s time"));
        priya.Find(Brick("Celadon"));
        priya.Click(By.CssSelector("[data-layer=\"Glaze tests\"] button"));
        priya.WaitGone(Brick("Celadon"));
        priya.Find(Brick("Choir"));
        priya.Click(By.CssSelector("[data-layer=\"Glaze tests\"] button"));
        priya.Find(Brick("Celadon"));
    }

    private static void EndAccess(Screen ines, string name)
    {
        ines.Click(By.XPath($"//li[.//p[contains(., '{name}')]]//button[normalize-space()='End access']"));
        ines.WaitForText($"leaves the wall of {name} at once");
        ines.Click(By.XPath("//*[@role='alertdialog']//button[normalize-space()='End access']"));
        ines.WaitForText($"Ended the access of {name}");
    }
}
