using System.Text.Json;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>One event that somebody may change without having its calendar: all of it, and nothing beside it.</summary>
public class EventGivingTests
{
    private static readonly Guid Priya = DemoPeople.Priya.Id.Value;

    private static readonly object LetPriya = new { personIds = new[] { Priya } };

    [Fact]
    public async Task Who_is_let_change_one_event_has_that_one_on_their_wall_and_no_other()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var (calendar, id) = await WithHerNamed(ines);
        await ines.MakeEvent(calendar, "Quite another thing");
        (await priya.Get($"/api/events/{id}")).IsProblem(404, "not-there"); // to be named alone gives nothing
        Assert.False(await priya.HasLayer(calendar));

        var given = (await ines.Put($"/api/events/{id}/editors", LetPriya, 1)).Is(200).Body;

        Assert.Equal([Priya], given.GetProperty("editors").EnumerateArray().Select(one => one.GetGuid()));
        var brick = Assert.Single(await priya.Bricks(calendar));
        Assert.Equal(("Glaze day", World.Secret), (brick.Text("title"), brick.Text("notes")));
        Assert.Equal((true, false), (Is(brick, "mayChange"), Is(brick, "mayGiveAway")));
        Assert.Empty(brick.GetProperty("editors").EnumerateArray());
        var layer = (await priya.Get("/api/shelf"))
            .Body.EnumerateArray()
            .Single(one => one.GetProperty("calendarId").GetGuid() == calendar.Value);
        Assert.Equal(("none", JsonValueKind.Null), (layer.Text("role"), layer.GetProperty("groupName").ValueKind));
        Assert.Equal(JsonValueKind.Null, layer.GetProperty("description").ValueKind);
        var found = (await priya.Get("/api/find?from=2026-03-01&to=2026-03-31&words=thing")).Is(200);
        Assert.DoesNotContain("Quite another", found.Text, StringComparison.Ordinal);
        (await priya.Get($"/api/calendars/{calendar.Value}")).IsProblem(404, "not-there");
        (await priya.Get($"/api/calendars/{calendar.Value}/export")).IsProblem(404, "not-there");
    }

    [Fact]
    public async Task They_change_it_and_take_that_back_and_may_do_nothing_else_with_it()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var (calendar, id) = await WithHerNamed(ines);
        var hers = await priya.MakeCalendar();
        (await ines.Put($"/api/events/{id}/editors", LetPriya, 1)).Is(200);
        var set = Guid.CreateVersion7();

        (await priya.Put($"/api/events/{id}", Body(calendar, "Glaze evening"), 2, set)).Is(200);
        (await priya.Put($"/api/events/{id}", Body(hers, "Mine now"), 3)).IsProblem(403, "not-allowed");
        (await priya.Delete($"/api/events/{id}", 3)).IsProblem(403, "not-allowed");
        (await priya.Put($"/api/events/{id}/organizer", new { personId = Priya }, 3)).IsProblem(403, "not-allowed");
        (await priya.Put($"/api/events/{id}/editors", LetPriya, 3)).IsProblem(403, "not-allowed");
        (await priya.Put($"/api/events/{Guid.CreateVersion7()}", Body(calendar, "One more"))).IsProblem(
            404,
            "not-there"
        );

        Assert.Equal("Glaze evening", Assert.Single(await ines.Bricks(calendar)).Text("title"));
        Assert.Contains(
            "changed the title from “Glaze day” to “Glaze evening”",
            (await priya.Get($"/api/events/{id}/history")).Is(200).Text,
            StringComparison.Ordinal
        );
        (await priya.Post($"/api/changes/{set}/undo")).Is(200);
        Assert.Equal("Glaze day", Assert.Single(await ines.Bricks(calendar)).Text("title"));
    }

    [Fact]
    public async Task Taken_off_the_event_or_with_its_calendar_gone_it_is_not_there_any_more()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var (calendar, id) = await WithHerNamed(ines);
        (await ines.Put($"/api/events/{id}/editors", LetPriya, 1)).Is(200);
        var set = Guid.CreateVersion7();
        (await priya.Put($"/api/events/{id}", Body(calendar, "Glaze evening"), 2, set)).Is(200);

        (await ines.Put($"/api/events/{id}", World.Event(calendar, "Without her"), 3)).Is(200);

        (await priya.Get($"/api/events/{id}")).IsProblem(404, "not-there");
        (await priya.Post($"/api/changes/{set}/undo")).IsProblem(404, "not-there");
        Assert.Empty(await priya.Bricks(calendar));
        Assert.False(await priya.HasLayer(calendar));

        (await ines.Put($"/api/events/{id}", Body(calendar, "With her"), 4)).Is(200);
        (await ines.Put($"/api/events/{id}/editors", LetPriya, 5)).Is(200);
        Assert.Single(await priya.Bricks(calendar));
        var late = Guid.CreateVersion7();
        (await priya.Put($"/api/events/{id}", Body(calendar, "Glaze night"), 6, late)).Is(200);
        (await ines.Delete($"/api/calendars/{calendar.Value}?name=Glaze tests", 1)).Is(204);
        (await priya.Get($"/api/events/{id}")).IsProblem(404, "not-there");
        (await priya.Put($"/api/events/{id}", Body(calendar, "Still here"), 7)).IsProblem(404, "not-there");
        (await priya.Post($"/api/changes/{late}/undo")).IsProblem(404, "not-there");
        Assert.False(await priya.HasLayer(calendar));
    }

    [Fact]
    public async Task Nobody_is_let_change_an_event_on_which_they_are_not_named()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var id = await ines.MakeEvent(calendar);

        var refused = (await ines.Put($"/api/events/{id}/editors", LetPriya, 1)).IsProblem(422, "unfit");

        Assert.Contains("Name them on it first", refused.Detail, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Through_their_eyes_a_coordinator_sees_it_where_they_coordinate_and_nobody_else_does()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var dele = await mortar.As(DemoPeople.Dele);
        var (calendar, id) = await WithHerNamed(ines);
        (await ines.Put($"/api/events/{id}/editors", LetPriya, 1)).Is(200);
        var asPriya = $"/api/wall?from=2026-03-09&to=2026-03-15&as={Priya}";

        Assert.Contains("Glaze day", (await ines.Get(asPriya)).Is(200).Text, StringComparison.Ordinal);
        Assert.DoesNotContain("Glaze day", (await dele.Get(asPriya)).Is(200).Text, StringComparison.Ordinal);
    }

    private static bool Is(JsonElement element, string property) => element.GetProperty(property).GetBoolean();

    private static async Task<(CalendarId Calendar, Guid Id)> WithHerNamed(Browser ines)
    {
        var calendar = await ines.MakeCalendar();
        var id = Guid.CreateVersion7();
        (await ines.Put($"/api/events/{id}", Body(calendar, "Glaze day"))).Is(200);
        return (calendar, id);
    }

    private static object Body(CalendarId calendar, string title) =>
        new
        {
            calendarId = calendar.Value,
            title,
            place = "Glaze room",
            notes = World.Secret,
            showAs = "busy",
            time = World.Hours(),
            attendees = new[] { Priya },
        };
}
