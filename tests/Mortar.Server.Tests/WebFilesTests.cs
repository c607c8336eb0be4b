using System.IO.Compression;
using System.Net;
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
}
