using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>What lies on a wall beside bricks: clashes, the ribbon, what is found, and who sees which of it.</summary>
public class WallTests
{
    private static readonly Guid Priya = DemoPeople.Priya.Id.Value;

    [Fact]
    public async Task Those_named_are_told_from_view_on_and_two_events_of_one_person_clash()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var dele = await mortar.As(DemoPeople.Dele);
        var calendar = await ines.MakeCalendar();
        var (one, other) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        (await ines.Put($"/api/events/{one}", Named(calendar, "Celadon", Priya))).Is(200);
        (await ines.Put($"/api/events/{other}", Named(calendar, "Ash", Priya))).Is(200);
        await mortar.Give(calendar, DemoPeople.Dele, Role.Outline);

        var wall = (await ines.Get("/api/wall?from=2026-03-09&to=2026-03-15")).Is(200).Body;
        var outline = (await dele.Get("/api/wall?from=2026-03-09&to=2026-03-15")).Is(200).Text;

        var clash = Assert.Single(
            wall.GetProperty("clashes").EnumerateArray(),
            each =>
                new[] { one, other }
                    .ToHashSet()
                    .SetEquals([each.GetProperty("first").GetGuid(), each.GetProperty("second").GetGuid()])
        );
        Assert.Equal(Priya, Assert.Single(clash.GetProperty("people").EnumerateArray()).GetGuid());
        Assert.True(clash.GetProperty("hard").GetBoolean());

        // At Outline titles are told; who comes, and so whether it clashes, is not.
        var titles = await dele.Bricks(calendar);
        Assert.Equal(["Ash", "Celadon"], titles.Select(brick => brick.Text("title")).Order());
        Assert.All(titles, brick => Assert.Equal(0, brick.GetProperty("attendees").GetArrayLength()));
        Assert.DoesNotContain($"\"first\":\"{one}\"", outline, StringComparison.Ordinal);
        Assert.DoesNotContain($"\"second\":\"{one}\"", outline, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Only_people_of_the_group_can_be_named()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();

        var answer = await ines.Put(
            $"/api/events/{Guid.NewGuid()}",
            Named(calendar, "Celadon", DemoPeople.Astrid.Id.Value)
        );

        answer.IsProblem(422, "unfit");
        Assert.True(answer.Body.GetProperty("fields").TryGetProperty("attendees", out _));
    }

    [Fact]
    public async Task An_absence_that_names_nobody_is_that_of_the_one_who_adds_it()
    {
        await using var mortar = await TestMortar.Start();
        using var priya = await mortar.As(DemoPeople.Priya);
        var away = new CalendarId(DemoPeople.Stable("calendar Away"));

        using var ines = await mortar.As(DemoPeople.Ines);
        var id = Guid.NewGuid();
        var absence = World.Event(
            away,
            "Away",
            new
            {
                form = "days",
                first = "2026-03-13",
                last = "2026-03-13",
            }
        );

        var added = (await priya.Put($"/api/events/{id}", absence)).Is(200);
        var changed = (await ines.Put($"/api/events/{id}", absence, 1)).Is(200); // the coordinator is not away for that

        foreach (var brick in new[] { added, changed })
        {
            Assert.Equal(Priya, Assert.Single(brick.Body.GetProperty("attendees").EnumerateArray()).GetGuid());
        }
    }

    [Fact]
    public async Task Who_is_in_a_group_is_not_told_by_a_clash_to_somebody_from_outside()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        var id = Guid.CreateVersion7();
        (
            await ines.Put(
                $"/api/calendars/{id}",
                new
                {
                    groupId = World.StudioTeam,
                    name = "Closed days",
                    hue = "lake",
                    mark = "drop",
                    zone = "Europe/London",
                    purpose = "events",
                    groupDefault = "none",
                    takes = "group",
                }
            )
        ).Is(200);
        var calendar = new CalendarId(id);
        await ines.MakeEvent(calendar);
        await ines.MakeEvent(calendar, "Ash");
        await mortar.Give(calendar, DemoPeople.Astrid, Role.View);

