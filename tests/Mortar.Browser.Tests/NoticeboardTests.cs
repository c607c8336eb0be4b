using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Http;
using Mortar.Server.Features.Demo;
using Mortar.Server.Tests;
using OpenQA.Selenium;
using Xunit;
using static Mortar.Browser.Tests.Screen;

namespace Mortar.Browser.Tests;

/// <summary>Noticeboards: made beside what they show, read without an account or a script, and inside another website.</summary>
public class NoticeboardTests
{
    private static readonly Guid RakuClub = DemoPeople.Stable("Raku club");
    private static readonly By Shown = By.CssSelector("iframe[title='The noticeboard']");

    [Fact]
    public async Task A_club_makes_a_page_of_two_calendars_gives_it_a_name_and_hangs_it_up()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var dele = new Screen(mortar.Url).SignIn(DemoPeople.Dele);
        dele.Open($"/groups/{RakuClub}/noticeboards");
        dele.WaitForText("Open to the world");
        Assert.Equal(string.Empty, dele.Axe());
        dele.Click("New noticeboard");
        dele.Type("Title", "Raku fairs");
        dele.Pick("Raku club", "View: notes as well");
        dele.Pick("Dele’s other work", "Times only");
        dele.WaitForText("titles, places and notes in “Raku club”, not who is named; when “Dele’s other work” is busy");
        dele.WaitForText("1 with notes");
        dele.WaitForTextIn(Shown, "Raku fairs");
        dele.WaitForTextIn(Shown, "Pit firing");
        dele.Type("Title", "Raku fairs and firings");
        dele.WaitForTextIn(Shown, "Raku fairs and firings");

        dele.Click(Containing("label", "A short name"));
        var name = Labelled($"{mortar.Url.Host}:{mortar.Url.Port}/b/");
        dele.Find(name).SendKeys(Keys.Control + "a");
        dele.Find(name).SendKeys("raku-club");
        dele.WaitForText("This address is somebody's already.");
        dele.Find(name).SendKeys(Keys.Control + "a");
        dele.Find(name).SendKeys("raku-fairs");
        dele.WaitForText("It can be had.");
        Assert.Equal(string.Empty, dele.Axe());
        Shot(dele, "noticeboard-settings");
        dele.Click("Make it");
        dele.WaitForText("Not open yet");
        using var world = new Screen(mortar.Url, 390, 844).Open("/b/raku-fairs");
        world.WaitForText("There is nothing at this address");
        Assert.Single(world.Complaints()); // that there is nothing
        dele.Click("Open it to the world");
        dele.Click("Open it");
        dele.WaitForText("Open to the world");

        world.Scripts(allowed: false);
        world.Open("/b/raku-fairs");
        world.WaitForText("Pit firing");
        world.WaitForText("Busy");
        Shot(world, "noticeboard-phone");
        Assert.True(world.Script<bool>("return document.documentElement.scrollWidth <= 390"));
        world.Click(Named("a", "Month"));
        world.WaitForText("Marsh fair");
        world.Click(Named("a", "Pit firing"));
        world.WaitForText("Dry wood and long gloves.");
        world.Find(Named("a", "Take it into my calendar"));
        world.Scripts(allowed: true);
        foreach (
            var (path, width) in new[] { ("", 390), ("?view=month", 1280), ("?view=week", 390), ("/poster", 1280) }
        )
        {
            world.Open($"/b/raku-fairs{path}");
            world.Resize(width, 844);
            Assert.Equal(string.Empty, world.Axe());
        }

        Shot(world, "noticeboard-poster");
        Assert.Empty(world.Complaints());

