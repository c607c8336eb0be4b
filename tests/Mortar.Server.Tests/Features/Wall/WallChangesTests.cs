using System.Globalization;
using System.Text.Json;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>A wall put together of what it was and what changed since is the wall as it is.</summary>
public class WallChangesTests
{
    private const string Days = "from=2026-03-09&to=2026-03-15";

    /// <summary>
    /// Whatever is done to two calendars, each by another step: what everybody has put together is what they get anew. Most of
    /// it has to come as changes, and nobody is told the number of an event that was never there for them.
    /// </summary>
    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    public async Task Put_together_it_is_what_is_read_anew(int seed)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var (one, other) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        var readers = new List<Kept> { await Kept.Open(ines) };
        foreach (
            var (person, here, there) in new[]
            {
                (DemoPeople.Priya, Role.Times, Role.View),
                (DemoPeople.Dele, Role.View, Role.None),
                (DemoPeople.Tomasz, Role.Outline, Role.Add),
            }
        )
        {
            await mortar.Give(one, person, here);
            await mortar.Give(other, person, there);
            readers.Add(await Kept.Open(await mortar.As(person)));
        }

        var (random, events) = (new Random(seed), new List<(Guid Id, int Version)>());
        for (var step = 0; step < 30; step++)
        {
            await Act(ines, readers[1].Browser, one, other, random, events);
            foreach (var reader in readers)
            {
                await reader.LookAbout();
            }

            if (random.Next(3) == 0)
            {
                continue; // several changes at once
            }

            foreach (var reader in readers)
            {
                await reader.Freshen();
                var anew = await reader.Anew();
                Assert.Equal(anew.Bricks, reader.Bricks);
                Assert.Equal(anew.Clashes, reader.Clashes);
            }
        }

