using Microsoft.EntityFrameworkCore;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>
/// Nobody is taken anywhere without saying yes. Hanne has an ordinary account and shares the Studio team with the others;
/// what she tries from a group of her own gets her nothing.
/// </summary>
public class ConsentTests
{
    private static readonly Guid Own = Guid.Parse("0199bbbb-0000-7000-8000-000000000001");
    private static readonly Guid Priya = DemoPeople.Priya.Id.Value;

    [Fact]
    public async Task Who_is_put_into_a_strangers_group_is_asked_and_nothing_of_them_is_told_until_they_say_yes()
    {
        await using var mortar = await TestMortar.Start();
        using var hanne = await mortar.As(DemoPeople.Hanne);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await Found(hanne);

        (await Add(hanne, new { id = Priya, name = "Priya" })).Is(200);

        Assert.DoesNotContain("Priya", (await hanne.Get($"/api/groups/{Own}/members")).Is(200).Text);
        Assert.Equal(
            ("Priya Raman", 1),
            (
                (await hanne.Get($"/api/groups/{Own}/asked")).Is(200).Body[0].Text("name"),
                (await hanne.Get($"/api/groups/{Own}/asked")).Body.GetArrayLength()
            )
        );
        Assert.DoesNotContain("priya@", (await hanne.Get($"/api/groups/{Own}/asked")).Text);
        Assert.DoesNotContain("priya@", (await hanne.Get($"/api/groups/{Own}/access")).Is(200).Text);
        Assert.False(await priya.HasLayer(calendar));
        Assert.Equal(404, (await priya.Get($"/api/groups/{Own}/members")).Status);
        var asked = Assert.Single(
            (await priya.Get("/api/inbox")).Is(200).Body.GetProperty("memberships").EnumerateArray()
        );
        Assert.Equal(("Parcels", "Hanne Lind"), (asked.Text("groupName"), asked.Text("from")));

        await priya.SayYes(Own);

        Assert.Contains("priya@", (await hanne.Get($"/api/groups/{Own}/members")).Is(200).Text);
        Assert.True(await priya.HasLayer(calendar));
        Assert.Equal("[]", (await hanne.Get($"/api/groups/{Own}/asked")).Text);
    }

    [Fact]
    public async Task A_no_ends_it_is_told_and_is_not_asked_again_for_a_while()
    {
        await using var mortar = await TestMortar.Start();
        using var hanne = await mortar.As(DemoPeople.Hanne);
        using var priya = await mortar.As(DemoPeople.Priya);
        await Found(hanne);
        (await Add(hanne, new { id = Priya, name = "Priya" })).Is(200);

        (await priya.Post($"/api/memberships/{Own}/decline")).Is(204);

        (await priya.Post($"/api/memberships/{Own}/accept")).IsProblem(404, "not-there");
        Assert.Contains(
            "Priya Raman does not want to be in “Parcels”.",
            (await hanne.Get("/api/inbox")).Is(200).Text,
            StringComparison.Ordinal
        );
        var again = (await Add(hanne, new { id = Priya, name = "Priya" })).Is(200).Body;
        Assert.Equal((0, 1), (again.GetProperty("asked").GetInt32(), again.GetProperty("saidNo").GetInt32()));
        Assert.Empty((await priya.Get("/api/inbox")).Body.GetProperty("memberships").EnumerateArray());
    }