        dele.Click("Pause");
        dele.WaitForText("Paused");
        world.Open("/b/raku-fairs");
        world.WaitForText("There is nothing at this address");
    }

    [Fact]
    public async Task A_website_shows_it_where_it_may_and_no_other_does()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        var pasted = string.Empty;
        await using var club = await Website("localhost", () => pasted);
        await using var stranger = await Website("127.0.0.1", () => pasted);
        using var dele = new Screen(mortar.Url).SignIn(DemoPeople.Dele);
        dele.Open($"/groups/{RakuClub}/noticeboards");
        dele.Click(Named("a", "Raku club"));
        dele.Pick("May be shown by", "the websites I name");
        dele.Find(Labelled("Websites")).SendKeys($"{Address(club)}plan");
        dele.Click("Save");
        dele.WaitForText("Changed “Raku club”.");
        dele.Pick("Height", "300 px");
        pasted = dele.Find(Labelled("To paste into the page there")).GetAttribute("value")!;

        using var visitor = new Screen(Address(club)).Open();
        var frame = By.CssSelector("iframe[title='Raku club']");
        visitor.WaitForTextIn(frame, "Pit firing");
        // It has grown beyond the height it was pasted with, to what is in it and no further.
        var high = visitor.InFrame(
            frame,
            () => visitor.Script<long>("return Math.ceil(document.documentElement.getBoundingClientRect().height)")
        );
        visitor.Until(
            () =>
                visitor.Script<long>("return document.querySelector('iframe').clientHeight") is > 300 and var now
                && now >= high
                && now <= high + 4,
            "the frame to grow"
        );
        Shot(visitor, "noticeboard-framed");
        visitor.BlockThirdPartyCookies();
        visitor.Open();
        visitor.WaitForTextIn(frame, "Pit firing");
        Assert.Equal(0, visitor.CookieCount());

        _ = visitor.Complaints();
        visitor.At(Address(stranger));
        visitor.Find(frame);
        visitor.Until(
            () => visitor.Complaints().Any(one => one.Contains("frame-ancestors", StringComparison.Ordinal)),
            "the browser to refuse it"
        );
        Assert.False(visitor.InFrame(frame, () => visitor.Has(Containing("body", "Pit firing"))));
    }

    [Fact]
    public async Task A_phones_program_reads_ones_calendar_until_the_feed_is_ended()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var phone = new HttpClient();
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        ines.Open($"/week/2026-03-11?desk=calendar~{DemoPeople.Stable("calendar Classes")}~about");
        ines.Click(Named("a", "Keep it in my calendar program"));
        ines.Click("Make the feed");
        ines.WaitForText("Copy it now");
        ines.WaitForText("not read yet");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "feed");
        var address = ines.Find(Labelled("Its address")).GetAttribute("value")!;

        var read = await phone.GetStringAsync(address, TestContext.Current.CancellationToken);
        Assert.Contains("NAME:Classes", read, StringComparison.Ordinal);
        Assert.Contains("SUMMARY:Wheel basics", read, StringComparison.Ordinal);
        ines.Open("/preferences");
        ines.WaitForText("last read");
        ines.Click("End it");
        ines.Click(By.XPath("//*[@role='alertdialog']//button[normalize-space()='End it']"));
        ines.WaitForText("Ended the feed of “Classes”.");
        using var after = await phone.GetAsync(address, TestContext.Current.CancellationToken);
        Assert.Equal(System.Net.HttpStatusCode.Gone, after.StatusCode);
    }

    private static Uri Address(WebApplication website) => new(website.Urls.Single());

    /// <summary>A page of another origin with something pasted into it.</summary>
    private static async Task<WebApplication> Website(string host, Func<string> pasted)
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.WebHost.UseUrls($"http://{host}:{Port()}");
        var app = builder.Build();
        app.MapGet(
            "/",
            () => Results.Content($"<!DOCTYPE html><title>Our club</title><h1>Our club</h1>{pasted()}", "text/html")
        );
        await app.StartAsync();
        return app;
    }

    private static int Port()
    {
        using var listener = new System.Net.Sockets.TcpListener(System.Net.IPAddress.Loopback, 0);
        listener.Start();
        return ((System.Net.IPEndPoint)listener.LocalEndpoint).Port;
    }
}
