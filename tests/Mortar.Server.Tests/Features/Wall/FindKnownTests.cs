using System.Text.Json;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>People, calendars and groups are found by who knows of them, and by nobody else.</summary>
public class FindKnownTests
{
    [Fact]
    public async Task Each_is_found_by_its_name_by_who_knows_of_it()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        var calendar = await ines.MakeCalendar();

        var person = Assert.Single((await Find(ines, "priya")).GetProperty("people").EnumerateArray());
        Assert.Equal(
            (DemoPeople.Priya.Id.Value, DemoPeople.Priya.Name),
            (person.GetProperty("personId").GetGuid(), person.Text("name"))
        );
        Assert.Contains(World.StudioTeam, person.GetProperty("groups").EnumerateArray().Select(one => one.GetGuid()));
        Assert.Empty((await Find(ines, DemoPeople.Ines.Name)).GetProperty("people").EnumerateArray()); // one knows oneself
        Assert.Contains(World.StudioTeam, Ids(await Find(ines, "STÚDIO team"), "groups"));
        Assert.Contains(calendar.Value, Ids(await Find(ines, "glaze tests"), "calendars"));

        // Who is not in the group finds neither it nor who is in it; who has no step not the calendar.
        var outside = await Find(astrid, "studio");
        Assert.DoesNotContain(World.StudioTeam, Ids(outside, "groups"));
        Assert.DoesNotContain(
            (await Find(astrid, "mei")).GetProperty("people").EnumerateArray(),
            one => one.GetProperty("personId").GetGuid() == DemoPeople.Mei.Id.Value
        );
        Assert.Empty(Ids(await Find(priya, "glaze tests"), "calendars"));
        await mortar.Give(calendar, DemoPeople.Priya, Role.Times);
        Assert.Contains(calendar.Value, Ids(await Find(priya, "glaze tests"), "calendars"));
        await mortar.Give(calendar, DemoPeople.Priya, Role.None);
        Assert.Empty(Ids(await Find(priya, "glaze tests"), "calendars"));

        foreach (var nothing in new[] { "", "  ", "no such thing" })
        {
            var found = await Find(ines, nothing);
            Assert.Equal(
                (0, 0, 0),
                (
                    found.GetProperty("people").GetArrayLength(),
                    found.GetProperty("calendars").GetArrayLength(),
                    found.GetProperty("groups").GetArrayLength()
                )
            );
        }
    }

    [Fact]
    public async Task What_is_taken_off_the_shelf_is_found_and_put_back_and_the_access_to_it_stays()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Edit);

        await Lay(priya, calendar, offShelf: true);

        Assert.True((await LayerOf(priya, calendar)).GetProperty("offShelf").GetBoolean());
        await priya.MakeEvent(calendar, "Still hers to write");
        Assert.Contains(calendar.Value, Ids(await Find(priya, "glaze tests"), "calendars"));
        Assert.False((await LayerOf(ines, calendar)).GetProperty("offShelf").GetBoolean());
        // Its place on the shelf is decided without it.
        (
            await priya.Put(
                "/api/shelf",
                new
                {
                    layers = new[]
                    {
                        new
                        {
                            calendarId = calendar.Value,
                            shown = true,
                            beside = false,
                        },
                    },
                }
            )
        ).Is(204);
        Assert.True((await LayerOf(priya, calendar)).GetProperty("offShelf").GetBoolean());

        await Lay(priya, calendar, offShelf: false);
        Assert.False((await LayerOf(priya, calendar)).GetProperty("offShelf").GetBoolean());
        await mortar.Give(calendar, DemoPeople.Priya, Role.None);
        (await priya.Put($"/api/shelf/{calendar.Value}", Laid(offShelf: true))).IsProblem(404, "not-there");
    }

    private static async Task Lay(Browser browser, CalendarId calendar, bool offShelf) =>
        (await browser.Put($"/api/shelf/{calendar.Value}", Laid(offShelf))).Is(204);

    private static object Laid(bool offShelf) =>
        new
        {
            shown = true,
            beside = false,
            look = (object?)null,
            offShelf,
        };

    private static async Task<JsonElement> LayerOf(Browser browser, CalendarId calendar) =>
        (await browser.Get("/api/shelf"))
            .Is(200)
            .Body.EnumerateArray()
            .Single(layer => layer.GetProperty("calendarId").GetGuid() == calendar.Value);

    private static async Task<JsonElement> Find(Browser browser, string words) =>
        (await browser.Get($"/api/find/known?words={Uri.EscapeDataString(words)}")).Is(200).Body;

    private static List<Guid> Ids(JsonElement found, string property) =>
        [.. found.GetProperty(property).EnumerateArray().Select(one => one.GetGuid())];
}