    [Fact]
    public async Task A_question_taken_back_or_of_who_coordinates_no_more_is_none()
    {
        await using var mortar = await TestMortar.Start();
        using var hanne = await mortar.As(DemoPeople.Hanne);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var mei = await mortar.As(DemoPeople.Mei);
        await Found(hanne);
        (await Add(hanne, new { id = Priya, name = "Priya" })).Is(200);

        (await hanne.Delete($"/api/groups/{Own}/asked/{Priya}")).Is(204);
        (await priya.Post($"/api/memberships/{Own}/accept")).IsProblem(404, "not-there");
        (await hanne.Delete($"/api/groups/{Own}/asked/{Priya}")).IsProblem(404, "not-there");

        var meis = DemoPeople.Mei.Id.Value;
        (await Add(hanne, new { id = meis, name = "Mei" })).Is(200);
        await mei.SayYes(Own);
        (await hanne.Put($"/api/groups/{Own}/members/{meis}/coordinates", new { coordinates = true })).Is(204);
        (await Add(mei, new { id = Priya, name = "Priya" })).Is(200);
        (await hanne.Put($"/api/groups/{Own}/members/{meis}/coordinates", new { coordinates = false })).Is(204);

        Assert.Empty((await priya.Get("/api/inbox")).Body.GetProperty("memberships").EnumerateArray());
        (await priya.Post($"/api/memberships/{Own}/accept")).IsProblem(404, "not-there");
        (await mei.Get($"/api/groups/{Own}/asked")).IsProblem(403, "not-allowed");
        (await mei.Delete($"/api/groups/{Own}/asked/{Priya}")).IsProblem(403, "not-allowed");
        (await priya.Get($"/api/groups/{Own}/asked")).IsProblem(404, "not-there");
        (await priya.Delete($"/api/groups/{Own}/asked/{Priya}")).IsProblem(404, "not-there");
    }

    [Fact]
    public async Task A_guardian_made_in_a_group_of_ones_own_reads_and_answers_nothing_of_another_group()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var hanne = await mortar.As(DemoPeople.Hanne);
        using var priya = await mortar.As(DemoPeople.Priya);
        await Found(hanne);
        (await Add(hanne, new { id = Priya, name = "Priya" })).Is(200);
        await priya.SayYes(Own);
        var calendar = await ines.MakeCalendar();
        var question = Guid.CreateVersion7();
        (
            await ines.Put(
                $"/api/events/{question}",
                new
                {
                    calendarId = calendar.Value,
                    title = "Private talk",
                    time = World.Hours(),
                    showAs = "busy",
                    attendees = new[] { Priya },
                    @private = true,
                }
            )
        ).Is(200);
        (
            await ines.Send(
                HttpMethod.Post,
                $"/api/events/{question}/ask",
                new { personIds = new[] { Priya } },
                1,
                null
            )
        ).Is(204);

        var hers = DemoPeople.Hanne.Id.Value;
        (await hanne.Put($"/api/groups/{Own}/members/{Priya}/guardians", new { guardians = new[] { hers } })).Is(204);
        Assert.DoesNotContain("Private talk", (await hanne.Get("/api/inbox")).Is(200).Text);
        (await hanne.Post($"/api/guardianships/{await Guardianship(priya)}/accept")).IsProblem(404, "not-there");
        await priya.SayYesToGuardians(); // even with Priya's yes

