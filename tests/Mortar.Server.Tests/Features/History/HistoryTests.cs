using System.Text.Json;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>What was done, by oneself, in a calendar and in a group: told as far as one may know, and undone from there.</summary>
public class HistoryTests
{
    [Fact]
    public async Task What_one_did_is_known_after_a_reload_and_on_another_device_and_undone_from_there()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var (made, changed) = (Guid.NewGuid(), Guid.NewGuid());
        var id = await ines.MakeEvent(calendar, "Celadon", set: made);
        (
            await ines.Put(
                $"/api/events/{id}",
                World.Event(calendar, "Celadon", World.Hours("2026-03-13T09:00:00", "2026-03-13T10:00:00")),
                1,
                changed
            )
        ).Is(200);
        using var elsewhere = await mortar.As(DemoPeople.Ines);

        var acts = await Acts(elsewhere, "history");
        Assert.Equal(
            [
                "Celadon: moved it from Thu 12 March, 14:00 to 15:30 to Fri 13 March, 09:00 to 10:00",
                "Celadon: added it",
                "Glaze tests: made the calendar; took the step Coordinate",
            ],
            acts.Take(3).Select(Words)
        );
        Assert.All(acts.Take(2), act => Assert.True(act.GetProperty("canBeUndone").GetBoolean()));
        var (undo, redo) = (Guid.NewGuid(), Guid.NewGuid());
        (await elsewhere.Post($"/api/changes/{acts[0].Text("act")}/undo", set: undo)).Is(200);

