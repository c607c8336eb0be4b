using System.Net.Http.Headers;
using Ical.Net;
using Mortar.Server.Features.Demo;
using Xunit;
using static Mortar.Server.Tests.Features.Noticeboards.NoticeboardWorld;

namespace Mortar.Server.Tests.Features.Noticeboards;

/// <summary>A noticeboard in other calendar programs. Read by Ical.Net 5.2.4, which knows nothing of Mortar.</summary>
public class NoticeboardFileTests
{
    [Fact]
    public async Task Another_reader_finds_what_the_page_tells_and_busy_times_without_a_name()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var world = mortar.Anonymous();
        var (open, hush) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        var weekly = Guid.CreateVersion7();
        (
            await ines.Put(
                $"/api/events/{weekly}",
                new
                {
                    calendarId = open.Value,
                    title = "Glaze; night, \"wet\"",
                    place = "Glaze room",
                    notes = "Two\nlines",
                    showAs = "tentative",
                    time = World.Hours("2026-03-12T19:00:00", "2026-03-12T21:00:00"),
                    rule = "FREQ=WEEKLY;COUNT=4",
                    attendees = Array.Empty<Guid>(),
                }
            )
        ).Is(200);
        await ines.MakeEvent(
            open,
            "Fair",
            new
            {
                form = "days",
                first = "2026-03-14",
                last = "2026-03-15",
                toBeSet = true,
            }
        );
        await ines.MakeEvent(hush, "Hidden");
        await ines.MakeNoticeboard(Settings([(open, "view"), (hush, "times")], title: "Glaze days", words: "Come, in"));

        var text = (await world.Get("/b/glaze-days/calendar.ics")).Is(200).Text;
        var calendar = Calendar.Load(text)!;

