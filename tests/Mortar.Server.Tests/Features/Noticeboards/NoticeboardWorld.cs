using System.Text.Json;
using Mortar.Core.Words;

namespace Mortar.Server.Tests.Features.Noticeboards;

/// <summary>Noticeboards as the web sends them.</summary>
internal static class NoticeboardWorld
{
    public static object Settings(
        IEnumerable<(CalendarId Calendar, string Role)> layers,
        string title = "Raku club",
        string? address = "glaze-days",
        string[]? views = null,
        bool listed = false,
        string frames = "nowhere",
        string[]? sites = null,
        bool people = false,
        string words = "",
        int daysAhead = 28,
        Guid? group = null
    ) =>
        new
        {
            groupId = group ?? World.StudioTeam,
            title,
            words,
            zone = "Europe/London",
            name = address,
            layers = layers.Select(layer => new { calendarId = layer.Calendar.Value, role = layer.Role }),
            views = views ?? ["next", "month", "week"],
            theme = "system",
            accent = "teal",
            daysAhead,
            showsPlaces = true,
            showsPeople = people,
            showsZone = false,
            offersEvents = true,
            offersFeed = true,
            offersPrint = true,
            listed,
            frames,
            sites = sites ?? [],
        };

    /// <summary>Makes a noticeboard and, unless it is to stay a draft, opens it; returns its id.</summary>
    public static async Task<Guid> MakeNoticeboard(this Browser browser, object settings, bool open = true)
    {
        var id = Guid.CreateVersion7();
        (await browser.Put($"/api/noticeboards/{id}", settings)).Is(200);
        if (open)
        {
            (await browser.Post($"/api/noticeboards/{id}/open")).Is(200);
        }

        return id;
    }

    public static async Task<JsonElement> Noticeboard(this Browser browser, Guid id) =>
        (await browser.Get($"/api/noticeboards/{id}")).Is(200).Body;
}
