using System.Text.Json;
using System.Text.RegularExpressions;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Mortar.Server.StandIns;
using Xunit;

namespace Mortar.Server.Tests.Features;

public partial class MemberTests
{
    private static readonly string Team = $"/api/groups/{World.StudioTeam}";

    /// <summary>Route, body, and what an outsider, a member and a coordinator of the group get.</summary>
    public static TheoryData<string, string, string?, int, int, int> Routes() =>
        new()
        {
            { "GET", "members", null, 404, 200, 200 },
            { "POST", "people", """{"text":"Otis"}""", 404, 403, 200 },
            {
                "PUT",
                "members",
                """{"people":[{"id":"3d8c2c6e-0000-4000-8000-000000000001","name":"Otis"}]}""",
                404,
                403,
                200
            },
            { "PUT", "members/{waiting}", """{"name":"Otis Clay","address":"otis@example.org"}""", 404, 403, 204 },
            { "PUT", "members/{tomasz}/coordinates", """{"coordinates":true}""", 404, 403, 204 },
            { "POST", "members/{waiting}/invite", null, 404, 403, 204 },
            { "DELETE", "members/{tomasz}", null, 404, 403, 204 },
        };

    [Theory]
    [MemberData(nameof(Routes))]
    public async Task Only_a_coordinator_keeps_the_members(
        string method,
        string route,
        string? body,
        int outsider,
        int member,
        int coordinator
    )
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        using var nobody = mortar.Anonymous();
        var waiting = await Add(ines, "Otis", "otis.clay@example.org");
        var path =
            $"{Team}/{route.Replace("{waiting}", waiting.ToString(), StringComparison.Ordinal).Replace("{tomasz}", DemoPeople.Tomasz.Id.Value.ToString(), StringComparison.Ordinal)}";
        var sent = body is null ? (object?)null : JsonDocument.Parse(body).RootElement;

        async Task<int> Status(Browser browser) =>
            (await browser.Send(new HttpMethod(method), path, sent, null, null)).Status;

