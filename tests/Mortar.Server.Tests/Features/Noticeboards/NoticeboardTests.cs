using System.Text.RegularExpressions;
using Mortar.Core.Calendars;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Mortar.Server.Features.Noticeboards;
using Mortar.Server.Wire;
using Xunit;
using static Mortar.Server.Tests.Features.Noticeboards.NoticeboardWorld;

namespace Mortar.Server.Tests.Features.Noticeboards;

/// <summary>Noticeboards: who makes them, what the world reads, and how that ends.</summary>
public partial class NoticeboardTests
{
    [Fact]
    public async Task Nobody_reads_it_before_it_is_open_nor_from_when_it_is_paused_or_ended()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var world = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        await ines.MakeEvent(calendar, "Celadon day");
        var id = await ines.MakeNoticeboard(Settings([(calendar, "view")]), open: false);

        (await world.Get("/b/glaze-days")).Is(404);
        (await ines.Post($"/api/noticeboards/{id}/open")).Is(200);
        Assert.Contains("Celadon day", (await world.Get("/b/glaze-days")).Is(200).Text, StringComparison.Ordinal);
        (await ines.Post($"/api/noticeboards/{id}/pause")).Is(200);
        var paused = (await world.Get("/b/glaze-days")).Is(404);
        Assert.DoesNotContain("Raku club", paused.Text, StringComparison.Ordinal);
        Assert.Equal("no-store", paused.Headers.CacheControl?.ToString());
        (await ines.Post($"/api/noticeboards/{id}/open")).Is(200);
        (await world.Get("/b/glaze-days")).Is(200);
        (await ines.Delete($"/api/noticeboards/{id}")).Is(204);

