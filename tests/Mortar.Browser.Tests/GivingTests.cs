using Mortar.Core.Access;
using Mortar.Server.Features.Demo;
using Mortar.Server.Tests;
using OpenQA.Selenium;
using Xunit;
using static Mortar.Browser.Tests.Screen;

namespace Mortar.Browser.Tests;

/// <summary>Giving and getting by links and in return, the bin, and what keeps order around them.</summary>
public class GivingTests
{
    private static readonly Guid Rota = DemoPeople.Stable("calendar Rota");

    private static void OpenCalendar(Screen screen, string part) =>
        screen.Open($"/week/2026-03-11?desk=calendar~{Rota}~{part}");

    [Fact]
    public async Task A_link_is_made_read_without_an_account_put_on_a_wall_and_ended()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        OpenCalendar(ines, "access");
        ines.Click("New link");
        ines.Type("What you call it", "Studio door");
        ines.Pick("Step of the link", "Edit");
        ines.Click("Make the link");
        ines.WaitForText("Copy it now");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "made-link");
        var link = new Uri(ines.Find(By.CssSelector("[data-made-link] input")).GetAttribute("value")!).PathAndQuery;

        using var passer = new Screen(mortar.Url).Open(link);
        passer.WaitForText("Team meeting");
        Assert.Equal(string.Empty, passer.Axe());
        Shot(passer, "link");
        passer.Resize(390, 844);
        Shot(passer, "link-phone");
        passer.Click("Four weeks later");
        passer.WaitForText("Wed 8 April");
        Assert.Empty(passer.Complaints());

        using var astrid = new Screen(mortar.Url).SignIn(DemoPeople.Astrid).Open(link);
        astrid.WaitForText("There you have the step Edit");
        astrid.Click("Put it on my wall");
        astrid.Find(Layer("Rota"));

        ines.WaitForText("Edit, on 1 wall");
        ines.Click(Containing("a", "See what it shows"));
        ines.WaitForText("What somebody sees who opens this link.");
        ines.WaitForText("Team meeting");
        OpenCalendar(ines, "access");
        ines.WaitForText("Edit, on 1 wall");
        ines.Click(By.XPath("//section[@aria-label='Links']//button[normalize-space()='End']"));
        ines.WaitForText("leaves the walls of 1 who have it by this link alone");
        ines.Click("End the link");
        astrid.WaitGone(Layer("Rota"));
        passer.Open(link);
        passer.WaitForText("This link leads nowhere");
    }

    [Fact]
    public async Task Whoever_opens_a_link_to_write_makes_an_account_there_and_confirms_the_address_from_its_mail()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var calendar = await api.MakeCalendar();
        var made = await api.Put($"/api/calendars/{calendar.Value}/links/{Guid.NewGuid()}", new { role = "add" });
        var link = new Uri(made.Is(200).Body.Text("url")).PathAndQuery;
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();
        using var nina = new Screen(mortar.Url, 390, 844).Open(link);

        nina.Click("Make an account and put it on your wall");
        nina.Click("Make the account");
        nina.WaitForText("Give a name of 1 to");
        Assert.Equal(string.Empty, nina.Axe());
        nina.Type("Your name, as others know you", "Nina Falk");
        nina.Type("Your mail address", "nina@example.org");
        nina.Type("A password", "four words that fit");
        Shot(nina, "account-at-link");
        nina.Click("Make the account");
        nina.WaitForText("Is nina@example.org yours?");
        Assert.Equal(string.Empty, nina.Axe());
        Shot(nina, "account-at-link-wall");
        using (var hers = mortar.Anonymous())
        {
            (
                await hers.Post("/api/session", new { address = "nina@example.org", password = "four words that fit" })
            ).Is(204);
            await hers.MakeEvent(calendar, "Her first pot");
        }

        ines.Find(Brick("Her first pot"));
        var secret = await mortar.SecretIn(await mortar.MailWith("nina@example.org", "/address/"), "/address/");
        nina.Open($"/address/{secret}");
        nina.Click("Confirm the address");
        nina.WaitForText("It is yours.");
        nina.Open("/day/2026-03-12");
        nina.Find(Brick("Her first pot"));
        Assert.False(nina.Has(Containing("p", "Is nina@example.org yours?")));
        // The empty form was refused, which the browser notes.
        Assert.All(nina.Complaints(), one => Assert.Contains("422", one, StringComparison.Ordinal));
        Assert.Empty(ines.Complaints());
    }

    [Fact]
    public async Task A_calendar_is_deleted_by_its_name_and_brought_back_from_the_bin()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var priya = new Screen(mortar.Url).SignIn(DemoPeople.Priya).Week();
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        OpenCalendar(ines, "settings");
        ines.Click("Delete this calendar for everybody");
        ines.WaitForText("leaves the walls of");
        ines.Type("Type its name: Rota", "Rotor");
        ines.Click("Delete for everybody");
        ines.WaitForText("Type the calendar’s name to delete it for everybody: Rota");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "delete");

        ines.Type("Type its name: Rota", "Rota");
        ines.Click("Delete for everybody");
        ines.WaitForText("“Rota” is in the bin for 30 days.");
        priya.WaitGone(Layer("Rota"));

        ines.Open("/bin");
        ines.WaitForText("Ines Varga deleted it");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "bin");
        ines.Click(Containing("button", "Bring back"));
        ines.WaitForText("“Rota” is back, with everybody who had access.");
        priya.Find(Layer("Rota"));
    }

    [Fact]
    public async Task An_invitation_asks_for_a_calendar_in_return_and_ends_by_itself()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        OpenCalendar(ines, "access");
        ines.Type("Mail address", "astrid@example.org");
        ines.Click(Containing("label", "For a time only"));
        ines.Write("Last day of the access", "27 march");
        ines.Click(Containing("label", "And ask for theirs in return"));
        ines.Click("Give access");
        ines.WaitForText("Invitation sent to astrid@example.org.");

        using var astrid = new Screen(mortar.Url).SignIn(DemoPeople.Astrid);
        astrid.Click(Containing("a", "Inbox 1"));
        astrid.WaitForText("Ines Varga asks for a calendar of yours in return.");
        astrid.Pick("In return", "Home");
        Assert.Equal(string.Empty, astrid.Axe());
        Shot(astrid, "in-return");
        astrid.Click("Accept");
        astrid.WaitForText("“Rota” is a layer on your shelf now.");

        ines.Open("/week/2026-03-11");
        ines.Find(Brick(", Home"));
        OpenCalendar(ines, "access");
        ines.Click("Show the history");
        ines.WaitForText("Astrid Lindqvist accepted the invitation to View");
        ines.WaitForText("Astrid Lindqvist took the step View until Fri 27 March 2026");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "history");
    }

    [Fact]
    public async Task The_table_has_links_the_steps_of_every_member_and_those_who_left_with_access()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        await mortar.Give(new(Rota), DemoPeople.Mei, Role.Edit);
        using var api = await mortar.As(DemoPeople.Ines);
        (await api.Put($"/api/calendars/{Rota}/links/{Guid.NewGuid()}", new { role = "view", name = "Door" })).Is(200);
        (await api.Delete($"/api/groups/{World.StudioTeam}/members/{DemoPeople.Mei.Id.Value}")).Is(204);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Open($"/groups/{World.StudioTeam}/access");

        ines.Click(By.XPath("//tr[contains(., 'Link “Door”')]//button[contains(normalize-space(), 'Rota')]"));
        ines.Pick("Step", "Outline");
        ines.Click("Change the step");
        ines.WaitForText("Outline for whoever puts it on their wall");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "table-link");
        ines.Pick("Show", "Left the group, still has access");
        ines.WaitForText("left the group");
        ines.Pick("Show", "Everybody");
        ines.Find(By.CssSelector("select[aria-label='Every member on Rota']")).SendKeys("o");
        ines.WaitForText("Everybody in Studio team has at least Outline on “Rota” now.");
        ines.Click("Undo");
        ines.WaitForText("Undone.");
    }

    [Fact]
    public async Task A_group_has_its_settings_its_pupils_guardians_and_a_person_their_addresses()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        var throwing = DemoPeople.Stable("Thursday throwing");
        using var tomasz = new Screen(mortar.Url).SignIn(DemoPeople.Tomasz).Open($"/groups/{throwing}");
        tomasz.Type("Name", "Thursday throwers");
        tomasz.Write("Usual hours from", "9:00");
        tomasz.Click("Save settings");
        tomasz.WaitForText("Changed the settings of “Thursday throwers”.");
        Assert.Equal(string.Empty, tomasz.Axe());
        Shot(tomasz, "group");

        tomasz.Open($"/groups/{throwing}/people");
        tomasz.Click(By.XPath("(//button[starts-with(normalize-space(), 'Guardians')])[1]"));
        tomasz.Click(Containing("label", "Ines Varga"));
        Assert.Equal(string.Empty, tomasz.Axe());
        Shot(tomasz, "guardians");
        tomasz.Click("Save");
        tomasz.WaitForText("asked whether Ines Varga may see and answer for them");
        using var astrid = new Screen(mortar.Url).SignIn(DemoPeople.Astrid).Open("/inbox");
        astrid.WaitForText("Tomasz Wilk asks whether Ines Varga may see and answer for you in “Thursday throwers”");
        Assert.Equal(string.Empty, astrid.Axe());
        Shot(astrid, "guardianship");
        astrid.Click("Yes, they may");
        astrid.WaitForText("Ines Varga sees and answers for you in “Thursday throwers” now.");
        tomasz.WaitForText("Ines Varga sees and answers for them"); // by itself

        // Astrid ends it herself: on Ines's own page and in the people's list it is gone.
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Open("/preferences");
        ines.WaitForText("You see and answer for Astrid Lindqvist in “Thursday throwers”");
        astrid.Open("/preferences");
        astrid.Click(
            By.XPath("//section[@aria-label='Guardians']//button[starts-with(normalize-space(), 'End this')]")
        );
        Assert.Equal(string.Empty, astrid.Axe());
        astrid.Click("Keep it");
        astrid.Click(
            By.XPath("//section[@aria-label='Guardians']//button[starts-with(normalize-space(), 'End this')]")
        );
        astrid.Click("End it");
        astrid.WaitGone(By.CssSelector("section[aria-label='Guardians']"));
        ines.WaitGone(By.CssSelector("section[aria-label='Guardians']")); // by itself
        ines.Open("/preferences");
        ines.WaitForText("Mail addresses");
        Assert.False(ines.Has(By.CssSelector("section[aria-label='Guardians']")));
        tomasz.Open($"/groups/{throwing}/people");
        tomasz.WaitForText("Astrid Lindqvist");
        Assert.False(tomasz.Has(By.XPath("//*[contains(text(), 'Ines Varga sees and answers for them')]")));

        tomasz.Open("/preferences");
        tomasz.Type("A further address", "tomasz.home@example.org");
        tomasz.Click("Send a mail to confirm it");
        tomasz.WaitForText("waits to be confirmed by its mail");
        Assert.Equal(string.Empty, tomasz.Axe());
        Shot(tomasz, "addresses");
        tomasz.Open("/post-room");
        tomasz.Click(By.XPath("//a[contains(., '/address/')]"));
        tomasz.Click("Confirm the address");
        tomasz.WaitForText("It is yours.");
    }

    [Fact]
    public async Task One_event_is_given_out_by_a_link_and_handed_to_another_organizer()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();
        ines.Change("School visit");
        ines.Click("Hand it on");
        ines.Click("Make a link");
        ines.WaitForText("Copy it now");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "hand-on");
        var link = new Uri(ines.Find(By.CssSelector("[data-made-link] input")).GetAttribute("value")!).PathAndQuery;
        using var passer = new Screen(mortar.Url).Open(link);
        passer.WaitForText("School visit");
        Assert.False(passer.Has(Brick("Wheel basics")));
        Assert.Equal(string.Empty, passer.Axe());
        Shot(passer, "event-link");

        ines.Pick("Another organizer (now Ines Varga)", "Priya Raman");
        ines.Click("Hand over");
        ines.WaitForText("An organizer needs the step Add on this calendar.");
        ines.Pick("Another organizer (now Ines Varga)", "Tomasz Wilk");
        ines.Click("Hand over");
        ines.WaitForText("“School visit” is Tomasz Wilk’s to organize now.");
        ines.Open($"/week/2026-03-11?desk=calendar~{DemoPeople.Stable("calendar Classes")}~access");
        ines.Click(Containing("a", "See what it shows"));
        ines.WaitForText("What somebody sees who opens this link.");
        ines.Find(Brick("School visit"));
    }

    [Fact]
    public async Task Somebody_named_is_let_change_one_event_and_has_nothing_else_of_its_calendar()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var calendar = await api.MakeCalendar();
        var body = new
        {
            calendarId = calendar.Value,
            title = "Glaze day",
            showAs = "busy",
            time = World.Hours("2026-03-13T15:00:00", "2026-03-13T16:00:00"),
            attendees = new[] { DemoPeople.Mei.Id.Value },
        };
        (await api.Put($"/api/events/{Guid.CreateVersion7()}", body)).Is(200);
        await api.MakeEvent(calendar, "Not for Mei", World.Hours("2026-03-13T17:00:00", "2026-03-13T18:00:00"));
        using var mei = new Screen(mortar.Url).SignIn(DemoPeople.Mei).Week();
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();

        ines.Change("Glaze day");
        ines.Click("Hand it on");
        ines.Click(Containing("label", "Mei Sato"));
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "let-change");
        ines.Click("Let them change it");
        ines.WaitForText("Mei Sato can change “Glaze day” now, and nothing else.");

        mei.Change("Glaze day"); // it came by itself
        mei.Find(Labelled("Title"));
        Assert.False(mei.Has(Named("button", "Delete")));
        Assert.False(mei.Has(Brick("Not for Mei")));
        Assert.Equal(string.Empty, mei.Axe());
        Shot(mei, "changed-by-guest");
        mei.Type("Title", "Glaze morning");
        mei.Click("Save");
        mei.WaitForText("Changed “Glaze morning”.");
        ines.Find(Brick("Glaze morning"));
        Assert.Empty(mei.Complaints());
    }

    [Fact]
    public async Task Somebody_of_another_group_is_suggested_by_name()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        ines.Open($"/groups/{World.StudioTeam}/people");
        ines.Paste("Names or mail addresses, one a line or pasted from anywhere", "astrid");
        ines.Find(Containing("button", "Ask Astrid Lindqvist"));
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "suggested");
        ines.Click(Containing("button", "Ask Astrid Lindqvist"));
        ines.WaitForText("One person asked to be in “Studio team”: in with their yes.");
        using var astrid = new Screen(mortar.Url).SignIn(DemoPeople.Astrid).Open("/inbox");
        astrid.WaitForText("Ines Varga asks whether you want to be in “Studio team”");
    }

    [Fact]
    public async Task Somebody_is_asked_for_a_calendar_by_name_and_chooses_which()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var mei = new Screen(mortar.Url).SignIn(DemoPeople.Mei).Week();
        mei.Choose(Containing("button", "Studio team"), "Ask somebody for a calendar");
        mei.Type("Whose: a mail address, or the name of a person or group", "Dele Okoro");
        mei.WaitForText("Dele Okoro lets people of their groups see when they are busy");
        Assert.Equal(string.Empty, mei.Axe());
        Shot(mei, "ask");
        mei.Pick("Ask for", "View");
        mei.Type("A note: who you are, and what it is for", "To plan the fair parcels");
        mei.Click("Ask");
        mei.WaitForText("Asked. If there is somebody or a group of that name");

        using var dele = new Screen(mortar.Url).SignIn(DemoPeople.Dele);
        dele.Open("/inbox");
        dele.WaitForText("To plan the fair parcels");
        dele.Pick("Calendar to give", "Raku club");
        dele.Pick("Step to give", "Outline");
        Assert.Equal(string.Empty, dele.Axe());
        Shot(dele, "asked-by-name");
        dele.Click("Give access");
        dele.WaitForText("Mei Sato was given Outline on “Raku club”.");
        mei.Find(Brick("Marsh fair"));
    }
}
