using System.Net;
using System.Net.Http.Json;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Mortar.Server.Features.Accounts;
using Mortar.Server.Features.Demo;
using Mortar.Server.Hosting;
using NodaTime;
using Xunit;

namespace Mortar.Server.Tests;

/// <summary>How it stands before the internet.</summary>
public class InFrontTests
{
    [Fact]
    public async Task Behind_https_cookies_go_no_other_way_and_browsers_are_told_never_to_try()
    {
        await using var mortar = await TestMortar.Start("PublicUrl=https://mortar.example.org");
        using var handler = new HttpClientHandler { UseCookies = false };
        using var client = new HttpClient(handler) { BaseAddress = mortar.Url };
        client.DefaultRequestHeaders.Host = "mortar.example.org"; // as the web server in front passes it on

        using var answer = await client.GetAsync("/api/session", TestContext.Current.CancellationToken);

        var cookies = answer.Headers.GetValues("Set-Cookie").ToList();
        Assert.All(cookies, cookie => Assert.StartsWith("__Host-mortar", cookie, StringComparison.Ordinal));
        Assert.All(cookies, cookie => Assert.Contains("secure", cookie, StringComparison.Ordinal));
        Assert.All(cookies, cookie => Assert.Contains("path=/;", cookie, StringComparison.Ordinal));
        Assert.Contains("max-age=31536000", string.Concat(answer.Headers.GetValues("Strict-Transport-Security")));
        var session = await answer.Content.ReadFromJsonAsync<System.Text.Json.JsonElement>(
            TestContext.Current.CancellationToken
        );
        using var request = new HttpRequestMessage(HttpMethod.Post, $"/api/demo/session/{DemoPeople.Ines.Id.Value}");
        request.Headers.Add("X-Antiforgery", session.GetProperty("antiforgeryToken").GetString());
        request.Headers.Add("Cookie", cookies.Select(cookie => cookie.Split(';')[0]));
        using var signedIn = await client.SendAsync(request, TestContext.Current.CancellationToken);
        Assert.Equal(HttpStatusCode.NoContent, signedIn.StatusCode);
        var own = signedIn
            .Headers.GetValues("Set-Cookie")
            .Single(one => one.StartsWith("__Host-mortar=", StringComparison.Ordinal));
        Assert.Contains("secure; samesite=lax; httponly", own, StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_is_for_one_person_is_kept_by_nobody_between_and_the_server_does_not_say_what_it_is()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var client = new HttpClient { BaseAddress = mortar.Url };
        client.DefaultRequestHeaders.Add("Cookie", ines.Cookies.GetCookieHeader(mortar.Url));

        foreach (var path in new[] { "/api/groups", "/api/wall?from=2026-03-09&to=2026-03-15", "/api/events/none" })
        {
            using var answer = await client.GetAsync(path, TestContext.Current.CancellationToken);
            Assert.True(answer.Headers.CacheControl?.NoStore, path);
            Assert.False(answer.Headers.Contains("Server"), path);
        }
    }

    [Fact]
    public async Task The_live_line_is_opened_by_ones_own_pages_only()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);

        await using (var own = Line(mortar.Url.GetLeftPart(UriPartial.Authority)))
        {
            await own.StartAsync(TestContext.Current.CancellationToken);
        }

        await using var foreign = Line("https://evil.example.org");
        var refused = await Assert.ThrowsAsync<HttpRequestException>(() =>
            foreign.StartAsync(TestContext.Current.CancellationToken)
        );
        Assert.Equal(HttpStatusCode.Forbidden, refused.StatusCode);

