using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>Guardians see for those they answer for.</summary>
public class GuardianTests
{
    private static readonly Guid Class = Guid.Parse("0199aaaa-0000-7000-8000-000000000001");
    private static readonly Guid Pupil = Guid.Parse("0199aaaa-0000-7000-8000-000000000002");
    private static readonly Guid Parent = DemoPeople.Mei.Id.Value;

    private static async Task<CalendarId> MakeClass(Browser ines, string groupDefault = "view")
    {
        (
            await ines.Put(
                $"/api/groups/{Class}",
                new
                {
                    name = "Young throwers",
                    sort = "class",
                    zone = "Europe/London",
                    firstDay = "monday",
                }
            )
        ).Is(200);
        (
            await ines.Put($"/api/groups/{Class}/members", new { people = new[] { new { id = Pupil, name = "Otis" } } })
        ).Is(200);
        var calendar = Guid.CreateVersion7();
        (
            await ines.Put(
                $"/api/calendars/{calendar}",
                new
                {
                    groupId = Class,
                    name = "Lessons",
                    hue = "moss",
                    mark = "disc",
                    zone = "Europe/London",
                    purpose = "events",
                    groupDefault,
                }
            )
        ).Is(200);
        return new CalendarId(calendar);
    }

    private static Task<Answer> Set(Browser ines, params Guid[] guardians) =>
        ines.Put($"/api/groups/{Class}/members/{Pupil}/guardians", new { guardians });

    [Fact]
    public async Task A_guardian_has_what_the_pupil_has_up_to_View_and_no_longer_than_they_are_one()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var mei = await mortar.As(DemoPeople.Mei);
        var lessons = await MakeClass(ines, "edit");
        var elsewhere = await ines.MakeCalendar();
        (await ines.Put($"/api/calendars/{elsewhere.Value}/access/{Parent}", new { role = "view" })).Is(204);
        (await ines.Delete($"/api/calendars/{elsewhere.Value}/access/{Parent}")).Is(204);
        var lesson = await ines.MakeEvent(lessons, "Pinch pots");
        (await mei.Get($"/api/events/{lesson}")).Is(404);

        (await Set(ines, Parent)).Is(204);
        (await mei.Get($"/api/events/{lesson}")).Is(404); // she is not in the class, and is asked first
        await mei.SayYesToGuardians();

        Assert.Contains("Pinch pots", (await mei.Get($"/api/events/{lesson}")).Is(200).Text, StringComparison.Ordinal);
        (await mei.Put($"/api/events/{lesson}", World.Event(lessons, "Changed"), 1)).IsProblem(403, "not-allowed");
        var layer = (await mei.Get($"/api/calendars/{lessons.Value}")).Is(200).Body;
        Assert.Equal(
            ("view", "guardian"),
            (layer.Text("role"), Assert.Single(layer.GetProperty("ways").EnumerateArray()).GetString())
        );
        Assert.False(await mei.HasLayer(elsewhere));

