using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using NodaTime;
using Xunit;

namespace Mortar.Server.Tests.Features;

public class GroupAccessTests
{
    private static readonly Guid Raku = DemoPeople.Stable("Raku club");

    [Fact]
    public async Task A_whole_group_has_a_step_and_it_follows_those_who_join_and_leave()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var hanne = await mortar.As(DemoPeople.Hanne);
        var calendar = await ines.MakeCalendar();
        await Join(mortar, DemoPeople.Ines);
        Assert.False(await hanne.HasLayer(calendar));

        (await Give(ines, calendar, "view")).Is(204);
        Assert.False(await hanne.HasLayer(calendar));
        await Join(mortar, DemoPeople.Hanne);
        Assert.True(await hanne.HasLayer(calendar));
        await Leave(mortar, DemoPeople.Hanne);

        Assert.False(await hanne.HasLayer(calendar));
    }

    [Fact]
    public async Task A_group_that_one_is_not_in_cannot_be_given_anything()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await Leave(mortar, DemoPeople.Ines);

        (await Give(ines, calendar, "view")).IsProblem(404, "not-there");
    }

    [Theory]
    [InlineData("coordinate", null, "role")] // coordinators are made by name
    [InlineData("none", null, "role")]
    [InlineData("view", "2026-03-10", "lastDay")] // yesterday
    public async Task What_cannot_be_given_names_its_field(string role, string? lastDay, string path)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();

        var answer = await ines.Put(
            $"/api/calendars/{calendar.Value}/group-access/{World.StudioTeam}",
            new { role, lastDay }
        );

        Assert.Equal(422, answer.Status);
        Assert.Contains($"\"{path}\"", answer.Text, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Access_up_to_a_day_is_over_after_it_everywhere_at_once()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        var eventId = await ines.MakeEvent(calendar);
        await mortar.Give(calendar, DemoPeople.Priya, Role.Edit);
        (
            await ines.Put(
                $"/api/calendars/{calendar.Value}/access/{DemoPeople.Priya.Id.Value}",
                new { role = "edit", lastDay = "2026-03-20" }
            )
        ).Is(204);
        Assert.Equal("2026-03-20", (await People(ines, calendar, "Priya Raman")).Text("lastDay"));
        Assert.True(await priya.HasLayer(calendar));

        await EndNow(mortar, calendar);

        Assert.False(await priya.HasLayer(calendar));
        (await priya.Get($"/api/events/{eventId}")).IsProblem(404, "not-there");
        (await priya.Put($"/api/events/{eventId}", World.Event(calendar, "Late"), 1)).IsProblem(404, "not-there");
        Assert.Empty(await priya.Bricks(calendar));
        Assert.DoesNotContain(
            "Priya",
            (await ines.Get($"/api/calendars/{calendar.Value}/access")).Text,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task A_member_is_given_a_step_on_the_spot_and_a_stranger_only_by_invitation()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();

        var given = await ines.Put(
            $"/api/calendars/{calendar.Value}/access/{DemoPeople.Priya.Id.Value}",
            new { role = "edit" }
        );
        var refused = await ines.Put(
            $"/api/calendars/{calendar.Value}/access/{DemoPeople.Astrid.Id.Value}",
            new { role = "edit" }
        );

        given.Is(204);
        Assert.True(await priya.HasLayer(calendar));
        refused.IsProblem(404, "not-there");
    }

    [Fact]
    public async Task The_last_coordinator_cannot_be_one_for_a_time_only()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();

        (
            await ines.Put(
                $"/api/calendars/{calendar.Value}/access/{DemoPeople.Ines.Id.Value}",
                new { role = "coordinate", lastDay = "2026-03-20" }
            )
        ).IsProblem(409, "last-coordinator");
    }

    [Fact]
    public async Task The_table_tells_the_step_and_every_way_that_leads_there()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var id = Guid.CreateVersion7();
        (await ines.Put($"/api/calendars/{id}", World.Calendar(groupDefault: "outline"))).Is(200);
        var calendar = new CalendarId(id);
        await mortar.Give(calendar, DemoPeople.Priya, Role.Edit);
        await mortar.Give(calendar, DemoPeople.Astrid, Role.View);
        await Join(mortar, DemoPeople.Ines);
        (await ines.Put($"/api/calendars/{id}/group-access/{Raku}", new { role = "add", lastDay = "2026-04-30" })).Is(
            204
        );

        var table = (await ines.Get($"/api/groups/{World.StudioTeam}/access")).Is(200).Body;

        Assert.Equal(
            "edit: own edit, group add (Raku club) until 2026-04-30, default outline",
            Cell(table, "Priya Raman", id)
        );
        Assert.Equal("outline: default outline", Cell(table, "Tomasz Wilk", id));
        Assert.Equal("add: group add (Raku club) until 2026-04-30, own view", Cell(table, "Astrid Lindqvist", id));
        Assert.Equal("add: group add (Raku club) until 2026-04-30, default outline", Cell(table, "Dele Okoro", id));
        Assert.False(Row(table, "Astrid Lindqvist").GetProperty("isMember").GetBoolean());
        Assert.Equal("Raku club", Assert.Single(table.GetProperty("groups").EnumerateArray()).Text("name"));
    }

    [Fact]
    public async Task The_table_has_only_what_one_coordinates()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var mei = await mortar.As(DemoPeople.Mei);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        var (hers, other) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        await mortar.Give(hers, DemoPeople.Priya, Role.Coordinate);
        await mortar.Give(other, DemoPeople.Priya, Role.Edit);
        await mortar.Give(other, DemoPeople.Astrid, Role.View);

        var table = (await priya.Get($"/api/groups/{World.StudioTeam}/access")).Is(200);

        Assert.Contains(hers.Value.ToString(), table.Text, StringComparison.Ordinal);
        Assert.DoesNotContain(other.Value.ToString(), table.Text, StringComparison.Ordinal);
        Assert.DoesNotContain("Astrid", table.Text, StringComparison.Ordinal);
        Assert.DoesNotContain("tomasz@example.org", table.Text, StringComparison.Ordinal); // a member, given nothing by name
        await mortar.Give(hers, DemoPeople.Astrid, Role.Coordinate);
        (await astrid.Get($"/api/groups/{World.StudioTeam}/access")).IsProblem(404, "not-there"); // the members are known to members only
        (await mei.Get($"/api/groups/{Raku}/access")).IsProblem(404, "not-there");
    }

    private static Task<Answer> Give(Browser browser, CalendarId calendar, string role) =>
        browser.Put($"/api/calendars/{calendar.Value}/group-access/{Raku}", new { role });

    private static async Task<JsonElement> People(Browser browser, CalendarId calendar, string name) =>
        (await browser.Get($"/api/calendars/{calendar.Value}/access"))
            .Is(200)
            .Body.GetProperty("people")
            .EnumerateArray()
            .Single(person => person.Text("name") == name);

    private static JsonElement Row(JsonElement table, string name) =>
        table.GetProperty("people").EnumerateArray().Single(person => person.Text("name") == name);

    private static string Cell(JsonElement table, string name, Guid calendar)
    {
        var cell = Row(table, name)
            .GetProperty("cells")
            .EnumerateArray()
            .Single(one => one.GetProperty("calendarId").GetGuid() == calendar);
        var ways = cell.GetProperty("ways")
            .EnumerateArray()
            .Select(way =>
                $"{way.Text("way")} {way.Text("role")}"
                + (way.Text("group") is { } group ? $" ({group})" : string.Empty)
                + (way.Text("lastDay") is { } day ? $" until {day}" : string.Empty)
            );
        return $"{cell.Text("role")}: {string.Join(", ", ways)}";
    }

    private static async Task Join(TestMortar mortar, DemoPerson person)
    {
        using var dele = await mortar.As(DemoPeople.Dele);
        (
            await dele.Put(
                $"/api/groups/{Raku}/members",
                new { people = new[] { new { id = person.Id.Value, name = person.Name } } }
            )
        ).Is(200);
        using var browser = await mortar.As(person);
        await browser.Post($"/api/memberships/{Raku}/accept"); // or in it already
    }

    private static async Task Leave(TestMortar mortar, DemoPerson person)
    {
        using var browser = await mortar.As(person);
        (await browser.Delete($"/api/groups/{Raku}/members/{person.Id.Value}")).Is(204);
    }

    /// <summary>Lets the end of everybody's access for a time have come.</summary>
    private static Task<int> EndNow(TestMortar mortar, CalendarId calendar) =>
        mortar.Store(db =>
            db.Grants.Where(grant => grant.CalendarId == calendar && grant.EndsAt != null)
                .ExecuteUpdateAsync(set => set.SetProperty(grant => grant.EndsAt, Instant.FromUtc(2026, 3, 10, 0, 0)))
        );
}
