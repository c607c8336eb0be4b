using Mortar.Server.Features.Demo;
using Mortar.Server.Tests;
using OpenQA.Selenium;
using Xunit;
using static Mortar.Browser.Tests.Screen;

namespace Mortar.Browser.Tests;

/// <summary>What is being written is never lost, whatever happens to the page, the network, the server or the sign-in.</summary>
public class KeptTests
{
    private static readonly By Desk = By.CssSelector("aside");

    [Fact]
    public async Task What_is_written_is_there_again_after_a_reload_another_page_and_back()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Open("/week/2026-03-11");
        ines.WaitForWall();
        ines.Press("n");
        ines.Type("Title", "Half a thought");

        // Loaded anew one goes on where one was.
        ines.Open(ines.Path);
        Assert.Equal("Half a thought", ines.Find(Labelled("Title")).GetAttribute("value"));
        ines.Type("Where", "Glaze room");

        // A link leads away; on the wall it is offered, again and again, until one takes it or lets it go.
        ines.Click(By.CssSelector("a[href='/inbox']"));
        ines.Title("Inbox · Mortar");
        ines.Open("/roster/2026-03-11");
        ines.WaitForText("“Half a thought” was not saved.");
        ines.Open("/month/2026-03-11");
        ines.WaitForText("“Half a thought” was not saved.");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "kept");
        ines.Click("Bring it back");
        Assert.Equal("Glaze room", ines.Find(Labelled("Where")).GetAttribute("value"));
        ines.WaitGone(Containing("p", "was not saved"));
        ines.Click(Containing("button", "Add to"));
        ines.WaitGone(Desk);
        ines.Open("/week/2026-03-11");
        ines.Find(Brick("Half a thought"));
        Assert.False(ines.Has(Containing("p", "was not saved")));
        using var priya = await mortar.As(DemoPeople.Priya);
        Assert.Single(
            await priya.Bricks(new(DemoPeople.Stable("calendar Classes"))),
            brick => brick.Text("title") == "Half a thought"
        );
    }

    [Fact]
    public async Task Back_closes_the_desk_and_keeps_what_was_written_and_what_is_let_go_is_gone()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url, 390, 844).SignIn(DemoPeople.Ines).Open("/day/2026-03-10");
        ines.WaitForWall();
        ines.Press("]");
        ines.Title("Day, Wed 11 March 2026, Studio team · Mortar");

        // Reading, changing and back: one is where one was before the desk was opened, however much was done on it.
        ines.Change("School visit");
        ines.Type("Title", "Visit of a school");
        ines.Back();
        ines.WaitGone(Desk);
        ines.Title("Day, Wed 11 March 2026, Studio team · Mortar");
        ines.WaitForText("“Visit of a school” was not saved.");

        // Closed by its own button there is no step too many either.
        ines.Click(Brick("Team meeting"));
        ines.Find(Desk);
        ines.Click("Close the desk (Esc)");
        ines.WaitGone(Desk);
        ines.Back();
        ines.Title("Day, Tue 10 March 2026, Studio team · Mortar");

        ines.WaitForText("“Visit of a school” was not saved.");
        ines.Click("Let it go");
        ines.WaitGone(Containing("p", "was not saved"));
        ines.Open("/day/2026-03-11");
        ines.Find(Brick("School visit"));
        Assert.False(ines.Has(Containing("p", "was not saved")));
    }

    [Fact]
    public async Task What_covers_a_phone_is_all_that_can_be_come_to_and_gives_the_focus_back()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url, 390, 844).SignIn(DemoPeople.Ines).Open("/day/2026-03-11");
        ines.WaitForWall();
        var brick = ines.Find(Brick("School visit")).GetAttribute("data-brick");
        ines.Keys_(ines.Find(Brick("School visit")), Keys.Enter);
        ines.Hears("School visit, heading");
        var reached = new HashSet<bool>();
        for (var step = 0; step < 25; step++)
        {
            ines.Go(Keys.Tab);
            reached.Add(
                ines.Script<bool>(
                    "return document.activeElement === document.body || document.querySelector('aside').contains(document.activeElement)"
                )
            );
        }

        Assert.Equal([true], reached);
        ines.Press(Keys.Escape);
        ines.WaitGone(Desk);
        Assert.Equal(0, ines.Script<long>("return document.querySelectorAll('[inert]').length"));

        ines.Keys_(ines.Find(Brick("School visit")), Keys.Enter);
        ines.Hears("School visit, heading");
        ines.Go(Keys.Escape);
        ines.Until(
            () => ines.Script<string?>("return document.activeElement.dataset.brick") == brick,
            "the brick to have the focus again"
        );
    }

    [Fact]
    public async Task Where_the_sign_in_ended_it_is_asked_for_right_there_and_the_saving_goes_on()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Open("/week/2026-03-11");
        ines.WaitForWall();
        ines.Press("n");
        ines.Type("Title", "Order of glaze");
        using (var elsewhere = await mortar.As(DemoPeople.Ines))
        {
            (await elsewhere.Delete("/api/sign-ins")).Is(204);
        }

        ines.Click(Containing("button", "Add to"));
        ines.WaitForText("Your sign-in as Ines Varga has ended.");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "again");
        // The server is there all along, and nobody is told otherwise.
        Assert.False(ines.Has(Containing("p", "has not answered")));
        Assert.Equal("ines@example.org", ines.Find(Labelled("Mail address")).GetAttribute("value"));
        ines.Type("Password", "not hers");
        ines.Click("Sign in");
        ines.Find(By.XPath("//*[@role='dialog']//*[@role='alert']"));
        using var priya = await mortar.As(DemoPeople.Priya);
        Assert.DoesNotContain(
            await priya.Bricks(new(DemoPeople.Stable("calendar Classes"))),
            brick => brick.Text("title") == "Order of glaze"
        );

        ines.Type("Password", DemoPeople.Password);
        ines.Click("Sign in");
        ines.WaitGone(By.CssSelector("[role='dialog']"));
        ines.Find(Brick("Order of glaze"));
        ines.WaitGone(Desk);
        Assert.Single(
            await priya.Bricks(new(DemoPeople.Stable("calendar Classes"))),
            brick => brick.Text("title") == "Order of glaze"
        );
    }

    [Fact]
    public async Task That_there_is_no_connection_is_said_by_itself_and_that_there_is_one_again()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Open("/week/2026-03-11");
        ines.WaitForWall();
        ines.Press("n");
        ines.Type("Title", "Written in the cellar");
        ines.Offline(true);
        ines.IsTold("Mortar has not answered since");
        Shot(ines, "down");
        ines.Click(Containing("button", "Add to"));
        ines.WaitForText("Mortar cannot be reached.");
        Assert.Equal("Written in the cellar", ines.Find(Labelled("Title")).GetAttribute("value"));

        using var elsewhere = await mortar.As(DemoPeople.Ines);
        await elsewhere.MakeEvent(new(DemoPeople.Stable("calendar Classes")), "Meanwhile");
        ines.Offline(false);
        ines.IsTold("Mortar answers again.");
        // What was missed is fetched, and what was written can be saved.
        ines.Find(Brick("Meanwhile"));
        ines.Click(Containing("button", "Add to"));
        ines.Find(Brick("Written in the cellar"));
        ines.WaitGone(Desk);
    }

    [Fact]
    public async Task Of_an_event_that_was_lost_meanwhile_only_what_one_wrote_is_kept()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var calendar = await api.MakeCalendar();
        await api.MakeEvent(calendar, "Celadon of the third shelf");
        var priyas = $"/api/calendars/{calendar.Value}/access/{DemoPeople.Priya.Id.Value}";
        (await api.Put(priyas, new { role = "edit" })).Is(204);
        using var priya = new Screen(mortar.Url).SignIn(DemoPeople.Priya).Open("/week/2026-03-11");
        priya.Change("Celadon of the third shelf");
        priya.Type("Where", "Beside the kiln");
        priya.Click("Close the desk (Esc)");
        priya.WaitForText("“Celadon of the third shelf” was not saved.");

        (await api.Delete(priyas)).Is(204);
        priya.Open("/week/2026-03-11");
        priya.WaitForText("What you wrote was not saved.");
        Assert.DoesNotContain(
            "Celadon",
            priya.Script<string>("return document.body.innerText"),
            StringComparison.Ordinal
        );
        priya.Click("Bring it back");
        priya.WaitForText("Beside the kiln");
        Assert.DoesNotContain(
            "Celadon",
            priya.Script<string>("return document.body.innerText"),
            StringComparison.Ordinal
        );
        priya.Open(priya.Path);
        priya.WaitForText("Beside the kiln");
        Assert.DoesNotContain(
            "Celadon",
            priya.Script<string>("return document.body.innerText"),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task What_waited_for_a_sign_in_is_not_sent_as_somebody_else()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Open("/week/2026-03-11");
        ines.WaitForWall();
        ines.Press("n");
        ines.Type("Title", "Order of glaze");
        using (var elsewhere = await mortar.As(DemoPeople.Ines))
        {
            (await elsewhere.Delete("/api/sign-ins")).Is(204);
        }

        ines.Click(Containing("button", "Add to"));
        ines.WaitForText("Your sign-in as Ines Varga has ended.");
        ines.Type("Mail address", "priya@example.org");
        ines.Type("Password", DemoPeople.Password);
        ines.Click("Sign in");
        ines.WaitGone(By.CssSelector("[role='dialog']"));
        ines.WaitForWall();
        using var priya = await mortar.As(DemoPeople.Priya);
        Assert.DoesNotContain(
            await priya.Bricks(new(DemoPeople.Stable("calendar Classes"))),
            brick => brick.Text("title") == "Order of glaze"
        );
        Assert.DoesNotContain(
            "Order of glaze",
            ines.Script<string>("return document.body.innerText"),
            StringComparison.Ordinal
        );
    }
}
