using Mortar.Server.Features.Demo;
using Mortar.Server.Tests;
using OpenQA.Selenium;
using Xunit;
using static Mortar.Browser.Tests.Screen;

namespace Mortar.Browser.Tests;

/// <summary>A phone has views of its own, and a finger does on them what a pointer does on a large screen.</summary>
public class PhoneTests
{
    private static Screen Phone(TestMortar mortar, string path)
    {
        var screen = new Screen(mortar.Url, 390, 844).SignIn(DemoPeople.Ines).Open(path);
        screen.WaitForWall();
        return screen;
    }

    [Fact]
    public async Task A_month_is_days_with_marks_and_the_list_of_the_one_that_is_chosen()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = Phone(mortar, "/month/2026-03-11");
        Assert.Equal(390, ines.Script<long>("return document.documentElement.scrollWidth"));
        Assert.Equal(42, ines.Script<long>("return document.querySelectorAll('main [data-cell]').length"));
        Assert.Equal(
            0,
            ines.Script<long>(
                "return [...document.querySelectorAll('main [data-cell]')].filter((one) => one.scrollWidth > one.clientWidth || one.clientHeight < 44).length"
            )
        );
        Assert.Equal(string.Empty, ines.Axe());
        ines.Find(By.XPath("//button[@aria-pressed='true'][starts-with(@aria-label, 'Wed 11 March, ')]"));
        ines.Find(Brick("School visit"));

        // Another day of it is chosen, and is no step back; how many lie on it is told to who hears it.
        var saturday = ines.Find(By.XPath("//button[starts-with(@aria-label, 'Sat 14 March, ')]"));
        Assert.Equal("Sat 14 March, 3 events", saturday.GetAttribute("aria-label"));
        saturday.Click();
        ines.Find(Brick("Family clay"));
        Assert.False(ines.Has(Brick("School visit")));
        Assert.Equal(3, ines.Script<long>("return document.querySelectorAll('main [data-brick]').length"));
        ines.Click(By.XPath("//button[starts-with(@aria-label, 'Sun 8 March, ')]"));
        ines.WaitForText("Nothing on this day.");
        Assert.Equal(string.Empty, ines.Axe());

