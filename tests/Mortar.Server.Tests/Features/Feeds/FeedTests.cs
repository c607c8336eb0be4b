using System.Diagnostics;
using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features.Feeds;

/// <summary>Feeds: what other calendar programs read, and for how long. Read by Ical.Net 5.2.4.</summary>
public class FeedTests
{
    private static async Task<string> Make(Browser browser, object wish, Guid? id = null) =>
        new Uri(
            (await browser.Put($"/api/feeds/{id ?? Guid.CreateVersion7()}", wish)).Is(200).Body.Text("url")
        ).PathAndQuery;

    private static object OfCalendar(CalendarId calendar, string role = "view") =>
        new
        {
            of = "calendar",
            calendarId = calendar.Value,
            role,
        };

    [Fact]
    public async Task A_program_reads_what_the_wall_shows()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var phone = mortar.Anonymous();
        var shelf = (await ines.Get("/api/shelf"))
            .Is(200)
            .Body.EnumerateArray()
            .Select(one => new CalendarId(one.GetProperty("calendarId").GetGuid()))
            .ToList();
        var told = 0;

        foreach (var id in shelf)
        {
            var text = (await phone.Get(await Make(ines, OfCalendar(id)))).Is(200).Text;
            var calendar = Ical.Net.Calendar.Load(text)!;
            var wall = (await ines.Bricks(id, "2026-03-02", "2026-05-10"))
                .Where(brick => brick.Text("form") == "event")
                .ToList();
            var expected = wall.Select(brick => (Title: brick.Text("title"), Start: StartOf(brick.GetProperty("time"))))
                .Order()
                .ToList();
            // On the wall of Ines, who lives in London: an hour ahead of UTC from 29 March 2026 on.
            var zone = TimeZoneInfo.FindSystemTimeZoneById("Europe/London");
            var read = calendar
                .Events.Select(one =>
                    (
                        Title: one.Summary!,
                        Start: one.IsAllDay
                            ? one.Start!.Date.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)
                            : TimeZoneInfo
                                .ConvertTimeFromUtc(one.Start!.AsUtc, zone)
                                .ToString("yyyy-MM-dd'T'HH:mm:ss", CultureInfo.InvariantCulture)
                    )
                )
                .Where(one =>
                    string.CompareOrdinal(one.Start, "2026-03-02") >= 0
                    && string.CompareOrdinal(one.Start, "2026-05-11") < 0
                )
                .Order()
                .ToList();
            Assert.Equal(expected.Where(one => string.CompareOrdinal(one.Start, "2026-03-02") >= 0), read);
            Assert.Equal(calendar.Events.Count, calendar.Events.Select(one => one.Uid).Distinct().Count());
            Assert.Equal(
                read,
                (await ReadByIcalJs(text))
                    .Where(one =>
                        string.CompareOrdinal(one.Start, "2026-03-02") >= 0
                        && string.CompareOrdinal(one.Start, "2026-05-11") < 0
                    )
                    .Order()
            );
            told += read.Count;
        }

        Assert.True(told > 100, $"{told} dates");

        static string StartOf(System.Text.Json.JsonElement time) =>
            time.Text("form") == "days" ? time.Text("first") : time.Text("start");
    }

    /// <summary>What ical.js 2.2.1 reads in a feed: titles, and starts on London's clock.</summary>
    private static async Task<List<(string Title, string Start)>> ReadByIcalJs(string feed)
    {
        using var node = Process.Start(
            new ProcessStartInfo("node", Path.Combine(AppContext.BaseDirectory, "read-feed-with-ical-js.mjs"))
            {
                WorkingDirectory = Path.Combine(Repository.Root, "web"),
                UseShellExecute = false,
                RedirectStandardInput = true,
                RedirectStandardOutput = true,
            }
        )!;
        var answer = node.StandardOutput.ReadToEndAsync(TestContext.Current.CancellationToken);
        await node.StandardInput.WriteAsync(feed);
        node.StandardInput.Close();
        using var events = System.Text.Json.JsonDocument.Parse(await answer);
        await node.WaitForExitAsync(TestContext.Current.CancellationToken);
        Assert.Equal(0, node.ExitCode);
        return [.. events.RootElement.EnumerateArray().Select(one => (one.Text("title"), one.Text("start")))];
    }

    [Fact]
    public async Task Each_step_leaves_out_what_it_does_not_show_and_follows_its_owner_down()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var phone = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        (
            await ines.Put(
                $"/api/events/{Guid.CreateVersion7()}",
                World.Event(calendar, "Secret-title", attendees: DemoPeople.Hanne.Id.Value)
            )
        ).Is(200);
        (
            await ines.Put(
                $"/api/events/{Guid.CreateVersion7()}",
                new
                {
                    calendarId = calendar.Value,
                    title = "Secret-dentist",
                    place = "Secret-surgery",
                    notes = "",
                    showAs = "busy",
                    time = World.Hours("2026-03-13T09:00:00", "2026-03-13T10:00:00"),
                    @private = true,
                    attendees = Array.Empty<Guid>(),
                }
            )
        ).Is(200);
        var (view, outline, times) = (
            await Make(priya, OfCalendar(calendar)),
            await Make(priya, OfCalendar(calendar, "outline")),
            await Make(priya, OfCalendar(calendar, "times"))
        );
        var own = await Make(ines, OfCalendar(calendar));
        string[] all =
        [
            "Secret-title",
            "Glaze room",
            World.Secret,
            "Secret-dentist",
            "Secret-surgery",
            DemoPeople.Hanne.Id.Value.ToString("D"),
            "example.org",
        ];

        // Who is named is told in one's own copy and in no other.
        var hanne = DemoPeople.Hanne.Id.Value.ToString("D");
        Assert.Equal(["Secret-title", "Glaze room", World.Secret, hanne], await Told(view));
        Assert.Equal(["Secret-title", "Glaze room"], await Told(outline));
        Assert.Equal([], await Told(times));
        Assert.Equal(
            ["Secret-title", "Glaze room", World.Secret, "Secret-dentist", "Secret-surgery", hanne],
            await Told(own)
        );
        Assert.Contains(
            "FREEBUSY;FBTYPE=BUSY:20260312T140000Z/20260312T153000Z\r\n",
            (await phone.Get(times)).Text,
            StringComparison.Ordinal
        );
        Assert.DoesNotContain("VEVENT", (await phone.Get(times)).Text, StringComparison.Ordinal);

        (
            await ines.Put(
                $"/api/calendars/{calendar.Value}/access/{DemoPeople.Priya.Id.Value}",
                new { role = "times" }
            )
        ).Is(204);
        Assert.Equal([], await Told(view));
        (await ines.Delete($"/api/calendars/{calendar.Value}/access/{DemoPeople.Priya.Id.Value}")).Is(204);
        foreach (var feed in new[] { view, outline, times })
        {
            var gone = (await phone.Get(feed)).Is(404);
            Assert.DoesNotContain("Glaze", gone.Text, StringComparison.Ordinal);
            Assert.Equal("no-store", gone.Headers.CacheControl?.ToString());
        }

        async Task<IEnumerable<string>> Told(string feed)
        {
            var text = (await phone.Get(feed)).Is(200).Text.Replace("\r\n ", "", StringComparison.Ordinal);
            return all.Where(secret => text.Contains(secret, StringComparison.Ordinal));
        }
    }

    [Fact]
    public async Task It_is_ended_renewed_and_gone_with_its_calendar()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var phone = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        var (id, other) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        var first = await Make(ines, OfCalendar(calendar), id);
        var kept = await Make(ines, OfCalendar(calendar), other);

        Assert.Equal(
            System.Text.Json.JsonValueKind.Null,
            (await ines.Put($"/api/feeds/{id}", OfCalendar(calendar))).Is(200).Body.GetProperty("url").ValueKind
        );
        (await priya.Put($"/api/feeds/{id}", new { of = "mine", role = "view" })).IsProblem(404, "not-there");
        (await priya.Post($"/api/feeds/{id}/renew")).IsProblem(404, "not-there");
        (await priya.Delete($"/api/feeds/{id}")).IsProblem(404, "not-there");
        var second = new Uri((await ines.Post($"/api/feeds/{id}/renew")).Is(200).Body.Text("url")).PathAndQuery;
        (await phone.Get(first)).Is(404);
        (await phone.Get(second)).Is(200);
        (await ines.Delete($"/api/feeds/{id}")).Is(204);
        (await phone.Get(second)).Is(410);
        (await ines.Post($"/api/feeds/{id}/renew")).IsProblem(404, "not-there");
        Assert.Equal(
            other,
            Assert.Single((await ines.Get("/api/feeds")).Is(200).Body.EnumerateArray()).GetProperty("id").GetGuid()
        );

        (await ines.Delete($"/api/calendars/{calendar.Value}?name=Glaze tests", 1)).Is(204);
        (await phone.Get(kept)).Is(410);
        (await ines.BringBack(calendar)).Is(200);
        (await phone.Get(kept)).Is(200);
        (await phone.Get("/feed/nonsense.ics")).Is(404);
        (await phone.Get("/feed/")).Is(404);
    }

    [Fact]
    public async Task It_is_sent_again_only_where_it_tells_something_else_and_its_owner_knows_when_it_was_read()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var phone = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        var id = await ines.MakeEvent(calendar, "Celadon day");
        var feed = await Make(ines, OfCalendar(calendar, "outline"));
        async Task<System.Text.Json.JsonElement> Listed() =>
            (await ines.Get("/api/feeds")).Is(200).Body.EnumerateArray().Single().Clone();
        Assert.Equal(System.Text.Json.JsonValueKind.Null, (await Listed()).GetProperty("readAt").ValueKind);

        var tag = (await phone.Get(feed)).Is(200).Headers.ETag!.ToString();
        var same = await phone.Get(feed, tag);
        (await ines.Put($"/api/events/{id}", World.Event(calendar, "Celadon day", notes: "Other notes"), 1)).Is(200);
        var unseen = await phone.Get(feed, tag);
        (await ines.Put($"/api/events/{id}", World.Event(calendar, "Ash day"), 2)).Is(200);
        var changed = await phone.Get(feed, tag);

        Assert.Equal((304, "", 304), (same.Status, same.Text, unseen.Status));
        Assert.Contains("SUMMARY:Ash day\r\n", changed.Is(200).Text, StringComparison.Ordinal);
        Assert.Equal(0, phone.Cookies.Count);
        Assert.Equal("", (await phone.Send(HttpMethod.Head, feed, null, null, null)).Is(200).Text);
        Assert.Equal(
            ("Glaze tests", 10),
            ((await Listed()).Text("name"), (await Listed()).Text("readAt")[..10].Length)
        );
    }

    [Fact]
    public async Task What_one_is_named_on_and_the_calendars_of_a_set_are_feeds_too()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var phone = mortar.Anonymous();
        var (one, other) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        await mortar.Give(one, DemoPeople.Priya, Role.View);
        (
            await ines.Put(
                $"/api/events/{Guid.CreateVersion7()}",
                World.Event(one, "With Priya", attendees: DemoPeople.Priya.Id.Value)
            )
        ).Is(200);
        (await ines.Put($"/api/events/{Guid.CreateVersion7()}", World.Event(one, "Without her"))).Is(200);
        (await ines.Put($"/api/events/{Guid.CreateVersion7()}", World.Event(other, "Elsewhere"))).Is(200);
        var set = Guid.CreateVersion7();
        (
            await priya.Put(
                $"/api/sets/{set}",
                new
                {
                    name = "Glazes",
                    groupId = (Guid?)null,
                    layers = new[]
                    {
                        new { calendarId = one.Value, beside = false },
                        new { calendarId = other.Value, beside = false },
                    },
                }
            )
        ).Is(204);

        var mine = (await phone.Get(await Make(priya, new { of = "mine", role = "view" }))).Is(200).Text;
        var glazes = (
            await phone.Get(
                await Make(
                    priya,
                    new
                    {
                        of = "set",
                        setId = set,
                        role = "view",
                    }
                )
            )
        ).Is(200).Text;

        Assert.Contains("With Priya", mine, StringComparison.Ordinal);
        Assert.DoesNotContain("Without her", mine, StringComparison.Ordinal);
        Assert.Contains("NAME:Glazes\r\n", glazes, StringComparison.Ordinal);
        Assert.Contains("Without her", glazes, StringComparison.Ordinal);
        Assert.DoesNotContain("Elsewhere", glazes, StringComparison.Ordinal);
        (await priya.Put($"/api/feeds/{Guid.NewGuid()}", OfCalendar(other))).IsProblem(404, "not-there");
        (
            await ines.Put(
                $"/api/feeds/{Guid.NewGuid()}",
                new
                {
                    of = "set",
                    setId = set,
                    role = "view",
                }
            )
        ).IsProblem(404, "not-there");
        (await ines.Put($"/api/feeds/{Guid.NewGuid()}", new { of = "mine", role = "times" })).IsProblem(422, "unfit");
        (await ines.Put($"/api/feeds/{Guid.NewGuid()}", new { of = "calendar", role = "view" })).IsProblem(
            422,
            "unfit"
        );
    }

    [Fact]
    public async Task Who_comes_goes_out_with_their_answer_in_ones_own_copy_and_comes_back_as_the_same_people()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var phone = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        var id = Guid.CreateVersion7();
        (
            await ines.Put(
                $"/api/events/{id}",
                World.Event(calendar, "Team day", attendees: [DemoPeople.Priya.Id.Value, DemoPeople.Mei.Id.Value])
            )
        ).Is(200);
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        (await priya.Put($"/api/events/{id}/answer", new { answer = "accepted" })).Is(204);

        var feed = (await phone.Get(await Make(ines, OfCalendar(calendar)))).Is(200).Text;
        var file = (await ines.Get($"/api/calendars/{calendar.Value}/export")).Is(200).Text;
        var handedOn = (await phone.Get(await Make(ines, OfCalendar(calendar, "outline")))).Is(200).Text;

        foreach (var text in (string[])[feed, file])
        {
            var one = Assert.Single(Ical.Net.Calendar.Load(text)!.Events);
            Assert.Contains(
                $"ORGANIZER;CN={DemoPeople.Ines.Name}:urn:uuid:{DemoPeople.Ines.Id.Value}",
                text.Replace("\r\n ", string.Empty, StringComparison.Ordinal),
                StringComparison.Ordinal
            );
            Assert.Equal(
                [
                    $"ATTENDEE;CN={DemoPeople.Mei.Name}:urn:uuid:{DemoPeople.Mei.Id.Value}",
                    $"ATTENDEE;PARTSTAT=ACCEPTED;CN={DemoPeople.Priya.Name}:urn:uuid:{DemoPeople.Priya.Id.Value}",
                ],
                text.Replace("\r\n ", string.Empty, StringComparison.Ordinal)
                    .Split("\r\n")
                    .Where(line => line.StartsWith("ATTENDEE", StringComparison.Ordinal))
                    .Order(StringComparer.Ordinal)
            );
            Assert.Equal(2, one.Attendees.Count);
            // It is no publication, in which nobody may be named (RFC 5546, 3.2.1).
            Assert.DoesNotContain("METHOD", text, StringComparison.Ordinal);
            Assert.DoesNotContain("example.org", text, StringComparison.Ordinal);
        }

        Assert.DoesNotContain("ATTENDEE", handedOn, StringComparison.Ordinal);
        Assert.DoesNotContain("ORGANIZER", handedOn, StringComparison.Ordinal);
        Assert.Contains("METHOD:PUBLISH", handedOn, StringComparison.Ordinal);

        // Back in another calendar: the same people, and nobody has answered by a file.
        var other = await ines.MakeCalendar();
        var path = $"/api/calendars/{other.Value}/imports/{Guid.CreateVersion7()}";
        (await ines.Put(path, System.Text.Encoding.UTF8.GetBytes(file))).Is(200);
        (await ines.Post($"{path}/write", new { known = "keep" })).Is(202);
        var back = await World.Eventually(async () =>
            await ines.Bricks(other) is [var one] ? new { Brick = one } : null
        );
        Assert.Equal(
            new[] { DemoPeople.Mei.Id.Value, DemoPeople.Priya.Id.Value }.Order(),
            back.Brick.GetProperty("attendees").EnumerateArray().Select(who => who.GetGuid()).Order()
        );
        var answers = (await ines.Get($"/api/events/{back.Brick.GetProperty("eventId").GetGuid()}/answers"))
            .Is(200)
            .Text;
        Assert.DoesNotContain("accepted", answers, StringComparison.Ordinal);
    }

    [Fact]
    public async Task No_secret_is_kept()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var feed = await Make(ines, new { of = "mine", role = "view" });
        var secret = feed["/feed/".Length..^".ics".Length];

        Assert.Equal(32, secret.Length);
        Assert.DoesNotContain(
            await mortar.Store(db => db.Feeds.Select(row => row.Hash).ToListAsync()),
            hash => hash.Contains(secret, StringComparison.Ordinal)
        );
        Assert.DoesNotContain(secret, (await ines.Get("/api/feeds")).Is(200).Text, StringComparison.Ordinal);
    }
}
