using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>
/// Every route that names a person, by somebody who coordinates a group and a calendar of their own, against how that person
/// stands to them. Hanne asks; Astrid, or a name of Ines's class, is asked about. What Astrid has in Ines's class is secret.
/// </summary>
public class PersonRoutesTests
{
    private static readonly Guid Own = Guid.Parse("0199cccc-0000-7000-8000-000000000001");
    private static readonly Guid Class = Guid.Parse("0199cccc-0000-7000-8000-000000000002");
    private static readonly Guid Fair = Guid.Parse("0199cccc-0000-7000-8000-000000000008");
    private static readonly Guid Named = Guid.Parse("0199cccc-0000-7000-8000-000000000003");
    private static readonly Guid Helper = Guid.Parse("0199cccc-0000-7000-8000-000000000004");
    private static readonly Guid Rounds = Guid.Parse("0199cccc-0000-7000-8000-000000000005");
    private static readonly Guid Round = Guid.Parse("0199cccc-0000-7000-8000-000000000006");
    private static readonly Guid Talk = Guid.Parse("0199cccc-0000-7000-8000-000000000007");

    /// <summary>How somebody stands to Hanne and her group.</summary>
    private static readonly string[] Relations = ["none", "asked", "member", "coordinator", "guardian", "name"];

    /// <summary>Route, body, and what Hanne gets where the person is a stranger, asked, a member, another coordinator, her ward in Ines's class, a name of that class.</summary>
    private static readonly (string Method, string Route, string? Body, int[] Expected)[] Routes =
    [
        ("GET", "times?from=2026-03-09&to=2026-03-15&people={p}", null, [200, 200, 200, 200, 200, 200]),
        ("POST", "gaps", Question(Own), [200, 200, 200, 200, 200, 200]),
        ("POST", "gaps", Question(Class), [200, 200, 200, 200, 200, 200]),
        (
            "POST",
            "free",
            """{"people":["{p}"],"places":[],"time":{time},"group":"{own}"}""",
            [200, 200, 200, 200, 200, 200]
        ),
        ("GET", "find?from=2026-03-01&to=2026-03-31&person={p}", null, [200, 200, 200, 200, 200, 200]),
        ("GET", "wall?from=2026-03-09&to=2026-03-15&as={p}", null, [200, 200, 200, 200, 200, 200]),
        ("GET", "shelf?as={p}", null, [200, 200, 200, 200, 200, 200]),
        (
            "PUT",
            "events/{new}",
            """{"calendarId":"{rounds}","title":"Round","place":"","notes":"","showAs":"busy","time":{time},"attendees":["{p}"]}""",
            [422, 422, 200, 200, 422, 422]
        ),
        ("POST", "events/{round}/ask", """{"personIds":["{p}"]}""", [422, 422, 422, 422, 422, 422]),
        ("PUT", "events/{round}/organizer", """{"personId":"{p}"}""", [422, 422, 422, 422, 422, 422]),
        ("PUT", "events/{round}/editors", """{"personIds":["{p}"]}""", [422, 422, 422, 422, 422, 422]),
        ("PUT", "events/{talk}/answer", """{"answer":"accepted","for":"{p}"}""", [404, 404, 404, 404, 204, 404]),
        ("GET", "events/{talk}", null, [404, 404, 404, 404, 200, 404]),
        (
            "PUT",
            "calendars/{new}",
            """{"groupId":"{own}","name":"Theirs","hue":"moss","mark":"disc","zone":"Europe/London","purpose":"events","groupDefault":"none","takes":"person","person":"{p}"}""",
            [422, 422, 200, 200, 422, 422]
        ),
        ("PUT", "calendars/{rounds}/access/{p}", """{"role":"view"}""", [404, 404, 204, 204, 404, 404]),
        ("DELETE", "calendars/{rounds}/access/{p}", null, [404, 404, 204, 204, 404, 404]),
        (
            "PUT",
            "proposals/{new}",
            """{"calendarId":"{rounds}","title":"Walk","place":"","notes":"","times":[{"start":"2026-03-16T20:00:00","end":"2026-03-16T21:00:00"},{"start":"2026-03-17T20:00:00","end":"2026-03-17T21:00:00"}],"personIds":["{p}"]}""",
            [422, 422, 204, 204, 422, 422]
        ),
        (
            "PUT",
            "groups/{own}",
            """{"name":"Parcels","sort":"club","zone":"Europe/London","firstDay":"monday","cover":[{"name":"Desk","people":["{p}"],"days":[1,1,1,1,1,0,0]}]}""",
            [200, 200, 200, 200, 200, 200]
        ),
        ("PUT", "groups/{own}/members", """{"people":[{"id":"{p}","name":"Mine"}]}""", [200, 200, 200, 200, 200, 200]),
        (
            "PUT",
            "groups/{own}/members/{p}",
            """{"name":"Mine","address":"hanne@example.org"}""",
            [404, 404, 409, 409, 404, 404]
        ),
        ("POST", "groups/{own}/members/{p}/invite", null, [404, 404, 404, 404, 404, 404]),
        ("PUT", "groups/{own}/members/{p}/guardians", """{"guardians":["{me}"]}""", [404, 404, 204, 204, 404, 404]),
        ("PUT", "groups/{own}/members/{helper}/guardians", """{"guardians":["{p}"]}""", [422, 204, 204, 204, 422, 422]),
        ("GET", "groups/{own}/members/{p}/ending", null, [200, 200, 200, 200, 200, 200]),
        ("GET", "groups/{own}/access-history/{p}", null, [200, 200, 200, 200, 200, 200]),
        ("DELETE", "groups/{own}/asked/{p}", null, [404, 204, 404, 404, 404, 404]),
        ("PUT", "groups/{own}/guests/{p}", """{"text":"guest@example.org"}""", [409, 409, 409, 409, 409, 409]),
        ("DELETE", "groups/{own}/guests/{p}", null, [404, 404, 404, 404, 404, 404]),
        ("POST", "groups/{own}/guests/{p}/claim", null, [404, 404, 404, 404, 404, 404]),
        ("PUT", "groups/{own}/members/{p}/coordinates", """{"coordinates":true}""", [404, 404, 204, 204, 404, 404]),
        ("DELETE", "groups/{own}/members/{p}", null, [404, 404, 204, 204, 404, 404]),
        // The same of the class, which Hanne is not in.
        (
            "PUT",
            "groups/{class}/members/{p}",
            """{"name":"Mine","address":"hanne@example.org"}""",
            [404, 404, 404, 404, 404, 404]
        ),
        ("PUT", "groups/{class}/members/{p}/guardians", """{"guardians":["{me}"]}""", [404, 404, 404, 404, 404, 404]),
        ("GET", "groups/{class}/members/{p}/ending", null, [404, 404, 404, 404, 404, 404]),
        ("GET", "groups/{class}/access-history/{p}", null, [404, 404, 404, 404, 404, 404]),
        ("DELETE", "groups/{class}/members/{p}", null, [404, 404, 404, 404, 404, 404]),
    ];

