using System.Text.Json;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Mortar.Server.Tests;
using OpenQA.Selenium;
using Xunit;
using static Mortar.Browser.Tests.Screen;

namespace Mortar.Browser.Tests;

/// <summary>Who has no pointer gets everywhere, and is not sent the long way round (WCAG 2.2, 2.4.1 and 2.4.3).</summary>
public class KeyboardTests
{
    [Theory]
    [InlineData("/week/2026-03-11")]
    [InlineData("/print")]
    [InlineData("/preferences")]
    public async Task The_first_stop_leads_past_the_bar(string page)
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Open(page);
        ines.Find(By.CssSelector("main button, main input, main select"));
        var where = ines.Path;

        ines.Press(Keys.Tab);
        Assert.Equal("Skip the bar", ines.Script<string>("return document.activeElement.textContent"));
        ines.Find(Named("button", "Skip the bar"));
        Assert.Equal(string.Empty, ines.Axe());

        ines.Go(Keys.Enter);
        Assert.Equal("MAIN", ines.Script<string>("return document.activeElement.tagName"));
        ines.Go(Keys.Tab);
        Assert.True(ines.Script<bool>("return document.querySelector('main').contains(document.activeElement)"));
        Assert.Equal(where, ines.Path);
    }

    /// <summary>
    /// A coordinator's day without a pointer and without eyes: each step is what is pressed and what is heard then, which is
    /// either what has the focus or what the page says by itself.
    /// </summary>
    [Fact]
    public async Task A_whole_day_by_keys_alone_with_what_is_heard()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Open("/week/2026-03-11");
        ines.WaitForWall();
        ines.Title("Week, 9 – 15 March 2026, Studio team · Mortar");

        // Past the bar, and from brick to brick to what is to be read.
        ines.Press(Keys.Tab);
        ines.Hears("Skip the bar, button");
        ines.Go(Keys.Enter);
        ines.GoUntil(Keys.Tab, "Wednesday 11 March, 10:00 to 12:00, School visit, Classes");
        ines.Go(Keys.Enter);
        ines.Hears("School visit, heading");

        // It is called otherwise.
        ines.GoUntil(Keys.Tab, "Change, button");
        ines.Go(Keys.Enter);
        ines.Find(Labelled("Title"));
        ines.GoUntil(Keys.Tab, "Title, ");
        ines.Held(Keys.Control, "a");
        ines.Go("Visit of a school");
        ines.Go(Keys.Enter);
        ines.IsTold("Changed “Visit of a school”.");
        ines.Hears("Wednesday 11 March, 10:00 to 12:00, Visit of a school, Classes, button");

        // It is taken up, carried a day and a quarter of an hour, and put down; it has the focus where it lies then.
        ines.Go("m");
        ines.IsTold("Taken up. Arrows move it");
        ines.Go(Keys.ArrowRight);
        ines.IsTold("Thu 12 March, 10:00 – 12:00");
        ines.Go(Keys.ArrowDown);
        ines.IsTold("Thu 12 March, 10:15 – 12:15");
        ines.Go(Keys.Enter);
        ines.IsTold("Moved “Visit of a school” to Thu 12.");
        ines.Hears("Thursday 12 March, 10:15 to 12:15, Visit of a school, Classes, button");
        using var priya = await mortar.As(DemoPeople.Priya);
        CalendarId classes = new(DemoPeople.Stable("calendar Classes"));
        Assert.Contains(
            await priya.Bricks(classes),
            brick =>
                brick.Text("title") == "Visit of a school"
                && brick.GetProperty("time").Text("start") == "2026-03-12T10:15:00"
        );

        // What is let be stays.
        ines.Go("m");
        ines.Go(Keys.ArrowLeft);
        ines.IsTold("Wed 11 March, 10:15 – 12:15");
        ines.Go(Keys.Escape);
        ines.IsTold("It stays where it was.");
        ines.Hears("Thursday 12 March, 10:15 to 12:15, Visit of a school, Classes, button");

        // Another week and back, and undone twice.
        ines.Go("]");
        ines.IsTold("Week, 16 – 22 March 2026");
        ines.Go("[");
        ines.IsTold("Week, 9 – 15 March 2026");
        ines.Go("z");
        ines.IsTold("Undone.");
        ines.WaitForBrick("Visit of a school", "10:00 to 12:00");

        // Something new, from its title to its saving; one is where one was then.
        ines.GoUntil(Keys.Tab, "Wednesday 11 March, 10:00 to 12:00, Visit of a school");
        ines.Go("n");
        ines.HearsFirst("Title, ");
        ines.Go("Glaze order");
        ines.Go(Keys.Enter);
        ines.IsTold("Added “Glaze order”");
        ines.Hears("Wednesday 11 March, 10:00 to 12:00, Visit of a school, Classes, button");

        // Deleted: what lay beside it is what one is on, not the top of the page.
        ines.GoUntil(Keys.Tab, ", Glaze order, ");
        ines.Go(Keys.Enter);
        ines.Hears("Glaze order, heading");
        ines.GoUntil(Keys.Tab, "Delete, button");
        ines.Go(Keys.Enter);
        ines.IsTold("Deleted “Glaze order”.");
        ines.Until(() => ines.Focus().EndsWith(", button", StringComparison.Ordinal), "a neighbour to have the focus");

        // The roster is walked cell by cell; what is made in somebody's day is theirs.
        ines.Held(Keys.Alt, "1");
        ines.IsTold("Roster, 9 – 15 March 2026");
        ines.GoUntil(Keys.Tab, ", button");
        while (!ines.Focus().EndsWith(", gridcell", StringComparison.Ordinal))
        {
            ines.Held(Keys.Shift, Keys.Tab);
        }

        ines.GoUntil(Keys.ArrowUp, "Everyone, ");
        ines.GoUntil(Keys.ArrowLeft, "Everyone, Mon 9 March");
        ines.Go(Keys.ArrowDown);
        ines.HearsFirst("Dele Okoro, Mon 9 March");
        ines.Go(Keys.ArrowDown);
        ines.Go(Keys.ArrowRight);
        ines.HearsFirst("Hanne Lind, Tue 10 March");
        ines.Go(Keys.Enter);
        ines.HearsFirst("Title, ");
        ines.Go("Ring the supplier");
        ines.Go(Keys.Enter);
        ines.IsTold("Added “Ring the supplier”");
        ines.HearsFirst("Hanne Lind, Tue 10 March");
        Assert.Contains(
            await priya.Bricks(classes),
            brick => brick.Text("title") == "Ring the supplier" && Takes(brick, DemoPeople.Hanne)
        );

        // What is somebody's is handed to the one below; a copy of it is put down a day later.
        ines.GoUntil(Keys.Tab, "Wednesday 11 March, 10:00 to 12:00, Visit of a school");
        ines.Go("m");
        ines.IsTold("up and down hand it to another row");
        ines.Go(Keys.ArrowDown);
        ines.IsTold("Mei Sato, Wed 11 March, 10:00 – 12:00");
        ines.Go(Keys.Enter);
        ines.IsTold("“Visit of a school”");
        ines.Find(InRow("Mei Sato", "Visit of a school"));
        Assert.Contains(
            await priya.Bricks(classes),
            brick =>
                brick.Text("title") == "Visit of a school"
                && Takes(brick, DemoPeople.Mei)
                && !Takes(brick, DemoPeople.Ines)
        );
        ines.GoUntil(Keys.Tab, "Wednesday 11 March, 10:00 to 12:00, Visit of a school");
        ines.Go("m");
        ines.Go(Keys.ArrowRight);
        ines.IsTold("Thu 12 March, 10:00 – 12:00");
        ines.Held(Keys.Control, Keys.Enter);
        ines.IsTold("Copied “Visit of a school”");
        Assert.Equal(2, (await priya.Bricks(classes)).Count(brick => brick.Text("title") == "Visit of a school"));

        // Two are marked and go together.
        ines.GoUntil(Keys.Tab, "Tuesday 10 March, 09:00 to 10:00, Ring the supplier");
        ines.Go(" ");
        ines.IsTold("1 marked");
        ines.GoUntil(Keys.Tab, "Thursday 12 March, 10:00 to 12:00, Visit of a school");
        ines.Go(" ");
        ines.IsTold("2 marked");
        ines.Go(Keys.Delete);
        ines.IsTold("Deleted 2 events.");
        Assert.Equal(1, (await priya.Bricks(classes)).Count(brick => brick.Text("title") == "Visit of a school"));
        Assert.DoesNotContain(await priya.Bricks(classes), brick => brick.Text("title") == "Ring the supplier");
    }

    private static bool Takes(JsonElement brick, DemoPerson person) =>
        brick.GetProperty("attendees").EnumerateArray().Any(one => one.GetGuid() == person.Id.Value);

    /// <summary>Letters that are keys can be switched off on a device, for who speaks what they type (WCAG 2.2, 2.1.4).</summary>
    [Fact]
    public async Task Single_letters_can_be_switched_off()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Open("/week/2026-03-11");
        ines.WaitForWall();
        ines.Press("?");
        ines.Click(By.XPath("//aside//label[contains(., 'Single letters and signs are keys')]//input"));
        ines.Press(Keys.Escape);
        ines.WaitGone(By.CssSelector("aside"));
        foreach (var letter in "]n/fkwz?")
        {
            ines.Press(letter.ToString());
        }

        // The last of them is one that still is a key: by now all before it were passed over.
        ines.Press(Keys.Escape);
        ines.Held(Keys.Alt, "4");
        ines.Title("Month, March 2026, Studio team · Mortar");
        Assert.False(ines.Has(By.CssSelector("aside")));

        ines.Open("/preferences");
        ines.Click(By.XPath("//label[contains(., 'Single letters and signs are keys')]//input"));
        ines.Open("/week/2026-03-11");
        ines.WaitForWall();
        ines.Press("]");
        ines.Title("Week, 16 – 22 March 2026, Studio team · Mortar");
    }

    /// <summary>Whoever goes by headings, landmarks and titles finds their way on every page (WCAG 2.2, 1.3.1, 2.4.1, 2.4.2 and 2.4.6).</summary>
    [Fact]
    public async Task Every_page_has_a_title_a_main_part_one_first_heading_and_the_others_in_order()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        var group = $"/groups/{World.StudioTeam}";
        string[] pages =
        [
            "/roster/2026-03-11",
            "/week/2026-03-11",
            "/day/2026-03-11",
            "/month/2026-03-11",
            "/agenda/2026-03-11",
            "/week/2026-03-11?desk=find",
            "/week/2026-03-11?desk=clashes",
            "/week/2026-03-11?desk=gaps",
            "/week/2026-03-11?desk=free",
            "/week/2026-03-11?desk=newCalendar",
            "/week/2026-03-11?desk=keys",
            "/inbox",
            "/preferences",
            "/bin",
            "/history",
            "/print",
            "/spreadsheet",
            "/post-room",
            group,
            $"{group}/people",
            $"{group}/access",
            $"{group}/cover",
            $"{group}/absences",
            $"{group}/noticeboards",
            $"{group}/history",
        ];
        var titles = new HashSet<string>(StringComparer.Ordinal);
        foreach (var page in pages)
        {
            ines.Open(page);
            ines.Until(
                () =>
                    ines.Script<string>(
                        """
                        const levels = [...document.querySelectorAll('h1, h2, h3, h4')].filter((one) => one.checkVisibility()).map((one) => Number(one.tagName[1]))
                        return `${levels.filter((one) => one === 1).length} ${levels[0]} ${levels.some((one, at) => at > 0 && one > levels[at - 1] + 1)} ${document.querySelectorAll('main').length}`
                        """
                    ) == "1 1 false 1",
                $"one first heading, the others in order, and one main part at {page}"
            );
            titles.Add(
                ines.Script<string>("return document.title")
                    + (page.Contains('?', StringComparison.Ordinal) ? page : string.Empty)
            );
        }

        Assert.Equal(pages.Length, titles.Count);
        Assert.DoesNotContain("Mortar", titles);
    }
}