        ines.Click(By.XPath("//main//button[starts-with(., 'New')]"));
        ines.Type("Title", "Sweep the yard");
        ines.Click(Containing("button", "Add to"));
        ines.WaitGone(By.CssSelector("aside"));
        ines.Find(Brick("Sweep the yard"));
        Assert.Equal("/month/2026-03-08", ines.Path);
    }

    [Fact]
    public async Task A_week_is_seven_days_across_and_three_of_them_by_the_hour()
    {
        const string inSight = """
            const box = document.querySelector('main [data-pushed]').getBoundingClientRect()
            return [...document.querySelectorAll('main h2')].filter((one) => {
              const { left, right } = one.getBoundingClientRect()
              return left >= box.left + 50 && right <= box.right + 2
            }).map((one) => one.textContent).join(', ')
            """;
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = Phone(mortar, "/week/2026-03-11");
        ines.Until(() => ines.Script<string>(inSight) == "Wed 11 today, Thu 12, Fri 13", "three days");
        Assert.Equal(
            "Wed 11 March, Thu 12 March, Fri 13 March",
            ines.Script<string>(
                "return [...document.querySelectorAll('main [aria-pressed=true]')].map((one) => one.getAttribute('aria-label').split(', ')[0]).join(', ')"
            )
        );
        Assert.Equal(390, ines.Script<long>("return document.documentElement.scrollWidth"));
        Assert.Equal(string.Empty, ines.Axe());

        // The day is pressed, or the days are pushed aside; the hours stay where they are.
        ines.Click(By.XPath("//main//button[starts-with(@aria-label, 'Mon 9 March, ')]"));
        ines.Until(() => ines.Script<string>(inSight) == "Mon 9, Tue 10, Wed 11 today", "the first three");
        Assert.Equal(
            0,
            ines.Script<long>(
                "return Math.round(document.querySelector('[title=\"Open the night\"]').closest('div').getBoundingClientRect().left)"
            )
        );

        // From the end of the days one comes to the next week, and from its beginning back.
        ines.Click(By.XPath("//main//button[starts-with(@aria-label, 'Sun 15 March, ')]"));
        ines.Until(() => ines.Script<string>(inSight) == "Fri 13, Sat 14, Sun 15", "the last three");
        ines.Swipe((300, 500), (60, 510));
        ines.Title("Week, 16 – 22 March 2026, Studio team · Mortar");
        ines.Until(() => ines.Script<string>(inSight) == "Mon 16, Tue 17, Wed 18", "the first of the next");
        ines.Swipe((60, 500), (300, 510));
        ines.Title("Week, 9 – 15 March 2026, Studio team · Mortar");
    }

    [Fact]
    public async Task A_roster_has_three_days_beside_the_names_and_two_weeks_across()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = Phone(mortar, "/roster/2026-03-11");
        ines.Title("Roster, 9 – 22 March 2026, Studio team · Mortar");
        const string inSight = """
            return [...document.querySelectorAll('[data-day]')].filter((one) => {
              const { left, right } = one.getBoundingClientRect()
              return left >= 110 && right <= 392
            }).map((one) => one.dataset.day).join(' ')
            """;
        ines.Until(() => ines.Script<string>(inSight) == "2026-03-11 2026-03-12 2026-03-13", "three days");
        Assert.Equal(14, ines.Script<long>("return document.querySelectorAll('[data-day]').length"));
        Assert.Equal(string.Empty, ines.Axe());
        ines.Script("document.querySelector('[data-scroller]').scrollLeft = 5000");
        ines.Until(() => ines.Script<string>(inSight) == "2026-03-20 2026-03-21 2026-03-22", "the last three days");
        Assert.Equal(
            0,
            ines.Script<long>(
                "return Math.round(document.querySelector('[role=rowheader]').getBoundingClientRect().left)"
            )
        );
    }

    [Fact]
    public async Task A_swipe_goes_a_period_on_and_scrolling_does_not()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = Phone(mortar, "/month/2026-03-11");
        ines.Swipe((300, 400), (60, 410));
        ines.Title("Month, April 2026, Studio team · Mortar");
        ines.Swipe((60, 400), (300, 410));
        ines.Title("Month, March 2026, Studio team · Mortar");
        ines.Swipe((200, 600), (120, 300));
        ines.Show("Day");
        ines.Title("Day, Sun 1 March 2026, Studio team · Mortar");
        ines.Swipe((300, 400), (60, 410));
        ines.Title("Day, Mon 2 March 2026, Studio team · Mortar");
    }

    [Fact]
    public async Task A_finger_that_rests_draws_lengthens_marks_and_hands_on()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = Phone(mortar, "/day/2026-03-12");
        using var priya = await mortar.As(DemoPeople.Priya);
        var classes = DemoPeople.Stable("calendar Classes");

        // Drawn on an empty hour.
        var hours = ines.Middle(By.CssSelector("[data-hours]"));
        ines.Click(Brick("Glaze testing"));
        ines.Find(By.CssSelector("aside"));
        ines.Back();
        ines.WaitGone(By.CssSelector("aside"));
        var (x, y) = ines.Middle(Brick("Glaze testing"));
        Assert.True(hours.X > 0 && y > 0);

        // Marked one after the other by resting and a tap, and copied a week on in one act.
        ines.Hold((x, y));
        ines.WaitForText("1 marked");
        ines.Tap(ines.Middle(Brick("Front desk")));
        ines.WaitForText("2 marked");
        Assert.Equal(string.Empty, ines.Axe());
        ines.Find(By.XPath("//select[@aria-label='Copy']/option[normalize-space()='a week on']")).Click();
        ines.WaitForText("Copied 2 events.");
        Assert.Contains(
            await priya.Bricks(new(classes), "2026-03-19", "2026-03-20"),
            brick => brick.Text("title") == "Glaze testing"
        );
        ines.Click("Clear");
        ines.WaitGone(Containing("span", "2 marked"));

        // Lengthened at its lower edge.
        var box = ines.Box(Brick("Glaze testing"));
        ines.Hold((x, box.Bottom - 6), (x, box.Bottom + 44));
        ines.WaitForText("“Glaze testing”");
        Assert.Contains(
            await priya.Bricks(new(classes), "2026-03-12", "2026-03-13"),
            brick =>
                brick.Text("title") == "Glaze testing"
                && string.CompareOrdinal(brick.GetProperty("time").Text("end"), "2026-03-12T16:00:00") >= 0
        );
    }
}
