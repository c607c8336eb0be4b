using System.Text.Json;
using System.Text.Json.Nodes;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;

namespace Mortar.Server.Tests;

/// <summary>Bodies that the web sends, and a calendar to try them on.</summary>
internal static class World
{
    public const string Secret = "Bring last month's tiles";

    public static readonly Guid StudioTeam = DemoPeople.Stable("Studio team");

    public static object Calendar(
        string name = "Glaze tests",
        string groupDefault = "none",
        string zone = "Europe/London",
        string purpose = "events",
        Guid? group = null
    ) =>
        new
        {
            groupId = group ?? StudioTeam,
            name,
            description = "Every tile, every cone",
            hue = "lake",
            mark = "drop",
            zone,
            purpose,
            groupDefault,
        };

    public static object Hours(
        string start = "2026-03-12T14:00:00",
        string end = "2026-03-12T15:30:00",
        string zone = "Europe/London"
    ) =>
        new
        {
            form = "clock",
            start,
            end,
            zone,
        };

    public static object Event(
        CalendarId calendar,
        string title = "Celadon",
        object? time = null,
        string notes = Secret,
        string showAs = "busy",
        params Guid[] attendees
    ) =>
        new
        {
            calendarId = calendar.Value,
            title,
            place = "Glaze room",
            notes,
            showAs,
            time = time ?? Hours(),
            attendees,
        };

    /// <summary>Ines makes "Glaze tests".</summary>
    public static async Task<CalendarId> MakeCalendar(this Browser ines)
    {
        var id = Guid.CreateVersion7();
        (await ines.Put($"/api/calendars/{id}", Calendar())).Is(200);
        return new CalendarId(id);
    }

    /// <summary>Somebody lets those of their groups know when they are taken, or keeps it to themselves.</summary>
    public static async Task ShowsBusy(this Browser browser, bool allow) =>
        (
            await browser.Put(
                "/api/preferences",
                new
                {
                    zone = "Europe/London",
                    secondZone = (string?)null,
                    eventCalendar = (Guid?)null,
                    firstDay = "monday",
                    clock = "hours24",
                    locale = "",
                    dayBegins = 480,
                    dayEnds = 1140,
                    eventMinutes = 60,
                    showsBusy = allow,
                }
            )
        ).Is(200);

    /// <summary>Somebody makes an event; returns its id.</summary>
    public static async Task<Guid> MakeEvent(
        this Browser browser,
        CalendarId calendar,
        string title = "Celadon",
        object? time = null,
        Guid? set = null
    )
    {
        var id = Guid.CreateVersion7();
        (await browser.Put($"/api/events/{id}", Event(calendar, title, time), set: set)).Is(200);
        return id;
    }

    /// <summary>The bricks of one calendar on somebody's wall in the week of the demo's today.</summary>
    public static async Task<List<JsonElement>> Bricks(
        this Browser browser,
        CalendarId calendar,
        string from = "2026-03-09",
        string to = "2026-03-15"
    )
    {
        var wall = (await browser.Get($"/api/wall?from={from}&to={to}")).Is(200).Body;
        return [.. wall.BricksWithTexts().Where(brick => brick.GetProperty("calendarId").GetGuid() == calendar.Value)];
    }

    /// <summary>The bricks of an answer, each with its texts, which stand beside them once for all that have them alike.</summary>
    public static IEnumerable<JsonElement> BricksWithTexts(this JsonElement body)
    {
        var texts = body.GetProperty("texts");
        foreach (var brick in body.GetProperty("bricks").EnumerateArray())
        {
            if (brick.TryGetProperty("texts", out var at))
            {
                var whole = JsonObject.Create(brick)!;
                foreach (var text in texts[at.GetInt32()].EnumerateObject())
                {
                    whole[text.Name] = JsonNode.Parse(text.Value.GetRawText());
                }

                yield return JsonSerializer.SerializeToElement(whole);
            }
            else
            {
                yield return brick;
            }
        }
    }

    public static async Task<bool> HasLayer(this Browser browser, CalendarId calendar) =>
        (await browser.Get("/api/shelf"))
            .Is(200)
            .Body.EnumerateArray()
            .Any(layer => layer.GetProperty("calendarId").GetGuid() == calendar.Value);

    /// <summary>What somebody finds in the bin.</summary>
    public static async Task<List<JsonElement>> InBin(this Browser browser) =>
        [.. (await browser.Get("/api/bin")).Is(200).Body.EnumerateArray()];

    /// <summary>Somebody brings back what the bin says waits there.</summary>
    public static Task<Answer> BringBack(this Browser browser, JsonElement entry, Guid? set = null) =>
        browser.Post("/api/bin/bring-back", new { place = entry.GetProperty("place") }, set);

    /// <summary>Somebody brings a calendar back.</summary>
    public static Task<Answer> BringBack(this Browser browser, CalendarId calendar) =>
        browser.Post("/api/bin/bring-back", new { place = new { kind = "calendar", calendarId = calendar.Value } });

    /// <summary>Somebody says yes to a group that asked them.</summary>
    public static async Task SayYes(this Browser browser, Guid group) =>
        (await browser.Post($"/api/memberships/{group}/accept")).Is(204);

    /// <summary>Somebody says yes to all they are asked about guardians.</summary>
    public static async Task SayYesToGuardians(this Browser browser)
    {
        foreach (
            var one in (await browser.Get("/api/inbox")).Is(200).Body.GetProperty("guardianships").EnumerateArray()
        )
        {
            (await browser.Post($"/api/guardianships/{one.Text("id")}/accept")).Is(204);
        }
    }

    /// <summary>Asks again until the answer is there, for what happens just after a command. What never comes fails after three minutes: a file of twenty thousand events takes one of them where four such tests share a slow machine.</summary>
    public static async Task<T> Eventually<T>(Func<Task<T?>> ask)
        where T : class
    {
        using var limit = new CancellationTokenSource(TimeSpan.FromMinutes(3));
        while (!limit.IsCancellationRequested)
        {
            if (await ask() is { } found)
            {
                return found;
            }

            await Task.Delay(50, CancellationToken.None);
        }

        throw new Xunit.Sdk.XunitException("It did not happen within three minutes.");
    }

    public static string Text(this JsonElement element, string property) => element.GetProperty(property).GetString()!;
}
