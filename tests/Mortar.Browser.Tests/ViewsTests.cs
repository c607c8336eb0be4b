using System.Globalization;
using Mortar.Server.Features.Demo;
using Mortar.Server.Tests;
using OpenQA.Selenium;
using Xunit;
using static Mortar.Browser.Tests.Screen;

namespace Mortar.Browser.Tests;

/// <summary>The views of the wall, and the hand on each of them.</summary>
public class ViewsTests
{
    [Fact]
    public async Task An_address_has_its_span_each_span_is_a_step_back_and_the_title_says_what_is_on_the_page()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();
        ines.Title("Week, 9 – 15 March 2026, Studio team · Mortar");
        ines.Find(By.XPath("//select[@aria-label='How many days']/option[normalize-space()='2 weeks']")).Click();
        ines.Title("Week, 9 – 22 March 2026, Studio team · Mortar");
        Assert.Contains("days=14", ines.Path, StringComparison.Ordinal);

        // The device showed two weeks last: its address says so to whoever is sent it.
        ines.Open("/week/2026-03-11");
        ines.Title("Week, 9 – 22 March 2026, Studio team · Mortar");
        Assert.Contains("days=14", ines.Path, StringComparison.Ordinal);
        ines.Find(By.XPath("//select[@aria-label='How many days']/option[normalize-space()='1 week']")).Click();
        ines.Title("Week, 9 – 15 March 2026, Studio team · Mortar");
        ines.Back();
        ines.Title("Week, 9 – 22 March 2026, Studio team · Mortar");

