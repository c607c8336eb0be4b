using System.IO.Compression;
using System.Net;
using System.Text.Json;
using System.Text.RegularExpressions;
using Mortar.Server.Features.Demo;
using Mortar.Server.Hosting;
using Xunit;

namespace Mortar.Server.Tests;

/// <summary>The web application's files are served compressed to whoever takes it, and plainly to everybody else.</summary>
public sealed class WebFilesTests : IDisposable
{
    private const string Script = "console.log('mortar')";

    private readonly string web = Directory.CreateTempSubdirectory("mortar-web-").FullName;

    public WebFilesTests()
    {
        File.WriteAllText(Path.Combine(web, "index.html"), "<!doctype html>");
        Directory.CreateDirectory(Path.Combine(web, "assets"));
        File.WriteAllText(Path.Combine(web, "assets", "app.js"), Script);
        File.WriteAllText(Path.Combine(web, "assets", "plain.js"), Script);
        using var file = File.Create(Path.Combine(web, "assets", "app.js.br"));
        using var brotli = new BrotliStream(file, CompressionMode.Compress);
        brotli.Write("console.log('mortar')"u8);
    }

    public void Dispose() => Directory.Delete(web, recursive: true);

    [Theory]
    [InlineData("/assets/app.js", "gzip, deflate, br, zstd", true)]
    [InlineData("/assets/app.js", "gzip", false)]
    [InlineData("/assets/app.js", "br;q=0, gzip", false)]
    [InlineData("/assets/app.js", null, false)]
    [InlineData("/assets/plain.js", "br", false)] // nothing lies beside it
    public async Task A_script_comes_as_it_is_taken_and_is_the_same(string path, string? takes, bool compressed)
    {
        await using var mortar = await TestMortar.Start($"Web={web}");
        using var http = new HttpClient(new HttpClientHandler { AutomaticDecompression = DecompressionMethods.None })
        {
            BaseAddress = mortar.Url,
        };
        using var request = new HttpRequestMessage(HttpMethod.Get, path);
        if (takes is not null)
        {
            request.Headers.TryAddWithoutValidation("Accept-Encoding", takes);
        }

        using var answer = await http.SendAsync(request, TestContext.Current.CancellationToken);
        await using var body = await answer.Content.ReadAsStreamAsync(TestContext.Current.CancellationToken);
        await using var plain = compressed ? new BrotliStream(body, CompressionMode.Decompress) : body;
        using var text = new StreamReader(plain);

        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        Assert.Equal(Script, await text.ReadToEndAsync(TestContext.Current.CancellationToken));
        Assert.Equal(compressed ? ["br"] : [], answer.Content.Headers.ContentEncoding);
        Assert.Equal("text/javascript", answer.Content.Headers.ContentType?.MediaType);
        Assert.Equal(["Accept-Encoding"], answer.Headers.Vary);
        Assert.Contains("immutable", answer.Headers.CacheControl?.ToString(), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("/", HttpStatusCode.OK)]
    [InlineData("/week/2026-03-11", HttpStatusCode.OK)]
    [InlineData("/link/whatever", HttpStatusCode.OK)]
    [InlineData("/nowhere", HttpStatusCode.NotFound)]
    [InlineData("/weeks", HttpStatusCode.NotFound)]
    [InlineData("/wp-login", HttpStatusCode.NotFound)]
    public async Task A_path_without_a_page_is_not_found_and_the_page_leads_on(string path, HttpStatusCode status)
    {
        await using var mortar = await TestMortar.Start($"Web={web}");
        using var http = new HttpClient { BaseAddress = mortar.Url };
        using var answer = await http.GetAsync(path, TestContext.Current.CancellationToken);

        Assert.Equal(status, answer.StatusCode);
        Assert.Equal("text/html", answer.Content.Headers.ContentType?.MediaType);
        Assert.Equal("<!doctype html>", await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
    }

    /// <summary>The web's own tables of paths are the ones the server knows.</summary>
    [Fact]
    public void Every_page_of_the_web_has_a_path_here()
    {
        var app = Path.Combine(Repository.Root, "web/src/app");
        var text =
            File.ReadAllText(Path.Combine(app, "App.tsx")) + File.ReadAllText(Path.Combine(app, "SignedInApp.tsx"));
        var views = File.ReadAllText(Path.Combine(Repository.Root, "web/src/model/views.ts"));
        var first = Regex
            .Matches(text, """['"]/(?<first>[a-z-]+)[/'"]""", RegexOptions.ExplicitCapture, TimeSpan.FromSeconds(1))
            .Concat(
                Regex.Matches(views, "value: '(?<first>[a-z]+)'", RegexOptions.ExplicitCapture, TimeSpan.FromSeconds(1))
            )
            .Select(match => match.Groups["first"].Value)
            .ToHashSet(StringComparer.Ordinal);

        Assert.Equal(
            [string.Empty, .. first.Order(StringComparer.Ordinal)],
            WebPages.First.Order(StringComparer.Ordinal)
        );
    }

    /// <summary>What is long and of a wall is compressed, by a length that differs from time to time; what holds a secret never is.</summary>
    [Fact]
    public async Task A_wall_is_compressed_and_a_session_is_not()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var plain = await ines.Get("/api/wall?from=2026-03-09&to=2026-03-15");
        var padding = new HashSet<int>();
        for (var time = 0; time < 8; time++)
        {
            using var wall = await ines.Raw("/api/wall?from=2026-03-09&to=2026-03-15", "br, gzip");
            Assert.Equal(["br"], wall.Content.Headers.ContentEncoding);
            Assert.Contains("Accept-Encoding", wall.Headers.Vary);
            padding.Add(wall.Headers.GetValues("X-Padding").Single().Length);
            await using var body = new BrotliStream(
                await wall.Content.ReadAsStreamAsync(TestContext.Current.CancellationToken),
                CompressionMode.Decompress
            );
            using var text = new StreamReader(body);
            Assert.Equal(
                plain.Is(200).Body.GetProperty("bricks").GetArrayLength(),
                JsonDocument
                    .Parse(await text.ReadToEndAsync(TestContext.Current.CancellationToken))
                    .RootElement.GetProperty("bricks")
                    .GetArrayLength()
            );
        }

        Assert.True(padding.Count > 2);
        foreach (var path in new[] { "/api/session", "/api/passkeys", "/api/inbox", "/api/preferences", "/api/bin" })
        {
            using var other = await ines.Raw(path, "br, gzip");
            Assert.Empty(other.Content.Headers.ContentEncoding);
        }
    }
}
