using System.Text.Json.Nodes;
using Microsoft.Extensions.DependencyInjection;
using Mortar.Server.Features.Accounts;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests;

public class SetupTests
{
    [Fact]
    public async Task The_webs_types_are_made_of_the_document_that_is_served()
    {
        await using var mortar = await TestMortar.Start();
        using var anybody = mortar.Anonymous();

        var served = JsonNode.Parse((await anybody.Get("/openapi/v1.json")).Is(200).Text);

        var kept = JsonNode.Parse(
            await File.ReadAllTextAsync(
                Path.Combine(AppContext.BaseDirectory, "openapi.json"),
                TestContext.Current.CancellationToken
            )
        );
        Assert.True(JsonNode.DeepEquals(served, kept), "The API has changed: run ./mortar types.");
    }

    [Fact]
    public async Task Browsers_are_told_what_to_refuse()
    {
        await using var mortar = await TestMortar.Start();
        using var anybody = mortar.Anonymous();

        var headers = (await anybody.Get("/api/session")).Is(200).Headers;

        var policy = Assert.Single(headers.GetValues("Content-Security-Policy"));
        Assert.Contains("script-src 'self';", policy, StringComparison.Ordinal);
        Assert.Contains("frame-ancestors 'none'", policy, StringComparison.Ordinal);
        Assert.Equal("nosniff", Assert.Single(headers.GetValues("X-Content-Type-Options")));
    }

    [Fact]
    public async Task It_says_that_it_is_well()
    {
        await using var mortar = await TestMortar.Start();
        using var anybody = mortar.Anonymous();

        var health = (await anybody.Get("/health")).Is(200).Body;

        Assert.Equal("healthy", health.Text("status"));
        Assert.Equal(
            ["store", "disk", "writing", "mail", "backup"],
            health.GetProperty("checks").EnumerateObject().Select(check => check.Name)
        );
    }

    [Fact]
    public async Task No_change_is_made_without_the_antiforgery_token()
    {
        await using var mortar = await TestMortar.Start();
        using var careless = new Browser(mortar.Url) { Careless = true };

        (await careless.Post($"/api/demo/session/{DemoPeople.Ines.Id.Value}")).IsProblem(400, "antiforgery");
        (
            await careless.Post("/api/session", new { address = "ines@example.org", password = DemoPeople.Password })
        ).IsProblem(400, "antiforgery");
    }

    [Fact]
    public async Task Guessing_is_slowed_down()
    {
        await using var mortar = await TestMortar.Start("SignInsPerMinute=3");
        using var guesser = mortar.Anonymous();
        var guess = new { address = "ines@example.org", password = "a guess" };
        for (var i = 0; i < 3; i++)
        {
            (await guesser.Post("/api/session", guess)).IsProblem(401, "wrong-sign-in");
        }

        (await guesser.Post("/api/session", guess)).IsProblem(429, "too-often");
    }

    [Fact]
    public async Task An_address_without_an_account_is_answered_like_a_wrong_password()
    {
        await using var mortar = await TestMortar.Start();
        using var guesser = mortar.Anonymous();

        var known = await guesser.Post("/api/session", new { address = "ines@example.org", password = "a guess" });
        var unknown = await guesser.Post("/api/session", new { address = "nobody@example.org", password = "a guess" });

        Assert.Equal((known.Status, known.Detail), (unknown.Status, unknown.Detail));
    }

    [Fact]
    public async Task For_real_use_there_are_no_demo_people_no_post_room_and_one_first_account()
    {
        await using var mortar = await TestMortar.StartEmpty();
        using var first = mortar.Anonymous();
        var code = mortar.Services.GetRequiredService<FirstAccountCode>().Value;
        object Account(string given) =>
            new
            {
                code = given,
                name = "Ada Moor",
                address = "ada@example.org",
                password = "a long password",
                zone = "Europe/London",
            };

        Assert.True((await first.Get("/api/session")).Body.GetProperty("needsFirstAccount").GetBoolean());
        (await first.Get("/api/demo/people")).IsProblem(404, "not-there");
        (await first.Post($"/api/demo/session/{DemoPeople.Ines.Id.Value}")).IsProblem(404, "not-there");
        (await first.Get("/api/post-room")).IsProblem(404, "not-there");
        (await first.Post("/api/first-account", Account("WRONG"))).IsProblem(422, "unfit");
        (await first.Post("/api/first-account", Account(code.ToLowerInvariant()))).Is(204);
        Assert.Equal("Ada Moor", (await first.Get("/api/session")).Body.GetProperty("person").Text("name"));
        (await mortar.Anonymous().Post("/api/first-account", Account(code))).IsProblem(404, "not-there");

        var group = Guid.NewGuid();
        (
            await first.Put(
                $"/api/groups/{group}",
                new
                {
                    name = "Choir",
                    sort = "club",
                    zone = "Europe/London",
                    firstDay = "monday",
                }
            )
        ).Is(200);
        Assert.Equal("Choir", Assert.Single((await first.Get("/api/groups")).Body.EnumerateArray()).Text("name"));
    }

    [Fact]
    public async Task Somebody_signed_in_stays_so_after_a_restart()
    {
        var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var cookies = ines.Cookies.GetCookieHeader(mortar.Url);

        await using var again = await mortar.Restart();
        using var client = new HttpClient();
        client.DefaultRequestHeaders.Add("Cookie", cookies);

        Assert.Contains(
            "Ines Varga",
            await client.GetStringAsync(new Uri(again.Url, "/api/session"), TestContext.Current.CancellationToken),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void A_wrong_setting_stops_the_start() =>
        Assert.ThrowsAny<Exception>(() =>
            Hosting
                .MortarHost.Build(["--Mortar:Data=/tmp", "--Mortar:Today=tomorrow"])
                .Services.GetRequiredService<Hosting.MortarOptions>()
        );

    [Fact]
    public async Task Members_are_told_to_members_and_their_addresses_to_coordinators()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        using var astrid = await mortar.As(DemoPeople.Astrid);
        var path = $"/api/groups/{World.StudioTeam}/members";

        Assert.Contains("tomasz@example.org", (await ines.Get(path)).Is(200).Text, StringComparison.Ordinal);
        Assert.DoesNotContain("@example.org", (await priya.Get(path)).Is(200).Text, StringComparison.Ordinal);
        (await astrid.Get(path)).IsProblem(404, "not-there");
    }
}
