using Mortar.Server.Features.Demo;
using Mortar.Server.Tests;
using Xunit;
using static Mortar.Browser.Tests.Screen;

namespace Mortar.Browser.Tests;

/// <summary>What was broken is brought back: by the key after a reload, from the bin, and from the history of a calendar.</summary>
public class BringingBackTests
{
    [Fact]
    public async Task What_was_deleted_comes_back_by_the_key_after_a_reload_and_from_the_bin_and_others_see_it()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var priya = new Screen(mortar.Url).SignIn(DemoPeople.Priya).Week();
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();
        Delete(ines);
        priya.WaitGone(Brick("Team meeting"));

        // Nothing was done on this page: the last act is named first.
        ines.Open("/week/2026-03-11");
        ines.WaitForWall();
        ines.Press("z");
        ines.WaitForText("Z again to undo your last act, “Team meeting”: deleted it");
        Shot(ines, "z-names-it");
        Assert.False(priya.Has(Brick("Team meeting")));
        ines.Press("z");
        ines.WaitForText("Undone.");
        priya.Find(Brick("Team meeting"));

        Delete(ines);
        priya.WaitGone(Brick("Team meeting"));
        ines.Open("/bin");
        ines.WaitForText("Ines Varga deleted it");
        Assert.Equal(string.Empty, ines.Axe());
        ines.Click(Containing("button", "Delete for good"));
        ines.WaitForText("Type this: Team meeting");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "bin");
        ines.Click("Keep it");
        ines.Click(Containing("button", "Bring back"));
        ines.WaitForText("“Team meeting” is back in Rota.");
        ines.WaitForText("Nothing here.");
        priya.Find(Brick("Team meeting"));
        Assert.Equal(string.Empty, string.Join("\n", ines.Complaints().Concat(priya.Complaints())));
    }

    [Fact]
    public async Task A_coordinator_undoes_what_somebody_did_from_the_history_and_what_still_fits_of_what_was_overtaken()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        using var priya = new Screen(mortar.Url).SignIn(DemoPeople.Priya).Week();
        var calendar = await api.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Core.Access.Role.Edit);
        var id = await api.MakeEvent(calendar, "Celadon");
        using var hers = await mortar.As(DemoPeople.Priya);
        var later = World.Hours("2026-03-13T09:00:00", "2026-03-13T10:00:00");
        (await hers.Put($"/api/events/{id}", World.Event(calendar, "Celadon, later", later), 1)).Is(200);
        priya.Find(Brick("Celadon, later"));
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        ines.Open($"/calendars/{calendar.Value}/history");
        ines.WaitForText("Priya Raman · “Celadon, later”: moved it from Thu 12 March");
        ines.Pick("About", "Access");
        ines.WaitForText("took the step Coordinate");
        ines.WaitGone(Containing("li", "moved it"));
        ines.Pick("About", "Events");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "history");

        // Priya changes it again before it is undone: its title is hers by then, its time is what the first act left.
        (await hers.Put($"/api/events/{id}", World.Event(calendar, "Tenmoku", later), 2)).Is(200);
        ines.WaitForText("changed the title from “Celadon, later” to “Tenmoku”");
        ines.Click(Containing("button", "Undo “Celadon, later”"));
        ines.WaitForText("This was changed again since then");
        ines.Click("Bring back what still fits");

        ines.WaitForText("Undone.");
        priya.WaitForBrick("Tenmoku", "14:00 to 15:30");
        Assert.Equal(string.Empty, priya.Complaints().Aggregate(string.Empty, (all, one) => all + one));
    }

    [Fact]
    public async Task A_moment_is_looked_at_on_the_wall_where_nothing_can_be_taken_in_hand_and_brought_back_in_one_act()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock, Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var calendar = await api.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Core.Access.Role.View);
        var (deleted, moved) = (await api.MakeEvent(calendar, "Celadon"), await api.MakeEvent(calendar, "Tenmoku"));
        var moment = NodaTime.Text.InstantPattern.ExtendedIso.Format(clock.Now);
        clock.Now += NodaTime.Duration.FromHours(1);
        var later = World.Hours("2026-03-13T09:00:00", "2026-03-13T10:00:00");
        (await api.Delete($"/api/events/{deleted}", 1)).Is(200);
        (await api.Put($"/api/events/{moved}", World.Event(calendar, "Tenmoku", later), 1)).Is(200);
        await api.MakeEvent(calendar, "Ash");
        using var priya = new Screen(mortar.Url).SignIn(DemoPeople.Priya).Week();
        priya.WaitForBrick("Tenmoku", "09:00 to 10:00");
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        ines.Open($"/week/2026-03-11?moment={calendar.Value}~{moment}");

        ines.Find(Fated("Celadon", "would come back"));
        ines.Find(Fated("Ash", "would go to the bin"));
        ines.Find(Fated("Tenmoku", "would move here"));
        ines.Find(Fated("Tenmoku", "would move away from here"));
        ines.WaitForText("1 comes back");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "moment");
        ines.Click(Brick("Ash"));
        ines.WaitForText("“Ash” would go to the bin, Thu 12 March");
        ines.Press("n");
        ines.WaitForText("You look at a moment");
        Assert.True(priya.Has(Brick("Ash"))); // looked at only

        ines.Click("Bring back to then");
        ines.WaitForText("3 events are as on");
        priya.WaitForBrick("Tenmoku", "14:00 to 15:30");
        priya.WaitGone(Brick("Ash"));
        priya.Find(Brick("Celadon"));
        ines.WaitGone(Containing("button", "Bring back to then"));
        ines.Press("z");
        priya.Find(Brick("Ash"));
        priya.WaitGone(Brick("Celadon"));

        // Who may not bring it back is told so, and led on.
        priya.Open($"/week/2026-03-11?moment={calendar.Value}~{moment}");
        priya.WaitForText("Coordinate");
        priya.Click("Leave it as it is");
        priya.WaitGone(Containing("button", "Leave it as it is"));
        priya.Find(Brick("Ash"));
    }

    private static OpenQA.Selenium.By Fated(string title, string fate) =>
        OpenQA.Selenium.By.XPath(
            $"//*[@data-brick][contains(normalize-space(), '{title}')][contains(normalize-space(), '{fate}')]"
        );

    private static void Delete(Screen ines)
    {
        ines.Open("/week/2026-03-11");
        ines.Click(Brick("Team meeting"));
        ines.WaitForText("Who comes"); // all the desk asks of it is answered while it is there
        ines.Click("Delete");
        ines.WaitGone(Brick("Team meeting"));
    }
}