        ines.Open($"/groups/{World.StudioTeam}/people");
        ines.Title("People: Studio team · Mortar");
    }

    [Fact]
    public async Task A_new_event_of_today_begins_with_the_next_half_hour()
    {
        // The clock of the demo begins at 11:12.
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();
        ines.Press("n");
        Assert.Equal("11:30", ines.Find(Labelled("at")).GetAttribute("value"));
    }

    [Fact]
    public async Task On_the_roster_a_brick_is_given_to_another_person_on_another_day_and_back()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var calendar = await api.MakeCalendar();
        var id = await api.MakeEvent(calendar);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);

        ines.DragToCell("Celadon", "Priya Raman", "2026-03-13");

        ines.WaitForText("Gave “Celadon” to Priya Raman, Fri 13");
        ines.Find(InRow("Priya Raman", "Friday 13 March, 14:00 to 15:30, Celadon"));
        var kept = (await api.Get($"/api/events/{id}")).Is(200).Body;
        Assert.Equal(
            DemoPeople.Priya.Id.Value,
            Assert.Single(kept.GetProperty("attendees").EnumerateArray()).GetGuid()
        );
        ines.Press("z");
        ines.Find(InRow("Everyone", "Thursday 12 March, 14:00 to 15:30, Celadon"));
    }

    [Fact]
    public async Task From_a_cell_of_the_roster_an_event_for_that_person_is_made_by_keys_alone()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);

        ines.Keys_(ines.Find(Cell("Mei Sato", "2026-03-12")), Keys.ArrowRight, Keys.Enter);
        ines.Find(Containing("li", "Mei Sato"));
        ines.Type("Title", "Parcels");
        ines.Keys_(ines.Find(Labelled("Title")), Keys.Enter);

        ines.Find(InRow("Mei Sato", "Friday 13 March, 09:00 to 10:00, Parcels"));
        ines.Keys_(ines.Find(Brick("Parcels")), Keys.Space);
        ines.WaitForText("1 marked");
        ines.Press(Keys.Delete);
        ines.WaitGone(Brick("Parcels"));
        ines.Press("z");
        ines.Find(Brick("Parcels"));
    }

    [Fact]
    public async Task A_series_is_made_with_the_chooser_and_changed_for_this_and_later_dates()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        ines.Press("n");
        ines.Type("Title", "Glaze evening");
        ines.Write("at", "9:00");
        ines.Find(By.CssSelector("select[aria-label=Repeats] option[value=week]")).Click();
        ines.Click("Thu");
        ines.Click("Wed");
        ines.WaitForText("every Thursday at 09:00");
        // It was begun for a Wednesday, which the rule does not have.
        ines.WaitForText("Thu 12, Thu 19, Thu 26, Thu 2, Thu 9");
        ines.Click("Wed");
        ines.WaitForText("Wed 11, Thu 12, Wed 18, Thu 19, Wed 25");

        ines.Click(Containing("button", "Add to"));
        ines.Find(Brick("Thursday 12 March, 09:00 to 10:00, Glaze evening"));
        ines.Change("Thursday 12 March, 09:00 to 10:00, Glaze evening");
        ines.Type("Title", "Glaze night");
        ines.Click("Save");
        ines.WaitForText("“Glaze night” repeats. Change how much of it?");
        ines.WaitForText("every date from Thu 12 March 2026 on, without end");
        Assert.Equal("alertdialog", ines.Script<string>("return document.activeElement.getAttribute('role')"));
        Assert.True(
            ines.Script<bool>("return document.activeElement.getBoundingClientRect().top >= 48"),
            "The question is in sight, though Save was at the end of the desk."
        );
        // On a slow line it is on the wall long before it is saved and the desk closes; one may go on meanwhile.
        ines.SlowDown(600);
        ines.Click(Containing("button", "This and later"));

        ines.Find(Brick("Thursday 12 March, 09:00 to 10:00, Glaze night"));
        ines.Find(Brick("Wednesday 11 March, 09:00 to 10:00, Glaze evening"));
        ines.Press("]");
        ines.Find(Brick("Thursday 19 March, 09:00 to 10:00, Glaze night"));
        ines.WaitGone(By.CssSelector("aside"));
        ines.Press("z");
        ines.Find(Brick("Thursday 19 March, 09:00 to 10:00, Glaze evening"));
        Assert.Empty(ines.Complaints());
    }

    [Fact]
    public async Task A_brick_of_a_series_that_is_carried_asks_once_and_goes_back_where_that_is_wished()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);

        ines.DragToCell("Friday 13 March, 09:00 to 12:00, Front desk", "Dele Okoro", "2026-03-13");
        ines.WaitForText("“Front desk” repeats. Change how much of it?");
        ines.Click("Leave it as it was");
        ines.Find(InRow("Tomasz Wilk", "Friday 13 March, 09:00 to 12:00, Front desk"));
        ines.DragToCell("Friday 13 March, 09:00 to 12:00, Front desk", "Dele Okoro", "2026-03-13");
        ines.Click(Containing("button", "Only this one"));

        // Until it is saved its desk is one of writing, where letters are no keys of the wall.
        ines.WaitGone(By.CssSelector("aside form"));
        ines.Find(InRow("Dele Okoro", "Friday 13 March, 09:00 to 12:00, Front desk"));
        ines.Press("]");
        ines.Find(InRow("Tomasz Wilk", "Friday 20 March, 09:00 to 12:00, Front desk"));
    }

    [Fact]
    public async Task Each_view_shows_the_same_week_and_its_address_brings_it_back()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        foreach (var view in new[] { "Week", "Day", "Month", "Agenda", "Roster" })
        {
            ines.Show(view);
            ines.Find(Brick("Bisque firing"));
            var address = ines.Path;

            ines.Open(address);

            ines.WaitForWall();
            ines.Find(Brick("Bisque firing"));
            Assert.StartsWith($"/{view.ToLowerInvariant()}/", address, StringComparison.Ordinal);
        }

        ines.Press("]");
        ines.WaitForText("16 – 22 March 2026");
        ines.Click("16 – 22 March 2026");
        ines.Find(By.CssSelector("input[aria-label='Go to a date']")).SendKeys("14 may" + Keys.Enter);
        ines.WaitForText("11 – 17 May 2026");
        ines.Press(".");
        ines.WaitForText("9 – 15 March 2026");
        ines.Click(By.CssSelector("[data-ribbon] button[aria-label^='Week of 23 March']"));
        ines.WaitForText("23 – 29 March 2026");
    }

    [Fact]
    public async Task The_day_gives_each_person_a_lane_and_people_can_be_looked_at_alone()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Open("/day/2026-03-12");
        ines.Find(Brick("Glaze testing"));

        ines.Click(Named("button", "Dele"));

        ines.WaitGone(Brick("Glaze testing"));
        Assert.Contains("who=", ines.Path, StringComparison.Ordinal);
        ines.Find(Brick("Kiln watch"));
        ines.Click("Everybody");
        ines.Find(Brick("Glaze testing"));
    }

    [Fact]
    public async Task What_is_looked_for_stands_out_and_escape_lets_everything_back()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);

        ines.Press("/");
        ines.Type("Words in title, place or notes, or a name", "glaze");

        ines.WaitForText("4 found");
        ines.Find(By.CssSelector("[data-brick][data-found=true]"));
        ines.Find(By.CssSelector("[data-brick][data-found=false]"));
        ines.Click(By.XPath("//section[@aria-label='What was found']//button[contains(., 'Glaze testing')]"));
        ines.Find(By.XPath("//aside//h2[normalize-space()='Glaze testing']"));
        ines.Press(Keys.Escape);
        ines.WaitGone(By.CssSelector("[data-found]"));
    }

    [Fact]
    public async Task Layers_are_shown_alone_set_beside_and_kept_as_a_set()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);

        ines.Choose(Named("button", "More for Classes"), "Only this one");
        ines.WaitGone(Brick("Team meeting"));
        ines.Choose(Containing("button", "Sets"), "Keep what is shown as a set");
        ines.Find(By.CssSelector("input[aria-label='Name of the set']")).SendKeys("Teaching" + Keys.Enter);
        ines.WaitForText("as “Teaching”");
        ines.Click(By.CssSelector("[data-layer=Rota] button"));
        ines.Find(Brick("Team meeting"));
        ines.Click(Containing("button", "Sets"));
        ines.Click(By.XPath("//*[@role='menuitem'][starts-with(normalize-space(), 'Teaching')]"));
        ines.WaitGone(Brick("Team meeting"));
        ines.Choose(Named("button", "More for Rota"), "Set beside the others");

        ines.Show("Week");

        ines.WaitForText("Blended");
        ines.Find(By.XPath("//span[@title='Rota']"));
        ines.Choose(Named("button", "More for Rota"), "My look");
        ines.Type("Name", "Front desk plan");
        ines.Click("Keep my look");
        ines.Find(Layer("Front desk plan"));
    }

    [Fact]
    public async Task Preferences_stay_and_the_wall_follows_them()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Open("/preferences");
        ines.Pick("Weeks begin on", "Sunday");
        ines.Pick("Hours", "7:00 pm");
        ines.Pick("A second zone along the hours", "America/Halifax");

        ines.Click("Keep these");
        ines.WaitForText("Your preferences are kept.");
        ines.Open("/week/2026-03-11");

        ines.WaitForText("8 – 14 March 2026");
        ines.Find(Brick("Bisque firing"));
        ines.WaitForText("10:00 am");
        ines.Find(By.XPath("//div[@title='America/Halifax']"));
    }

    [Fact]
    public async Task An_address_with_layers_shows_those_and_leaves_what_one_keeps()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        var rota = DemoPeople.Stable("calendar Rota");

        ines.Open($"/week/2026-03-11?layers={rota},{Guid.NewGuid()}");

        ines.WaitForText("This address shows one of your layers. One calendar in it is not on your wall");
        ines.Find(Brick("Team meeting"));
        ines.WaitGone(Brick("Bisque firing"));
        ines.Click(By.XPath("//nav[@aria-label='Shelf']//button[@aria-pressed='false'][contains(., 'Big kiln')]"));
        ines.WaitForText("This address shows 2 of your layers.");
        ines.Find(Brick("Bisque firing"));
        ines.Click("Show what I keep");
        ines.WaitGone(Containing("p", "This address shows"));
        ines.Find(Brick("Wheel basics"));
        Assert.DoesNotContain("layers", ines.Path, StringComparison.Ordinal);
    }

    [Fact]
    public async Task An_agenda_has_any_range_and_its_address_keeps_it()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Open("/agenda/2026-03-11");
        ines.Find(Brick("Bisque firing"));

        ines.Write("From", "12 march");
        ines.Write("To", "2026-03-13");

        ines.WaitForText("12 – 13 March 2026");
        ines.WaitGone(Brick("Bisque firing"));
        ines.Open(ines.Path);
        ines.WaitForText("12 – 13 March 2026");
        ines.Find(Brick("Glaze firing 1240"));
        ines.Press("]");
        ines.WaitForText("14 – 15 March 2026");
    }

    [Fact]
    public async Task Dates_and_hours_are_typed_as_one_writes_them_and_what_is_none_is_said()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        ines.Open("/week/2026-03-11");
        ines.Find(Brick("Bisque firing"));
        ines.Press("n");
        ines.Type("Title", "Slip casting");

        ines.Write("Begins on", "fri 13 march");
        ines.Write("at", "2:30 pm");

        ines.Find(By.XPath("//*[@data-hand='carried'][contains(normalize-space(), '14:30 to 15:30, Slip casting')]"));
        ines.Write("Begins on", "the day after");
        ines.WaitForText("Type a date, as 14 may, fri, week 20, 2026-05-14 or +3w.");
        ines.Find(Labelled("Begins on")).SendKeys(Keys.Escape);
        ines.Click(By.CssSelector("button[aria-label='Begins on: choose from a month']"));
        ines.Click(By.CssSelector("[data-radix-popper-content-wrapper] button[aria-label^='Sat 14 March']"));
        ines.Find(By.XPath("//*[@data-hand='carried'][contains(normalize-space(), 'Saturday 14 March, 14:30')]"));
    }

    /// <summary>Clocks in London go from 01:00 to 02:00 on 29 March 2026, those in Halifax went on 8 March (tz database).</summary>
    [Fact]
    public async Task At_the_clock_change_series_keep_their_own_clock_and_an_hour_that_is_not_there_is_refused()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Open("/week/2026-03-25");
        // 11:00 in Halifax is 14:00 in London's winter and 15:00 in its summer; 19:00 in London stays.
        ines.WaitForBrick("Shop hours", "14:00 to 16:00");
        ines.Press("n");
        ines.Type("Title", "Night firing");
        ines.Write("Begins on", "29 march");
        ines.Write("at", "1:30");
        ines.Click(Containing("button", "Add to"));
        ines.WaitForText("The clocks of Europe/London skip 01:30 on 29 March 2026");
        ines.WaitForText("Begin at 02:30, or end later.");
        ines.Write("at", "2:30");
        ines.Click(Containing("button", "Add to"));

        ines.WaitForBrick("Night firing", "02:30 to 03:30");
        // The keys of the wall come back with the end of the form.
        ines.WaitGone(Labelled("Title"));

        ines.Press("]");
        ines.WaitForText("30 March – 5 April 2026");
        ines.WaitForBrick("Shop hours", "15:00 to 17:00");
        ines.WaitForBrick("Thursday throwing", "19:00 to 21:30");
    }

    [Fact]
    public async Task In_a_language_from_right_to_left_the_wall_still_stands()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        (
            await api.Put(
                "/api/preferences",
                new
                {
                    zone = "Africa/Cairo",
                    secondZone = (string?)null,
                    firstDay = "saturday",
                    clock = "hours12",
                    locale = "ar-EG",
                    dayBegins = 480,
                    dayEnds = 1_140,
                    eventMinutes = 60,
                    eventCalendar = (Guid?)null,
                }
            )
        ).Is(200);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        foreach (var view in new[] { "Week", "Day", "Month", "Agenda", "Roster" })
        {
            ines.Show(view);

            ines.Find(Brick("Bisque firing"));
            Assert.Equal(1_280, ines.Script<long>("return document.documentElement.scrollWidth"));
        }

        Assert.Empty(ines.Complaints());
    }

    [Fact]
    public async Task A_wall_of_many_layers_people_and_long_titles_keeps_its_shape()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var calendar = await api.MakeCalendar();
        for (var i = 0; i < 40; i++)
        {
            (await api.Put($"/api/calendars/{Guid.CreateVersion7()}", World.Calendar($"Layer {i}"))).Is(200);
        }

        for (var i = 0; i < 60; i++)
        {
            var start = new NodaTime.LocalDateTime(2026, 3, 11, 9, 0).PlusMinutes(i * 5);
            await api.MakeEvent(
                calendar,
                i == 0 ? string.Concat(Enumerable.Repeat("Celadon ", 25)) : $"Tile {i}",
                World.Hours(
                    start.ToString("uuuu-MM-dd'T'HH:mm:ss", CultureInfo.InvariantCulture),
                    start.PlusMinutes(45).ToString("uuuu-MM-dd'T'HH:mm:ss", CultureInfo.InvariantCulture)
                )
            );
        }

        await mortar.AddMembers(300);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        foreach (var view in new[] { "Week", "Day", "Month", "Agenda", "Roster" })
        {
            ines.Show(view);
            ines.Find(By.CssSelector("[data-brick]"));

            Assert.Equal(
                (1_280, 800),
                (
                    ines.Script<long>("return document.documentElement.scrollWidth"),
                    ines.Script<long>("return document.documentElement.scrollHeight")
                )
            );
        }

        ines.Click(By.CssSelector("nav[aria-label=Shelf] button[title='All layers  L']"));
        ines.Find(By.CssSelector("input[aria-label='Filter layers']")).SendKeys("Layer 39");
        ines.WaitGone(By.CssSelector("section[aria-label='All layers'] [data-layer='Layer 12']"));
        ines.Find(By.CssSelector("section[aria-label='All layers'] [data-layer='Layer 39']"));
        Assert.Empty(ines.Complaints());
    }

    [Fact]
    public async Task Several_dates_of_one_series_are_marked_and_deleted_and_come_back_with_one_undo()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        foreach (var day in new[] { "Monday 9 March", "Tuesday 10 March" })
        {
            ines.Keys_(ines.Find(Brick($"{day}, 09:00 to 13:00, Front desk")), Keys.Space);
        }

        ines.WaitForText("2 marked");
        ines.Press(Keys.Delete);

        ines.WaitForText("Deleted 2 events.");
        ines.WaitGone(Brick("Monday 9 March, 09:00 to 13:00, Front desk"));
        ines.WaitGone(Brick("Tuesday 10 March, 09:00 to 13:00, Front desk"));
        ines.Find(Brick("Wednesday 11 March, 13:00 to 17:00, Front desk"));
        ines.Press("z");
        ines.Find(Brick("Monday 9 March, 09:00 to 13:00, Front desk"));
        ines.Find(Brick("Tuesday 10 March, 09:00 to 13:00, Front desk"));
    }

    [Fact]
    public async Task What_is_marked_is_acted_on_out_of_view_too_and_a_series_is_not_moved_unasked()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var rota = new Core.Words.CalendarId(DemoPeople.Stable("calendar Rota"));
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();
        ines.Keys_(ines.Find(Brick("Monday 9 March, 09:00 to 13:00, Front desk")), Keys.Space);
        ines.Press("]");
        ines.Keys_(ines.Find(Brick("Tuesday 17 March, 09:00 to 13:00, Front desk")), Keys.Space);
        ines.WaitForText("2 marked, 1 of them not in view");

        ines.Find(By.XPath("//select[@aria-label='Move to a calendar']/option[normalize-space()='Classes']")).Click();
        ines.WaitForText("Dates of a series are among what is marked.");
        ines.Click("Leave it");
        ines.Press(Keys.Delete);

        ines.WaitForText("Deleted 2 events.");
        ines.WaitGone(Brick("Tuesday 17 March, 09:00 to 13:00, Front desk"));
        var starts = (await api.Bricks(rota, "2026-03-09", "2026-03-22"))
            .Where(brick => brick.Text("title") == "Front desk")
            .Select(brick => brick.GetProperty("time").Text("start"))
            .ToList();
        Assert.DoesNotContain("2026-03-09T09:00:00", starts);
        Assert.DoesNotContain("2026-03-17T09:00:00", starts);
        Assert.Contains("2026-03-16T09:00:00", starts);
    }

    [Fact]
    public async Task Several_are_copied_together_and_a_reader_who_deletes_is_told_that_nothing_was()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var calendar = await api.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Dele, Core.Access.Role.View);
        await api.MakeEvent(calendar, "Celadon");
        await api.MakeEvent(calendar, "Tenmoku", World.Hours("2026-03-12T16:00:00", "2026-03-12T17:00:00"));
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();
        ines.Keys_(ines.Find(Brick("Celadon")), Keys.Space);
        ines.Keys_(ines.Find(Brick("Tenmoku")), Keys.Space);
        ines.WaitForText("2 marked");
        ines.Copying(() => ines.Move("Celadon", 1, 0));
        ines.WaitForText("Copied 2 events.");
        Assert.Equal(
            ["Celadon", "Celadon", "Tenmoku", "Tenmoku"],
            (await api.Bricks(calendar)).Select(brick => brick.Text("title")).Order(StringComparer.Ordinal)
        );

        using var dele = new Screen(mortar.Url).SignIn(DemoPeople.Dele).Week();
        dele.Keys_(dele.Find(Brick("Celadon")), Keys.Space);
        dele.WaitForText("1 marked");
        dele.Press(Keys.Delete);
        dele.WaitForText("Nothing was changed: these are not yours to change");
        Assert.False(dele.Has(Named("button", "Undo")));
        Assert.Equal(4, (await api.Bricks(calendar)).Count);
    }

    [Fact]
    public async Task A_copy_is_made_with_a_modifier_and_the_first_stays()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var calendar = await api.MakeCalendar();
        await api.MakeEvent(calendar);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);

        ines.Copying(() => ines.DragToCell("Celadon", "Everyone", "2026-03-10"));

        ines.WaitForText("Copied “Celadon” to Tue 10");
        ines.Find(Brick("Tuesday 10 March, 14:00 to 15:30, Celadon"));
        ines.Find(Brick("Thursday 12 March, 14:00 to 15:30, Celadon"));
        Assert.Equal(2, (await api.Bricks(calendar)).Count);
    }

    [Fact]
    public async Task After_only_this_one_all_come_back_as_they_were_however_much_later()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();
        ines.Click(By.CssSelector("[data-layer='Web shop'] button")); // hidden by hand, and stays so
        ines.WaitGone(Brick("Shop hours"));
        ines.Choose(Named("button", "More for Classes"), "Only this one");
        ines.WaitGone(Brick("Team meeting"));
        ines.Choose(Named("button", "More for Classes"), "Only this one");

        ines.Open("/week/2026-03-11");
        ines.Click("All as before");

        ines.Find(Brick("Team meeting"));
        ines.WaitGone(Named("button", "All as before"));
        Assert.Equal(
            ["Web shop"],
            (await api.Get("/api/shelf"))
                .Is(200)
                .Body.EnumerateArray()
                .Where(layer => !layer.GetProperty("shown").GetBoolean())
                .Select(layer => layer.Text("name"))
        );
    }

    [Fact]
    public async Task A_letter_typed_on_a_desk_of_writing_is_no_key_of_the_wall()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();
        ines.Change("Team meeting");
        ines.Find(Named("button", "Save"));
        foreach (var letter in "fgnl/]")
        {
            ines.Press(letter.ToString());
        }

        ines.Find(Named("button", "Save"));
        ines.Title("Week, 9 – 15 March 2026, Studio team · Mortar");
        Assert.EndsWith("desk=writing", ines.Path, StringComparison.Ordinal);
        ines.Press(Keys.Escape);
        ines.Press("]");
        ines.Title("Week, 16 – 22 March 2026, Studio team · Mortar");
    }

    [Fact]
    public async Task What_is_sought_is_asked_for_when_the_typing_pauses_and_what_steps_back_can_be_read()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();
        ines.Press("/");
        ines.Type("Words in title, place or notes, or a name", "front desk");
        ines.WaitForText(" found");
        ines.Find(By.CssSelector("[data-found=true]"));
        ines.Find(By.CssSelector("[data-found=false]"));
        var asked = ines.Script<IReadOnlyCollection<object>>(
            "return performance.getEntriesByType('resource').map((one) => new URL(one.name)).filter((one) => one.pathname === '/api/find').map((one) => one.searchParams.get('words'))"
        );
        // Ten letters; on a machine that is busy some of them may lie a pause apart.
        Assert.InRange(asked.Count, 1, 4);
        Assert.Contains("front desk", asked);
        foreach (var theme in new[] { "light", "dark" })
        {
            ines.Theme(theme);
            Assert.Equal(string.Empty, ines.Axe());
        }
    }

    [Fact]
    public async Task A_key_pressed_before_the_wall_is_drawn_means_the_place_that_was_asked_for()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();

        ines.PressAtOnce("]", "]", "]");
        ines.Title("Week, 30 March – 5 April 2026, Studio team · Mortar");
        ines.PressAtOnce("[", "[", "[");
        ines.Title("Week, 9 – 15 March 2026, Studio team · Mortar");

        ines.Change("Team meeting");
        ines.Find(Named("button", "Save"));
        ines.PressAtOnce("Escape", "]");
        ines.Title("Week, 16 – 22 March 2026, Studio team · Mortar");
        ines.WaitGone(By.CssSelector("aside"));
        // The other way round: what is pressed right after the desk was asked for is meant for it.
        ines.PressAtOnce("/", "]");
        ines.Title("Week, 23 – 29 March 2026, Studio team · Mortar");
        ines.PressAtOnce("n", "]", "/");
        ines.Find(By.XPath("//aside//button[starts-with(., 'Add to ')]"));
        ines.Title("Week, 23 – 29 March 2026, Studio team · Mortar");
    }

    [Fact]
    public async Task A_layer_changes_its_place_by_its_menu_and_the_focus_comes_back_from_the_desk()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);

        ines.Choose(Named("button", "More for Classes"), "Put before Big kiln");

        ines.Find(By.XPath("//*[@data-layer='Classes'][following-sibling::*[@data-layer='Big kiln']]"));
        var brick = ines.Find(Brick("Bisque firing"));
        ines.Keys_(brick, Keys.Enter);
        ines.Find(Named("button", "Change"));
        ines.Press(Keys.Escape);
        ines.WaitGone(By.CssSelector("aside"));
        Assert.Contains(
            "Bisque firing",
            ines.Script<string>("return document.activeElement.textContent"),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task With_a_finger_a_brick_is_held_and_carried()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var calendar = await api.MakeCalendar();
        await api.MakeEvent(calendar);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);

        ines.HoldAndCarry(Brick("Celadon"), Cell("Priya Raman", "2026-03-13"));

        ines.Find(InRow("Priya Raman", "Friday 13 March, 14:00 to 15:30, Celadon"));
    }

    [Fact]
    public async Task People_calendars_and_groups_are_found_with_what_can_be_done_with_each()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var calendar = await api.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Core.Access.Role.View);
        await api.MakeEvent(calendar, "Celadon");
        using var priya = new Screen(mortar.Url).SignIn(DemoPeople.Priya).Week();
        priya.Find(Layer("Glaze tests"));
        priya.Press("/");
        priya.Type("Words in title, place or notes, or a name", "glaze tests");

        priya.Click(Containing("button", "Take off my shelf"));
        priya.WaitGone(Layer("Glaze tests"));
        priya.WaitGone(Brick("Celadon"));
        priya.WaitForText("off your shelf");
        Assert.Equal(string.Empty, priya.Axe());
        Shot(priya, "find-known");
        priya.Open("/week/2026-03-11"); // and so it stays
        priya.WaitForWall();
        Assert.False(priya.Has(Layer("Glaze tests")));
        priya.Press("/");
        priya.Type("Words in title, place or notes, or a name", "glaze tests");
        priya.Click(Containing("button", "Put on my shelf"));
        priya.Find(Layer("Glaze tests"));
        priya.Find(Brick("Celadon"));

        priya.Click(Containing("button", "Ask for more"));
        priya.Pick("Ask for", "Edit");
        priya.Click("Ask");
        priya.WaitForText("Asked. A coordinator will answer");
        Assert.Contains("\"edit\"", (await api.Get("/api/inbox")).Is(200).Text, StringComparison.Ordinal);

        priya.Type("Words in title, place or notes, or a name", "tomasz");
        priya.Click(Containing("button", "Ask for a calendar"));
        Assert.Equal(
            DemoPeople.Tomasz.Name,
            priya.Find(Labelled("Whose: a mail address, or the name of a person or group")).GetAttribute("value")
        );
        priya.Press("Escape");
        priya.Open("/week/2026-03-11?desk=find");
        priya.Type("Words in title, place or notes, or a name", "club");
        priya.Click(Containing("button", "Open Raku club"));
        priya.WaitGone(Labelled("Words in title, place or notes, or a name"));
        Assert.Contains("group=", priya.Path, StringComparison.Ordinal);
        Assert.Equal(string.Empty, string.Join("\n", priya.Complaints()));
    }
}
