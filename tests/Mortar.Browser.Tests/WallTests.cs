using System.Text.Json;
using Mortar.Core.Access;
using Mortar.Server.Features.Demo;
using Mortar.Server.Tests;
using OpenQA.Selenium;
using Xunit;
using static Mortar.Browser.Tests.Screen;

namespace Mortar.Browser.Tests;

public class WallTests
{
    [Fact]
    public async Task Of_two_who_change_the_same_the_second_sees_both_versions_and_chooses()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var calendar = await api.MakeCalendar();
        var id = await api.MakeEvent(calendar);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        ines.Change("Celadon");
        ines.Type("Title", "Mine");
        (await api.Put($"/api/events/{id}", World.Event(calendar, "Theirs"), 1)).Is(200);

        ines.Click("Save");

        ines.WaitForText("This was changed in the meantime. Nothing has been overwritten.");
        var both = ines.Text(By.CssSelector("aside [role=alert]"));
        Assert.Contains("Theirs", both, StringComparison.Ordinal);
        Assert.Contains("Mine", both, StringComparison.Ordinal);
        ines.Click("Put mine in its place");
        ines.WaitForBrick("Mine", "14:00 to 15:30");
        Assert.Equal("Mine", Assert.Single(await api.Bricks(calendar)).Text("title"));
    }

    /// <summary>Ines edits the calendar of the Raku club and coordinates those of the studio.</summary>
    [Fact]
    public async Task A_new_event_begins_in_the_open_group_says_who_sees_it_and_a_move_is_named()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var dele = await mortar.As(DemoPeople.Dele);
        var (rota, raku) = (DemoPeople.Stable("calendar Rota"), DemoPeople.Stable("calendar Raku club"));
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        ines.Open($"/week/2026-03-11?group={DemoPeople.Stable("Raku club")}");
        ines.Find(Brick("Team meeting"));
        ines.Press("n");
        ines.Type("Title", "Glaze swap");
        ines.WaitForText("Seen by Raku club, 4 people.");
        ines.Click("Add to Raku club");
        ines.WaitForText("Added “Glaze swap” to Raku club.");
        Assert.Contains(await dele.Bricks(new(raku)), brick => brick.Text("title") == "Glaze swap");

        ines.Open($"/week/2026-03-11?group={World.StudioTeam}");
        ines.Find(Brick("Glaze swap"));
        ines.Press("n");
        ines.WaitForText("Seen by Studio team,");
        ines.Press(Keys.Escape);
        ines.Change("Glaze swap");
        ines.Find(By.XPath("//aside//select/option[normalize-space()='Rota']")).Click();
        ines.Click("Save and move to Rota");
        ines.WaitForText("Moved “Glaze swap” from Raku club to Rota.");
        Assert.DoesNotContain(await dele.Bricks(new(raku)), brick => brick.Text("title") == "Glaze swap");
        Assert.Contains(await dele.Bricks(new(rota)), brick => brick.Text("title") == "Glaze swap");
    }

    [Fact]
    public async Task An_event_opens_to_be_read_its_notes_can_be_followed_and_each_line_leads_to_its_field()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var calendar = await api.MakeCalendar();
        var id = Guid.CreateVersion7();
        var talk = new
        {
            calendarId = calendar.Value,
            title = "Glaze talk",
            place = "www.kiln.example.org/room",
            notes = "Slides at https://kiln.example.org/talk. Ask nina@example.org.",
            showAs = "busy",
            time = World.Hours(),
        };
        (await api.Put($"/api/events/{id}", talk)).Is(200);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();
        ines.Click(Brick("Glaze talk"));

        ines.Find(By.CssSelector("aside a[href='https://kiln.example.org/talk']"));
        ines.Find(By.CssSelector("aside a[href='mailto:nina@example.org']"));
        ines.Find(By.CssSelector("aside a[href='https://www.kiln.example.org/room']"));
        Assert.False(ines.Has(By.CssSelector("aside textarea")));
        ines.Click(By.XPath("//aside//button[@aria-label='Change Where']"));

        ines.Find(By.CssSelector("aside [data-field=where] input:focus"));
        ines.Type("Where", "Glaze room");
        ines.Click("Save");
        ines.WaitForText("Changed “Glaze talk”.");
        Assert.Equal("Glaze room", (await api.Get($"/api/events/{id}")).Is(200).Body.Text("place"));
    }

    [Fact]
    public async Task Beside_a_desk_the_days_keep_their_width_and_what_is_on_it_is_in_sight()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var calendar = await api.MakeCalendar();
        await api.MakeEvent(calendar, "Sunday glaze", World.Hours("2026-03-15T10:00:00", "2026-03-15T11:00:00"));
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();
        var before = ines.Script<long>(DayWidth);

        ines.Click(Brick("Sunday glaze"));
        ines.Find(By.CssSelector("aside"));

        Assert.Equal(before, ines.Script<long>(DayWidth));
        ines.Find(By.CssSelector("[data-brick][data-chosen=true]"));
        Assert.True(
            ines.Script<bool>(
                """
                const brick = document.querySelector('[data-hours] [data-chosen=true]').getBoundingClientRect()
                const desk = document.querySelector('aside').getBoundingClientRect()
                return brick.right <= desk.left + 1 && brick.left > 52
                """
            ),
            "Sunday lies under the desk."
        );
        ines.Press(Keys.Escape);
        ines.WaitGone(By.CssSelector("aside"));
        Assert.Equal(before, ines.Script<long>(DayWidth));
    }

    private const string DayWidth =
        "return Math.round(document.querySelector('[data-hours] > [data-weekend]').getBoundingClientRect().width)";

    [Fact]
    public async Task A_date_that_is_not_understood_holds_the_save_until_it_is_one()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var calendar = await api.MakeCalendar();
        var id = await api.MakeEvent(calendar);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();
        ines.Change("Celadon");
        ines.Type("Title", "Tenmoku");
        ines.Type("Begins on", "the day after");
        ines.Click("Save");

        ines.WaitForText("Type a date, as 14 may, fri, week 20");
        var held = ines.Find(By.CssSelector("input[aria-invalid=true]:focus"));
        Assert.Equal("the day after", held.GetAttribute("value"));
        Assert.Equal("Celadon", (await Now()).Text("title"));
        ines.Type("Begins on", "fri");
        ines.Find(Labelled("Begins on")).SendKeys(Keys.Enter);

        ines.WaitForText("Changed “Tenmoku”");
        Assert.Equal("2026-03-13T14:00:00", (await Now()).GetProperty("time").Text("start"));

        async Task<JsonElement> Now() => (await api.Get($"/api/events/{id}")).Is(200).Body;
    }

    [Fact]
    public async Task A_brick_is_moved_and_lengthened_by_keys_alone()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var calendar = await api.MakeCalendar();
        await api.MakeEvent(calendar);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);

        ines.Week();
        ines.Keys_(ines.Find(Brick("Celadon")), "m", Keys.ArrowRight, Keys.ArrowDown, Keys.ArrowDown);
        ines.Keys_(ines.Find(Brick("Celadon")), Keys.Enter);
        ines.WaitForBrick("Celadon", "14:30 to 16:00");
        ines.WaitForText("Moved “Celadon” to Fri 13"); // the brick is there before the server has answered

        Assert.Equal(
            "2026-03-13T14:30:00",
            Assert.Single(await api.Bricks(calendar)).GetProperty("time").Text("start")
        );
        ines.Press("z");
        ines.WaitForBrick("Celadon", "14:00 to 15:30");
    }

    /// <summary>The line tells one's own change too: what was asked after it has its answer already.</summary>
    [Fact]
    public async Task After_ones_own_change_nothing_is_asked_for_twice()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var calendar = await api.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        await api.MakeEvent(calendar);
        using var priya = new Screen(mortar.Url).SignIn(DemoPeople.Priya).Week();
        priya.WaitForBrick("Celadon", "14:00 to 15:30");
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();
        ines.WaitForBrick("Celadon", "14:00 to 15:30");
        ines.Script("performance.clearResourceTimings()");

        ines.Move("Celadon", 0, 1);
        priya.WaitForBrick("Celadon", "15:00 to 16:30"); // by now the line has told it to both
        Assert.All(Asked(), one => Assert.True(one.Times <= 1, $"{one.Path} was asked for {one.Times} times."));

        // What is done elsewhere is asked for once more, and shows that all that was told before has been heard.
        await api.MakeEvent(calendar, "Tenmoku", World.Hours("2026-03-12T10:00:00", "2026-03-12T11:00:00"));
        ines.WaitForBrick("Tenmoku", "10:00 to 11:00");
        var all = Asked();
        Assert.Contains(all, one => one.Path == "/api/wall/changes");
        Assert.All(all, one => Assert.True(one.Times <= 2, $"{one.Path} was asked for {one.Times} times."));

        IReadOnlyList<(string Path, int Times)> Asked() =>
            [
                .. ines.Script<IReadOnlyCollection<object>>(
                        "return performance.getEntriesByType('resource').map((one) => new URL(one.name).pathname)"
                    )
                    .Cast<string>()
                    .Where(path => path.StartsWith("/api/", StringComparison.Ordinal))
                    .GroupBy(path => path, StringComparer.Ordinal)
                    .Select(same => (same.Key, same.Count())),
            ];
    }

    [Fact]
    public async Task Two_changes_in_quick_succession_are_both_kept_on_a_slow_line()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var calendar = await api.MakeCalendar();
        var id = await api.MakeEvent(calendar);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();
        ines.SlowDown(1_000);

        ines.Move("Celadon", 1, -2);
        ines.WaitForBrick("Celadon", "12:00 to 13:30");
        ines.Move("Celadon", -1, -1);
        ines.WaitForBrick("Celadon", "11:00 to 12:30");

        ines.WaitForText("Moved “Celadon” to Thu 12");
        var kept = (await api.Get($"/api/events/{id}")).Is(200).Body;
        Assert.Equal("2026-03-12T11:00:00", kept.GetProperty("time").Text("start"));
        Assert.Equal(3, kept.GetProperty("version").GetInt32());
        Assert.False(ines.Has(By.CssSelector("aside")));
    }

    [Fact]
    public async Task What_was_written_and_not_saved_can_be_brought_back()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();
        ines.Draw((6, 9.1), (6, 10.5));
        ines.Type("Title", "Half a thought");
        ines.Click("Close the desk (Esc)");
        ines.WaitForText("“Half a thought” was not saved.");

        ines.Click("Bring it back");

        Assert.Equal("Half a thought", ines.Find(Labelled("Title")).GetAttribute("value"));
        ines.Click(Containing("button", "Add to"));
        ines.WaitForBrick("Half a thought", "09:00 to 10:30");
    }

    [Fact]
    public async Task A_wrong_address_still_leads_to_the_wall()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        foreach (var path in new[] { "/week/soon", "/week/2026-02-30?desk=event~nonsense", "/nowhere" })
        {
            ines.Open(path);
            ines.WaitForWall();
        }
    }

    [Fact]
    public async Task Markup_in_a_title_is_shown_and_does_nothing()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var calendar = await api.MakeCalendar();
        await api.MakeEvent(calendar, "<img src=x onerror=alert(1)>Celadon");
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);

        Assert.Contains("<img src=x onerror=alert(1)>Celadon", ines.Text(Brick("Celadon")), StringComparison.Ordinal);

        Assert.False(ines.Has(By.CssSelector("img")));
        Assert.Empty(ines.Complaints());
    }

    [Fact]
    public async Task For_real_use_the_first_account_a_group_and_a_calendar_are_made_from_nothing()
    {
        await using var mortar = await TestMortar.StartEmpty(Repository.Web);
        var code = (Server.Features.Accounts.FirstAccountCode)
            mortar.Services.GetService(typeof(Server.Features.Accounts.FirstAccountCode))!;
        using var ada = new Screen(mortar.Url).Open();
        ada.Type("Code from the console", code.Value);
        ada.Type("Your name", "Ada Moor");
        ada.Type("Your mail address", "ada@example.org");
        ada.Type("A password", "a long password");
        ada.Click("Make the account");

        ada.WaitForText("Nothing on your wall yet");
        ada.Click("Make a group");
        ada.Type("Name", "Choir");
        ada.Click("Make the group");
        ada.WaitForText("New calendar in Choir");
        ada.Type("Name", "Rehearsals");
        ada.Click("Make the calendar");

        ada.Find(Layer("Rehearsals"));
    }

    /// <summary>In light with all its rules; in dark with those about colours, since nothing else of a page changes with them.</summary>
    [Fact]
    public async Task Axe_finds_nothing_serious_on_any_main_view_light_or_dark()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var calendar = await api.MakeCalendar();
        await api.MakeEvent(calendar);
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        (
            await api.Put(
                $"/api/calendars/{calendar.Value}/invitations/{Guid.NewGuid()}",
                new { address = "tomasz@example.org", role = "edit" }
            )
        ).Is(204);
        using var screen = new Screen(mortar.Url).Open();
        screen.Find(Containing("button", "Ines Varga"));
        Clean("sign-in", screen);

        screen.SignIn(DemoPeople.Ines);
        foreach (var view in new[] { "Week", "Day", "Month", "Agenda", "Roster" })
        {
            screen.Show(view);
            screen.Find(By.CssSelector("[data-brick]"));
            Clean(view, screen);
        }

        screen.Click(Brick("Celadon"));
        screen.Find(Named("button", "Change"));
        Clean("event", screen);
        screen.Click("Change");
        screen.Find(Named("button", "Save"));
        Clean("desk", screen);
        foreach (var part in new[] { "about", "access", "import", "settings" })
        {
            screen.Open($"/week?desk=calendar~{calendar.Value}~{part}");
            screen.WaitForWall();
            screen.Find(By.CssSelector("aside nav"));
            Clean(part, screen);
        }

        screen.Open("/roster?desk=find");
        screen.Find(Labelled("Words in title, place or notes, or a name"));
        Clean("find", screen);
        screen.Open("/preferences");
        screen.Find(Named("h1", "Preferences"));
        Clean("preferences", screen);
        screen.Open("/inbox");
        screen.Find(Named("h1", "Inbox"));
        Clean("inbox", screen);
        screen.Open("/post-room");
        screen.Find(Containing("button", "tomasz@example.org"));
        Clean("post room", screen);
        using var tomasz = new Screen(mortar.Url).SignIn(DemoPeople.Tomasz);
        tomasz.Open("/inbox");
        tomasz.Find(Named("button", "Accept"));
        Clean("invitation", tomasz);
    }

    private static void Clean(string view, Screen screen)
    {
        screen.Theme("light");
        var found = screen.Axe();
        Assert.True(found.Length == 0, $"{view}: {found}");
        screen.Theme("dark");
        var inDark = screen.Axe("color-contrast");
        Assert.True(inDark.Length == 0, $"{view} in dark: {inDark}");
    }

    [Fact]
    public async Task On_a_phone_the_wall_is_a_day_and_the_desk_a_sheet()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url, 390, 844).SignIn(DemoPeople.Ines);

        foreach (var view in new[] { "Week", "Month", "Agenda", "Roster", "Day" })
        {
            ines.Show(view);
            ines.Find(By.CssSelector("[data-brick]"));
            Assert.Equal(390, ines.Script<long>("return document.documentElement.scrollWidth"));
        }

        Assert.Equal(1, ines.Script<long>("return document.querySelectorAll('[data-hours] > [data-weekend]').length"));
        ines.Click(Brick("School visit"));
        ines.Find(By.CssSelector("aside"));
        Assert.Equal(
            390,
            ines.Script<long>("return Math.round(document.querySelector('aside').getBoundingClientRect().width)")
        );
    }

    [Fact]
    public async Task Access_that_ends_while_its_event_is_on_the_desk_takes_it_from_the_desk()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var calendar = await api.MakeCalendar();
        await api.MakeEvent(calendar);
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        using var priya = new Screen(mortar.Url).SignIn(DemoPeople.Priya);
        priya.Click(Brick("Celadon"));
        priya.WaitForText(World.Secret);

        await mortar.Give(calendar, DemoPeople.Priya, Role.None);

        priya.WaitForText("There is no such event, or it is not shared with you.");
        Assert.False(priya.Has(Containing("dd", World.Secret)));
        Assert.False(priya.Has(Layer("Glaze tests")));
    }
}
