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

    private static void Delete(Screen ines)
    {
        ines.Open("/week/2026-03-11");
        ines.Click(Brick("Team meeting"));
        ines.WaitForText("Who comes"); // all the desk asks of it is answered while it is there
        ines.Click("Delete");
        ines.WaitGone(Brick("Team meeting"));
    }
}
