using Mortar.Server.Features.Demo;
using Mortar.Server.Tests;
using OpenQA.Selenium;
using Xunit;
using static Mortar.Browser.Tests.Screen;

namespace Mortar.Browser.Tests;

/// <summary>Makes docs/screenshots from demo data (<c>./mortar shots</c>); not part of the tests.</summary>
public class Screenshots
{
    [Fact(Explicit = true)]
    public async Task Take()
    {
        var folder =
            Environment.GetEnvironmentVariable("MORTAR_SHOTS")
            ?? throw new InvalidOperationException("Say where: MORTAR_SHOTS.");
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var calendar = await api.MakeCalendar();
        await api.MakeEvent(calendar, "Celadon, three ways", World.Hours("2026-03-15T10:00:00", "2026-03-15T12:30:00"));
        foreach (
            var (address, role) in new[]
            {
                ("tomasz@example.org", "view"),
                ("priya@example.org", "edit"),
                ("nina@example.org", "outline"),
            }
        )
        {
            (
                await api.Put(
                    $"/api/calendars/{calendar.Value}/invitations/{Guid.NewGuid()}",
                    new
                    {
                        address,
                        role,
                        message = "For the spring tests.",
                    }
                )
            ).Is(204);
        }

        using var screen = new Screen(mortar.Url).Open();
        screen.Find(Containing("button", "Ines Varga"));
        screen.SignIn(DemoPeople.Ines);
        screen.WaitForText("5 of 6");
        screen.Find(By.XPath("//*[@data-kind='together'][contains(., 'none')]"));
        Shot("roster");
        foreach (var view in new[] { "Day", "Month", "Agenda", "Week" })
        {
            screen.Show(view);
            // What was there before shows until the rest is fetched: the month is there when another of its weeks is.
            screen.Find(Brick(view == "Month" ? "Tuesday 24 March" : "Bisque firing"));
            Shot(view.ToLowerInvariant());
        }

        screen.Press("f");
        screen.Click("Leave Hanne Lind out");
        screen.Click("Leave Mei Sato out");
        screen.Find(By.CssSelector("[data-lit=true]"));
        screen.WaitForText("Of Priya Raman only");
        Shot("gaps");
        screen.Open("/week/2026-03-11");
        screen.WaitForWall();
        screen.Press("/");
        screen.Type("Words in title, place or notes, or a name", "glaze");
        screen.WaitForText(" found");
        screen.Show("Roster");
        screen.Find(By.CssSelector("[data-brick][data-found=true]"));
        Shot("find");
        screen.Press(Keys.Escape);
        screen.Press("p");
        screen.WaitForText("1 sheet of A4, across");
        Shot("print");
        screen.Open($"/week/2026-03-16?desk=proposal~{await Propose(mortar, api)}");
        screen.WaitForText("2 of 3 answered.");
        screen.Find(By.CssSelector("[data-lit=true]"));
        Shot("proposal");
        screen.Open("/week/2026-03-11");
        screen.Find(Brick("Celadon"));
        screen.Choose(Named("button", "More for Glaze tests"), "Give access");
        screen.WaitForText("Who has access");
        screen.WaitForText("nina@example.org");
        screen.Type("Mail address", "dele@example.org");
        screen.WaitForText("Dele Okoro will see everything");
        Shot("wall-access");
        screen.Click("Import");
        screen
            .Find(By.CssSelector("input[type=file]"))
            .SendKeys(Path.Combine(AppContext.BaseDirectory, "Samples", "troubled.ics"));
        screen.WaitForText("Import 7 into Glaze tests");
        Shot("wall-import");
        screen.Open($"/groups/{World.StudioTeam}/access");
        screen.Click(By.XPath("//button[contains(@class, 'access-cell')][contains(., 'for Priya Raman on Rota')]"));
        screen.WaitForText("Edit: given to them. View: as every member");
        Shot("access");
        screen.Open($"/groups/{World.StudioTeam}/people");
        screen.Paste(
            "Names or mail addresses, one a line or pasted from anywhere",
            "Bea Moss <bea@example.org>\nastrid@example.org\nOtis Clay\nKaja Berg, kaja@exmaple.org\npriya@example.org\nFarid@"
        );
        screen.WaitForText("3 people come in");
        Shot("people");
        screen.Open($"/groups/{World.StudioTeam}/noticeboards");
        screen.Click("New noticeboard");
        screen.Type("Title", "Kiln Street open days");
        screen.Pick("Classes", "View: notes as well");
        screen.Pick("Rota", "Times only");
        screen.WaitForText("with notes");
        screen.WaitForTextIn(By.CssSelector("iframe[title='The noticeboard']"), "Kiln Street open days");
        screen.WaitForTextIn(By.CssSelector("iframe[title='The noticeboard']"), "Wheel basics");
        Shot("noticeboard");
        screen.Open("/week/2026-03-11");
        screen.Click(Brick("Team meeting"));
        screen.WaitForText("Who comes");
        screen.Click("Delete");
        screen.WaitGone(Brick("Team meeting"));
        screen.WaitForText("Deleted “Team meeting”.");
        screen.Open("/bin");
        screen.WaitForText("Ines Varga deleted it");
        Shot("bin");
        screen.Click(Containing("button", "Bring back"));
        screen.WaitForText("“Team meeting” is back in Rota.");
        screen.Open("/post-room");
        screen.Find(Containing("button", "nina@example.org"));
        Shot("post-room");
        await ProposeAbsence(mortar, api);
        screen.Open("/inbox");
        screen.WaitForText("Priya Raman would like to be away");
        screen.WaitForText("too few");
        Shot("inbox");
        screen.Open($"/groups/{World.StudioTeam}/cover");
        screen.Find(By.CssSelector("td[data-perhaps=true]"));
        Shot("cover");
        using var phone = new Screen(mortar.Url, 390, 844).SignIn(DemoPeople.Ines);
        List<string> pictures = [];
        foreach (var view in new[] { "Month", "Week", "Roster" })
        {
            phone.Open($"/{view.ToLowerInvariant()}/2026-03-11");
            phone.Find(Brick("School visit"));
            pictures.Add(phone.Picture());
        }

        phone.PhotographBeside(pictures, Path.Combine(folder, "phone.png"));

        void Shot(string name) => screen.Photograph(Path.Combine(folder, $"{name}.png"));
    }