        var inside = (await ines.Get("/api/wall?from=2026-03-09&to=2026-03-15")).Is(200).Body.GetProperty("clashes");
        var outside = (await astrid.Get("/api/wall?from=2026-03-09&to=2026-03-15")).Is(200).Body.GetProperty("clashes");

        Assert.Contains(Priya.ToString(), inside.GetRawText(), StringComparison.Ordinal);
        Assert.DoesNotContain(Priya.ToString(), outside.GetRawText(), StringComparison.Ordinal);

        // Nor through the eyes of a member, by somebody who coordinates the calendar from outside the group.
        await mortar.Give(calendar, DemoPeople.Astrid, Role.Coordinate);
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        var through = (await astrid.Get($"/api/wall?from=2026-03-09&to=2026-03-15&as={Priya}")).Is(200).Text;
        Assert.Contains("Ash", through, StringComparison.Ordinal);
        Assert.DoesNotContain(DemoPeople.Tomasz.Id.Value.ToString(), through, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Days_whose_times_are_to_be_set_stay_such_until_they_are_set()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var id = await ines.MakeEvent(
            calendar,
            "Fair",
            new
            {
                form = "days",
                first = "2026-03-14",
                last = "2026-03-15",
                toBeSet = true,
            }
        );
        var open = Assert.Single(await ines.Bricks(calendar)).GetProperty("time").GetProperty("toBeSet").GetBoolean();
        var file = (await ines.Get($"/api/calendars/{calendar.Value}/export")).Is(200).Text;

        (await ines.Put($"/api/events/{id}", World.Event(calendar, "Fair"), 1)).Is(200);

        Assert.True(open);
        Assert.Contains("X-MORTAR-TIMES-TO-BE-SET:TRUE", file, StringComparison.Ordinal);
        Assert.Equal("clock", Assert.Single(await ines.Bricks(calendar)).GetProperty("time").Text("form"));
    }

    [Theory]
    [InlineData(Role.View)]
    [InlineData(Role.Add)]
    public async Task Of_what_is_private_others_are_told_the_times_by_no_way_anything_else(Role role)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var dele = await mortar.As(DemoPeople.Dele);
        var calendar = await ines.MakeCalendar();
        var id = Guid.CreateVersion7();
        (
            await ines.Put(
                $"/api/events/{id}",
                new
                {
                    calendarId = calendar.Value,
                    title = "Secret celadon",
                    place = "Secret room",
                    notes = World.Secret,
                    showAs = "busy",
                    time = World.Hours(),
                    attendees = new[] { Priya },
                    @private = true,
                }
            )
        ).Is(200);
        await mortar.Give(calendar, DemoPeople.Dele, role);
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        using var priya = await mortar.As(DemoPeople.Priya);

        var busy = Assert.Single(await dele.Bricks(calendar));
        Assert.Equal("busy", busy.Text("form"));
        foreach (
            var path in new[]
            {
                "wall?from=2026-03-09&to=2026-03-15",
                "find?from=2026-03-01&to=2026-03-31&words=celadon",
                $"calendars/{calendar.Value}/export",
                $"events/{id}",
                $"events/{id}/history",
            }
        )
        {
            var text = (await dele.Get($"/api/{path}")).Text;
            Assert.DoesNotContain("Secret", text, StringComparison.OrdinalIgnoreCase);
            Assert.DoesNotContain(World.Secret, text, StringComparison.Ordinal);
            Assert.DoesNotContain(id.ToString(), text, StringComparison.Ordinal);
        }

