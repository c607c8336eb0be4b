using Mortar.Core.Access;
using Mortar.Server.Features.Demo;
using Mortar.Server.Tests;
using OpenQA.Selenium;
using Xunit;
using static Mortar.Browser.Tests.Screen;

namespace Mortar.Browser.Tests;

/// <summary>Asking for access, the table of who has what, and looking through somebody's eyes.</summary>
public class AccessTests
{
    private static readonly Guid Rota = DemoPeople.Stable("calendar Rota");

    [Fact]
    public async Task In_the_table_a_step_is_given_for_a_time_looked_at_as_they_see_it_ended_and_brought_back()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var dele = new Screen(mortar.Url).SignIn(DemoPeople.Dele).Open("/week/2026-03-11");
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        ines.Choose(Named("button", "Studio team"), "Access in Studio team");
        ines.Click(Step("Dele Okoro", "Rota", "View"));
        ines.WaitForText("View: as every member");

        ines.Pick("Step", "Edit");
        ines.Click(Containing("label", "For a time only"));
        ines.Write("Last day", "27 march");
        ines.Click("Give the step");

        ines.Find(Step("Dele Okoro", "Rota", "Edit"));
        ines.WaitForText("Edit: given to them, until Fri 27 March. View: as every member");
        Assert.Equal(string.Empty, ines.Axe());
        dele.Change("Team meeting");
        dele.Find(By.XPath("//aside//button[normalize-space()='Save']"));

        ines.Click(Containing("a", "See your calendars as Dele Okoro"));
        ines.WaitForText("What Dele Okoro sees of the calendars you coordinate");
        ines.WaitForText("Rota: Edit");
        ines.Find(Brick("Team meeting"));
        Assert.False(ines.Has(Brick("Shop hours"))); // Mei coordinates the web shop
        Assert.Equal(string.Empty, ines.Axe());
        ines.Press("n");
        ines.WaitForText("You look through the eyes of Dele Okoro");
        ines.Click("Back to your own wall");
        ines.Find(Brick("Shop hours"));