        Assert.Equal("Glaze days", calendar.Properties["NAME"]!.Value);
        Assert.Equal("teal", calendar.Properties["COLOR"]!.Value);
        Assert.Contains("REFRESH-INTERVAL;VALUE=DURATION:PT60M\r\n", text, StringComparison.Ordinal);
        Assert.Contains($"\r\nURL:{mortar.Url}b/glaze-days\r\n", text, StringComparison.Ordinal);
        Assert.Contains(
            $"\r\nSOURCE;VALUE=URI:{mortar.Url}b/glaze-days/calendar.ics\r\n",
            text,
            StringComparison.Ordinal
        );
        var nights = calendar
            .Events.Where(one => one.Summary == "Glaze; night, \"wet\"")
            .OrderBy(one => one.Start!.AsUtc)
            .ToList();
        // London is on UTC until 29 March 2026 and an hour ahead after it: 19:00 stays 19:00.
        Assert.Equal(
            ["2026-03-12T19", "2026-03-19T19", "2026-03-26T19", "2026-04-02T18"],
            nights.Select(one =>
                one.Start!.AsUtc.ToString("yyyy-MM-dd'T'HH", System.Globalization.CultureInfo.InvariantCulture)
            )
        );
        Assert.All(
            nights,
            one => Assert.Equal(("TENTATIVE", "Two\nlines", "Glaze room"), (one.Status, one.Description, one.Location))
        );
        Assert.Equal(nights.Count, nights.Select(one => one.Uid).Distinct().Count());
        var fair = calendar.Events.Single(one => one.Summary == "Fair");
        Assert.Equal(
            (true, new DateOnly(2026, 3, 14), new DateOnly(2026, 3, 16)),
            (fair.IsAllDay, fair.Start!.Date, fair.End!.Date)
        );
        var busy = Assert.Single(calendar.FreeBusy);
        // This reader loses what is in it; the form is that of the examples in RFC 5545, 3.8.2.6.
        Assert.NotEmpty(busy.Uid!);
        Assert.Contains(
            "\r\nFREEBUSY;FBTYPE=BUSY:20260312T140000Z/20260312T153000Z\r\n",
            text,
            StringComparison.Ordinal
        );
        Assert.DoesNotContain("Hidden", text, StringComparison.Ordinal);
        Assert.DoesNotContain("ATTENDEE", text, StringComparison.Ordinal);
        Assert.All(text.Split("\r\n"), line => Assert.True(System.Text.Encoding.UTF8.GetByteCount(line) <= 75));
    }

    [Fact]
    public async Task It_is_sent_again_only_where_something_the_world_sees_has_changed()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var world = new HttpClient { BaseAddress = mortar.Url };
        var calendar = await ines.MakeCalendar();
        var shown = await ines.MakeEvent(calendar, "Celadon day");
        var hush = Guid.CreateVersion7();
        await ines.MakeNoticeboard(Settings([(calendar, "outline")]));
        using var first = await world.GetAsync("/b/glaze-days/calendar.ics", TestContext.Current.CancellationToken);
        var (tag, at) = (first.Headers.ETag!, first.Content.Headers.LastModified!.Value);

        Assert.Equal(304, await Ask(request => request.Headers.IfNoneMatch.Add(tag)));
        Assert.Equal(304, await Ask(request => request.Headers.IfNoneMatch.Add(EntityTagHeaderValue.Any)));
        Assert.Equal(304, await Ask(request => request.Headers.IfModifiedSince = at));
        Assert.Equal(200, await Ask(request => request.Headers.IfModifiedSince = at.AddSeconds(-1)));
        Assert.Equal(200, await Ask(_ => { }, HttpMethod.Head));

        // Of a private event that takes no time nothing is told, and of others no notes at Outline.
        (
            await ines.Put(
                $"/api/events/{hush}",
                new
                {
                    calendarId = calendar.Value,
                    title = "Note",
                    place = "",
                    notes = "1",
                    showAs = "free",
                    time = World.Hours(),
                    attendees = Array.Empty<Guid>(),
                    @private = true,
                }
            )
        ).Is(200);
        Assert.Equal(304, await Ask(request => request.Headers.IfNoneMatch.Add(tag)));
        (await ines.Put($"/api/events/{shown}", World.Event(calendar, "Celadon day", notes: "Other notes"), 1)).Is(200);
        Assert.Equal(304, await Ask(request => request.Headers.IfNoneMatch.Add(tag)));
        (await ines.Put($"/api/events/{shown}", World.Event(calendar, "Ash day"), 2)).Is(200);
        Assert.Equal(200, await Ask(request => request.Headers.IfNoneMatch.Add(tag)));

        async Task<int> Ask(Action<HttpRequestMessage> with, HttpMethod? method = null)
        {
            using var request = new HttpRequestMessage(method ?? HttpMethod.Get, "/b/glaze-days/calendar.ics");
            with(request);
            using var response = await world.SendAsync(request);
            Assert.Equal(
                response.StatusCode == System.Net.HttpStatusCode.OK && method is null,
                (await response.Content.ReadAsByteArrayAsync()).Length > 0
            );
            return (int)response.StatusCode;
        }
    }

    [Fact]
    public async Task One_event_is_taken_as_a_file_where_that_is_offered()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var world = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        var (one, other) = (await ines.MakeEvent(calendar, "Celadon day"), await ines.MakeEvent(calendar, "Ash day"));
        await ines.MakeNoticeboard(Settings([(calendar, "view")]));

        var file = Calendar.Load((await world.Get($"/b/glaze-days/{one:N}.ics")).Is(200).Text)!;

        Assert.Equal("Celadon day", Assert.Single(file.Events).Summary);
        Assert.EndsWith($"/b/glaze-days/{one:N}", file.Events[0]!.Url!.ToString(), StringComparison.Ordinal);
        (await world.Get($"/b/glaze-days/{one:N}/20260312T140000.ics")).Is(404); // it is no series
        (await world.Get($"/b/glaze-days/{one:N}/nonsense.ics")).Is(404);
        (await world.Get($"/b/glaze-days/{Guid.NewGuid():N}.ics")).Is(404);
        (await ines.Delete($"/api/events/{other}", 1)).Is(200);
        (await world.Get($"/b/glaze-days/{other:N}.ics")).Is(404);
        (await world.Get($"/b/glaze-days/{other:N}")).Is(404);
    }
}
