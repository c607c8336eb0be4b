using System.Globalization;
using System.Text;
using System.Text.Json;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Server.Tests;

/// <summary>iCalendar files made for a test, and waiting for their import.</summary>
internal static class Files
{
    /// <summary>So many events of a day each, one after the other.</summary>
    public static string Days(int count)
    {
        var text = new StringBuilder("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//test//EN\r\n");
        for (var i = 0; i < count; i++)
        {
            var day = new LocalDate(2026, 3, 9).PlusDays(i % 3_000);
            text.Append(
                CultureInfo.InvariantCulture,
                $"BEGIN:VEVENT\r\nUID:{i}@example.org\r\nDTSTAMP:20260301T120000Z\r\n"
            );
            text.Append(
                CultureInfo.InvariantCulture,
                $"DTSTART;VALUE=DATE:{day.ToString("uuuuMMdd", CultureInfo.InvariantCulture)}\r\nSUMMARY:Day {i}\r\nEND:VEVENT\r\n"
            );
        }

        return text.Append("END:VCALENDAR\r\n").ToString();
    }

    /// <summary>So many events of that title, all at ten on the demo's today.</summary>
    public static byte[] Many(string title, int count)
    {
        var events = Enumerable
            .Range(0, count)
            .Select(n =>
                $"BEGIN:VEVENT\r\nUID:{title}-{n}\r\nDTSTART:20260311T100000Z\r\nDURATION:PT1H\r\nSUMMARY:{title}\r\nEND:VEVENT\r\n"
            );
        return Encoding.UTF8.GetBytes($"BEGIN:VCALENDAR\r\nVERSION:2.0\r\n{string.Concat(events)}END:VCALENDAR\r\n");
    }

    /// <summary>One event of that title.</summary>
    public static byte[] One(string title, string uid = "one@example.org") =>
        Encoding.UTF8.GetBytes(
            $"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:{uid}\r\nDTSTART:20260312T140000Z\r\nSUMMARY:{title}\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"
        );

    /// <summary>How the import stands once it is over.</summary>
    public static async Task<JsonElement> Imported(this Browser browser, CalendarId calendar, Guid import)
    {
        var answer = await World.Eventually(async () =>
        {
            var now = (await browser.Get($"/api/calendars/{calendar.Value}/imports/{import}")).Is(200);
            return now.Body.Text("state") is "writing" or "ready" ? null : now;
        });
        return answer.Body;
    }

    /// <summary>Brings a file and writes it.</summary>
    public static async Task<JsonElement> Import(
        this Browser browser,
        CalendarId calendar,
        byte[] file,
        string known = "keep"
    )
    {
        var import = Guid.NewGuid();
        (await browser.Put($"/api/calendars/{calendar.Value}/imports/{import}", file)).Is(200);
        (await browser.Post($"/api/calendars/{calendar.Value}/imports/{import}/write", new { known })).Is(202);
        return await browser.Imported(calendar, import);
    }
}