        Assert.Equal(
            "2026-03-12T14:00:00",
            Assert.Single(await ines.Bricks(calendar)).GetProperty("time").Text("start")
        );
        acts = await Acts(elsewhere, "history");
        Assert.Equal((true, false), (IsUndo(acts[0]), IsUndone(acts[0])));
        Assert.Equal((false, true), (IsUndo(acts[1]), IsUndone(acts[1])));
        (await elsewhere.Post($"/api/changes/{undo}/undo", set: redo)).Is(200);
        acts = await Acts(elsewhere, "history");
        Assert.Equal([false, true, false], acts.Take(3).Select(IsUndone));
    }

    /// <summary>What each step finds in the history of a calendar of which there is one change of each sort.</summary>
    [Theory]
    [InlineData(Role.None, 404, "")]
    [InlineData(Role.Times, 403, "")]
    [InlineData(Role.Outline, 403, "")]
    [InlineData(Role.View, 200, "Shared")]
    [InlineData(Role.Add, 200, "Shared")]
    [InlineData(Role.Edit, 200, "Shared, Secret")]
    [InlineData(Role.Coordinate, 200, "Shared, Secret, Mei, renamed it")]
    public async Task Each_step_finds_what_it_shows(Role role, int status, string expected)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        (await ines.Put($"/api/calendars/{calendar.Value}", World.Calendar("Glazes"), 1)).Is(200);
        (await ines.Put($"/api/calendars/{calendar.Value}/access/{DemoPeople.Mei.Id.Value}", new { role = "view" })).Is(
            204
        );
        await ines.MakeEvent(calendar, "Shared");
        var hidden = Guid.CreateVersion7();
        (
            await ines.Put(
                $"/api/events/{hidden}",
                new
                {
                    calendarId = calendar.Value,
                    title = "Secret",
                    place = "",
                    notes = "",
                    showAs = "busy",
                    time = World.Hours(),
                    @private = true,
                }
            )
        ).Is(200);
        await mortar.Give(calendar, DemoPeople.Priya, role);

        var answer = await priya.Get($"/api/calendars/{calendar.Value}/history");

        Assert.Equal(status, answer.Status);
        Assert.Equal(
            expected,
            string.Join(
                ", ",
                new[] { "Shared", "Secret", "Mei", "renamed it" }.Where(one =>
                    answer.Text.Contains(one, StringComparison.Ordinal)
                )
            )
        );
    }

    [Fact]
    public async Task A_history_is_narrowed_by_person_topic_event_and_time_and_paged_to_its_beginning()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Edit);
        for (var i = 0; i < 45; i++)
        {
            await ines.MakeEvent(calendar, $"Tile {i}");
        }

        clock.Now += NodaTime.Duration.FromDays(1);
        using var later = await mortar.As(DemoPeople.Priya);
        var hers = await later.MakeEvent(calendar, "Hers");
        var path = $"calendars/{calendar.Value}/history";

        Assert.Equal(
            ["Hers: added it"],
            (await Acts(later, $"{path}?actor={DemoPeople.Priya.Id.Value}")).Select(Words)
        );
        Assert.Equal(["Hers: added it"], (await Acts(later, $"{path}?event={hers}")).Select(Words));
        Assert.Equal(["Hers: added it"], (await Acts(later, $"{path}?from=2026-03-12")).Select(Words));
        Assert.Empty(await Acts(later, $"{path}?topic=access"));
        Assert.Empty(await Acts(later, $"{path}?to=2026-03-10"));
        (await later.Get($"/api/{path}?topic=nonsense")).Is(400);
        Assert.Empty(await Acts(later, $"{path}?before={Guid.NewGuid()}"));

        var (all, next) = (new List<string>(), (string?)null);
        do
        {
            var page = (await later.Get($"/api/{path}?to=2026-03-11{(next is null ? "" : $"&before={next}")}"))
                .Is(200)
                .Body;
            all.AddRange(page.GetProperty("acts").EnumerateArray().Select(Words));
            next = page.GetProperty("next").GetString();
        } while (next is not null);

        Assert.Equal(Enumerable.Range(0, 45).Reverse().Select(i => $"Tile {i}: added it"), all);
    }

    [Fact]
    public async Task An_act_of_thousands_is_one_entry_and_what_came_before_it_is_reached()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await ines.MakeEvent(calendar, "Before");
        await mortar.Fill(calendar, 700);
        await ines.MakeEvent(calendar, "After");

        var acts = await Acts(ines, $"calendars/{calendar.Value}/history");

        Assert.Equal([1, 700, 1], acts.Take(3).Select(act => act.GetProperty("count").GetInt32()));
        Assert.Equal(5, acts[1].GetProperty("deeds").GetArrayLength());
        Assert.Equal("Before: added it", Words(acts[2]));
    }

    [Fact]
    public async Task A_groups_history_tells_members_of_its_calendars_and_coordinators_of_its_people()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var dele = await mortar.As(DemoPeople.Dele);
        var calendar = await ines.MakeCalendar();
        await ines.MakeEvent(calendar, "Only Ines's");
        var shared = Guid.CreateVersion7();
        (await ines.Put($"/api/calendars/{shared}", World.Calendar("Shared tiles", groupDefault: "view"))).Is(200);
        await ines.MakeEvent(new CalendarId(shared), "Everybody's");
        (
            await ines.Put(
                $"/api/groups/{World.StudioTeam}/members",
                new { people = new[] { new { id = Guid.CreateVersion7(), name = "Juno Vale" } } }
            )
        ).Is(200);
        var path = $"groups/{World.StudioTeam}/history";

        var forInes = string.Join('\n', (await Acts(ines, path)).Select(Words));
        var forPriya = string.Join('\n', (await Acts(priya, path)).Select(Words));

        foreach (var told in new[] { "Only Ines's", "Everybody's", "Juno Vale" })
        {
            Assert.Contains(told, forInes, StringComparison.Ordinal);
            Assert.Equal(told == "Everybody's", forPriya.Contains(told, StringComparison.Ordinal));
        }

        (await dele.Get("/api/groups/" + DemoPeople.Stable("Nothing") + "/history")).IsProblem(404, "not-there");
    }

    [Fact]
    public async Task Who_may_change_an_event_undoes_what_another_did_to_it_and_who_may_only_read_does_not()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var mei = await mortar.As(DemoPeople.Mei);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Edit);
        await mortar.Give(calendar, DemoPeople.Mei, Role.View);
        var set = Guid.NewGuid();
        var id = await ines.MakeEvent(calendar, "One");
        (await priya.Put($"/api/events/{id}", World.Event(calendar, "Two"), 1, set)).Is(200);

        (await mei.Post($"/api/changes/{set}/undo")).IsProblem(403, "not-allowed");
        Assert.Equal("Two", Assert.Single(await mei.Bricks(calendar)).Text("title"));
        Assert.False(
            (await Acts(mei, $"calendars/{calendar.Value}/history"))[0].GetProperty("canBeUndone").GetBoolean()
        );
        Assert.True(
            (await Acts(ines, $"calendars/{calendar.Value}/history"))[0].GetProperty("canBeUndone").GetBoolean()
        );
        (await ines.Post($"/api/changes/{set}/undo")).Is(200);

        Assert.Equal("One", Assert.Single(await mei.Bricks(calendar)).Text("title"));
    }

    [Fact]
    public async Task What_somebody_decided_about_themselves_is_undone_by_nobody_else()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Edit);
        var (left, answered) = (Guid.NewGuid(), Guid.NewGuid());
        var id = await ines.MakeEvent(calendar);
        (await ines.Put($"/api/events/{id}", World.Event(calendar, attendees: DemoPeople.Priya.Id.Value), 1)).Is(200);
        (await priya.Put($"/api/events/{id}/answer", new { answer = "declined" }, set: answered)).Is(204);
        (await priya.Delete($"/api/calendars/{calendar.Value}/access/{DemoPeople.Priya.Id.Value}", set: left)).Is(204);

        (await ines.Post($"/api/changes/{left}/undo")).IsProblem(404, "not-there");
        (await ines.Post($"/api/changes/{answered}/undo")).IsProblem(404, "not-there");

        Assert.False(await priya.HasLayer(calendar));
    }

    [Fact]
    public async Task The_making_of_a_calendar_is_not_undone_once_there_is_something_in_it()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var (id, set, events) = (Guid.CreateVersion7(), Guid.NewGuid(), Guid.NewGuid());
        (await ines.Put($"/api/calendars/{id}", World.Calendar(), set: set)).Is(200);
        var calendar = new CalendarId(id);
        await ines.MakeEvent(calendar, set: events);

        (await ines.Post($"/api/changes/{set}/undo")).IsProblem(409, "in-use");
        Assert.True(await ines.HasLayer(calendar));
        (await ines.Post($"/api/changes/{events}/undo")).Is(200);
        (await ines.Post($"/api/changes/{set}/undo")).Is(200);

        Assert.False(await ines.HasLayer(calendar));
    }

    [Fact]
    public async Task What_another_did_under_the_name_of_ones_own_act_does_not_keep_it_from_being_undone()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var dele = await mortar.As(DemoPeople.Dele);
        var (calendar, his) = (await ines.MakeCalendar(), Guid.CreateVersion7());
        var set = Guid.NewGuid();
        await ines.MakeEvent(calendar, "Mine", set: set);
        (await dele.Put($"/api/calendars/{his}", World.Calendar("His"), set: set)).Is(200);

        (await ines.Post($"/api/changes/{set}/undo")).Is(200);

        Assert.Empty(await ines.Bricks(calendar));
        Assert.True(await dele.HasLayer(new CalendarId(his)));
    }

    [Fact]
    public async Task Of_an_act_that_was_overtaken_what_still_fits_comes_back()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Edit);
        var set = Guid.NewGuid();
        var (one, two, three) = (
            await ines.MakeEvent(calendar, "One"),
            await ines.MakeEvent(calendar, "Two"),
            await ines.MakeEvent(calendar, "Three", set: set)
        );
        var moved = World.Hours("2026-03-13T09:00:00", "2026-03-13T10:00:00");
        (await ines.Put($"/api/events/{one}", World.Event(calendar, "One, moved", moved), 1, set)).Is(200);
        (await ines.Put($"/api/events/{two}", World.Event(calendar, "Two, moved", moved), 1, set)).Is(200);
        // Priya renames one of them and the one that was made; the times stay as Ines left them.
        (await priya.Put($"/api/events/{one}", World.Event(calendar, "Priya's", moved), 2)).Is(200);
        (await priya.Put($"/api/events/{three}", World.Event(calendar, "Priya's too"), 1)).Is(200);

        (await ines.Post($"/api/changes/{set}/undo")).IsProblem(409, "changed-since");
        var undone = (await ines.Post($"/api/changes/{set}/undo?fits=true")).Is(200).Body;

        Assert.Equal((2, 1), (undone.GetProperty("returned").GetInt32(), undone.GetProperty("left").GetInt32()));
        Assert.Equal(
            ["Priya's 2026-03-12T14:00:00", "Priya's too 2026-03-12T14:00:00", "Two 2026-03-12T14:00:00"],
            (await ines.Bricks(calendar))
                .Select(brick => $"{brick.Text("title")} {brick.GetProperty("time").Text("start")}")
                .Order(StringComparer.Ordinal)
        );
        (await ines.Post($"/api/changes/{set}/undo?fits=true")).IsProblem(409, "nothing-fits");
    }

    [Fact]
    public async Task Deleting_and_bringing_back_are_told_as_such()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var id = await ines.MakeEvent(calendar);
        (await ines.Delete($"/api/events/{id}", 1)).Is(200);
        (await ines.BringBack(Assert.Single(await ines.InBin()))).Is(200);

        Assert.Equal(
            ["Celadon: brought it back", "Celadon: deleted it", "Celadon: added it"],
            (await Acts(ines, "history")).Take(3).Select(Words)
        );
        var own = (await ines.Get($"/api/events/{id}/history")).Is(200).Text;
        Assert.Contains("brought it back", own, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Of_a_calendar_that_one_sees_no_more_nothing_is_told_of_ones_own_acts_either()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Edit);
        var id = await priya.MakeEvent(calendar, "Hers");
        (await ines.Put($"/api/events/{id}", World.Event(calendar, "Secret now"), 1)).Is(200);
        await mortar.Give(calendar, DemoPeople.Priya, Role.None);

        Assert.DoesNotContain("Hers", (await priya.Get("/api/history")).Is(200).Text, StringComparison.Ordinal);
    }

    private static async Task<List<JsonElement>> Acts(Browser browser, string path) =>
        [.. (await browser.Get($"/api/{path}")).Is(200).Body.GetProperty("acts").EnumerateArray()];

    private static string Words(JsonElement act) =>
        string.Join(
            "; ",
            act.GetProperty("deeds")
                .EnumerateArray()
                .GroupBy(deed => deed.Text("about"))
                .Select(same =>
                    $"{same.Key}: {string.Join("; ", same.SelectMany(deed => deed.GetProperty("what").EnumerateArray()).Select(what => what.GetString()))}"
                )
        );

    private static bool IsUndo(JsonElement act) => act.GetProperty("isUndo").GetBoolean();

    private static bool IsUndone(JsonElement act) => act.GetProperty("isUndone").GetBoolean();
}
