using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>A group's own short address: for its members, and for nobody else a sign that there is one.</summary>
public class GroupAddressTests
{
    private static async Task<Answer> Name(Browser browser, string? name, Guid? group = null)
    {
        var id = group ?? World.StudioTeam;
        var now = (await browser.Get("/api/groups"))
            .Is(200)
            .Body.EnumerateArray()
            .Single(one => one.GetProperty("id").GetGuid() == id);
        return await browser.Put(
            $"/api/groups/{id}",
            new
            {
                name = now.Text("name"),
                sort = now.Text("sort"),
                zone = now.Text("zone"),
                firstDay = now.Text("firstDay"),
                shortName = name,
            },
            now.GetProperty("version").GetInt32()
        );
    }

    [Fact]
    public async Task Members_find_their_group_by_it_and_others_learn_nothing()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var hanne = await mortar.As(DemoPeople.Hanne);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        using var nobody = mortar.Anonymous();

        Assert.Equal("kiln-street", (await Name(ines, "Kiln-Street")).Is(200).Body.Text("shortName"));

        var found = (await hanne.Get("/api/groups/by-address/kiln-street")).Is(200).Body;
        Assert.Equal(World.StudioTeam, found.GetProperty("id").GetGuid());
        Assert.False(found.GetProperty("coordinates").GetBoolean());
        (await hanne.Get("/api/groups/by-address/KILN-street")).Is(200);
        var hidden = (await astrid.Get("/api/groups/by-address/kiln-street")).IsProblem(404, "not-there");
        var never = (await astrid.Get("/api/groups/by-address/never-there")).IsProblem(404, "not-there");
        Assert.Equal(never.Detail, hidden.Detail);
        (await nobody.Get("/api/groups/by-address/kiln-street")).IsProblem(401, "signed-out");

        // What is said nothing of stays; an old name leads on; an empty one gives it up.
        Assert.Equal("kiln-street", (await Name(ines, null)).Is(200).Body.Text("shortName"));
        (await Name(ines, "studio-team")).Is(200);
        Assert.Equal(
            "studio-team",
            (await hanne.Get("/api/groups/by-address/kiln-street")).Is(200).Body.Text("shortName")
        );
        Assert.Equal(string.Empty, (await Name(ines, string.Empty)).Is(200).Body.Text("shortName"));
        Assert.Equal(
            string.Empty,
            (await hanne.Get("/api/groups/by-address/studio-team")).Is(200).Body.Text("shortName")
        );
    }

    [Fact]
    public async Task It_is_looked_at_while_it_is_typed_and_nobody_has_the_one_of_another()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var dele = await mortar.As(DemoPeople.Dele);
        var raku = DemoPeople.Stable("Raku club");
        (await Name(ines, "kiln-street")).Is(200);

        var own = (await ines.Get($"/api/groups/{World.StudioTeam}/address?name=kiln-street")).Is(200).Body;
        var taken = (await dele.Get($"/api/groups/{raku}/address?name=ki1n-street")).Is(200).Body;
        Assert.Equal(System.Text.Json.JsonValueKind.Null, own.GetProperty("problem").ValueKind);
        Assert.Contains("somebody's already", taken.Text("problem"), StringComparison.Ordinal);
        Assert.NotEmpty(taken.GetProperty("instead").EnumerateArray());
        (await dele.Get($"/api/groups/{World.StudioTeam}/address?name=x")).IsProblem(404, "not-there");

        foreach (var name in (string[])["kiln-street", "ki1n-street", "admin", "no", "mortar-sign-in", "a--b", "ü"])
        {
            var refused = (await Name(dele, name, raku)).IsProblem(422, "unfit");
            Assert.NotEmpty(refused.Body.GetProperty("fields").Text("shortName"));
        }

        // A noticeboard's names are others: its addresses begin otherwise.
        (await Name(dele, "raku-club", raku)).Is(200);
    }

    [Fact]
    public async Task Members_are_told_of_their_groups_open_noticeboards_and_others_are_not()
    {
        await using var mortar = await TestMortar.Start();
        using var dele = await mortar.As(DemoPeople.Dele);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        var path = $"/api/groups/{DemoPeople.Stable("Raku club")}/noticeboards/open";

        var board = Assert.Single((await dele.Get(path)).Is(200).Body.EnumerateArray());
        Assert.EndsWith("/b/raku-club", board.Text("url"), StringComparison.Ordinal);
        (await astrid.Get($"/api/groups/{World.StudioTeam}/noticeboards/open")).IsProblem(404, "not-there");

        var id = (await dele.Get($"/api/groups/{DemoPeople.Stable("Raku club")}/noticeboards"))
            .Is(200)
            .Body[0]
            .GetProperty("noticeboardId")
            .GetGuid();
        (await dele.Post($"/api/noticeboards/{id}/pause")).Is(200);
        Assert.Empty((await dele.Get(path)).Is(200).Body.EnumerateArray());
    }
}