    public static TheoryData<string> All() => [.. Relations];

    [Theory]
    [MemberData(nameof(All))]
    public async Task Naming_somebody_gives_what_they_said_yes_to_and_nothing_of_another_group(string relation)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var hanne = await mortar.As(DemoPeople.Hanne);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        var person = await Stand(relation, ines, hanne, astrid);
        var at = Array.IndexOf(Relations, relation);

        foreach (var (method, route, body, expected) in Routes)
        {
            var answer = await hanne.Send(
                new HttpMethod(method),
                "/api/" + Filled(route, person),
                body is null ? null : Filled(body, person),
                route.StartsWith("events/{round}", StringComparison.Ordinal) ? await VersionOf(hanne) : null,
                null
            );

            Assert.True(
                answer.Status == expected[at],
                $"{method} {route} where they are {relation}: {answer.Status} {answer.Text}"
            );
            // A guardian sees for her ward there.
            var ofTalk =
                relation == "guardian"
                && (route == "events/{talk}" || route.StartsWith("find", StringComparison.Ordinal));
            Assert.True(
                ofTalk || !answer.Text.Contains("Secret", StringComparison.Ordinal),
                $"{method} {route} where they are {relation}: {answer.Text}"
            );
            string[] unknown =
                relation is "member" or "coordinator" ? []
                : relation == "asked" ? [DemoPeople.Astrid.Address]
                : [DemoPeople.Astrid.Address, DemoPeople.Astrid.Name, "Otis", "otis@example.org"];
            Assert.DoesNotContain(unknown, text => answer.Text.Contains(text, StringComparison.Ordinal));
        }