        var gone = (await world.Get("/b/glaze-days")).Is(410);
        Assert.DoesNotContain("Raku club", gone.Text, StringComparison.Ordinal);
        Assert.Equal("no-store", gone.Headers.CacheControl?.ToString());
        (await ines.Post($"/api/noticeboards/{id}/open")).IsProblem(404, "not-there");
        (await ines.Put($"/api/noticeboards/{id}", Settings([(calendar, "view")]), 5)).IsProblem(404, "not-there");
    }

    [Fact]
    public async Task Each_step_tells_the_world_what_it_shows_in_every_byte_of_every_page()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var world = mortar.Anonymous();
        var calendar = new CalendarId(Guid.CreateVersion7());
        (
            await ines.Put(
                $"/api/calendars/{calendar.Value}",
                new
                {
                    groupId = World.StudioTeam,
                    name = "Glaze tests",
                    description = "Secret-description",
                    hue = "lake",
                    mark = "drop",
                    zone = "Europe/London",
                    purpose = "events",
                    groupDefault = "none",
                    kinds = new[] { new { name = "Secret-kind", tint = "deep" } },
                }
            )
        ).Is(200);
        var (open, hush) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        object Body(string title, bool isPrivate) =>
            new
            {
                calendarId = calendar.Value,
                title,
                place = isPrivate ? "Secret-surgery" : "Secret-place",
                notes = isPrivate ? "Secret-illness" : "Secret-notes",
                showAs = "busy",
                time = isPrivate ? World.Hours("2026-03-13T09:00:00", "2026-03-13T10:00:00") : World.Hours(),
                kind = "Secret-kind",
                @private = isPrivate,
                attendees = new[] { DemoPeople.Hanne.Id.Value },
            };
        (await ines.Put($"/api/events/{open}", Body("Secret-title", isPrivate: false))).Is(200);
        (await ines.Put($"/api/events/{hush}", Body("Secret-dentist", isPrivate: true))).Is(200);
        string[] never =
        [
            "Secret-description",
            "Secret-surgery",
            "Secret-illness",
            "Secret-dentist",
            hush.ToString("N"),
            "example.org",
        ];
        string[] texts = ["Secret-title", "Secret-place", "Secret-notes", "Secret-kind", DemoPeople.Hanne.Name];
        var (board, version) = (await ines.MakeNoticeboard(Settings([(calendar, "times")])), 2);

        foreach (
            var (role, people, told) in new[]
            {
                ("times", true, Array.Empty<string>()),
                ("outline", true, ["Secret-title", "Secret-place"]),
                ("view", false, ["Secret-title", "Secret-place", "Secret-notes", "Secret-kind"]),
                ("view", true, texts),
            }
        )
        {
            var settings = Settings([(calendar, role)], people: people);
            version = (await ines.Put($"/api/noticeboards/{board}", settings, version))
                .Is(200)
                .Body.GetProperty("version")
                .GetInt32();
            var trial = (await ines.Post("/api/noticeboards/trial", new { noticeboardId = board, settings })).Is(200);
            var pages = new List<string> { trial.Body.Text("html") };
            foreach (
                var path in new[]
                {
                    "",
                    "?view=month",
                    "?view=week",
                    "/poster",
                    $"/{open:N}",
                    $"/{hush:N}",
                    $"/{open:N}.ics",
                    "/calendar.ics",
                }
            )
            {
                pages.Add((await world.Get($"/b/glaze-days{path}")).Text);
            }

            var all = string.Join('\n', pages);
            Assert.All(never, secret => Assert.DoesNotContain(secret, all, StringComparison.OrdinalIgnoreCase));
            Assert.Equal(told, texts.Where(text => all.Contains(text, StringComparison.Ordinal)));
            Assert.Equal(role != "times", all.Contains(open.ToString("N"), StringComparison.Ordinal));
        }
    }

    [Fact]
    public async Task What_anybody_wrote_stays_text()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var world = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        const string Bad = "</script><script>alert(1)</script>\"'<b>";
        var id = await ines.MakeEvent(calendar, Bad);
        await ines.MakeNoticeboard(Settings([(calendar, "view")], title: $"🏺 חוג {Bad}", words: Bad));

        foreach (
            var path in new[]
            {
                "",
                "?view=month",
                "?view=week",
                "/poster",
                $"/{id:N}",
                $"?zone={Uri.EscapeDataString(Bad)}",
                "?view=%3Cscript%3E",
            }
        )
        {
            var page = (await world.Get($"/b/glaze-days{path}")).Is(200);

            Assert.DoesNotContain("<script>alert", page.Text, StringComparison.Ordinal);
            Assert.DoesNotContain("<b>", page.Text, StringComparison.Ordinal);
            Assert.Contains("🏺 חוג", System.Net.WebUtility.HtmlDecode(page.Text), StringComparison.Ordinal);
            foreach (
                Match block in Regex.Matches(
                    page.Text,
                    """<script type="application/ld\+json">(?<data>.*?)</script>""",
                    RegexOptions.Singleline | RegexOptions.ExplicitCapture,
                    TimeSpan.FromSeconds(1)
                )
            )
            {
                Assert.Contains(
                    "alert(1)",
                    System.Text.Json.JsonDocument.Parse(block.Groups["data"].Value).RootElement.ToString(),
                    StringComparison.Ordinal
                );
            }
        }
    }

    [Fact]
    public async Task A_page_is_small_needs_no_script_and_says_what_browsers_and_engines_may_do_with_it()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var world = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        var id = await ines.MakeEvent(calendar, "Celadon day");
        await ines.MakeNoticeboard(Settings([(calendar, "view")]));
        await ines.MakeNoticeboard(
            Settings(
                [(calendar, "view")],
                address: "glaze-fairs",
                listed: true,
                frames: "named",
                sites: ["https://club.example.org/plan"]
            )
        );

        var page = (await world.Get("/b/glaze-days")).Is(200);
        var listed = (await world.Get("/b/glaze-fairs")).Is(200);
        var one = (await world.Get($"/b/glaze-fairs/{id:N}")).Is(200).Text;
        var robots = (await world.Get("/robots.txt")).Is(200).Text;

        Assert.True(page.Text.Length < 60_000, $"{page.Text.Length} characters");
        Assert.Equal(0, world.Cookies.Count);
        Assert.False(page.Headers.Contains("Set-Cookie"));
        Assert.Contains("frame-ancestors 'none'", Header(page, "Content-Security-Policy"), StringComparison.Ordinal);
        Assert.Equal("DENY", Header(page, "X-Frame-Options"));
        Assert.Equal("no-referrer", Header(page, "Referrer-Policy"));
        Assert.Contains("noindex", Header(page, "X-Robots-Tag"), StringComparison.Ordinal);
        Assert.Contains("""<meta name="robots" content="noindex, nofollow" """, page.Text, StringComparison.Ordinal);
        Assert.EndsWith(
            "frame-ancestors https://club.example.org",
            Header(listed, "Content-Security-Policy"),
            StringComparison.Ordinal
        );
        Assert.False(listed.Headers.Contains("X-Frame-Options"));
        Assert.False(listed.Headers.Contains("X-Robots-Tag"));
        Assert.Contains("Allow: /b/glaze-fairs\n", robots, StringComparison.Ordinal);
        Assert.DoesNotContain("glaze-days", robots, StringComparison.Ordinal);
        Assert.EndsWith("Disallow: /\n", robots, StringComparison.Ordinal);
        Assert.Contains("""<meta property="og:title" content="Celadon day" """, one, StringComparison.Ordinal);
        Assert.Contains("\"startDate\":\"2026-03-12T14:00:00Z\"", one, StringComparison.Ordinal); // London in March: UTC

        static string Header(Answer answer, string name) => string.Join(", ", answer.Headers.GetValues(name));
    }

    [Fact]
    public async Task What_has_not_changed_is_not_sent_again_and_a_change_is_there_at_once()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var world = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        var id = await ines.MakeEvent(calendar, "Celadon day");
        await ines.MakeNoticeboard(Settings([(calendar, "view")]));

        var first = (await world.Get("/b/glaze-days")).Is(200);
        var tag = first.Headers.ETag!.ToString();
        var same = await world.Get("/b/glaze-days", tag);
        (await ines.Put($"/api/events/{id}", World.Event(calendar, "Ash day"), 1)).Is(200);
        var changed = await world.Get("/b/glaze-days", tag);

        Assert.Equal("no-cache, public", string.Join(", ", first.Headers.CacheControl!.ToString().Split(", ").Order()));
        Assert.Equal((304, ""), (same.Status, same.Text));
        Assert.Contains("Ash day", changed.Is(200).Text, StringComparison.Ordinal);
        Assert.DoesNotContain("Celadon day", changed.Text, StringComparison.Ordinal);
        Assert.Equal("", (await world.Send(HttpMethod.Head, "/b/glaze-days", null, null, null)).Is(200).Text);
    }

    [Fact]
    public async Task It_is_told_on_the_visitors_clock_and_in_their_language_of_dates()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var client = new HttpClient { BaseAddress = mortar.Url };
        var calendar = await ines.MakeCalendar();
        await ines.MakeEvent(calendar, "Celadon day");
        await ines.MakeNoticeboard(Settings([(calendar, "view")]));

        var london = await Get("en-GB,en;q=0.8", "");
        var halifax = await Get("en-US", "?zone=America/Halifax");
        var german = await Get("xx-nonsense,de-DE;q=0.9,en;q=0.1", "");
        var persian = await Get("fa-IR", "");

        Assert.Contains("14:00 – 15:30", london, StringComparison.Ordinal);
        Assert.Contains("Thursday", london, StringComparison.Ordinal);
        Assert.Contains(
            "11:00 AM – 12:30 PM",
            System.Net.WebUtility.HtmlDecode(halifax).Replace('\u202F', ' '),
            StringComparison.Ordinal
        );
        Assert.Contains("your clock (Halifax)", halifax, StringComparison.Ordinal);
        Assert.Contains("""lang="de-DE" """, german, StringComparison.Ordinal);
        Assert.Contains("Donnerstag", german, StringComparison.Ordinal);
        Assert.Contains("März", german, StringComparison.Ordinal);
        Assert.DoesNotContain("1404", persian, StringComparison.Ordinal); // years of the plan, not of another calendar

        async Task<string> Get(string languages, string query)
        {
            using var request = new HttpRequestMessage(HttpMethod.Get, $"/b/glaze-days{query}");
            request.Headers.TryAddWithoutValidation("Accept-Language", languages);
            using var response = await client.SendAsync(request);
            Assert.Equal(["Accept-Language"], response.Headers.Vary);
            return await response.Content.ReadAsStringAsync();
        }
    }

    [Fact]
    public async Task How_often_it_was_opened_is_counted_by_day_and_who_did_is_not()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var world = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        var id = await ines.MakeNoticeboard(Settings([(calendar, "view")]));
        var opens = (BoardOpens)mortar.Services.GetService(typeof(BoardOpens))!;

        (await world.Get("/b/glaze-days")).Is(200);
        (await world.Get("/b/glaze-days?view=month")).Is(200);
        await opens.Keep(CancellationToken.None);
        (await world.Get("/b/glaze-days")).Is(200);
        (await world.Send(HttpMethod.Head, "/b/glaze-days", null, null, null)).Is(200);
        (await world.Get("/b/glaze-nothing")).Is(404);
        await opens.Keep(CancellationToken.None);

        var told = (await ines.Noticeboard(id))
            .GetProperty("opens")
            .EnumerateArray()
            .Select(one => one.GetInt32())
            .ToList();
        Assert.Equal((28, 3, 3), (told.Count, told.Sum(), told[^1]));
    }

    [Fact]
    public async Task Trying_shows_what_the_world_would_get_and_writes_nothing()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var world = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        await ines.MakeEvent(calendar, "Celadon day");
        var body = new { noticeboardId = Guid.NewGuid(), settings = Settings([(calendar, "view")], title: "") };

        var tried = (await ines.Post("/api/noticeboards/trial", body)).Is(200).Body;

        Assert.Contains("Celadon day", tried.Text("html"), StringComparison.Ordinal);
        Assert.Equal("1 event, 1 with notes", tried.Text("counted"));
        Assert.Contains("titles, places and notes in “Glaze tests”", tried.Text("sentence"), StringComparison.Ordinal);
        (await world.Get("/b/glaze-days")).Is(404);
        (await priya.Post("/api/noticeboards/trial", body)).IsProblem(404, "not-there");
        Assert.Empty((await ines.Get($"/api/groups/{World.StudioTeam}/noticeboards")).Is(200).Body.EnumerateArray());
    }

    [Fact]
    public void Its_marks_and_hues_are_those_of_the_interface()
    {
        var signs = File.ReadAllText(Path.Combine(Repository.Root, "web/src/ui/MarkSign.tsx"));
        var theme = File.ReadAllText(Path.Combine(Repository.Root, "web/src/app/theme.css"));

        foreach (var mark in Enum.GetValues<Mark>())
        {
            foreach (Match shape in Shapes().Matches(MarkSigns.Of(mark)))
            {
                Assert.Contains($"\"{shape.Groups["shape"].Value}\"", signs, StringComparison.Ordinal);
            }
        }

        foreach (var hue in Enum.GetValues<Hue>())
        {
            var name = hue.ToString().ToLowerInvariant();
            var angle = Regex.Match(
                theme,
                $$"""\[data-hue="{{name}}"\] \{\s*--hue: (?<angle>\d+);""",
                RegexOptions.ExplicitCapture,
                TimeSpan.FromSeconds(1)
            );
            Assert.Contains(
                $"[data-hue={name}]{{--hue:{angle.Groups["angle"].Value}}}",
                BoardStyle.Text,
                StringComparison.Ordinal
            );
        }
    }

    [GeneratedRegex(
        """ d="(?<shape>[^"]+)" """,
        RegexOptions.ExplicitCapture | RegexOptions.IgnorePatternWhitespace,
        matchTimeoutMilliseconds: 1000
    )]
    private static partial Regex Shapes();
}
