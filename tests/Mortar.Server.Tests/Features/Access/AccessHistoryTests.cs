using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>Who gave what to whom and when.</summary>
public class AccessHistoryTests
{
    private static async Task<string[]> Of(Browser browser, string path) =>
        [
            .. (await browser.Get($"/api/{path}"))
                .Is(200)
                .Body.EnumerateArray()
                .Select(one => $"{one.Text("actor")} {one.Text("sentence")}"),
        ];

    [Fact]
    public async Task A_calendar_tells_its_coordinators_all_that_was_done_about_access()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var mei = await mortar.As(DemoPeople.Mei);
        var calendar = await ines.MakeCalendar();
        var (path, priyas, invitation) = (
            $"/api/calendars/{calendar.Value}",
            DemoPeople.Priya.Id.Value,
            Guid.NewGuid()
        );
        (await ines.Put($"{path}/invitations/{invitation}", new { address = "priya@example.org", role = "view" })).Is(
            204
        );
        (await priya.Post($"/api/invitations/{invitation}/accept")).Is(204);
        (await ines.Put($"{path}/access/{priyas}", new { role = "edit", lastDay = "2026-03-27" })).Is(204);
        (await ines.Put($"{path}/group-access/{World.StudioTeam}", new { role = "times" })).Is(204);
        var url = (await ines.Put($"{path}/links/{Guid.NewGuid()}", new { role = "view", name = "Door" }))
            .Is(200)
            .Body.Text("url");
        (await mei.Post($"/api/links/{url.Split("/link/")[1]}/use")).Is(204);
        (await mei.Put($"{path}/asks/{Guid.NewGuid()}", new { role = "edit", note = "For the fair" })).Is(204);
        (await ines.Delete($"{path}/access/{priyas}")).Is(204);

        Assert.Equal(
            [
                "Ines Varga ended the access of Priya Raman",
                "Mei Sato asked for Edit",
                "Mei Sato came by the link “Door”",
                "Ines Varga made the link “Door” at View",
                "Ines Varga gave the group “Studio team” Times only",
                "Ines Varga changed Priya Raman from View to Edit until Fri 27 March 2026",
            ],
            (await Of(ines, $"calendars/{calendar.Value}/access-history")).Take(6)
        );
        Assert.Contains("Ines Varga made the calendar", await Of(ines, $"calendars/{calendar.Value}/access-history"));
    }

    [Fact]
    public async Task A_person_is_told_of_only_on_calendars_that_the_reader_coordinates()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var dele = await mortar.As(DemoPeople.Dele);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        var calendar = await ines.MakeCalendar();
        (
            await ines.Put($"/api/calendars/{calendar.Value}/access/{DemoPeople.Priya.Id.Value}", new { role = "edit" })
        ).Is(204);
        var path = $"groups/{World.StudioTeam}/access-history/{DemoPeople.Priya.Id.Value}";

        Assert.Equal("Ines Varga gave Priya Raman Edit", (await Of(ines, path))[0]);
        Assert.DoesNotContain("Ines Varga gave Priya Raman Edit", await Of(dele, path));
        (await astrid.Get($"/api/{path}")).IsProblem(404, "not-there");
    }

    [Fact]
    public async Task Who_came_into_the_group_and_who_sees_for_whom_is_told_to_members_of_it_alone()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        using var herself = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        var (priya, group) = (DemoPeople.Priya.Id.Value, $"/api/groups/{World.StudioTeam}");
        (
            await ines.Put($"{group}/members/{priya}/guardians", new { guardians = new[] { DemoPeople.Dele.Id.Value } })
        ).Is(204);
        await herself.SayYesToGuardians();
        (await ines.Put($"{group}/members/{priya}/guardians", new { guardians = Array.Empty<Guid>() })).Is(204);
        (await ines.Put($"{group}/members/{priya}/coordinates", new { coordinates = true })).Is(204);
        await mortar.Give(calendar, DemoPeople.Astrid, Mortar.Core.Access.Role.Coordinate);
        string[] told =
        [
            "Ines Varga made Priya Raman a coordinator of the group",
            "Ines Varga ended that Dele Okoro sees and answers for Priya Raman",
            "Priya Raman said yes to it that Dele Okoro sees and answers for them",
            "Ines Varga asked whether Dele Okoro may see and answer for Priya Raman",
            "Priya Raman joined the group",
        ];
        var path = $"calendars/{calendar.Value}/access-history";

        Assert.Empty(told.Except(await Of(ines, path)));
        Assert.Empty(told.Except(await Of(ines, $"groups/{World.StudioTeam}/access-history/{priya}")));
        Assert.Empty(told.Intersect(await Of(astrid, path))); // she coordinates it, and is not in the group
    }
}