        Assert.Equal(401, await Status(nobody));
        Assert.Equal((outsider, member, coordinator), (await Status(astrid), await Status(priya), await Status(ines)));
    }

    [Fact]
    public async Task A_pasted_list_says_who_is_new_known_in_already_doubtful_or_nobody()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);

        var read = (
            await ines.Post(
                $"{Team}/people",
                new
                {
                    text = "Bea Moss <bea@example.org>\nastrid@example.org\npriya@example.org\nOtis Clay\nkaja@exmaple.org\nbea@example.org\nx@y",
                }
            )
        )
            .Is(200)
            .Body.EnumerateArray()
            .Select(one =>
                $"{one.Text("name")}: {one.Text("fate")}{(one.Text("doubt") is { } doubt ? $" ({doubt})" : string.Empty)}"
            );

        Assert.Equal(
            [
                "Bea Moss: new",
                "Astrid: new", // her address is told to those who coordinate the Raku club, and not to Ines
                "Priya Raman: alreadyIn",
                "Otis Clay: new",
                "Kaja: new (Is “exmaple.org” right? Others have “example.org”.)",
                "Bea: again (This address stands in the list before. It is taken once.)",
                ": unreadable (“x@y” is not a mail address. It should look like name@example.org.)",
            ],
            read
        );
    }

    [Fact]
    public async Task Somebody_known_is_asked_and_in_with_their_yes_and_a_stranger_is_a_name_with_a_mail()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var astrid = await mortar.As(DemoPeople.Astrid);

        await Add(ines, "Whoever", null, DemoPeople.Astrid.Id.Value);
        Assert.DoesNotContain("Astrid Lindqvist, account", await Members(ines));
        await astrid.SayYes(World.StudioTeam);
        await Add(ines, "Bea Moss", "bea@example.org");
        await Add(ines, "Bea again", "bea@example.org");
        await Add(ines, "Otis Clay", null);

        Assert.Contains("Astrid Lindqvist, account", await Members(ines));
        Assert.Contains("Bea Moss, bea@example.org, invited", await Members(ines));
        Assert.Contains("Otis Clay", await Members(ines));
        Assert.DoesNotContain(await Members(ines), one => one.StartsWith("Bea again", StringComparison.Ordinal));
        Assert.Contains(
            "Astrid Lindqvist said yes and is in “Studio team” now.",
            (await ines.Get("/api/inbox")).Text,
            StringComparison.Ordinal
        );
        Assert.Contains("/join/", (await Mail(mortar, "bea@example.org")).Text, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Adding_does_not_tell_whether_a_stranger_has_an_account()
    {
        await using var mortar = await TestMortar.Start();
        using var mei = await mortar.As(DemoPeople.Mei);
        var group = Guid.NewGuid();
        (
            await mei.Put(
                $"/api/groups/{group}",
                new
                {
                    name = "Shop",
                    sort = "staff",
                    zone = "America/Halifax",
                    firstDay = "monday",
                }
            )
        ).Is(200);
        var people = new[]
        {
            new
            {
                id = Guid.NewGuid(),
                name = "A",
                address = "astrid@example.org",
            }, // has an account, unknown to Mei
            new
            {
                id = Guid.NewGuid(),
                name = "B",
                address = "nobody@example.org",
            },
        };

        (await mei.Put($"/api/groups/{group}/members", new { people })).Is(200);

        var rows = (await mei.Get($"/api/groups/{group}/members")).Is(200).Body.EnumerateArray().ToList();
        Assert.Equal(
            ["A, astrid@example.org, invited", "B, nobody@example.org, invited"],
            rows.Select(Words).Where(one => !one.StartsWith("Mei", StringComparison.Ordinal))
        );
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public async Task A_claimed_name_keeps_all_that_it_was_put_on_and_given(bool hasAccount)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var waiting = await Add(ines, "Astrid from the class", "astrid.l@example.org");
        var eventId = Guid.CreateVersion7();
        (
            await ines.Put(
                $"/api/events/{eventId}",
                new
                {
                    calendarId = calendar.Value,
                    title = "Glazing day",
                    time = World.Hours(),
                    showAs = "busy",
                    attendees = new[] { waiting },
                }
            )
        ).Is(200);
        (await ines.Put($"/api/calendars/{calendar.Value}/access/{waiting}", new { role = "edit" })).Is(204);
        var token = Token().Match((await Mail(mortar, "astrid.l@example.org")).Text).Groups["token"].Value;
        var ask = new { personIds = new[] { waiting } };
        (await ines.Send(HttpMethod.Post, $"/api/events/{eventId}/ask", ask, 1, null)).Is(204);
        var question = await mortar.Store(db => db.Mails.SingleAsync(one => one.Subject.Contains("whether you come")));
        var answering = $"/api/answering/{await mortar.SecretIn(question, "/answer/")}";
        using var anyone = mortar.Anonymous();
        (await anyone.Put(answering, new { answer = "accepted", comment = "With tiles" })).Is(204);

        using var browser = hasAccount ? await mortar.As(DemoPeople.Astrid) : mortar.Anonymous();
        var opened = (await browser.Get($"/api/joining/{token}")).Is(200).Body;
        (
            hasAccount
                ? await browser.Post($"/api/joining/{token}")
                : await browser.Post(
                    $"/api/joining/{token}/account",
                    new
                    {
                        name = "Astrid L",
                        password = "long enough to keep",
                        zone = "Europe/London",
                    }
                )
        ).Is(204);

        Assert.Equal(("Studio team", "Astrid from the class"), (opened.Text("groupName"), opened.Text("name")));
        var me = (await browser.Get("/api/session")).Body.GetProperty("person").Text("id");
        var brick = Assert.Single(await browser.Bricks(calendar));
        Assert.Equal(me, Assert.Single(brick.GetProperty("attendees").EnumerateArray()).GetString());
        Assert.True(brick.GetProperty("mayChange").GetBoolean());
        var answer = Assert.Single(
            (await ines.Get($"/api/events/{eventId}/answers")).Is(200).Body.GetProperty("people").EnumerateArray()
        );
        Assert.Equal(
            (me, "accepted", "With tiles"),
            (answer.Text("personId"), answer.Text("answer"), answer.Text("comment"))
        );
        (await anyone.Put(answering, new { answer = "declined" })).Is(204); // the mail leads to them now
        Assert.DoesNotContain(await Members(ines), one => one.StartsWith("Astrid from", StringComparison.Ordinal));
        (await browser.Post($"/api/joining/{token}")).IsProblem(404, "not-there"); // it opens once
    }

    [Fact]
    public async Task Somebody_of_another_group_of_ones_own_is_added_by_name_and_a_stranger_is_not()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var mei = await mortar.As(DemoPeople.Mei);
        var astrid = DemoPeople.Astrid.Id.Value; // in a class and a club with Ines, in no group with Mei

        Assert.Equal(1, (await Put(ines, Team)).Is(200).Body.GetProperty("asked").GetInt32());
        Assert.Equal(0, (await Put(ines, Team)).Is(200).Body.GetProperty("asked").GetInt32());
        using var herself = await mortar.As(DemoPeople.Astrid);
        await herself.SayYes(World.StudioTeam);
        Assert.Contains(await Members(ines), one => one.StartsWith("Astrid Lindqvist", StringComparison.Ordinal));
        Assert.Equal(0, (await Put(ines, Team)).Is(200).Body.GetProperty("asked").GetInt32());

        var own = $"/api/groups/{Guid.CreateVersion7()}";
        var hanne = DemoPeople.Hanne.Id.Value;
        (
            await mei.Put(
                own,
                new
                {
                    name = "Parcels",
                    sort = "club",
                    zone = "America/Halifax",
                    firstDay = "monday",
                }
            )
        ).Is(200);
        (await ines.Delete($"{Team}/members/{astrid}")).Is(204);
        var stranger = (await Put(mei, own)).Is(200).Text;
        Assert.Equal("""{"added":0,"asked":0,"saidNo":0}""", stranger); // her id is taken, and tells nothing more
        var known = new { people = new[] { new { id = hanne, name = "Hanne" } } };
        Assert.Equal(1, (await mei.Put($"{own}/members", known)).Is(200).Body.GetProperty("asked").GetInt32());

        Task<Answer> Put(Browser browser, string group) =>
            browser.Put($"{group}/members", new { people = new[] { new { id = astrid, name = "Astrid" } } });
    }

    [Fact]
    public async Task A_corrected_address_gets_the_mail_and_the_old_link_leads_nowhere()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var anyone = mortar.Anonymous();
        var waiting = await Add(ines, "Bea", "bea@exmaple.org");
        var wrong = Token().Match((await Mail(mortar, "bea@exmaple.org")).Text).Groups["token"].Value;

        (await ines.Put($"{Team}/members/{waiting}", new { name = "Bea Moss", address = "bea@example.org" })).Is(204);

        var right = Token().Match((await Mail(mortar, "bea@example.org")).Text).Groups["token"].Value;
        Assert.Contains("Bea Moss, bea@example.org, invited", await Members(ines));
        (await anyone.Get($"/api/joining/{wrong}")).IsProblem(404, "not-there");
        (await anyone.Get($"/api/joining/{right}")).Is(200);
        Assert.Equal(32, right.Length); // 128 bits
        Assert.False(
            await mortar.Store(db => db.Members.AnyAsync(member => member.ClaimHash == right)),
            "The secret is not stored as it is."
        );
    }

    [Fact]
    public async Task A_group_keeps_a_coordinator_with_an_account()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var me = DemoPeople.Ines.Id.Value;
        var waiting = await Add(ines, "Otis", null);

        (await ines.Put($"{Team}/members/{me}/coordinates", new { coordinates = false })).IsProblem(
            409,
            "last-coordinator"
        );
        (await ines.Delete($"{Team}/members/{me}")).IsProblem(409, "last-coordinator");
        (await ines.Put($"{Team}/members/{waiting}/coordinates", new { coordinates = true })).IsProblem(
            409,
            "no-account"
        );
        (await ines.Put($"{Team}/members/{DemoPeople.Priya.Id.Value}/coordinates", new { coordinates = true })).Is(204);
        // She alone coordinates the studio's calendars, too.
        (await ines.Delete($"{Team}/members/{me}")).IsProblem(409, "coordinates-alone");
        (await ines.Delete($"{Team}/members/{me}?handOnTo={DemoPeople.Priya.Id.Value}")).Is(204);

        (await ines.Get($"{Team}/members")).IsProblem(404, "not-there");
    }

    [Fact]
    public async Task Taken_out_one_loses_what_members_have_and_one_undo_brings_it_back()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var mei = await mortar.As(DemoPeople.Mei);
        var id = Guid.CreateVersion7();
        (await ines.Put($"/api/calendars/{id}", World.Calendar(groupDefault: "view"))).Is(200);
        var (calendar, set) = (new CalendarId(id), Guid.NewGuid());
        Assert.True(await mei.HasLayer(calendar));

        (await ines.Send(HttpMethod.Delete, $"{Team}/members/{DemoPeople.Mei.Id.Value}", null, null, set)).Is(204);
        Assert.False(await mei.HasLayer(calendar));
        (await ines.Post($"/api/changes/{set}/undo")).Is(200);

        Assert.True(await mei.HasLayer(calendar));
    }

    private static async Task<Guid> Add(Browser browser, string name, string? address, Guid? known = null)
    {
        var id = known ?? Guid.NewGuid();
        (
            await browser.Put(
                $"{Team}/members",
                new
                {
                    people = new[]
                    {
                        new
                        {
                            id,
                            name,
                            address,
                        },
                    },
                }
            )
        ).Is(200);
        return id;
    }

    private static async Task<List<string>> Members(Browser browser) =>
        [.. (await browser.Get($"{Team}/members")).Is(200).Body.EnumerateArray().Select(Words)];

    private static string Words(JsonElement member) =>
        string.Join(
            ", ",
            new[]
            {
                member.Text("name"),
                member.GetProperty("hasAccount").GetBoolean() ? "account" : member.Text("address"),
                member.GetProperty("invitedAt").ValueKind == JsonValueKind.Null ? null : "invited",
            }.OfType<string>()
        );

    private static Task<ArrivedMail> Mail(TestMortar mortar, string to)
    {
        var postRoom = mortar.Services.GetRequiredService<PostRoom>();
        return World.Eventually(() => Task.FromResult(postRoom.Arrived.FirstOrDefault(mail => mail.To == to)));
    }

    [GeneratedRegex("/join/(?<token>[0-9a-f]+)", RegexOptions.ExplicitCapture, matchTimeoutMilliseconds: 1_000)]
    private static partial Regex Token();
}