        ines.Open($"/groups/{World.StudioTeam}/access");
        ines.Click(Step("Dele Okoro", "Rota", "Edit"));
        ines.Click("End what was given");
        ines.WaitForText("Dele Okoro keeps View on “Rota”, which comes by another way.");
        ines.Click("End access");
        ines.Find(Step("Dele Okoro", "Rota", "View"));
        dele.WaitForText("Your step on “Rota” was lowered");
        Assert.False(dele.Has(By.XPath("//aside//button[normalize-space()='Save']")));
        ines.Click("Undo");
        ines.Find(Step("Dele Okoro", "Rota", "Edit"));
    }

    /// <summary>Seen on the other's page each time: a notice once said "now" while the request said no.</summary>
    [Fact]
    public async Task A_second_coordinator_is_made_unmade_and_made_and_the_first_leaves()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        var people = $"/groups/{World.StudioTeam}/people";
        var box = By.XPath("//li[contains(., 'Priya Raman')]//label[contains(., 'coordinates')]");
        var add = Named("button", "Add people");
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Open(people);
        using var priya = new Screen(mortar.Url).SignIn(DemoPeople.Priya).Open(people);
        priya.WaitForText("Tomasz Wilk");
        Assert.False(priya.Has(add));

        ines.Click(box);
        ines.WaitForText("Priya Raman coordinates “Studio team” now.");
        priya.Open(people).Find(add);
        ines.Click(box);
        ines.WaitForText("Priya Raman no longer coordinates “Studio team”.");
        priya.Open(people).WaitForText("Tomasz Wilk");
        Assert.False(priya.Has(add));
        ines.Click(box);
        ines.WaitForText("Priya Raman coordinates “Studio team” now.");

        ines.Click(By.XPath("//li[contains(., 'Ines Varga')]//button[normalize-space()='Leave']"));
        // She alone coordinates the studio's calendars, and hands them on first.
        ines.WaitForText("have nobody else in the group to coordinate them.");
        Assert.Equal(string.Empty, ines.Axe());
        ines.Pick("Coordinated from now on by", "Priya Raman");
        ines.Click(By.XPath("//*[@role='alertdialog']//button[normalize-space()='Leave']"));
        ines.WaitGone(By.XPath("//*[@role='alertdialog']"));
        ines.WaitForWall(); // and not at a group that is no longer there for her
        priya.Open(people).Find(add);
        priya.WaitForText("5 people");
        Assert.False(priya.Has(By.XPath("//li[contains(., 'Ines Varga')]")));
        using var hers = await mortar.As(DemoPeople.Priya);
        (await hers.Get($"/api/calendars/{Rota}/access")).Is(200); // as one who coordinates it reads it
    }

    [Fact]
    public async Task Several_cells_are_changed_together_and_the_table_narrows()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        await mortar.Give(new(Rota), DemoPeople.Astrid, Role.View);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Open($"/groups/{World.StudioTeam}/access");
        ines.Click(Step("Mei Sato", "Rota", "View"));
        ines.Copying(() => ines.Click(Step("Mei Sato", "Classes", "View")));
        ines.WaitForText("2 chosen");

        ines.Pick("Step", "Add");
        ines.Click("Give the step");

        ines.Find(Step("Mei Sato", "Rota", "Add"));
        ines.Find(Step("Mei Sato", "Classes", "Add"));
        ines.Click("Undo");
        ines.Find(Step("Mei Sato", "Classes", "View"));
        ines.Pick("Show", "From outside the group");
        ines.Find(Step("Astrid Lindqvist", "Rota", "View"));
        ines.WaitGone(Step("Mei Sato", "Rota", "View"));
    }

    [Fact]
    public async Task Somebody_without_access_asks_from_an_address_and_is_given_less()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        using var astrid = new Screen(mortar.Url).SignIn(DemoPeople.Astrid).Open($"/week/2026-03-11?layers={Rota}");
        astrid.WaitForText("This address shows none of your layers. One calendar in it is not on your wall.");
        astrid.Click("Ask for access");
        astrid.Pick("Ask for", "Edit");
        astrid.Type("A note", "I swap with Tomasz on Fridays");
        Assert.Equal(string.Empty, astrid.Axe());
        astrid.Click("Ask");
        astrid.WaitForText("Asked. If the address is right, a coordinator will answer");

        ines.Click(Containing("a", "Inbox 1"));
        ines.WaitForText("Astrid Lindqvist asks for Edit on “Rota”");
        ines.WaitForText("I swap with Tomasz on Fridays");
        Assert.Equal(string.Empty, ines.Axe());
        ines.Pick("Step to give", "Outline");
        ines.Click("Give access");
        ines.WaitForText("Astrid Lindqvist was given Outline on “Rota”.");

        astrid.Find(Brick("Team meeting"));
        astrid.WaitForText("This address shows one of your layers.");
    }

    [Fact]
    public async Task A_whole_group_is_given_a_step_and_loses_it_again()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var astrid = new Screen(mortar.Url).SignIn(DemoPeople.Astrid).Open("/week/2026-03-11");
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        ines.Open($"/week/2026-03-11?desk=calendar~{Rota}~access");
        ines.Pick("Group", "Raku club");
        ines.Pick("Step of the group", "Outline");
        ines.WaitForText("4 people now, and whoever joins Raku club later.");

        ines.Click("Give it to the group");

        ines.WaitForText("Everybody in Raku club");
        astrid.Find(Brick("Team meeting"));
        ines.Click(By.XPath("//li[contains(., 'Everybody in Raku club')]//button[normalize-space()='End access']"));
        astrid.WaitGone(Brick("Team meeting"));
    }

    /// <summary>The coordinator's story: a class from a pasted list, its guardians, its teachers, requests, and an end.</summary>
    [Fact]
    public async Task A_class_of_thirty_is_set_up_given_kept_and_checked()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        MakeGroup(ines, "Beginners", "Class");
        ines.Type("Name", "Lessons");
        ines.Click("Make the calendar");
        ines.WaitForText("Lessons");
        ines.Choose(Named("button", "Beginners"), "People in Beginners");
        var group = ines.Path.Split('/')[2];

        var pupils = string.Join('\n', Enumerable.Range(1, 28).Select(n => $"Pupil {n:00} <pupil{n}@example.org>"));
        ines.Paste(
            "Names or mail addresses, one a line or pasted from anywhere",
            $"{pupils}\nOtis Clay\nKaja Berg, kaja@exmaple.org\npupil3@example.org\nnobody@nowhere"
        );
        ines.WaitForText("Is “exmaple.org” right? Others have “example.org”.");
        ines.WaitForText("This address stands in the list before. It is taken once.");
        ines.WaitForText("“nobody@nowhere” is not a mail address.");
        ines.WaitForText("29 people come in"); // what is doubtful waits for a tick
        ines.Click(By.CssSelector("input[aria-label='Add Kaja Berg']"));
        ines.WaitForText(
            "30 people come in, with a row on the roster, and can be put on events at once. 29 get a mail"
        );
        Assert.Equal(string.Empty, ines.Axe());
        ines.Click("Add 30 people");
        ines.WaitForText("31 people, 1 with an account.");
        ines.Click(InMember("Kaja Berg", "Correct"));
        ines.Type("Mail address", "kaja@example.org");
        ines.Click("Save");
        ines.WaitForText("Corrected, and a mail is on its way to kaja@example.org.");
        Assert.Equal(string.Empty, ines.Axe());

        // The two teachers have accounts, which their coordinator in the studio knows: they are asked, and in with their
        // yes. They get Edit together.
        ines.Paste(
            "Names or mail addresses, one a line or pasted from anywhere",
            "tomasz@example.org, priya@example.org"
        );
        ines.WaitForText("2 have accounts and are asked first, in their inbox and by mail.");
        ines.Click("Add 2 people");
        ines.WaitForText("2 people asked to be in “Beginners”: in with their yes.");
        ines.Find(Named("h2", "Asked, not here yet"));
        Assert.Equal(string.Empty, ines.Axe());
        foreach (var teacher in new[] { DemoPeople.Tomasz, DemoPeople.Priya })
        {
            using var asked = new Screen(mortar.Url).SignIn(teacher).Open("/inbox");
            asked.WaitForText("Ines Varga asks whether you want to be in “Beginners”");
            Assert.Equal(string.Empty, asked.Axe());
            asked.Click("Join");
            asked.WaitForText("You are in “Beginners” now.");
        }

        ines.WaitForText("33 people, 3 with an account."); // by itself, on the page that stayed open
        ines.Open($"/groups/{group}/access");
        ines.Click(Anyhow("Tomasz Wilk", "Lessons"));
        ines.Script("arguments[0].scrollIntoView({ block: 'center' })", ines.Find(Anyhow("Priya Raman", "Lessons")));
        ines.Copying(() => ines.Click(Anyhow("Priya Raman", "Lessons")));
        ines.Pick("Step", "Edit");
        ines.Click("Give the step");
        ines.Find(Step("Tomasz Wilk", "Lessons", "Edit"));
        ines.Find(Step("Priya Raman", "Lessons", "Edit"));

        // The guardians are a group of their own, and have View as a whole.
        ines.Open("/roster");
        MakeGroup(ines, "Guardians", "Other");
        ines.Open($"/week?group={group}");
        ines.Choose(Named("button", "More for Lessons"), "Give access");
        ines.Pick("Group", "Guardians");
        ines.Click("Give it to the group");
        ines.WaitForText("Everybody in Guardians");
        var lessons = ines.Path.Split("calendar~")[1].Split('~')[0];

        // Two ask: one is given less than asked for, one is told no.
        using var astrid = new Screen(mortar.Url).SignIn(DemoPeople.Astrid);
        using var hanne = new Screen(mortar.Url).SignIn(DemoPeople.Hanne);
        foreach (var asker in new[] { astrid, hanne })
        {
            asker.Open($"/week?layers={lessons}");
            asker.Click("Ask for access");
            asker.Pick("Ask for", "Add");
            asker.Click("Ask");
            asker.WaitForText("Asked.");
        }

        ines.Click(Containing("a", "Inbox 4")); // and that both teachers said yes
        ines.Pick("Step to give", "Outline");
        ines.Click("Give access");
        ines.WaitForText("Astrid Lindqvist was given Outline on “Lessons”.");
        ines.WaitGone(Containing("h2", "Astrid Lindqvist asks for Add on “Lessons”"));
        ines.WaitForText("Hanne Lind asks for Add on “Lessons”");
        ines.Click("Say no");
        ines.WaitForText("Hanne Lind was told no.");
        hanne.Open("/inbox");
        hanne.WaitForText("Ines Varga did not give you the access you asked for.");

        ines.Open($"/groups/{group}/access");
        ines.Find(Step("Astrid Lindqvist", "Lessons", "Outline"));
        ines.Click(Step("Priya Raman", "Lessons", "Edit"));
        ines.Click("End what was given");
        ines.Click("End access");
        ines.Click(Containing("a", "See your calendars as Priya Raman"));
        ines.WaitForText("What Priya Raman sees of the calendars you coordinate");
        ines.WaitForText("Rota: Edit");
        Assert.False(ines.Has(By.XPath("//li[contains(., 'Lessons: Edit')]")));
    }

    private static void MakeGroup(Screen screen, string name, string sort)
    {
        screen.Choose(By.XPath("//header//button[@aria-haspopup='menu'][1]"), "New group");
        screen.Type("Name", name);
        screen.Pick("Sort", sort);
        screen.Click("Make the group");
        screen.WaitForText($"Made the group “{name}”.");
        screen.Find(Named("button", "Make the calendar")); // the next form has a field of the same name
    }

    private static By InMember(string name, string button) =>
        By.XPath($"//li[.//p[normalize-space()='{name}']]//button[normalize-space()='{button}']");

    private static By Anyhow(string who, string calendar) =>
        By.XPath($"//button[contains(@class, 'access-cell')][contains(normalize-space(), 'for {who} on {calendar}')]");

    [Fact]
    public async Task Who_is_lowered_with_a_brick_in_the_hand_is_told_and_the_brick_goes_back()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        using var priya = new Screen(mortar.Url).SignIn(DemoPeople.Priya).Week();
        var at = priya.Middle(Brick("Team meeting"));
        priya.TakeUp(at, (at.X, at.Y + 150));
        priya.Find(By.CssSelector("[data-hand=carried]"));

        (await api.Delete($"/api/calendars/{Rota}/access/{DemoPeople.Priya.Id.Value}")).Is(204); // View stays, as every member
        priya.PutDown();

        priya.WaitForText("That needs the step Edit on this calendar.");
        priya.WaitForBrick("Team meeting", "09:00 to 10:00");
        priya.WaitGone(By.CssSelector("[data-hand=carried]"));
        (await api.Put($"/api/calendars/{Rota}/access/{DemoPeople.Priya.Id.Value}", new { role = "edit" })).Is(204);
        priya.Find(By.XPath("//*[@data-brick][contains(normalize-space(), 'Team meeting')][@data-ends]"));
        at = priya.Middle(Brick("Team meeting"));
        priya.TakeUp(at, (at.X, at.Y + 150));
        priya.PutDown();
        priya.WaitForBrick("Team meeting", "12:00 to 13:00");
    }

    [Fact]
    public async Task An_open_desk_shows_what_its_reader_may_see_by_now_and_keeps_what_they_typed()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var calendar = await api.MakeCalendar();
        var trial = await api.MakeEvent(calendar, "Celadon trial");
        var priyas = $"/api/calendars/{calendar.Value}/access/{DemoPeople.Priya.Id.Value}";
        await mortar.Give(calendar, DemoPeople.Priya, Role.Edit);
        using var priya = new Screen(mortar.Url).SignIn(DemoPeople.Priya).Week();
        priya.Change("Celadon trial");
        priya.Type("Where", "The back room");
        var notes = By.XPath("//aside//textarea");
        Assert.Equal(World.Secret, priya.Find(notes).GetAttribute("value"));

        (await api.Put(priyas, new { role = "outline" })).Is(204);

        priya.WaitForText("Your step on “Glaze tests” was lowered");
        priya.WaitGone(notes);
        priya.WaitForText("The back room");
        Assert.DoesNotContain(World.Secret, priya.Text(By.CssSelector("body")), StringComparison.Ordinal);
        Assert.Equal(string.Empty, priya.Axe());

        (await api.Delete(priyas)).Is(204);

        priya.WaitForText("It is no longer shared with you");
        priya.WaitForText("The back room");
        Assert.DoesNotContain("Celadon", priya.Text(By.CssSelector("body")), StringComparison.Ordinal);
        (await api.Put(priyas, new { role = "edit" })).Is(204);
        priya.Click(By.XPath("//aside//button[normalize-space()='Save']"));
        priya.WaitForText("Changed “Celadon trial”");
        Assert.Equal("The back room", (await api.Get($"/api/events/{trial}")).Is(200).Body.Text("place"));
    }

    [Fact]
    public async Task Somebody_elses_version_that_was_taken_is_nothing_one_typed()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var calendar = await api.MakeCalendar();
        var id = await api.MakeEvent(calendar);
        await mortar.Give(calendar, DemoPeople.Priya, Role.Edit);
        using var priya = new Screen(mortar.Url).SignIn(DemoPeople.Priya).Week();
        priya.Change("Celadon");
        priya.Type("Where", "The back room");
        (await api.Put($"/api/events/{id}", World.Event(calendar, "Oxblood"), 1)).Is(200);
        priya.Click("Save");
        priya.Click("Keep what is there now");

        (await api.Delete($"/api/calendars/{calendar.Value}/access/{DemoPeople.Priya.Id.Value}")).Is(204);

        priya.WaitForText("It is no longer shared with you");
        Assert.DoesNotContain("Oxblood", priya.Text(By.CssSelector("body")), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_new_event_is_kept_and_goes_elsewhere_where_its_calendar_takes_nothing_any_more()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var calendar = await api.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Add);
        using var priya = new Screen(mortar.Url).SignIn(DemoPeople.Priya).Week();
        priya.Find(Layer("Glaze tests"));
        priya.Press("n");
        priya.Type("Title", "Ash run");
        Into("Glaze tests");
        priya.Find(Named("button", "Add to Glaze tests"));

        (await api.Delete($"/api/calendars/{calendar.Value}/access/{DemoPeople.Priya.Id.Value}")).Is(204);

        priya.WaitForText("Nothing can be added any more where this was to go.");
        Assert.False(priya.Find(Named("button", "Add")).Enabled);
        Assert.DoesNotContain("Glaze tests", priya.Text(By.CssSelector("aside")), StringComparison.Ordinal);
        Into("Rota");
        priya.Click("Add to Rota");
        priya.WaitForText("Added “Ash run”");
        Assert.Contains(await api.Bricks(new(Rota)), brick => brick.Text("title") == "Ash run");

        void Into(string name) => priya.Find(By.XPath($"//aside//select/option[normalize-space()='{name}']")).Click();
    }

    /// <summary>Rota is given to every member to read, and Priya edits it.</summary>
    [Fact]
    public async Task Ending_and_leaving_say_what_stays_by_another_way_and_it_does()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url)
            .SignIn(DemoPeople.Ines)
            .Open($"/week/2026-03-11?desk=calendar~{Rota}~access");
        using var priya = new Screen(mortar.Url)
            .SignIn(DemoPeople.Priya)
            .Open($"/week/2026-03-11?desk=calendar~{Rota}~about");
        using var hers = await mortar.As(DemoPeople.Priya);
        var row = By.XPath("//li[contains(., 'Priya Raman')]//button[normalize-space()='End access']");
        ines.Find(By.CssSelector("[aria-label='Step of Priya Raman'] option[value=outline]")).Click();
        ines.WaitForText("Priya Raman was given Outline on “Rota”, and keeps View");
        ines.WaitForText("View comes by another way, and the highest counts");
        Assert.Equal("view", await Step());

        ines.Click(row);
        ines.WaitForText("Priya Raman keeps View on “Rota”, which comes by another way.");
        ines.Click(By.XPath("//*[@role='alertdialog']//button[normalize-space()='End access']"));
        ines.WaitGone(row);
        Assert.Equal("view", await Step());

        await mortar.Give(new(Rota), DemoPeople.Priya, Role.Edit);
        priya.Click("Leave this calendar");
        priya.WaitForText("You keep View, which comes by another way, so it stays on your wall.");
        priya.Click("Leave");
        priya.WaitForText("View stays, which comes by another way.");
        Assert.Equal("view", await Step());

        async Task<string> Step() =>
            (await hers.Get("/api/shelf"))
                .Is(200)
                .Body.EnumerateArray()
                .Single(layer => layer.GetProperty("calendarId").GetGuid() == Rota)
                .Text("role");
    }

    [Fact]
    public async Task A_row_of_a_pasted_list_is_mended_where_it_stands_and_comes_in_as_it_was_mended()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Open($"/groups/{World.StudioTeam}/people");
        ines.Paste(
            "Names or mail addresses, one a line or pasted from anywhere",
            "\"Quill, Wren\" <wren@example.org>\notis@@example.org\n3. Tove Lind - tove(at)example.org"
        );
        ines.WaitForText("“otis@@example.org” is not a mail address");
        ines.Find(Named("button", "Add 2 people"));

        ines.Click(By.XPath("//li[contains(., 'otis@@')]//button[starts-with(normalize-space(), 'Mend')]"));
        var field = ines.Find(By.CssSelector("input[aria-label='Mend otis@@example.org']"));
        field.SendKeys(Keys.Control + "a");
        field.SendKeys("Otis <otis@example.org>" + Keys.Enter);
        Assert.Equal(string.Empty, ines.Axe());
        ines.Click("Add 3 people");
        ines.WaitForText("3 people added to “Studio team”.");

        var people = (await api.Get($"/api/groups/{World.StudioTeam}/members")).Is(200).Body.EnumerateArray();
        Assert.Equal(
            ["otis@example.org Otis", "tove@example.org Tove Lind", "wren@example.org Wren Quill"],
            people
                .Where(one => one.Text("name") is "Otis" or "Tove Lind" or "Wren Quill")
                .Select(one => $"{one.Text("address")} {one.Text("name")}")
                .Order(StringComparer.Ordinal)
        );
    }

    [Fact]
    public async Task What_ended_while_one_was_offline_is_gone_when_one_is_back()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        await mortar.Give(new(Rota), DemoPeople.Astrid, Role.Edit);
        using var api = await mortar.As(DemoPeople.Ines);
        using var astrid = new Screen(mortar.Url).SignIn(DemoPeople.Astrid).Open("/week/2026-03-11");
        astrid.Find(Brick("Team meeting"));
        astrid.Offline(true);

        (await api.Delete($"/api/calendars/{Rota}/access/{DemoPeople.Astrid.Id.Value}")).Is(204);
        astrid.Offline(false);

        astrid.WaitGone(Brick("Team meeting"));
        astrid.WaitGone(Layer("Rota"));
    }

    private static By Step(string who, string calendar, string step) =>
        By.XPath(
            $"//button[contains(@class, 'access-cell')][starts-with(normalize-space(), '{step}')][contains(normalize-space(), 'for {who} on {calendar}')]"
        );
}