        Assert.DoesNotContain("Private talk", (await hanne.Get("/api/inbox")).Is(200).Text);
        (await hanne.Put($"/api/events/{question}/answer", new { answer = "accepted", @for = Priya })).IsProblem(
            404,
            "not-there"
        );
        Assert.Equal(404, (await hanne.Get($"/api/events/{question}")).Status);
    }

    [Fact]
    public async Task A_name_of_another_group_cannot_be_taken_renamed_or_given_an_address_from_outside()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var hanne = await mortar.As(DemoPeople.Hanne);
        await Found(hanne);
        var name = Guid.NewGuid();
        (
            await ines.Put(
                $"/api/groups/{World.StudioTeam}/members",
                new { people = new[] { new { id = name, name = "Otis" } } }
            )
        ).Is(200);

        var added = (await Add(hanne, new { id = name, name = "Otis" })).Is(200).Text;

        Assert.Equal("""{"added":0,"asked":0,"saidNo":0}""", added);
        (
            await hanne.Put($"/api/groups/{Own}/members/{name}", new { name = "Mine", address = "hanne@example.org" })
        ).IsProblem(404, "not-there");
        (await hanne.Put($"/api/groups/{Own}/members/{Priya}/guardians", new { guardians = new[] { name } })).IsProblem(
            404,
            "not-there"
        );
        (
            await hanne.Put(
                $"/api/groups/{Own}/members/{DemoPeople.Hanne.Id.Value}/guardians",
                new { guardians = new[] { name } }
            )
        ).IsProblem(422, "unfit");
        var otis = new Mortar.Core.Words.PersonId(name);
        Assert.Equal("Otis", await mortar.Store(async db => (await db.People.SingleAsync(one => one.Id == otis)).Name));
    }

    [Fact]
    public async Task Claiming_a_name_moves_what_its_group_gave_it_and_nothing_else_and_is_told_to_its_coordinators()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var hanne = await mortar.As(DemoPeople.Hanne);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        await Found(hanne);
        var teams = await ines.MakeCalendar();
        var name = Guid.NewGuid();
        (
            await Add(
                hanne,
                new
                {
                    id = name,
                    name = "Wren",
                    address = "wren@example.org",
                }
            )
        ).Is(200);
        // As if it had been given something elsewhere before names belonged to one group.
        await mortar.Store(db =>
            db.Write<int>(
                Mortar.Data.Store.Act.By(DemoPeople.Ines.Id),
                () =>
                {
                    db.Grants.Add(
                        new Mortar.Data.Access.GrantRow
                        {
                            Id = Guid.NewGuid(),
                            CalendarId = teams,
                            PersonId = new(name),
                            Role = Mortar.Core.Access.Role.Edit,
                        }
                    );
                    return Task.FromResult<Mortar.Core.Words.Outcome<int>>(1);
                },
                CancellationToken.None
            )
        );
        var mail = await mortar.Store(db => db.Mails.SingleAsync(one => one.To == "wren@example.org"));

        (await astrid.Post($"/api/joining/{await mortar.SecretIn(mail, "/join/")}")).Is(204);

        Assert.False(await astrid.HasLayer(teams));
        Assert.Contains(
            "Astrid Lindqvist took over the name Wren in “Parcels”.",
            (await hanne.Get("/api/inbox")).Is(200).Text,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task An_absence_entered_in_a_strangers_group_lowers_no_other_groups_cover()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var hanne = await mortar.As(DemoPeople.Hanne);
        using var tomasz = await mortar.As(DemoPeople.Tomasz); // lets people know when he is busy
        var away = await Found(hanne, "away");
        // Given to the whole team by an ordinary member of it, and so on everybody's wall.
        (await hanne.Put($"/api/calendars/{away.Value}/group-access/{World.StudioTeam}", new { role = "view" })).Is(
            204
        );
        Assert.True(await tomasz.HasLayer(away));
        var before = await Present(ines);

        (
            await hanne.Put(
                $"/api/events/{Guid.CreateVersion7()}",
                new
                {
                    calendarId = away.Value,
                    title = "Away for good",
                    showAs = "busy",
                    time = new
                    {
                        form = "days",
                        first = "2026-03-12",
                        last = "2026-03-12",
                    },
                    attendees = new[] { DemoPeople.Tomasz.Id.Value, DemoPeople.Ines.Id.Value },
                }
            )
        ).Is(200);

        Assert.Equal(before, await Present(ines));
        // The same once they are in her group: another group's cover is not hers to lower.
        (await Add(hanne, new { id = DemoPeople.Ines.Id.Value, name = "Ines" })).Is(200);
        await ines.SayYes(Own);
        Assert.Equal(before, await Present(ines));
        var free = await ines.Post(
            "/api/free",
            new
            {
                people = new[] { DemoPeople.Tomasz.Id.Value },
                places = Array.Empty<Guid>(),
                start = "2026-03-12T12:00:00",
                end = "2026-03-12T12:30:00",
                group = World.StudioTeam,
            }
        );
        Assert.DoesNotContain("Away for good", free.Text);
    }

    [Fact]
    public async Task Taken_out_one_keeps_an_event_only_where_it_was_left_knowingly_and_the_table_says_so()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        var id = Guid.CreateVersion7();
        object body = new
        {
            calendarId = calendar.Value,
            title = "Stock count",
            time = World.Hours(),
            showAs = "busy",
            attendees = new[] { Priya },
        };
        (await ines.Put($"/api/events/{id}", body)).Is(200);
        (await ines.Put($"/api/events/{id}/editors", new { personIds = new[] { Priya } }, 1)).Is(200);
        (await priya.Get($"/api/events/{id}")).Is(200);
        var place = $"/api/groups/{World.StudioTeam}/members/{Priya}";
        Assert.Equal(
            """{"calendars":[{"calendarName":"Glaze tests","events":1}],"alone":[]}""",
            (await ines.Get($"{place}/ending")).Is(200).Text
        );
        // What could be left to her is told to her coordinators only.
        Assert.Equal("""{"calendars":[],"alone":[]}""", (await priya.Get($"{place}/ending")).Is(200).Text);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        (await astrid.Get($"{place}/ending")).IsProblem(404, "not-there");

        var out1 = Guid.NewGuid();
        (await ines.Delete(place, set: out1)).Is(204);
        Assert.Equal(404, (await priya.Get($"/api/events/{id}")).Status);
        Assert.DoesNotContain("Stock count", (await priya.Get("/api/wall?from=2026-03-09&to=2026-03-15")).Text);
        (await ines.Post($"/api/changes/{out1}/undo")).Is(200);
        (await priya.Get($"/api/events/{id}")).Is(200);

        (await ines.Delete($"{place}?leavesEvents=true")).Is(204);
        (await priya.Get($"/api/events/{id}")).Is(200);
        var row = (await ines.Get($"/api/groups/{World.StudioTeam}/access"))
            .Is(200)
            .Body.GetProperty("people")
            .EnumerateArray()
            .Single(one => one.GetProperty("personId").GetGuid() == Priya);
        Assert.Equal(
            (false, true, 1),
            (
                row.GetProperty("isMember").GetBoolean(),
                row.GetProperty("hasLeft").GetBoolean(),
                row.GetProperty("eventsAlone").GetInt32()
            )
        );
    }

    [Fact]
    public async Task Giving_a_member_a_step_on_a_calendar_of_ones_own_tells_nobodys_address()
    {
        await using var mortar = await TestMortar.Start();
        using var hanne = await mortar.As(DemoPeople.Hanne); // in the team, and coordinates nothing of it
        var calendar = Guid.CreateVersion7();
        (await hanne.Put($"/api/calendars/{calendar}", World.Calendar("Hers"))).Is(200);
        foreach (var person in new[] { DemoPeople.Ines, DemoPeople.Priya })
        {
            (await hanne.Put($"/api/calendars/{calendar}/access/{person.Id.Value}", new { role = "view" })).Is(204);
        }

        var (list, table) = (
            (await hanne.Get($"/api/calendars/{calendar}/access")).Is(200).Text,
            (await hanne.Get($"/api/groups/{World.StudioTeam}/access")).Is(200).Text
        );

        Assert.DoesNotContain("priya@example.org", list + table);
        Assert.Contains("Priya Raman", list + table);
    }

    /// <summary>Every route about a group and its people, with a body that a coordinator could send.</summary>
    public static TheoryData<string, string, string?> GroupRoutes() =>
        new()
        {
            { "GET", "members", null },
            { "POST", "people", """{"text":"Otis"}""" },
            { "PUT", "members", """{"people":[{"id":"3d8c2c6e-0000-4000-8000-000000000001","name":"Otis"}]}""" },
            { "PUT", "members/{name}", """{"name":"Mine","address":"hanne@example.org"}""" },
            { "PUT", "members/{member}", """{"name":"Mine","address":"hanne@example.org"}""" },
            { "PUT", "members/{member}/coordinates", """{"coordinates":true}""" },
            { "PUT", "members/{me}/coordinates", """{"coordinates":true}""" },
            { "PUT", "members/{name}/guardians", """{"guardians":["{me}"]}""" },
            { "PUT", "members/{member}/guardians", """{"guardians":["{me}"]}""" },
            { "POST", "members/{name}/invite", null },
            { "DELETE", "members/{name}", null },
            { "DELETE", "members/{member}", null },
            { "GET", "members/{member}/ending", null },
            { "GET", "asked", null },
            { "DELETE", "asked/{me}", null },
            { "DELETE", "asked/{member}", null },
            { "GET", "guests", null },
            { "PUT", "guests/3d8c2c6e-0000-4000-8000-000000000002", """{"text":"nina@example.org"}""" },
            { "DELETE", "guests/{member}", null },
            { "GET", "access", null },
            { "GET", "access-history/{member}", null },
            { "GET", "cover?from=2026-03-09&to=2026-03-10", null },
            { "GET", "absences?year=2026", null },
        };

    /// <summary>
    /// Who stands to a group in any way but being in it is an outsider: asked and silent, said no, taken out, the guardian of
    /// somebody in it, or named on one of its events.
    /// </summary>
    [Theory]
    [MemberData(nameof(GroupRoutes))]
    public async Task To_be_asked_by_a_group_or_a_guardian_in_it_is_not_to_be_in_it(
        string method,
        string route,
        string? body
    )
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var (group, name) = (Guid.NewGuid(), Guid.NewGuid());
        (
            await ines.Put(
                $"/api/groups/{group}",
                new
                {
                    name = "Glaze circle",
                    sort = "class",
                    zone = "Europe/London",
                    firstDay = "monday",
                }
            )
        ).Is(200);
        var people = new[]
        {
            new { id = name, name = "Otis" },
            new { id = Priya, name = "Priya" },
            new { id = DemoPeople.Hanne.Id.Value, name = "Hanne" },
            new { id = DemoPeople.Mei.Id.Value, name = "Mei" },
            new { id = DemoPeople.Tomasz.Id.Value, name = "Tomasz" },
        };
        (await ines.Put($"/api/groups/{group}/members", new { people })).Is(200);
        using var priya = await mortar.As(DemoPeople.Priya);
        await priya.SayYes(group);
        using var mei = await mortar.As(DemoPeople.Mei);
        (await mei.Post($"/api/memberships/{group}/decline")).Is(204);
        using var tomasz = await mortar.As(DemoPeople.Tomasz);
        await tomasz.SayYes(group);
        (await ines.Delete($"/api/groups/{group}/members/{DemoPeople.Tomasz.Id.Value}")).Is(204);
        using var dele = await mortar.As(DemoPeople.Dele);
        var guardians = new { guardians = new[] { DemoPeople.Dele.Id.Value } };
        (await ines.Put($"/api/groups/{group}/members/{name}/guardians", guardians)).Is(204);
        await dele.SayYesToGuardians();
        using var hanne = await mortar.As(DemoPeople.Hanne); // asked, and silent

        foreach (
            var (who, browser) in new[]
            {
                (DemoPeople.Hanne, hanne),
                (DemoPeople.Mei, mei),
                (DemoPeople.Tomasz, tomasz),
                (DemoPeople.Dele, dele),
            }
        )
        {
            string Filled(string text) =>
                text.Replace("{name}", name.ToString(), StringComparison.Ordinal)
                    .Replace("{member}", Priya.ToString(), StringComparison.Ordinal)
                    .Replace("{me}", who.Id.Value.ToString(), StringComparison.Ordinal);

            var answer = await browser.Send(
                new HttpMethod(method),
                $"/api/groups/{group}/{Filled(route)}",
                body is null ? null : Filled(body),
                null,
                null
            );

            Assert.True(answer.Status == 404, $"{method} {route} by {who.Name}: {answer.Status} {answer.Text}");
            Assert.Equal("not-there", answer.Type);
            Assert.DoesNotContain("Priya", answer.Text);
        }

        var members = (await ines.Get($"/api/groups/{group}/members")).Is(200).Body.EnumerateArray().ToList();
        Assert.Equal(["Ines Varga", "Otis", "Priya Raman"], members.Select(one => one.Text("name")));
    }

    private static async Task<string> Guardianship(Browser ward) =>
        (await ward.Get("/api/inbox")).Is(200).Body.GetProperty("guardianships")[0].Text("id");

    private static async Task<string> Present(Browser reader) =>
        (await reader.Get($"/api/groups/{World.StudioTeam}/cover?from=2026-03-12&to=2026-03-12")).Is(200).Text;

    private static Task<Answer> Add(Browser browser, params object[] people) =>
        browser.Put($"/api/groups/{Own}/members", new { people });

    /// <summary>A group of one's own, with a calendar that all its members see.</summary>
    private static async Task<Mortar.Core.Words.CalendarId> Found(Browser browser, string purpose = "events")
    {
        (
            await browser.Put(
                $"/api/groups/{Own}",
                new
                {
                    name = "Parcels",
                    sort = "club",
                    zone = "Europe/London",
                    firstDay = "monday",
                }
            )
        ).Is(200);
        var calendar = Guid.CreateVersion7();
        (
            await browser.Put(
                $"/api/calendars/{calendar}",
                new
                {
                    groupId = Own,
                    name = "Parcel rounds",
                    hue = "moss",
                    mark = "disc",
                    zone = "Europe/London",
                    purpose,
                    groupDefault = "view",
                }
            )
        ).Is(200);
        return new(calendar);
    }
}