        (await Set(ines)).Is(204);
        (await mei.Get($"/api/events/{lesson}")).Is(404);
    }

    [Fact]
    public async Task It_ends_when_the_pupil_leaves_and_comes_back_with_undo()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var mei = await mortar.As(DemoPeople.Mei);
        var lessons = await MakeClass(ines);
        (await Set(ines, Parent)).Is(204);
        await mei.SayYesToGuardians();
        var left = Guid.NewGuid();

        (await ines.Delete($"/api/groups/{Class}/members/{Pupil}", set: left)).Is(204);
        Assert.False(await mei.HasLayer(lessons));
        (await ines.Post($"/api/changes/{left}/undo")).Is(200);
        Assert.True(await mei.HasLayer(lessons));
    }

    [Fact]
    public async Task Only_coordinators_say_who_it_is_and_only_of_people_they_know()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        await MakeClass(ines);

        (await Set(priya, Parent)).IsProblem(404, "not-there");
        (await Set(ines, Guid.NewGuid())).IsProblem(422, "unfit");
        (await Set(ines, Pupil)).IsProblem(422, "unfit");
        (await Set(ines, Parent)).Is(204);
        var members = (await ines.Get($"/api/groups/{Class}/members")).Is(200).Body.EnumerateArray();
        Assert.Equal(
            DemoPeople.Mei.Name,
            Assert
                .Single(members.Single(one => one.Text("name") == "Otis").GetProperty("guardians").EnumerateArray())
                .Text("name")
        );
    }

    [Fact]
    public async Task Who_claims_a_name_has_its_guardians_and_whom_it_is_guardian_of()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var mei = await mortar.As(DemoPeople.Mei);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        var lessons = await MakeClass(ines);
        var (parent, members) = (Guid.NewGuid(), $"/api/groups/{Class}/members");
        (
            await ines.Put(
                members,
                new
                {
                    people = new[]
                    {
                        new
                        {
                            id = parent,
                            name = "Wren",
                            address = "wren@example.org",
                        },
                    },
                }
            )
        ).Is(200);
        (await Set(ines, parent, Parent)).Is(204);
        (await Set(ines, parent)).Is(204); // Mei was one, and is no longer

        var token = await mortar.SecretIn(await mortar.MailWith("wren@example.org", "/join/"), "/join/");
        (await ines.Delete($"{members}/{DemoPeople.Ines.Id.Value}")).IsProblem(409, "last-coordinator");
        (await mei.Post($"/api/joining/{token}")).Is(204);

        Assert.True(await mei.HasLayer(lessons));
        var otis = (await ines.Get(members)).Is(200).Body.EnumerateArray().Single(one => one.Text("name") == "Otis");
        Assert.Equal(DemoPeople.Mei.Name, Assert.Single(otis.GetProperty("guardians").EnumerateArray()).Text("name"));
        Assert.False(await astrid.HasLayer(lessons));
    }

    [Fact]
    public async Task Either_side_ends_it_and_nobody_else_by_that_way()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var mei = await mortar.As(DemoPeople.Mei);
        using var priya = await mortar.As(DemoPeople.Priya);
        var lessons = await MakeClass(ines);
        var lesson = await ines.MakeEvent(lessons, "Pinch pots");
        (await Set(ines, Parent)).Is(204);
        Assert.Empty(await Of(mei)); // she has not said yes
        await mei.SayYesToGuardians();
        var one = Assert.Single(await Of(mei));
        Assert.Equal(("Young throwers", "Otis"), (one.Text("groupName"), one.Text("ward")));
        Assert.Empty(await Of(priya));
        Assert.Empty(await Of(ines));

        (await priya.Delete($"/api/guardianships/{one.Text("id")}")).IsProblem(404, "not-there");
        (await ines.Delete($"/api/guardianships/{one.Text("id")}")).IsProblem(404, "not-there"); // she sets them elsewhere
        (await mei.Get($"/api/events/{lesson}")).Is(200);
        (await mei.Delete($"/api/guardianships/{one.Text("id")}")).Is(204);

        Assert.Equal(404, (await mei.Get($"/api/events/{lesson}")).Status);
        Assert.Empty(await Of(mei));
        (await mei.Delete($"/api/guardianships/{one.Text("id")}")).IsProblem(404, "not-there");
    }

    [Fact]
    public async Task A_ward_with_an_account_ends_it_and_the_guardian_does_not_bring_it_back()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var mei = await mortar.As(DemoPeople.Mei);
        using var priya = await mortar.As(DemoPeople.Priya);
        var lessons = await MakeClass(ines);
        var lesson = await ines.MakeEvent(lessons, "Pinch pots");
        var ward = DemoPeople.Priya.Id.Value;
        (
            await ines.Put($"/api/groups/{Class}/members", new { people = new[] { new { id = ward, name = "Priya" } } })
        ).Is(200);
        await priya.SayYes(Class);
        (await ines.Put($"/api/groups/{Class}/members/{ward}/guardians", new { guardians = new[] { Parent } })).Is(204);
        await mei.SayYesToGuardians();
        await priya.SayYesToGuardians();
        (await mei.Get($"/api/events/{lesson}")).Is(200);
        var one = Assert.Single(await Of(priya));
        Assert.Equal("Mei Sato", one.Text("guardian"));
        var ended = Guid.NewGuid();

        (await priya.Delete($"/api/guardianships/{one.Text("id")}", set: ended)).Is(204);

        Assert.Equal(404, (await mei.Get($"/api/events/{lesson}")).Status);
        (await mei.Post($"/api/changes/{ended}/undo")).IsProblem(404, "not-there");
        (await mei.Post($"/api/guardianships/{one.Text("id")}/accept")).IsProblem(404, "not-there");
        Assert.Equal(404, (await mei.Get($"/api/events/{lesson}")).Status);

        // As with a place in the group: who ended it is asked anew by those who coordinate it.
        (await priya.Post($"/api/changes/{ended}/undo")).IsProblem(403, "not-allowed");
        (await ines.Put($"/api/groups/{Class}/members/{ward}/guardians", new { guardians = new[] { Parent } })).Is(204);
        Assert.Equal(404, (await mei.Get($"/api/events/{lesson}")).Status);
    }

    private static async Task<List<System.Text.Json.JsonElement>> Of(Browser somebody) =>
        [.. (await somebody.Get("/api/guardianships")).Is(200).Body.EnumerateArray()];
}