        // Nobody in the class lost or gained anything by all of it but what the guardian may do.
        var members = (await ines.Get($"/api/groups/{Class}/members")).Is(200).Body.EnumerateArray().ToList();
        Assert.Equal(
            [DemoPeople.Astrid.Name, DemoPeople.Ines.Name, "Otis"],
            members.Select(member => member.Text("name")).Order(StringComparer.Ordinal)
        );
        Assert.Equal(
            relation == "guardian" ? [DemoPeople.Hanne.Name] : [],
            members
                .SelectMany(member => member.GetProperty("guardians").EnumerateArray())
                .Select(one => one.Text("name"))
        );
        Assert.Equal("otis@example.org", members.Single(member => member.Text("name") == "Otis").Text("address"));
        var cover = (await hanne.Get($"/api/groups/{Own}/cover?from=2026-03-09&to=2026-03-10")).Is(200).Text;
        Assert.DoesNotContain("Otis", cover);
        Assert.DoesNotContain("Secret", cover);
        var answers = (await ines.Get($"/api/events/{Talk}/answers")).Is(200).Text;
        Assert.Equal(relation == "guardian", answers.Contains("accepted", StringComparison.Ordinal));
    }

    /// <summary>Makes Hanne's group and Ines's class, and has the person stand to Hanne in a relation.</summary>
    private static async Task<Guid> Stand(string relation, Browser ines, Browser hanne, Browser astrid)
    {
        await MakeGroup(ines, Class, "Young throwers");
        var (her, hers) = (DemoPeople.Astrid.Id.Value, new { id = DemoPeople.Astrid.Id.Value, name = "Astrid" });
        (
            await ines.Put(
                $"/api/groups/{Class}/members",
                new
                {
                    people = new object[]
                    {
                        hers,
                        new
                        {
                            id = Named,
                            name = "Otis",
                            address = "otis@example.org",
                        },
                    },
                }
            )
        ).Is(200);
        await astrid.SayYes(Class);
        var lessons = await MakeCalendar(ines, Class, "Lessons", Guid.CreateVersion7());
        (
            await ines.Put(
                $"/api/events/{Talk}",
                new
                {
                    calendarId = lessons,
                    title = "Secret-talk",
                    place = "Secret-place",
                    notes = "Secret-notes",
                    showAs = "busy",
                    time = World.Hours(),
                    attendees = new[] { her, Named },
                    @private = relation != "guardian",
                }
            )
        ).Is(200);

        await MakeGroup(hanne, Own, "Parcels");
        await MakeCalendar(hanne, Own, "Rounds", Rounds);
        (
            await hanne.Put(
                $"/api/groups/{Own}/members",
                new { people = new[] { new { id = Helper, name = "Helper" } } }
            )
        ).Is(200);
        (await hanne.Put($"/api/events/{Round}", World.Event(new CalendarId(Rounds), "Round"))).Is(200);
        switch (relation)
        {
            case "asked" or "member" or "coordinator":
                // They know each other from a group of Ines's, or Hanne could not ask for her.
                await MakeGroup(ines, Fair, "Fair");
                var herself = new { id = DemoPeople.Hanne.Id.Value, name = "Hanne" };
                (await ines.Put($"/api/groups/{Fair}/members", new { people = new[] { hers, herself } })).Is(200);
                await astrid.SayYes(Fair);
                await hanne.SayYes(Fair);
                (await hanne.Put($"/api/groups/{Own}/members", new { people = new[] { hers } })).Is(200);
                break;
            case "guardian":
                (
                    await ines.Put(
                        $"/api/groups/{Class}/members/{her}/guardians",
                        new { guardians = new[] { DemoPeople.Hanne.Id.Value } }
                    )
                ).Is(204);
                await astrid.SayYesToGuardians();
                await hanne.SayYesToGuardians();
                break;
        }

        if (relation is "member" or "coordinator")
        {
            await astrid.SayYes(Own);
        }

        if (relation == "coordinator")
        {
            (await hanne.Put($"/api/groups/{Own}/members/{her}/coordinates", new { coordinates = true })).Is(204);
        }

        return relation == "name" ? Named : her;
    }

    private static async Task MakeGroup(Browser browser, Guid id, string name) =>
        (
            await browser.Put(
                $"/api/groups/{id}",
                new
                {
                    name,
                    sort = "club",
                    zone = "Europe/London",
                    firstDay = "monday",
                }
            )
        ).Is(200);

    private static async Task<Guid> MakeCalendar(Browser browser, Guid group, string name, Guid id)
    {
        (
            await browser.Put(
                $"/api/calendars/{id}",
                new
                {
                    groupId = group,
                    name,
                    hue = "moss",
                    mark = "disc",
                    zone = "Europe/London",
                    purpose = "events",
                    groupDefault = "view",
                }
            )
        ).Is(200);
        return id;
    }

    private static async Task<int> VersionOf(Browser hanne) =>
        (await hanne.Get($"/api/events/{Round}")).Is(200).Body.GetProperty("version").GetInt32();

    private static string Question(Guid group) =>
        $$$"""{"required":["{p}"],"optional":[],"places":[],"from":"2026-03-12","to":"2026-03-13","minutes":30,"hours":"preferred","group":"{{{group}}}"}""";

    private static string Filled(string text, Guid person)
    {
        (string Name, string Value)[] all =
        [
            ("p", person.ToString()),
            ("me", DemoPeople.Hanne.Id.Value.ToString()),
            ("own", Own.ToString()),
            ("class", Class.ToString()),
            ("helper", Helper.ToString()),
            ("rounds", Rounds.ToString()),
            ("round", Round.ToString()),
            ("talk", Talk.ToString()),
            ("new", Guid.CreateVersion7().ToString()),
            (
                "time",
                """{"form":"clock","start":"2026-03-12T14:00:00","end":"2026-03-12T15:30:00","zone":"Europe/London"}"""
            ),
        ];
        return all.Aggregate(
            text,
            (filled, one) => filled.Replace($"{{{one.Name}}}", one.Value, StringComparison.Ordinal)
        );
    }
}
