using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Mortar.Core.Availability;
using Mortar.Core.Time;
using Mortar.Server.Features.Demo;
using Mortar.Server.Tests;
using OpenQA.Selenium;
using Xunit;
using static Mortar.Browser.Tests.Screen;

namespace Mortar.Browser.Tests;

/// <summary>The coordinator's questions: when can they all, who is free then, what collides.</summary>
public class CoordinatingTests
{
    /// <summary>A gap of the answer to what is asked now.</summary>
    private static readonly By Gaps = By.CssSelector(
        "section[aria-label='Gaps found']:not([aria-busy='true']) li button"
    );

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
        ines.Click(By.XPath("//section[@aria-label='Gaps found']//li[1]//button[contains(., 'Fri 13 March, 14:30')]")); // the first of that length
        ines.WaitForText("goes to");
        Shot(ines, "gap-taken");
        ines.Type("Title", "Autumn plan");
        ines.Click(By.CssSelector("aside button[type=submit]"));
        ines.WaitForText("Added “Autumn plan”");
        ines.WaitForBrick("Autumn plan", "Friday 13 March, 14:30 to 16:30");
    }

    /// <summary>
    /// Drawn events of three people in one week, with what the demo has in it: what stands in the row is what Core finds in
    /// the times that lie on the wall.
    /// </summary>
    [Theory]
    [InlineData(4)]
    [InlineData(7_001)]
    public async Task The_row_of_all_together_shows_what_Core_finds_in_drawn_weeks(int seed)
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        Guid[] three = [DemoPeople.Ines.Id.Value, DemoPeople.Priya.Id.Value, DemoPeople.Tomasz.Id.Value];
        var calendar = await api.MakeCalendar();
        var draw = new Random(seed);
        for (var i = 0; i < 14; i++)
        {
            var start = new NodaTime.LocalDateTime(2026, 7, 13, 8, 0)
                .PlusDays(draw.Next(5))
                .PlusMinutes(15 * draw.Next(36));
            var body = new
            {
                calendarId = calendar.Value,
                title = $"Drawn {i}",
                showAs = draw.Next(5) == 0 ? "free" : "busy",
                time = World.Hours(Text(start), Text(start.PlusMinutes(15 * draw.Next(1, 9)))),
                attendees = three.Where(_ => draw.Next(2) == 0),
            };
            (await api.Put($"/api/events/{Guid.CreateVersion7()}", body)).Is(200);
        }

        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        ines.Open($"/roster/2026-07-13?group={World.StudioTeam}&who={string.Join('+', three)}");
        ines.Find(By.XPath("//*[@data-kind='together']//*[@data-lit or normalize-space()='none']"));

        var shown = ines.Script<IReadOnlyCollection<object>>(
            """
            return [...document.querySelectorAll("[data-kind=together] [role=gridcell]")].slice(0, 5).map((cell) =>
              [...cell.querySelectorAll('[data-lit]')].map((one) => one.textContent).join(', ') +
              [...cell.querySelectorAll('span')].map((one) => one.textContent.match(/^(\d+) more$/)).filter(Boolean).map(([, more]) => ` and ${more}`).join(''))
            """
        );
        Assert.Equal(await FoundByCore(api, three), shown);
    }

    /// <summary>For each of the five days the first two gaps of an hour, and how many more there are.</summary>
    private static async Task<List<string>> FoundByCore(Server.Tests.Browser api, Guid[] people)
    {
        var london = NodaTime.DateTimeZoneProviders.Tzdb["Europe/London"];
        var window = new Window(new(2026, 7, 13), new(2026, 7, 17), london);
        var hours = UsualHours.On(
            london,
            new DayHours(new(8, 0), new(19, 0)),
            [.. Enumerable.Range(1, 5).Cast<NodaTime.IsoDayOfWeek>()]
        );
        var bricks = (await api.Get("/api/wall?from=2026-07-13&to=2026-07-17"))
            .Is(200)
            .Body.BricksWithTexts()
            .Where(one => one.Text("form") == "event" && one.Text("showAs") == "busy")
            .Where(one => one.GetProperty("time").Text("form") == "clock")
            .ToList();
        var invited = people.Select(person => new Invitee(
            Participant.Of(new Core.Words.PersonId(person)),
            Need.Required,
            BusyTime.Of(
                window.Span,
                bricks
                    .Where(one => one.GetProperty("attendees").EnumerateArray().Any(who => who.GetGuid() == person))
                    .Select(one => (Span(one.GetProperty("time")), Taken.Busy))
            ),
            hours
        ));
        var gaps = Core
            .Availability.Gaps.Find(
                new GapQuestion([.. invited], window.Span, NodaTime.Duration.FromHours(1)) { Hours = HoursWish.Kept }
            )
            .Select(gap => (Start: gap.Span.Start.InZone(london), End: gap.Span.End.InZone(london)))
            .OrderBy(gap => gap.Start.ToInstant())
            .ToLookup(gap => gap.Start.Date, gap => $"{gap.Start:HH:mm} – {gap.End:HH:mm}");
        return
        [
            .. Enumerable
                .Range(0, 5)
                .Select(day => gaps[window.First.PlusDays(day)].ToList())
                .Select(ofDay =>
                    string.Join(", ", ofDay.Take(2)) + (ofDay.Count > 2 ? $" and {ofDay.Count - 2}" : string.Empty)
                ),
        ];

        NodaTime.Interval Span(System.Text.Json.JsonElement time) => new(At(time.Text("start")), At(time.Text("end")));

        NodaTime.Instant At(string local) =>
            ZoneClock.At(NodaTime.Text.LocalDateTimePattern.GeneralIso.Parse(local).Value, london);
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
        // Between a quarter and half past eight, an hour being 50 points high.
        var eight = ines.Middle(By.XPath("//span[normalize-space()='08:00'][not(ancestor::*[@data-brick])]"));
        ines.PressAt(200, eight.Y + 18); // two
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

    /// <summary>The coordinator's story: a time for four, three proposed, three answers, one settled, and the clash that follows.</summary>
    [Fact]
    public async Task Three_times_are_proposed_one_is_settled_and_the_clash_that_follows_is_resolved()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();
        ines.Press("f");
        ines.Find(Gaps);
        ines.Click("Leave Hanne Lind out");
        ines.Click("Leave Dele Okoro out");
        ines.Find(Gaps);
        Shot(ines, "four"); // for Ines, Tomasz, Priya and Mei
        foreach (var number in new[] { 1, 2, 3 })
        {
            var gap = By.XPath($"//section[@aria-label='Gaps found']//li[{number}]//label");
            ines.Middle(gap); // from under the bar with what is kept
            ines.Click(gap);
        }

        ines.WaitForText("3 times are kept.");
        Assert.Equal(string.Empty, ines.Axe());
        Assert.True(ines.Script<bool>("return document.documentElement.scrollHeight <= innerHeight")); // the page stands
        Shot(ines, "kept");
        ines.Click("Propose these");
        ines.Type("What it is about", "Autumn plan");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "propose");
        ines.Click("Ask which suits");
        ines.WaitForText("0 of 3 answered");

        using var priya = new Screen(mortar.Url).SignIn(DemoPeople.Priya).Open("/inbox");
        Say(priya, "Suits", "Would do", "Does not suit");
        Assert.Equal(string.Empty, priya.Axe());
        Shot(priya, "which");
        priya.Click("Answer");
        priya.WaitForText("Ines Varga reads which times of “Autumn plan” suit.");
        ines.WaitForText("1 of 3 answered"); // live
        using var tomasz = new Screen(mortar.Url).SignIn(DemoPeople.Tomasz).Open("/inbox");
        Say(tomasz, "Suits", "Suits", "Suits");
        tomasz.Click("Answer");
        tomasz.WaitForText("Ines Varga reads");
        var secret = await mortar.SecretIn(await mortar.MailWith("mei@example.org", "/suits/"), "/suits/");
        using var mei = new Screen(mortar.Url, 390, 844).Open($"/suits/{secret}");
        mei.WaitForText("They are on the clocks of America/Halifax.");
        Say(mei, "Does not suit", "Suits", "Suits");
        mei.Type("A word with it", "Not before seven here");
        Assert.Equal(string.Empty, mei.Axe());
        mei.Click("Answer");
        mei.WaitForText("Ines Varga reads it.");
        Shot(mei, "suits-phone");

        ines.WaitForText("3 of 3 answered");
        ines.WaitForText("Not before seven here");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "tally");
        ines.Show("Roster");
        ines.WaitForText("to be settled"); // in the row of what all have in common
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "tally-roster");
        ines.Show("Week");
        ines.Click(By.XPath("//li[contains(., 'suits best so far')]//button[.='Settle on this']"));
        ines.WaitForText("All who were asked are told.");
        ines.Find(Brick("Autumn plan"));
        Assert.False(ines.Has(By.CssSelector("[data-lit=true]"))); // the others are gone
        Shot(ines, "settled");
        mei.Open($"/suits/{secret}");
        mei.WaitForText("One of the times was settled meanwhile.");

        // Somebody books one of the four elsewhere for that time: the one who coordinates is told, and moves it.
        var settled = await mortar.Store(db => db.Events.SingleAsync(row => row.Title == "Autumn plan"));
        using var api = await mortar.As(DemoPeople.Priya);
        var start = settled.Start;
        (
            await api.Put(
                $"/api/events/{Guid.CreateVersion7()}",
                new
                {
                    calendarId = DemoPeople.Stable("calendar Rota"),
                    title = "Tile order",
                    showAs = "busy",
                    time = World.Hours(Text(start), Text(start.PlusHours(1))),
                    attendees = new[] { DemoPeople.Tomasz.Id.Value },
                }
            )
        ).Is(200);
        ines.WaitForText("Tile order");
        ines.Press("k");
        var clash = "//li[contains(., 'Tomasz Wilk') and contains(., 'Tile order')]";
        ines.Click(By.XPath($"{clash}//li[contains(., 'Tile order')]//button[.='Move it']"));
        ines.Click(By.XPath($"{clash}//button[starts-with(normalize-space(), 'to ')]"));
        ines.WaitForText("Tomasz Wilk is free then.");
        ines.Click("Save");
        ines.WaitForText("Changed “Tile order”.");
        ines.Press("k");
        ines.WaitForText("in the eight weeks ahead");
        ines.WaitGone(By.XPath(clash));
        Assert.Empty(ines.Complaints());
        Assert.Empty(mei.Complaints());
    }

    /// <summary>Says how each of the times suits, in their order.</summary>
    private static void Say(Screen screen, params string[] said)
    {
        for (var i = 0; i < said.Length; i++)
        {
            screen.Click(
                By.XPath($"(//ol/li[.//input[@type='radio']])[{i + 1}]//label[normalize-space()='{said[i]}']")
            );
        }
    }

    [Fact]
    public async Task One_is_reminded_on_the_open_screen_and_chooses_of_what()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();
        ines.Choose(Named("button", "More for Rota"), "My look");
        ines.Pick("Remind me", "of everything, when it begins");
        ines.WaitForText("Kept for you alone.");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "reminder-choice");
        using var api = await mortar.As(DemoPeople.Priya);
        var clock = mortar.Services.GetRequiredService<NodaTime.IClock>();
        var start = clock.GetCurrentInstant().Plus(NodaTime.Duration.FromSeconds(3)).InUtc().LocalDateTime;
        (
            await api.Put(
                $"/api/events/{Guid.CreateVersion7()}",
                new
                {
                    calendarId = DemoPeople.Stable("calendar Rota"),
                    title = "Kiln check",
                    place = "Kiln yard",
                    showAs = "busy",
                    time = World.Hours(Text(start), Text(start.PlusMinutes(30))),
                }
            )
        ).Is(200);

        var reminder = By.XPath("//section[@aria-label='Reminders']//div[contains(., 'Kiln check')]");
        ines.Find(reminder);
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "reminder");
        ines.Click("Put away");
        ines.WaitGone(reminder);
        ines.Open("/preferences");
        ines.Pick("The digest of what others changed", "each day, when my usual hours begin");
        ines.Click("Keep these");
        ines.WaitForText("Your preferences are kept.");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "preferences");
        Assert.Empty(ines.Complaints());
    }

    [Fact]
    public async Task What_others_do_is_laid_over_the_screen_of_who_wants_it_and_of_nobody_else()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        using var priya = new Screen(mortar.Url).SignIn(DemoPeople.Priya).Week();
        var id = Guid.CreateVersion7();
        async Task Put(string start, int? version = null) =>
            (
                await api.Put(
                    $"/api/events/{id}",
                    new
                    {
                        calendarId = DemoPeople.Stable("calendar Rota"),
                        title = "Unpack the kiln",
                        showAs = "busy",
                        time = World.Hours(start, "2026-03-13T18:00:00"),
                        attendees = new[] { DemoPeople.Priya.Id.Value },
                    },
                    version
                )
            ).Is(200);
        var news = By.XPath("//section[@aria-label='News']//p[contains(., 'Unpack the kiln')]");
        var inbox = By.XPath("//a[@href='/inbox'][contains(normalize-space(), '2')]");

        await Put("2026-03-13T16:00:00");
        priya.Find(news);
        Assert.Equal(string.Empty, priya.Axe());
        Shot(priya, "news");
        priya.Click(By.CssSelector("[aria-label='Put the news away']"));
        priya.WaitGone(news);

        priya.Open("/preferences");
        priya.Click(By.CssSelector("[aria-label='My plan: open screen']"));
        priya.Click(By.XPath("//label[contains(., 'Quiet hours')]/input"));
        priya.Write("From", "21:30");
        priya.Click("Keep these");
        priya.WaitForText("Your preferences are kept.");
        priya.Open("/preferences");
        Assert.False(priya.Find(By.CssSelector("[aria-label='My plan: open screen']")).Selected);
        Assert.True(priya.Find(By.CssSelector("[aria-label='My plan: inbox']")).Selected);
        Assert.False(priya.Find(By.CssSelector("[aria-label='Questions: inbox']")).Enabled);
        Assert.Equal("21:30", priya.Find(Screen.Labelled("From")).GetAttribute("value"));
        Assert.Equal(string.Empty, priya.Axe());

        priya.Open("/week").WaitForWall();
        await Put("2026-03-13T15:00:00", 1);
        priya.Find(inbox); // it has arrived, and lies over nothing
        Assert.False(priya.Has(news));
        Assert.Empty(priya.Complaints());
    }

    [Fact]
    public async Task People_are_asked_and_answer_in_the_inbox_and_by_a_mailed_link()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var plan = new
        {
            calendarId = DemoPeople.Stable("calendar Rota"),
            title = "Kiln plan",
            place = "Long table",
            showAs = "busy",
            time = World.Hours("2026-03-13T15:00:00", "2026-03-13T16:00:00"),
            attendees = new[] { DemoPeople.Tomasz.Id.Value, DemoPeople.Mei.Id.Value, DemoPeople.Priya.Id.Value },
        };
        (await api.Put($"/api/events/{Guid.CreateVersion7()}", plan)).Is(200);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();
        ines.Click(Brick("Kiln plan"));
        ines.Click("Ask these 3 whether they come");
        ines.WaitForText("Asked 3 people, by inbox and mail.");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "asked");

        using var tomasz = new Screen(mortar.Url).SignIn(DemoPeople.Tomasz);
        tomasz.Open("/inbox");
        tomasz.WaitForText("Do you come?");
        Assert.Equal(string.Empty, tomasz.Axe());
        Shot(tomasz, "question");
        tomasz.Click("with a word");
        tomasz.Type("A word with it", "Half an hour later");
        tomasz.Click("Perhaps");
        tomasz.WaitForText("Answered to “Kiln plan”.");
        ines.WaitForText("Half an hour later"); // on the open desk, live

        tomasz.Open("/week/2026-03-11");
        tomasz.Click(Brick("Kiln plan"));
        tomasz.Click("Suggest another time");
        tomasz.Write("Another time", "16:30");
        Assert.Equal(string.Empty, tomasz.Axe());
        Shot(tomasz, "suggest");
        tomasz.Click("Suggest that time");
        tomasz.WaitForText("Suggested Fri 13 March, 16:30.");
        ines.WaitForText("suggests Fri 13 March, 16:30");

        var secret = await mortar.SecretIn(await mortar.MailWith("mei@example.org", "/answer/"), "/answer/");
        using var mei = new Screen(mortar.Url, 390, 844).Open($"/answer/{secret}");
        mei.WaitForText("Ines Varga asks whether Mei Sato comes.");
        mei.WaitForText("12:00"); // on her own clock
        Assert.Equal(string.Empty, mei.Axe());
        mei.Click("Yes");
        mei.WaitForText("You come. You can change that here until then.");
        Shot(mei, "answer-phone");
        ines.WaitForText("Mei Sato comes");
        ines.Click("Take that time"); // it is saved by that
        tomasz.WaitForBrick("Kiln plan", "16:30 to 17:30");
        Assert.Empty(mei.Complaints());
    }

    [Fact]
    public async Task Low_days_stand_on_the_roster_in_the_month_and_where_an_absence_is_entered()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        ines.Show("Roster");
        ines.WaitForText("5 of 6, too few, away: Dele Okoro");
        Assert.Equal(string.Empty, ines.Axe());
        ines.Find(By.CssSelector("[data-ribbon] [data-low=true]"));
        Shot(ines, "cover");

        ines.Open($"/groups/{World.StudioTeam}/cover");
        ines.Find(By.CssSelector("td[title='Dele Okoro is away on Wed 11 March']"));
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "cover-month");
        ines.Click(Containing("a", "Days away in 2026"));
        ines.Find(By.XPath("//tr[contains(., 'Dele Okoro')]//td[last()][normalize-space()='3']"));
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "absences");
        ines.Open($"/groups/{World.StudioTeam}");
        ines.Type("Thu", "6");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "cover-settings");
        ines.Click("Save settings");
        ines.WaitForText("Changed the settings of “Studio team”.");

        using var priya = new Screen(mortar.Url).SignIn(DemoPeople.Priya);
        priya.Open("/day/2026-03-18");
        priya.WaitForWall();
        priya.Press("n");
        priya.Find(By.CssSelector("aside select")).SendKeys("Away");
        priya.Pick("Away for", "the whole day");
        priya.WaitForText("Too few would be there:");
        priya.WaitForText("5 of 6");
        priya.Pick("Away for", "the morning, up to noon");
        priya.Find(By.XPath("//*[@id=//label[normalize-space()='at']/@for][@value='12:00']"));
        priya.WaitForText("5 of 6"); // before noon
        Assert.Equal(string.Empty, priya.Axe());
        Shot(priya, "half-day");
        priya.Click(By.CssSelector("aside button[type=submit]"));
        priya.WaitForText("Added “Away”");
        ines.Open($"/groups/{World.StudioTeam}/cover");
        ines.Find(By.CssSelector("td[title='Priya Raman is away on Wed 18 March until noon']"));
    }

    private static string Text(NodaTime.LocalDateTime time) =>
        NodaTime.Text.LocalDateTimePattern.GeneralIso.Format(time);
}
