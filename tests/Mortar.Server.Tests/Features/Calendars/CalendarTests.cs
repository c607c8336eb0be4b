using Mortar.Core.Access;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

public class CalendarTests
{
    [Fact]
    public async Task A_calendar_made_twice_by_one_id_is_made_once()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var id = Guid.CreateVersion7();

        var first = (await ines.Put($"/api/calendars/{id}", World.Calendar())).Is(200);
        var again = (await ines.Put($"/api/calendars/{id}", World.Calendar())).Is(200);

        Assert.Equal(first.Text, again.Text);
        Assert.Equal("coordinate", first.Body.Text("role"));
    }

    [Fact]
    public async Task Its_settings_change_by_version()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();

        var changed = (await ines.Put($"/api/calendars/{calendar.Value}", World.Calendar("Renamed"), 1)).Is(200);
        var stale = await ines.Put($"/api/calendars/{calendar.Value}", World.Calendar("Late"), 1);
        (await ines.Put($"/api/calendars/{calendar.Value}", World.Calendar("Blind"))).IsProblem(428, "version-needed");

        Assert.Equal(("Renamed", 2), (changed.Body.Text("name"), changed.Body.GetProperty("version").GetInt32()));
        Assert.Equal("Renamed", stale.IsProblem(412, "stale").Body.GetProperty("current").Text("name"));
    }

    [Fact]
    public async Task Settings_that_cannot_be_are_named_by_field()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);

        var answer = await ines.Put(
            $"/api/calendars/{Guid.NewGuid()}",
            World.Calendar(" ", groupDefault: "coordinate", zone: "Mars/Base")
        );

        answer.IsProblem(422, "unfit");
        Assert.Equal(
            ["name", "zone", "groupDefault"],
            answer.Body.GetProperty("fields").EnumerateObject().Select(field => field.Name)
        );
    }

    [Fact]
    public async Task Nobody_makes_a_calendar_in_a_group_they_are_not_in()
    {
        await using var mortar = await TestMortar.Start();
        using var astrid = await mortar.As(DemoPeople.Astrid);

        (await astrid.Put($"/api/calendars/{Guid.NewGuid()}", World.Calendar())).IsProblem(404, "not-there");
    }

    [Fact]
    public async Task What_every_member_gets_appears_on_their_shelves_and_goes_with_it()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var tomasz = await mortar.As(DemoPeople.Tomasz);
        var calendar = await ines.MakeCalendar();
        await ines.MakeEvent(calendar);
        Assert.False(await tomasz.HasLayer(calendar));

        (await ines.Put($"/api/calendars/{calendar.Value}", World.Calendar(groupDefault: "outline"), 1)).Is(200);
        var brick = Assert.Single(await tomasz.Bricks(calendar));
        var layer = (await tomasz.Get($"/api/calendars/{calendar.Value}")).Is(200).Body;
        (await ines.Put($"/api/calendars/{calendar.Value}", World.Calendar(groupDefault: "none"), 2)).Is(200);

        Assert.Equal("Celadon", brick.Text("title"));
        Assert.Equal(System.Text.Json.JsonValueKind.Null, brick.GetProperty("notes").ValueKind);
        Assert.Equal("default", Assert.Single(layer.GetProperty("ways").EnumerateArray()).GetString());
        Assert.False(await tomasz.HasLayer(calendar));
    }

    [Fact]
    public async Task Of_a_default_and_a_step_of_ones_own_the_higher_counts()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var tomasz = await mortar.As(DemoPeople.Tomasz);
        var calendar = await ines.MakeCalendar();
        (await ines.Put($"/api/calendars/{calendar.Value}", World.Calendar(groupDefault: "edit"), 1)).Is(200);
        await mortar.Give(calendar, DemoPeople.Tomasz, Role.View);

        var layer = (await tomasz.Get($"/api/calendars/{calendar.Value}")).Is(200).Body;

        Assert.Equal("edit", layer.Text("role"));
        Assert.Equal("default", Assert.Single(layer.GetProperty("ways").EnumerateArray()).GetString());
    }

    [Fact]
    public async Task A_layer_stays_hidden_for_the_one_who_hid_it()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);

        (
            await priya.Put(
                $"/api/shelf/{calendar.Value}",
                new
                {
                    shown = false,
                    beside = false,
                    look = (object?)null,
                }
            )
        ).Is(204);
        (
            await priya.Put(
                $"/api/shelf/{calendar.Value}",
                new
                {
                    shown = false,
                    beside = false,
                    look = (object?)null,
                }
            )
        ).Is(204);

        Assert.False((await priya.Get($"/api/calendars/{calendar.Value}")).Body.GetProperty("shown").GetBoolean());
        Assert.True((await ines.Get($"/api/calendars/{calendar.Value}")).Body.GetProperty("shown").GetBoolean());
    }

    [Fact]
    public async Task An_export_is_a_file_with_the_calendars_name()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await ines.MakeEvent(calendar, "Celadon; three, ways");

        var export = (await ines.Get($"/api/calendars/{calendar.Value}/export")).Is(200);

        Assert.StartsWith("BEGIN:VCALENDAR\r\nVERSION:2.0\r\n", export.Text, StringComparison.Ordinal);
        Assert.Contains(@"SUMMARY:Celadon\; three\, ways", export.Text, StringComparison.Ordinal);
        Assert.Contains("BEGIN:VTIMEZONE\r\nTZID:Europe/London", export.Text, StringComparison.Ordinal);
    }
}
