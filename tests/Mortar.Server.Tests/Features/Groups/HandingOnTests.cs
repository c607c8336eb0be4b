using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>What becomes of calendars whose only coordinator leaves the group.</summary>
public class HandingOnTests
{
    private static readonly Guid Priya = DemoPeople.Priya.Id.Value;
    private static readonly Guid Tomasz = DemoPeople.Tomasz.Id.Value;
    private static readonly string Priyas = $"/api/groups/{World.StudioTeam}/members/{Priya}";

    [Fact]
    public async Task Who_leaves_is_shown_what_they_alone_coordinate_and_hands_it_on_first()
    {
        await using var mortar = await TestMortar.Start();
        using var priya = await mortar.As(DemoPeople.Priya);
        using var tomasz = await mortar.As(DemoPeople.Tomasz);
        var calendar = await Alone(priya);

        Assert.Equal(
            """{"calendars":[],"alone":["Glaze tests"]}""",
            (await priya.Get($"{Priyas}/ending")).Is(200).Text
        );
        Assert.Contains(
            "“Glaze tests” is coordinated by nobody else",
            (await priya.Delete(Priyas)).IsProblem(409, "coordinates-alone").Detail,
            StringComparison.Ordinal
        );
        (await priya.Delete($"{Priyas}?handOnTo={Priya}")).IsProblem(422, "unfit");
        (await priya.Delete($"{Priyas}?handOnTo={DemoPeople.Astrid.Id.Value}")).IsProblem(422, "unfit");
        (await priya.Get($"/api/groups/{World.StudioTeam}/members")).Is(200);
        Assert.Equal(404, (await tomasz.Get($"/api/calendars/{calendar}/access")).Status);

        var set = Guid.NewGuid();
        (await priya.Delete($"{Priyas}?handOnTo={Tomasz}", set: set)).Is(204);
        (await tomasz.Get($"/api/calendars/{calendar}/access")).Is(200);
        (await priya.Get($"/api/groups/{World.StudioTeam}/members")).IsProblem(404, "not-there");
        // What was given to her by name stays.
        (await priya.Get($"/api/calendars/{calendar}/access")).Is(200);

        // Whoever left does not take herself in again, and so nothing of it comes back by halves.
        (await priya.Post($"/api/changes/{set}/undo")).IsProblem(404, "not-there");
        (await tomasz.Get($"/api/calendars/{calendar}/access")).Is(200);
    }

    [Fact]
    public async Task Who_is_taken_out_leaves_what_they_alone_coordinate_to_whom_the_coordinator_says()
    {
        await using var mortar = await TestMortar.Start();
        using var priya = await mortar.As(DemoPeople.Priya);
        using var ines = await mortar.As(DemoPeople.Ines);
        using var tomasz = await mortar.As(DemoPeople.Tomasz);
        var calendar = await Alone(priya);

        (await tomasz.Get($"{Priyas}/ending")).IsProblem(403, "not-allowed");
        Assert.Contains(
            "\"alone\":[\"Glaze tests\"]",
            (await ines.Get($"{Priyas}/ending")).Is(200).Text,
            StringComparison.Ordinal
        );
        (await ines.Delete(Priyas)).IsProblem(409, "coordinates-alone");
        var set = Guid.NewGuid();
        (await ines.Delete($"{Priyas}?handOnTo={DemoPeople.Ines.Id.Value}", set: set)).Is(204);

        (await ines.Get($"/api/calendars/{calendar}/access")).Is(200);
        (await ines.Post($"/api/changes/{set}/undo")).Is(200);
        Assert.Equal(404, (await ines.Get($"/api/calendars/{calendar}/access")).Status);
        (await priya.Get($"/api/groups/{World.StudioTeam}/members")).Is(200);
    }

    [Fact]
    public async Task What_nobody_of_the_group_coordinates_any_more_is_marked_and_taken_over_by_who_coordinates_the_group()
    {
        await using var mortar = await TestMortar.Start();
        using var priya = await mortar.As(DemoPeople.Priya);
        using var ines = await mortar.As(DemoPeople.Ines);
        using var tomasz = await mortar.As(DemoPeople.Tomasz);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        var calendar = await Alone(priya);
        var takeOver = $"/api/calendars/{calendar}/take-over";

        // Somebody keeps it: to who does not see it, it is not even there.
        (await ines.Post(takeOver)).IsProblem(404, "not-there");
        Assert.Empty(await Left(ines));

        // Handed on, and then the one who got it leaves it too, as she still has it from before.
        (await priya.Delete($"{Priyas}?handOnTo={Tomasz}")).Is(204);
        (await tomasz.Delete($"/api/calendars/{calendar}/access/{Tomasz}")).Is(204);

        Assert.Equal(["Glaze tests"], await Left(ines));
        (await tomasz.Post(takeOver)).IsProblem(403, "not-allowed");
        (await astrid.Post(takeOver)).IsProblem(404, "not-there");
        (await priya.Post(takeOver)).IsProblem(404, "not-there");
        (await ines.Post($"/api/calendars/{Guid.NewGuid()}/take-over")).IsProblem(404, "not-there");
        var set = Guid.NewGuid();
        (await ines.Post(takeOver, set: set)).Is(204);

        Assert.Empty(await Left(ines));
        (await ines.Get($"/api/calendars/{calendar}/access")).Is(200);
        Assert.Contains(
            "Ines Varga",
            (await priya.Get($"/api/calendars/{calendar}/access-history")).Is(200).Text,
            StringComparison.Ordinal
        );
        (await ines.Post($"/api/changes/{set}/undo")).Is(200);
        Assert.Equal(404, (await ines.Get($"/api/calendars/{calendar}/access")).Status);
        Assert.Equal(["Glaze tests"], await Left(ines));
    }

    /// <summary>A calendar of the team that Priya alone coordinates and nobody else sees.</summary>
    private static async Task<Guid> Alone(Browser priya)
    {
        var id = Guid.CreateVersion7();
        (await priya.Put($"/api/calendars/{id}", World.Calendar(groupDefault: "none"))).Is(200);
        return id;
    }

    private static async Task<IEnumerable<string>> Left(Browser ines) =>
        (await ines.Get($"/api/groups/{World.StudioTeam}/access"))
            .Is(200)
            .Body.GetProperty("left")
            .EnumerateArray()
            .Select(one => one.Text("name"));
}
