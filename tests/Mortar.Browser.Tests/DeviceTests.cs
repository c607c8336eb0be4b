using System.Net.Http.Headers;
using System.Text;
using Mortar.Server.Features.Demo;
using Mortar.Server.Tests;
using OpenQA.Selenium;
using Xunit;
using static Mortar.Browser.Tests.Screen;

namespace Mortar.Browser.Tests;

/// <summary>A device gets a key, writes an event that is on the wall at once and undone there, and its key ends.</summary>
public class DeviceTests
{
    [Fact]
    public async Task A_key_is_made_used_and_ended()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        using var wall = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();
        using var screen = new Screen(mortar.Url).SignIn(DemoPeople.Ines);

        screen.Open("/preferences#devices");
        screen.WaitForText("Each device gets a key of its own");
        screen.Click("Make a key");
        screen.WaitForText("Give it a name, so that you know it again");
        Assert.Equal(string.Empty, screen.Axe());
        screen.Type("Which device", "Kiln room tablet");
        screen.Click("Make a key");
        screen.WaitForText("What to type on the device");
        screen.WaitForText("Copy it now: it is not shown again.");
        Assert.Equal(string.Empty, screen.Axe());
        Shot(screen, "device-made");
        var key = screen.Find(Labelled("Password")).GetAttribute("value")!;
        var server = screen.Find(Labelled("Server")).GetAttribute("value")!;
        screen.WaitForText("not used yet");

        // The device: HTTP with that key, and nothing else.
        using var tablet = new HttpClient { BaseAddress = new Uri(server) };
        tablet.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue(
            "Basic",
            Convert.ToBase64String(Encoding.UTF8.GetBytes($"ines:{key}"))
        );
        tablet.DefaultRequestHeaders.UserAgent.ParseAdd("Tablet/2.0");
        var path = $"calendars/{DemoPeople.Ines.Id.Value:N}/{calendar.Value:N}/firing.ics";
        (await tablet.PutAsync(path, File("Firing from the tablet"), Now)).EnsureSuccessStatusCode();

        wall.Find(Brick("Firing from the tablet"));
        Shot(wall, "device-on-wall");
        wall.Press("z");
        wall.WaitForText("Z again to undo your last act, “Firing from the tablet”");
        wall.Press("z");
        wall.WaitForText("Undone.");
        wall.WaitGone(Brick("Firing from the tablet"));
        Assert.Equal(404, (int)(await tablet.GetAsync(path, Now)).StatusCode);

        screen.Click("It is set up");
        screen.WaitForText("by Tablet/2.0");
        Shot(screen, "devices");
        screen.Click("End it");
        screen.WaitForText("from this moment on");
        screen.Click(By.XPath("//*[@role='alertdialog']//button[normalize-space()='End it']"));
        screen.WaitForText("opens nothing any more");
        Assert.Equal(401, (int)(await tablet.GetAsync(path, Now)).StatusCode);
    }

    private static CancellationToken Now => TestContext.Current.CancellationToken;

    private static ByteArrayContent File(string title)
    {
        var text = string.Join(
            "\r\n",
            "BEGIN:VCALENDAR",
            "VERSION:2.0",
            "PRODID:-//Tablet//EN",
            "BEGIN:VEVENT",
            "UID:firing@tablet",
            "DTSTAMP:20260311T080000Z",
            "DTSTART:20260312T100000Z",
            "DTEND:20260312T120000Z",
            $"SUMMARY:{title}",
            "END:VEVENT",
            "END:VCALENDAR",
            string.Empty
        );
        return new ByteArrayContent(Encoding.UTF8.GetBytes(text))
        {
            Headers = { ContentType = new MediaTypeHeaderValue("text/calendar") },
        };
    }
}