        (await dele.Get($"/api/events/{id}")).IsProblem(404, "not-there");
        Assert.Equal("Secret celadon", Assert.Single(await priya.Bricks(calendar)).Text("title"));
    }

    [Fact]
    public async Task Events_are_found_by_words_person_kind_and_calendar()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var classes = DemoPeople.Stable("calendar Classes");

        async Task<List<string>> Find(string query) =>
            [
                .. (await ines.Get($"/api/find?from=2026-03-01&to=2026-03-31&{query}"))
                    .Is(200)
                    .Body.GetProperty("hits")
                    .EnumerateArray()
                    .Select(hit => hit.Text("title")),
            ];

        Assert.Equal(
            ["Glaze chemistry", "Team meeting", "Glaze testing", "Glaze firing 1240"],
            await Find("words=glaze")
        );
        Assert.Equal(
            ["Glaze chemistry", "Glaze testing"],
            await Find($"words=glaze&person={Priya}&calendar={classes}")
        );
        Assert.Equal(["School visit"], await Find("kind=visit"));
        Assert.Equal(["Glaze chemistry", "Glaze testing"], await Find("place=glaze%20room"));
        Assert.Equal(3, (await Find("words=wheel%20basics")).Count); // of a series, the first few
        Assert.Empty(await Find("words=nothing%20like%20it"));
        (await ines.Get("/api/find?from=2026-03-31&to=2026-03-01")).IsProblem(422, "unfit");
    }

    /// <summary>By hand: it is Wednesday 11 March, 11:12; “Wheel basics” takes place on Tuesdays and Wednesdays at 14:00.</summary>
    [Theory]
    [InlineData("from=2024-01-01&to=2028-12-31", "2026-03-11 2026-03-17 2026-03-18")]
    [InlineData("from=2026-03-01&to=2026-03-16", "2026-03-04 2026-03-10 2026-03-11")] // the next, and the latest before it
    [InlineData("from=2026-03-01&to=2026-03-10", "2026-03-03 2026-03-04 2026-03-10")]
    public async Task Of_a_series_the_next_dates_are_found(string range, string days)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);

        var hits = (await ines.Get($"/api/find?{range}&words=wheel%20basics")).Is(200).Body.GetProperty("hits");

        Assert.Equal(days.Split(' '), hits.EnumerateArray().Select(hit => hit.GetProperty("time").Text("start")[..10]));
    }

    [Fact]
    public async Task Years_are_looked_through_for_events_and_what_reaches_from_one_part_into_the_next_is_found_once()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await ines.MakeEvent(
            calendar,
            "Kiln rebuilt",
            new
            {
                form = "days",
                first = "2027-01-01",
                last = "2029-12-31",
            }
        );

        var found = (await ines.Get("/api/find?from=2026-01-01&to=2031-06-23&words=rebuilt")).Is(200).Body;

        Assert.Equal("Kiln rebuilt", Assert.Single(found.GetProperty("hits").EnumerateArray()).Text("title"));
        (await ines.Get("/api/find?from=2026-01-01&to=2031-06-24&words=rebuilt")).IsProblem(422, "unfit");
    }

    [Fact]
    public async Task The_ribbon_tells_how_full_weeks_are_over_the_layers_that_are_asked_for()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await ines.MakeEvent(calendar);
        await ines.MakeEvent(calendar, "Ash", World.Hours("2026-03-12T15:00:00", "2026-03-12T16:00:00"));

        var weeks = (await ines.Get($"/api/ribbon?from=2026-03-02&weeks=3&calendars={calendar.Value}")).Is(200);
        var all = (await ines.Get("/api/ribbon?from=2026-03-09&weeks=1")).Is(200);

        // 14:00 to 15:30 and 15:00 to 16:00: two hours, overlapping ones once.
        Assert.Equal([0, 120, 0], weeks.Body.EnumerateArray().Select(week => week.GetProperty("minutes").GetInt32()));
        Assert.True(
            all.Body[0].GetProperty("clashes").GetInt32() > 0,
            "The demo's kiln unloads while Priya tests glazes."
        );
        (await ines.Get("/api/ribbon?from=2026-03-09&weeks=0")).IsProblem(422, "unfit");
        (await ines.Get("/api/ribbon?from=9998-12-20&weeks=56")).IsProblem(422, "unfit");
    }

    [Fact]
    public async Task An_events_history_says_who_did_what_and_nothing_from_where_the_reader_could_not_see()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var dele = await mortar.As(DemoPeople.Dele);
        var (hidden, shared) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        var id = await ines.MakeEvent(hidden, "While hidden");
        (await ines.Put($"/api/events/{id}", World.Event(shared, "While hidden"), 1)).Is(200);
        (await ines.Put($"/api/events/{id}", World.Event(shared, "Open now"), 2)).Is(200);
        (await ines.Put($"/api/events/{id}", World.Event(shared, "Open firing"), 3)).Is(200);
        await mortar.Give(shared, DemoPeople.Dele, Role.View);

        var own = (await ines.Get($"/api/events/{id}/history")).Is(200);
        var seen = (await dele.Get($"/api/events/{id}/history")).Is(200);

        Assert.Equal(4, own.Body.GetArrayLength());
        Assert.Equal("added it", own.Body[3].GetProperty("what")[0].GetString());
        Assert.Equal(2, seen.Body.GetArrayLength());
        Assert.Equal(
            "changed the title from “Open now” to “Open firing”",
            seen.Body[0].GetProperty("what")[0].GetString()
        );
        Assert.Equal("Ines Varga", seen.Body[0].Text("by"));
    }

    private static object Named(CalendarId calendar, string title, Guid who) =>
        new
        {
            calendarId = calendar.Value,
            title,
            showAs = "busy",
            time = World.Hours(),
            attendees = new[] { who },
        };

    /// <summary>Each quarter of an hour for six weeks with the longest notes: 4,032 dates, whose notes would be 80 MB.</summary>
    [Fact]
    public async Task What_is_long_on_a_series_stands_once_in_an_answer_however_many_dates_it_shows()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var notes = "Bring-tiles " + new string('x', 19_000);
        var series = Guid.CreateVersion7();
        (
            await ines.Put(
                $"/api/events/{series}",
                new
                {
                    calendarId = calendar.Value,
                    title = "Firing",
                    place = "",
                    notes,
                    showAs = "busy",
                    time = World.Hours("2026-03-02T00:00:00", "2026-03-02T00:15:00"),
                    attendees = new[] { DemoPeople.Priya.Id.Value },
                    rule = "FREQ=MINUTELY;INTERVAL=15",
                }
            )
        ).Is(200);
        var link = (await ines.Put($"/api/calendars/{calendar.Value}/links/{Guid.NewGuid()}", new { role = "view" }))
            .Is(200)
            .Body.Text("url");

        foreach (
            var (path, least) in new[]
            {
                ("/api/wall?from=2026-03-02&to=2026-04-12", 4_000),
                ($"/api/links/{link.Split("/link/")[1]}/wall?from=2026-03-02&to=2026-04-12", 4_000),
                ("/api/find?from=2026-03-02&to=2026-04-12&words=Firing", 3),
                ("/api/clashes?from=2026-03-02&to=2026-04-12", 0),
            }
        )
        {
            var answer = (await ines.Get(path)).Is(200);

            Assert.InRange(answer.Text.Split(series.ToString()).Length - 1, least, int.MaxValue);
            Assert.InRange(answer.Text.Split("Bring-tiles").Length - 1, least == 0 ? 0 : 1, 1);
            Assert.InRange(answer.Text.Length, 0, 4_000_000);
        }

        var brick = (await ines.Bricks(calendar))[10];
        Assert.Equal((notes, "every 15 minutes"), (brick.Text("notes"), brick.Text("repeats")));
        Assert.Equal(DemoPeople.Priya.Id.Value, brick.GetProperty("attendees")[0].GetGuid());
    }
}
