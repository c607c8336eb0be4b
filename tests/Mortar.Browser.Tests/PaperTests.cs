using Mortar.Server.Features.Demo;
using Mortar.Server.Tests;
using OpenQA.Selenium;
using Xunit;
using static Mortar.Browser.Tests.Screen;

namespace Mortar.Browser.Tests;

/// <summary>What prints is a sheet: chosen beside its picture, printed without backgrounds, and read back from the paper.</summary>
public class PaperTests
{
    private static readonly By Sheets = By.CssSelector("iframe[title='The sheets as they print']");

    private static string Address(string what, string from, string to, string more = "", Guid? group = null) =>
        $"/paper/{what}?from={from}&to={to}&group={group ?? World.StudioTeam}{more}";

    private static Printed PrintOf(Screen screen, string address)
    {
        screen.Open(address);
        screen.Find(By.CssSelector("html[data-ready]"));
        // Nothing reaches over into the column beside it.
        Assert.Empty(
            screen.Script<IReadOnlyCollection<object>>(
                "return [...document.querySelectorAll('td, th')].filter((cell) => cell.scrollWidth > cell.clientWidth + 1).map((cell) => cell.textContent)"
            )
        );
        return screen.Print();
    }

    /// <summary>From the browser's own menu it is the screen that prints, whatever Mortar does.</summary>
    [Fact]
    public async Task The_screen_itself_prints_light_and_says_how_one_comes_to_sheets()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url);
        ines.Open();
        ines.Script("localStorage.setItem('mortar-theme', 'dark')");
        ines.SignIn(DemoPeople.Ines);
        ines.Find(Brick("Front desk")); // what is not on the screen yet is not printed
        Assert.Equal("dark", Theme());

        var print = ines.Print();
        if (Environment.GetEnvironmentVariable("SHOTS") is { } folder)
        {
            print.Save(Path.Combine(folder, "screen.pdf"));
        }

        Assert.True(print.Has("Studio team, 9 – 15 March 2026"), print.Text);
        Assert.True(print.Has("Print (P) makes sheets of it"), print.Text);
        Assert.True(print.Has("Front desk"));
        Assert.False(print.Has("Sign out"));
        Assert.False(print.Has("Gaps"));
        var dark = print.Pages.SelectMany(page => page.Letters).Count(Printed.IsDark);
        Assert.True(dark > print.Pages.Sum(page => page.Letters.Count) * 9 / 10, "It is not written in dark ink.");
        ines.Until(() => Theme() == "dark", "the screen to be as it was");

        string Theme() => ines.Script<string>("return document.documentElement.dataset.theme");
    }

    [Fact]
    public async Task From_the_wall_to_the_printer()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        ines.Show("Roster");
        ines.Press("p");
        ines.WaitForText("1 sheet of A4, across");
        ines.WaitForTextIn(Sheets, "Glaze firing 1240");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "print");

        ines.Pick("What", "Agenda");
        ines.WaitForText("of A4, upright");
        ines.Click(Containing("label", "Big kiln"));
        ines.Until(
            () =>
                ines.InFrame(Sheets, () => ines.Script<string>("return document.body?.textContent ?? ''")) is var text
                && text.Contains("Wheel basics", StringComparison.Ordinal)
                && !text.Contains("Glaze firing 1240", StringComparison.Ordinal),
            "the kiln to be left out"
        );
        ines.Find(Labelled("Heading")).SendKeys("For the kitchen wall");
        ines.WaitForTextIn(Sheets, "For the kitchen wall");

        ines.Script(
            "document.querySelector('iframe').contentWindow.print = () => { window.printed = document.querySelector('iframe').contentDocument.querySelector('h1').textContent }"
        );
        ines.Click("Print");
        Assert.Equal("For the kitchen wall", ines.Script<string>("return window.printed"));
        Assert.Empty(ines.Complaints());
    }

    [Fact]
    public async Task Each_kind_is_one_sheet_in_ink_that_needs_no_background()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        using var api = await mortar.As(DemoPeople.Ines);
        var ofGroup = (await api.Get("/api/shelf"))
            .Is(200)
            .Body.EnumerateArray()
            .Where(layer => layer.Text("groupId") == World.StudioTeam.ToString())
            .Select(layer => layer.GetProperty("calendarId").GetGuid())
            .ToHashSet();
        var wall = (await api.Get("/api/wall?from=2026-03-09&to=2026-03-15"))
            .Is(200)
            .Body.BricksWithTexts()
            .Where(brick =>
                brick.Text("form") == "event" && ofGroup.Contains(brick.GetProperty("calendarId").GetGuid())
            )
            .Select(brick => brick.Text("title"))
            .Distinct()
            .ToList();
        Assert.True(wall.Count > 10, $"{wall.Count} titles");
        ines.Theme("dark");

        foreach (
            var (what, from, to, across) in new[]
            {
                ("roster", "2026-03-09", "2026-03-15", true),
                ("week", "2026-03-09", "2026-03-15", true),
                ("agenda", "2026-03-09", "2026-03-15", false),
                ("month", "2026-03-01", "2026-03-31", true),
                ("day", "2026-03-11", "2026-03-11", false),
                ("absences", "2026-03-01", "2026-03-31", true),
                ("access", "2026-03-09", "2026-03-15", false),
            }
        )
        {
            var printed = PrintOf(ines, Address(what, from, to));

            Assert.True(printed.Pages.Count == 1, $"{what}: {printed.Pages.Count} pages");
            Assert.Equal(across ? (297, 210) : (210, 297), printed.Sizes.Single());
            Assert.True(printed.Has("Studio team"), printed.Text);
            Assert.True(printed.Has("Sheet 1 of 1"), printed.Text);
            Assert.True(printed.Has("2026"), printed.Text);
            Assert.True(printed.IsGrey, what);
            Assert.True(printed.LightestWords < 0.35, $"{what}: {printed.LightestWords}");
            Assert.True(printed.IsOnPaper(15), what);
            Assert.True(printed.SmallestType > 5, $"{what}: {printed.SmallestType} pt");
            if (what is "roster" or "week" or "agenda" or "month")
            {
                // Each event has its mark, and each is explained.
                Assert.All(wall, title => Assert.True(printed.Has(title), $"“{title}” on the {what}"));
                Assert.True(printed.Strokes > wall.Count, $"{what}: {printed.Strokes} lines");
                Assert.True(printed.Has("Web shop"), printed.Text);
            }
        }

        var letter = PrintOf(ines, Address("week", "2026-03-09", "2026-03-15", "&size=letter&across=false"));
        Assert.Equal((216, 279), letter.Sizes.Single());
    }

    [Fact]
    public async Task Four_weeks_of_forty_people_and_a_day_that_is_too_full_lose_nothing()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var (group, calendar) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        (
            await api.Put(
                $"/api/groups/{group}",
                new
                {
                    name = "Summer school",
                    sort = "class",
                    zone = "Europe/London",
                    firstDay = "monday",
                }
            )
        ).Is(200);
        var people = Enumerable.Range(10, 40).Select(number => (Id: Guid.CreateVersion7(), Number: number)).ToList();
        (
            await api.Put(
                $"/api/groups/{group}/members",
                new { people = people.Select(one => new { id = one.Id, name = $"Pupil {one.Number}" }) }
            )
        ).Is(200);
        (await api.Put($"/api/calendars/{calendar}", World.Calendar("Lessons", group: group))).Is(200);
        foreach (var (id, number) in people)
        {
            (
                await api.Put(
                    $"/api/events/{Guid.CreateVersion7()}",
                    new
                    {
                        calendarId = calendar,
                        title = $"Bench{number}",
                        place = "Hall",
                        notes = "",
                        showAs = "busy",
                        attendees = new[] { id },
                        time = World.Hours("2026-03-02T10:00:00", "2026-03-02T11:30:00"),
                        rule = "FREQ=DAILY;COUNT=28",
                    }
                )
            ).Is(200);
        }

        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        var roster = PrintOf(ines, Address("roster", "2026-03-02", "2026-03-29", group: group));
        Assert.All(
            people,
            one =>
                Assert.True(
                    roster.Count($"Bench{one.Number}") == 28,
                    $"{one.Number}: {roster.Count($"Bench{one.Number}")}"
                )
        );
        if (Environment.GetEnvironmentVariable("SHOTS") is { } folder)
        {
            roster.Save(Path.Combine(folder, "roster.pdf"));
        }

        Assert.True(roster.IsOnPaper(15));
        Assert.All(roster.Sizes, size => Assert.Equal((297, 210), size));
        Assert.InRange(roster.Pages.Count, 2, 8);
        Assert.All(
            roster.Pages,
            page =>
                Assert.Contains(
                    Printed.Squeezed(FormattableString.Invariant($"Sheet {page.Number} of {roster.Pages.Count}")),
                    Printed.TextOf(page),
                    StringComparison.Ordinal
                )
        );

        // All forty on one day, each with its place: more than a sheet is high.
        var week = PrintOf(ines, Address("week", "2026-03-09", "2026-03-15", group: group));
        Assert.All(people, one => Assert.Equal(7, week.Count($"Bench{one.Number}")));
        Assert.True(week.Pages.Count > 1);
        Assert.True(week.IsOnPaper(15));

        // A list that goes on says so.
        var agenda = PrintOf(ines, Address("agenda", "2026-03-02", "2026-03-08", group: group));
        Assert.All(people, one => Assert.Equal(7, agenda.Count($"Bench{one.Number}")));
        Assert.True(agenda.Pages.Count > 1);
        Assert.True(agenda.Has(", continued"));
    }
}