    /// <summary>Three times for three people, of whom two have answered.</summary>
    private static async Task<Guid> Propose(TestMortar mortar, Server.Tests.Browser ines)
    {
        var id = Guid.CreateVersion7();
        DemoPerson[] asked = [DemoPeople.Tomasz, DemoPeople.Priya, DemoPeople.Dele];
        var body = new
        {
            calendarId = DemoPeople.Stable("calendar Rota"),
            title = "Spring open day",
            place = "Long table",
            notes = "",
            times = new[] { 16, 18, 19 }.Select(day => new
            {
                start = $"2026-03-{day}T16:30:00",
                end = $"2026-03-{day}T17:30:00",
            }),
            personIds = asked.Select(one => one.Id.Value),
        };
        (await ines.Put($"/api/proposals/{id}", body)).Is(204);
        foreach (
            var (who, all) in new[] { (asked[0], "suits doesNotSuit suits"), (asked[2], "suits wouldDo doesNotSuit") }
        )
        {
            using var browser = await mortar.As(who);
            var said = all.Split(' ')
                .Zip(new[] { 16, 18, 19 }, (suits, day) => new { at = $"2026-03-{day}T16:30:00Z", suits });
            (await browser.Put($"/api/proposals/{id}/suits", new { said })).Is(204);
        }

        return id;
    }

    /// <summary>An absence that collides with the front desk and leaves too few.</summary>
    private static async Task ProposeAbsence(TestMortar mortar, Server.Tests.Browser ines)
    {
        var away = DemoPeople.Stable("calendar Away");
        var settings = new
        {
            groupId = World.StudioTeam,
            name = "Away",
            description = "Holidays and other absences.",
            hue = "ochre",
            mark = "shelf",
            zone = "Europe/London",
            purpose = "away",
            groupDefault = "add",
            agreed = true,
        };
        (await ines.Put($"/api/calendars/{away}", settings, 1)).Is(200);
        using var priya = await mortar.As(DemoPeople.Priya);
        var absence = new
        {
            calendarId = away,
            title = "Family visit",
            showAs = "busy",
            time = new
            {
                form = "days",
                first = "2026-03-17",
                last = "2026-03-19",
            },
        };
        (await priya.Put($"/api/events/{Guid.CreateVersion7()}", absence)).Is(200);
    }
}