        Assert.All(
            readers,
            reader => Assert.True(reader.InParts > 2 * reader.Whole, $"{reader.InParts} {reader.Whole}")
        );
        foreach (var reader in readers)
        {
            reader.Browser.Dispose();
        }
    }

    [Fact]
    public async Task Unchanged_it_is_answered_by_its_tag_alone_and_what_others_do_elsewhere_leaves_it_so()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var (hers, others) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        await mortar.Give(hers, DemoPeople.Priya, Role.View);
        var tag = (await priya.Get($"/api/wall?{Days}")).Is(200).Headers.ETag!.Tag;

        await ines.MakeEvent(others);
        await ines.MakeEvent(hers, time: World.Hours("2026-04-12T14:00:00", "2026-04-12T15:00:00"));
        var same = await priya.Get($"/api/wall?{Days}", ifNoneMatch: tag);
        await ines.MakeEvent(hers);
        var changed = await priya.Get($"/api/wall?{Days}", ifNoneMatch: tag);

        Assert.Equal((304, string.Empty), (same.Status, same.Text));
        Assert.Equal(200, changed.Status);
        Assert.Contains("Celadon", changed.Text, StringComparison.Ordinal);
        Assert.NotEqual(tag, changed.Headers.ETag!.Tag);
    }

    [Fact]
    public async Task What_cannot_be_put_together_is_asked_for_whole()
    {
        await using var mortar = await TestMortar.Start();
        using var priya = await mortar.As(DemoPeople.Priya);
        using var dele = await mortar.As(DemoPeople.Dele);
        var hers = (await priya.Get($"/api/wall?{Days}")).Is(200).Body.Text("version");
        var his = (await dele.Get($"/api/wall?{Days}")).Is(200).Body.Text("version");

        Assert.False(await IsWhole(hers));
        foreach (var other in new[] { his, "0", "999999999", hers[..^1], $"{hers}x", "née" })
        {
            Assert.True(await IsWhole(other), other);
        }

        async Task<bool> IsWhole(string since) =>
            (await priya.Get($"/api/wall/changes?{Days}&since={Uri.EscapeDataString(since)}"))
                .Is(200)
                .Body.GetProperty("whole")
                .GetBoolean();
    }

    /// <summary>Who sees times only learns nothing of what takes no other time, not even that something was written.</summary>
    [Fact]
    public async Task Of_a_change_that_is_not_for_them_nothing_is_told_not_even_by_a_number()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Times);
        var id = await ines.MakeEvent(calendar);
        var since = (await priya.Get($"/api/wall?{Days}")).Is(200).Body.Text("version");

        var (quiet, again) = (await Changes(), await Changes());
        (await ines.Put($"/api/events/{id}", World.Event(calendar, "Celadon, with slides"), 1)).Is(200);
        await mortar.Give(calendar, DemoPeople.Dele, Role.View); // whom it takes now is not for her either
        (
            await ines.Put(
                $"/api/calendars/{(await ines.MakeCalendar()).Value}/links/{Guid.NewGuid()}",
                new { role = "view" }
            )
        ).Is(200); // a link of a calendar that is not hers
        var hidden = await Changes();
        var tagged = await priya.Get($"/api/wall?{Days}", ifNoneMatch: $"\"{since}\"");

        // Each is another text, as it is when nothing was written at all; the rest is the same to the letter.
        Assert.Equal(3, new[] { quiet, again, hidden }.Select(one => one.Text("version")).Distinct().Count());
        Assert.Equal(quiet.Text("version").Length, hidden.Text("version").Length);
        Assert.Equal(Rest(quiet), Rest(hidden));
        Assert.Equal(304, tagged.Status);

        async Task<JsonElement> Changes() =>
            (await priya.Get($"/api/wall/changes?{Days}&since={Uri.EscapeDataString(since)}")).Is(200).Body;

        static string Rest(JsonElement body) =>
            body.GetRawText().Replace(body.Text("version"), string.Empty, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_step_that_is_lowered_or_taken_and_another_clock_make_it_whole()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        await ines.MakeEvent(calendar);
        var kept = await Kept.Open(priya);
        Assert.Contains(kept.Bricks, brick => brick.Contains("Celadon", StringComparison.Ordinal));

        await mortar.Give(calendar, DemoPeople.Priya, Role.Times);
        await kept.Freshen();
        Assert.DoesNotContain(kept.Bricks, brick => brick.Contains("Celadon", StringComparison.Ordinal));

        await mortar.Give(calendar, DemoPeople.Priya, Role.None);
        await kept.Freshen();
        Assert.DoesNotContain(
            kept.Bricks,
            brick => brick.Contains(calendar.Value.ToString(), StringComparison.Ordinal)
        );

        Assert.Equal(2, kept.Whole - 1);
    }

    /// <summary>Access that ends by itself is in no log; nothing that was kept outlives it.</summary>
    [Fact]
    public async Task When_a_step_ends_by_the_clock_the_next_asking_is_for_the_whole()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        (
            await ines.Put(
                $"/api/calendars/{calendar.Value}/access/{DemoPeople.Priya.Id.Value}",
                new { role = "view", lastDay = "2026-03-13" }
            )
        ).Is(204);
        await ines.MakeEvent(calendar);
        var kept = await Kept.Open(priya);
        Assert.Contains(kept.Bricks, brick => brick.Contains("Celadon", StringComparison.Ordinal));

        clock.Now += NodaTime.Duration.FromDays(4);
        await kept.Freshen();

        Assert.DoesNotContain(kept.Bricks, brick => brick.Contains("Celadon", StringComparison.Ordinal));
    }

    private static async Task Act(
        Browser ines,
        Browser priya,
        CalendarId one,
        CalendarId other,
        Random random,
        List<(Guid Id, int Version)> events
    )
    {
        var at = events.Count == 0 ? -1 : random.Next(events.Count);
        switch (at < 0 ? 0 : random.Next(9))
        {
            case < 5:
                var (id, version) = at >= 0 && random.Next(2) == 0 ? events[at] : (Guid.CreateVersion7(), 0);
                var answer = await ines.Put(
                    $"/api/events/{id}",
                    Drawn(random.Next(2) == 0 ? one : other, random),
                    version == 0 ? null : version
                );
                Assert.True(answer.Status is 200 or 422, answer.Text);
                if (answer.Status == 200)
                {
                    events.RemoveAll(known => known.Id == id);
                    events.Add((id, answer.Body.GetProperty("version").GetInt32()));
                }

                break;
            case 5:
                (await ines.Delete($"/api/events/{events[at].Id}", events[at].Version)).Is(200);
                events.RemoveAt(at);
                break;
            case 6:
                // Whom it does not name is refused, and changes nothing.
                await priya.Put($"/api/events/{events[at].Id}/answer", new { answer = "declined" });
                break;
            case 7:
                var given = await ines.Put(
                    $"/api/events/{events[at].Id}/editors",
                    new { people = new[] { DemoPeople.Dele.Id.Value } },
                    events[at].Version
                );
                if (given.Status == 200)
                {
                    events[at] = (events[at].Id, given.Body.GetProperty("version").GetInt32());
                }

                break;
            default:
                var path = $"/api/calendars/{one.Value}";
                var there = (await ines.Get(path)).Is(200).Body.GetProperty("version").GetInt32();
                (await ines.Put(path, World.Calendar($"Tests {random.Next(1_000)}"), there)).Is(200);
                break;
        }
    }

    private static object Drawn(CalendarId calendar, Random random)
    {
        var start = new DateTime(2026, 3, 9, 9, 0, 0, DateTimeKind.Unspecified)
            .AddDays(random.Next(-3, 9))
            .AddHours(random.Next(3));
        return new
        {
            calendarId = calendar.Value,
            title = $"Firing {random.Next(100)}",
            place = "Kiln",
            notes = "Cone six",
            showAs = new[] { "busy", "busy", "tentative", "free" }[random.Next(4)],
            time = random.Next(5) == 0
                ? (object)
                    new
                    {
                        form = "days",
                        first = start.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
                        last = start.AddDays(1).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
                        toBeSet = false,
                    }
                : World.Hours(
                    start.ToString("s", CultureInfo.InvariantCulture),
                    start.AddHours(1 + random.Next(3)).ToString("s", CultureInfo.InvariantCulture)
                ),
            rule = random.Next(4) == 0 ? "FREQ=DAILY;COUNT=4" : null,
            attendees = random.Next(2) == 0 ? [DemoPeople.Priya.Id.Value] : Array.Empty<Guid>(),
            @private = random.Next(3) == 0,
            hidesAttendees = random.Next(4) == 0,
        };
    }

    /// <summary>A wall as an open screen keeps it (web/src/wall/withChanges.ts).</summary>
    private sealed class Kept(Browser browser)
    {
        private List<JsonElement> bricks = [];
        private List<JsonElement> clashes = [];
        private string version = string.Empty;
        private readonly HashSet<Guid> everThere = [];

        public Browser Browser => browser;

        public int Whole { get; private set; }

        public int InParts { get; private set; }

        public IEnumerable<string> Bricks => Texts(bricks);

        public IEnumerable<string> Clashes => Texts(clashes);

        public static async Task<Kept> Open(Browser browser)
        {
            var kept = new Kept(browser);
            await kept.Read();
            return kept;
        }

        public async Task Freshen()
        {
            var changes = (await browser.Get($"/api/wall/changes?{Days}&since={Uri.EscapeDataString(version)}"))
                .Is(200)
                .Body;
            if (changes.GetProperty("whole").GetBoolean())
            {
                await Read();
                return;
            }

            InParts++;
            var (events, busy) = (Ids(changes, "events"), Ids(changes, "busy"));
            bricks =
            [
                .. bricks.Where(brick =>
                    brick.Text("form") == "event"
                        ? !events.Contains(brick.GetProperty("eventId").GetGuid())
                        : !busy.Contains(brick.GetProperty("calendarId").GetGuid())
                ),
                .. changes.BricksWithTexts(),
            ];
            clashes =
            [
                .. clashes.Where(clash =>
                    !events.Contains(clash.GetProperty("first").GetGuid())
                    && !events.Contains(clash.GetProperty("second").GetGuid())
                ),
                .. changes.GetProperty("clashes").EnumerateArray(),
            ];
            version = changes.Text("version");
            Assert.Subset(everThere, events);
        }

        public async Task<(IEnumerable<string> Bricks, IEnumerable<string> Clashes)> Anew()
        {
            var wall = (await browser.Get($"/api/wall?{Days}")).Is(200).Body;
            return (Texts([.. wall.BricksWithTexts()]), Texts([.. wall.GetProperty("clashes").EnumerateArray()]));
        }

        private async Task Read()
        {
            Whole++;
            var wall = (await browser.Get($"/api/wall?{Days}")).Is(200).Body;
            (bricks, clashes) = ([.. wall.BricksWithTexts()], [.. wall.GetProperty("clashes").EnumerateArray()]);
            version = wall.Text("version");
        }

        /// <summary>Takes note of all that is there for them now, on other days too.</summary>
        public async Task LookAbout() =>
            everThere.UnionWith(
                (await browser.Get("/api/wall?from=2026-02-20&to=2026-04-20"))
                    .Is(200)
                    .Body.GetProperty("bricks")
                    .EnumerateArray()
                    .Where(brick => brick.Text("form") == "event")
                    .Select(brick => brick.GetProperty("eventId").GetGuid())
            );

        private static HashSet<Guid> Ids(JsonElement changes, string of) =>
            [.. changes.GetProperty(of).EnumerateArray().Select(id => id.GetGuid())];

        /// <summary>What stands where in a table of texts, and which case names itself first, tells nothing.</summary>
        private static IEnumerable<string> Texts(List<JsonElement> all) =>
            [
                .. all.Select(one =>
                        string.Join(
                            ',',
                            one.EnumerateObject()
                                .Where(part => part.Name != "texts")
                                .OrderBy(part => part.Name, StringComparer.Ordinal)
                                .Select(part => $"{part.Name}:{part.Value.GetRawText()}")
                        )
                    )
                    .Order(StringComparer.Ordinal),
            ];
    }
}
