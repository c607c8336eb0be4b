using System.Text.Json;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>One's own wall: looks, order, sets and preferences; kept with the account and seen by nobody else.</summary>
public class ShelfTests
{
    /// <summary>Two quick presses, or two tabs: both find that nothing is kept yet.</summary>
    [Fact]
    public async Task What_is_kept_for_the_first_time_by_several_at_once_is_kept_once()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        for (var round = 0; round < 5; round++)
        {
            var (calendar, set) = (await ines.MakeCalendar(), Guid.NewGuid());
            var layers = new[]
            {
                new
                {
                    calendarId = calendar.Value,
                    shown = true,
                    beside = false,
                },
            };
            var answers = await Task.WhenAll(
                Enumerable
                    .Range(0, 6)
                    .SelectMany(n =>
                        new[]
                        {
                            ines.Put(
                                $"/api/shelf/{calendar.Value}",
                                new
                                {
                                    shown = n % 2 == 0,
                                    beside = false,
                                    look = (object?)null,
                                }
                            ),
                            ines.Put("/api/shelf", new { layers }),
                            ines.Put($"/api/shelf/{calendar.Value}/reminder", new { kind = "never", minutes = 0 }),
                            ines.Put(
                                $"/api/sets/{set}",
                                new
                                {
                                    name = "Mine",
                                    groupId = (Guid?)null,
                                    layers,
                                }
                            ),
                        }
                    )
            );

            Assert.All(answers, answer => answer.Is(204));
        }
    }

    [Fact]
    public async Task My_look_of_a_layer_is_mine_alone_and_can_be_given_up()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var rota = DemoPeople.Stable("calendar Rota");
        object Lay(object? look) =>
            new
            {
                shown = true,
                beside = true,
                look,
            };

        (
            await priya.Put(
                $"/api/shelf/{rota}",
                Lay(
                    new
                    {
                        name = "Front desk plan",
                        hue = "rose",
                        mark = "wave",
                    }
                )
            )
        ).Is(204);
        var mine = await Layer(priya, rota);
        var theirs = await Layer(ines, rota);
        (await priya.Put($"/api/shelf/{rota}", Lay(null))).Is(204);

        Assert.Equal(("Front desk plan", "rose", "wave"), (mine.Text("name"), mine.Text("hue"), mine.Text("mark")));
        Assert.True(mine.GetProperty("beside").GetBoolean());
        Assert.Equal("Rota", mine.GetProperty("calendar").Text("name"));
        Assert.Equal(("Rota", "iron"), (theirs.Text("name"), theirs.Text("hue")));
        Assert.Equal("Rota", (await Layer(priya, rota)).Text("name"));
    }

    [Fact]
    public async Task The_shelf_keeps_the_order_it_was_given()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var before = await Ids(ines);
        var stranger = Guid.NewGuid();

        (
            await ines.Put(
                "/api/shelf",
                new
                {
                    layers = before
                        .AsEnumerable()
                        .Reverse()
                        .Prepend(stranger)
                        .Select(id => new
                        {
                            calendarId = id,
                            shown = id != before[0],
                            beside = false,
                        }),
                }
            )
        ).Is(204);

        Assert.Equal(before.AsEnumerable().Reverse(), await Ids(ines));
        Assert.False((await Layer(ines, before[0])).GetProperty("shown").GetBoolean());
    }

    [Fact]
    public async Task A_set_given_to_the_group_shows_each_member_only_what_they_reach()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var dele = await mortar.As(DemoPeople.Dele);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        var own = await ines.MakeCalendar();
        var rota = DemoPeople.Stable("calendar Rota");
        var id = Guid.NewGuid();
        object Set(string name, Guid? group) =>
            new
            {
                name,
                groupId = group,
                layers = new[]
                {
                    new { calendarId = own.Value, beside = true },
                    new { calendarId = rota, beside = false },
                },
            };

        (await ines.Put($"/api/sets/{id}", Set("Firing week", null))).Is(204);
        Assert.Empty((await dele.Get("/api/sets")).Is(200).Body.EnumerateArray());
        (await ines.Put($"/api/sets/{id}", Set("Firing week", World.StudioTeam))).Is(204);

        var seen = Assert.Single((await dele.Get("/api/sets")).Is(200).Body.EnumerateArray());
        Assert.Equal(
            rota,
            Assert.Single(seen.GetProperty("layers").EnumerateArray()).GetProperty("calendarId").GetGuid()
        );
        Assert.False(seen.GetProperty("mine").GetBoolean());
        Assert.Empty((await astrid.Get("/api/sets")).Is(200).Body.EnumerateArray());
        (await dele.Put($"/api/sets/{id}", Set("Mine now", null))).IsProblem(404, "not-there");
        (await dele.Delete($"/api/sets/{id}", 1)).IsProblem(404, "not-there");
        (await astrid.Put($"/api/sets/{Guid.NewGuid()}", Set("Theirs", World.StudioTeam))).IsProblem(404, "not-there");
        (await ines.Put($"/api/sets/{id}", Set(" ", null))).IsProblem(422, "unfit");
        (await ines.Delete($"/api/sets/{id}", 1)).Is(204);
        Assert.Empty((await dele.Get("/api/sets")).Is(200).Body.EnumerateArray());
    }

    [Fact]
    public async Task Preferences_are_kept_and_the_wall_follows_them()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await ines.MakeEvent(calendar);
        var wish = new
        {
            zone = "America/Halifax",
            secondZone = "Europe/London",
            firstDay = "sunday",
            clock = "hours12",
            locale = "en-CA",
            dayBegins = 420,
            dayEnds = 1_200,
            eventMinutes = 45,
            eventCalendar = calendar.Value,
        };

        (await ines.Put("/api/preferences", wish)).Is(200);
        using var again = await mortar.As(DemoPeople.Ines);
        var person = (await again.Get("/api/session")).Is(200).Body.GetProperty("person");
        var kept = person.GetProperty("preferences");
        var wrong = await ines.Put(
            "/api/preferences",
            new
            {
                wish.zone,
                secondZone = "Mars",
                wish.firstDay,
                wish.clock,
                wish.locale,
                wish.dayBegins,
                dayEnds = 420,
                wish.eventMinutes,
                wish.eventCalendar,
            }
        );

        Assert.Equal(
            ("sunday", "hours12", 420, 45),
            (
                kept.Text("firstDay"),
                kept.Text("clock"),
                kept.GetProperty("dayBegins").GetInt32(),
                kept.GetProperty("eventMinutes").GetInt32()
            )
        );
        Assert.Equal(
            """{"morning":{"from":420,"to":720},"afternoon":{"from":720,"to":1200}}""",
            person.GetProperty("halves").GetRawText()
        );
        Assert.Equal("[6,7]", person.GetProperty("weekend").GetRawText());
        Assert.Equal(
            "2026-03-12T11:00:00",
            Assert.Single(await ines.Bricks(calendar)).GetProperty("time").Text("start")
        );
        wrong.IsProblem(422, "unfit");
        Assert.Equal(2, wrong.Body.GetProperty("fields").EnumerateObject().Count());
    }

    [Fact]
    public async Task A_calendars_kinds_and_whose_time_it_takes_are_settings_that_are_checked()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var id = Guid.CreateVersion7();
        object Calendar(string takes, Guid? person, params string[] kinds) =>
            new
            {
                groupId = World.StudioTeam,
                name = "Glaze tests",
                hue = "lake",
                mark = "drop",
                zone = "Europe/London",
                purpose = "events",
                groupDefault = "none",
                takes,
                person,
                kinds = kinds.Select(name => new { name, tint = "deep" }),
            };

        (await ines.Put($"/api/calendars/{id}", Calendar("person", DemoPeople.Priya.Id.Value, "Session", "Fair"))).Is(
            200
        );
        var layer = await Layer(ines, id);
        var twice = await ines.Put($"/api/calendars/{id}", Calendar("named", null, "Session", "session"), 1);
        var nobody = await ines.Put($"/api/calendars/{id}", Calendar("person", null), 1);
        var stranger = await ines.Put($"/api/calendars/{id}", Calendar("person", DemoPeople.Astrid.Id.Value), 1);

        Assert.Equal(
            ["Session", "Fair"],
            layer.GetProperty("kinds").EnumerateArray().Select(kind => kind.Text("name"))
        );
        Assert.Equal(DemoPeople.Priya.Id.Value, layer.GetProperty("person").GetGuid());
        Assert.True(twice.IsProblem(422, "unfit").Body.GetProperty("fields").TryGetProperty("kinds", out _));
        Assert.True(nobody.IsProblem(422, "unfit").Body.GetProperty("fields").TryGetProperty("person", out _));
        Assert.True(stranger.IsProblem(422, "unfit").Body.GetProperty("fields").TryGetProperty("person", out _));
    }

    private static async Task<JsonElement> Layer(Browser browser, Guid calendar) =>
        (await browser.Get($"/api/calendars/{calendar}")).Is(200).Body;

    private static async Task<List<Guid>> Ids(Browser browser) =>
        [
            .. (await browser.Get("/api/shelf"))
                .Is(200)
                .Body.EnumerateArray()
                .Select(layer => layer.GetProperty("calendarId").GetGuid()),
        ];
}