        HubConnection Line(string origin) =>
            new HubConnectionBuilder()
                .WithUrl(
                    new Uri(mortar.Url, "/live"),
                    options =>
                    {
                        options.Cookies = ines.Cookies;
                        options.Headers.Add("Origin", origin);
                    }
                )
                .Build();
    }

    [Theory]
    [InlineData("", false)] // nobody is believed
    [InlineData("10.0.0.0/8, 127.0.0.1", true)]
    [InlineData("10.0.0.0/8", false)] // this one is not named
    public async Task Where_a_request_comes_from_is_believed_of_named_web_servers_alone(string proxies, bool believed)
    {
        await using var mortar = await TestMortar.Start($"Proxies={proxies}", "ReadsPerMinute=1");
        async Task<int> Try(string from)
        {
            using var client = new HttpClient { BaseAddress = mortar.Url };
            client.DefaultRequestHeaders.Add("X-Forwarded-For", from);
            using var answer = await client.GetAsync("/api/joining/none", TestContext.Current.CancellationToken);
            return (int)answer.StatusCode;
        }

        Assert.Equal(404, await Try("203.0.113.1"));
        Assert.Equal(believed ? 404 : 429, await Try("203.0.113.2"));
        Assert.Equal(429, await Try("203.0.113.1"));
    }

    [Fact]
    public async Task Guessing_is_slowed_down_alike_with_and_without_an_account_and_a_known_device_goes_on()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var guesser = mortar.Anonymous();
        using var known = mortar.Anonymous();
        const string there = "ines@example.org";
        Task<Answer> SignIn(Browser browser, string address, string password) =>
            browser.Post("/api/session", new { address, password });
        (await SignIn(known, there, DemoPeople.Password)).Is(204);

        foreach (var address in new[] { there, "nobody@example.org" })
        {
            for (var i = 0; i < SignInBrake.FreeFromOne; i++)
            {
                (await SignIn(guesser, address, "wrong password")).IsProblem(401, "wrong-sign-in");
            }

            var slowed = (await SignIn(guesser, address, "wrong password")).IsProblem(429, "too-often");
            Assert.Equal(
                "Too many wrong passwords for this address from here. Wait 2 seconds and try again.",
                slowed.Detail
            );
            Assert.Equal(TimeSpan.FromSeconds(2), slowed.Headers.RetryAfter?.Delta);
        }

        (await SignIn(guesser, there, DemoPeople.Password)).IsProblem(429, "too-often"); // right or wrong
        (await known.Delete("/api/session")).Is(204);
        (await SignIn(known, there, DemoPeople.Password)).Is(204); // her own device, on the same network
        clock.Now += Duration.FromSeconds(2);
        (await SignIn(guesser, there, DemoPeople.Password)).Is(204); // nobody is locked out
    }

    [Theory]
    [InlineData("1234567890", true)]
    [InlineData("Password123!", true)]
    [InlineData("qwertyuiop", true)]
    [InlineData("aaaaaaaaaaaa", true)]
    [InlineData("wren.clay2026", true)] // what stands before the @
    [InlineData("wren.clay@example.org", true)]
    [InlineData("20260311202603", true)]
    [InlineData("1q2w3e4r5t", true)]
    [InlineData("zaq12wsx99", true)]
    [InlineData("sunflower2026", true)] // a word of the list with a year behind it
    [InlineData("p@55w0rd2026", true)]
    [InlineData("Kiln-2026-03", true)]
    [InlineData("long enough to keep", false)]
    [InlineData("passwords are for keeping", false)]
    [InlineData("glaze-kiln-tile-cone", false)]
    public void A_password_that_everybody_knows_is_none(string password, bool known) =>
        Assert.Equal(known, KnownPasswords.IsKnown(password.ToLowerInvariant(), "wren.clay@example.org"));

    [Fact]
    public async Task Of_eight_who_have_the_first_code_at_once_one_makes_the_account()
    {
        await using var mortar = await TestMortar.StartEmpty();
        var code = mortar.Services.GetRequiredService<FirstAccountCode>().Value;
        var browsers = Enumerable.Range(0, 8).Select(_ => mortar.Anonymous()).ToList();

        var answers = await Task.WhenAll(
            browsers.Select(
                (browser, i) =>
                    browser.Post(
                        "/api/first-account",
                        new
                        {
                            code,
                            name = $"First {i}",
                            address = $"first{i}@example.org",
                            password = "long enough to keep",
                            zone = "Europe/London",
                        }
                    )
            )
        );

        Assert.Equal(1, answers.Count(answer => answer.Status == 204));
        Assert.Equal(7, answers.Count(answer => answer.Status == 404));
        Assert.Equal(1, await mortar.Store(db => db.Users.CountAsync()));
        browsers.ForEach(browser => browser.Dispose());
    }

    [Fact]
    [System.Runtime.Versioning.UnsupportedOSPlatform("windows")]
    public async Task The_data_is_its_owners_alone()
    {
        await using var mortar = await TestMortar.StartEmpty();
        using var anyone = mortar.Anonymous();
        (await anyone.Get("/api/session")).Is(200);
        const UnixFileMode others =
            UnixFileMode.GroupRead
            | UnixFileMode.GroupWrite
            | UnixFileMode.GroupExecute
            | UnixFileMode.OtherRead
            | UnixFileMode.OtherWrite
            | UnixFileMode.OtherExecute;

        var all = Directory
            .EnumerateFileSystemEntries(mortar.Data, "*", SearchOption.AllDirectories)
            .Append(mortar.Data)
            .Where(path => (File.GetUnixFileMode(path) & others) != UnixFileMode.None);

        Assert.Empty(all);
    }

    [Fact]
    [System.Runtime.Versioning.UnsupportedOSPlatform("windows")]
    public async Task What_else_lies_in_its_folder_is_not_touched()
    {
        var folder = Directory.CreateTempSubdirectory("mortar-test-").FullName;
        var (other, inside) = (
            Path.Combine(folder, "other.txt"),
            Directory.CreateDirectory(Path.Combine(folder, "other")).FullName
        );
        await File.WriteAllTextAsync(other, "not Mortar's", TestContext.Current.CancellationToken);
        const UnixFileMode open =
            UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute | UnixFileMode.OtherRead;
        foreach (var path in new[] { folder, other, inside })
        {
            File.SetUnixFileMode(path, open);
        }

        await using var mortar = await TestMortar.StartOn(folder, demo: false);

        Assert.All(new[] { folder, other, inside }, path => Assert.Equal(open, File.GetUnixFileMode(path)));
        Assert.Equal(
            UnixFileMode.UserRead | UnixFileMode.UserWrite,
            File.GetUnixFileMode(Path.Combine(folder, "mortar.db"))
        );
    }

    [Fact]
    public async Task A_body_without_bounds_is_not_read()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var people = Enumerable.Range(0, 40_000).Select(_ => Guid.NewGuid()).ToArray();
        var group = (await ines.Get("/api/groups"))
            .Body.EnumerateArray()
            .Single(one => one.GetProperty("id").GetGuid() == World.StudioTeam);
        object Settings(IEnumerable<Guid> of) =>
            new
            {
                name = "Studio team",
                sort = "staff",
                zone = "Europe/London",
                firstDay = "monday",
                cover = new[]
                {
                    new
                    {
                        name = "Everybody",
                        people = of,
                        days = new[] { 1, 1, 1, 1, 1, 1, 1 },
                    },
                },
            };
        var version = group.GetProperty("version").GetInt32();

        (await ines.Put($"/api/groups/{World.StudioTeam}", Settings(people), version)).Is(413);
        (await ines.Put($"/api/groups/{World.StudioTeam}", Settings(people.Take(501)), version)).IsProblem(
            422,
            "unfit"
        );
        Assert.True(BodySizes.Largest < people.Length * 37L);
    }
}
