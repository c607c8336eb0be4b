using System.Net;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json;
using Mortar.Server.Hosting;
using Xunit;

namespace Mortar.Server.Tests;

/// <summary>What the API answered.</summary>
internal sealed record Answer(int Status, string Text, HttpResponseHeaders Headers)
{
    public JsonElement Body => JsonDocument.Parse(Text).RootElement;

    public string Detail => Body.GetProperty("detail").GetString()!;

    public string Type =>
        Body.GetProperty("type").GetString()!.Replace("urn:mortar:", string.Empty, StringComparison.Ordinal);

    public Answer Is(int status)
    {
        Assert.True(status == Status, $"{Status} instead of {status}: {Text}");
        return this;
    }

    public Answer IsProblem(int status, string type)
    {
        Is(status);
        Assert.Equal(type, Type);
        Assert.NotEmpty(Detail);
        return this;
    }
}

/// <summary>A file of a type, to be sent as it is.</summary>
internal sealed record FileOf(string Type, byte[] Bytes);

/// <summary>One browser: its cookies, and the antiforgery token with every change as the web sends it.</summary>
internal sealed class Browser : IDisposable
{
    private readonly SocketsHttpHandler handler = new()
    {
        CookieContainer = new CookieContainer(),
        AllowAutoRedirect = false,
        Expect100ContinueTimeout = TimeSpan.FromMinutes(1),
    };
    private readonly HttpClient client;
    private string? token;

    public Browser(Uri url) => client = new HttpClient(handler) { BaseAddress = url };

    public CookieContainer Cookies => handler.CookieContainer;

    /// <summary>Leaves the antiforgery token out.</summary>
    public bool Careless { get; init; }

    public Task<Answer> Get(string path) => Send(HttpMethod.Get, path, null, null, null);

    /// <summary>Gets a file, as its bytes.</summary>
    public async Task<byte[]> GetBytes(string path)
    {
        using var response = await client.GetAsync(new Uri(path, UriKind.Relative));
        Assert.True(response.IsSuccessStatusCode, $"{(int)response.StatusCode}: {path}");
        return await response.Content.ReadAsByteArrayAsync();
    }

    /// <summary>An answer as it comes over the line, for who takes these encodings.</summary>
    public Task<HttpResponseMessage> Raw(string path, string takes)
    {
        var request = new HttpRequestMessage(HttpMethod.Get, path);
        request.Headers.TryAddWithoutValidation("Accept-Encoding", takes);
        return client.SendAsync(request, TestContext.Current.CancellationToken);
    }

    /// <summary>Gets something only where it is other than what is known.</summary>
    public async Task<Answer> Get(string path, string ifNoneMatch)
    {
        using var request = new HttpRequestMessage(HttpMethod.Get, path);
        request.Headers.TryAddWithoutValidation("If-None-Match", ifNoneMatch);
        using var response = await client.SendAsync(request);
        return new Answer((int)response.StatusCode, await response.Content.ReadAsStringAsync(), response.Headers);
    }

    public Task<Answer> Post(string path, object? body = null, Guid? set = null) =>
        Send(HttpMethod.Post, path, body, null, set);

    public Task<Answer> Put(string path, object? body, int? version = null, Guid? set = null) =>
        Send(HttpMethod.Put, path, body, version, set);

    public Task<Answer> Delete(string path, int? version = null, Guid? set = null) =>
        Send(HttpMethod.Delete, path, null, version, set);

    public async Task<Answer> Send(HttpMethod method, string path, object? body, int? version, Guid? set)
    {
        var held = token;
        var answer = await SendOnce(method, path, body, version, set);
        if (held is null || !IsOfBefore(answer))
        {
            return answer;
        }

        // Somebody else has signed in since the token was told, as after a page's reload.
        token = null;
        return await SendOnce(method, path, body, version, set);
    }

    private static bool IsOfBefore(Answer answer) =>
        answer.Status == 400 && answer.Text.Contains("antiforgery", StringComparison.Ordinal);

    private async Task<Answer> SendOnce(HttpMethod method, string path, object? body, int? version, Guid? set)
    {
        using var request = new HttpRequestMessage(method, path);
        if (body is byte[] file)
        {
            request.Content = new ByteArrayContent(file)
            {
                Headers = { ContentType = new MediaTypeHeaderValue("text/calendar") },
            };
        }
        else if (body is FileOf(var type, var bytes))
        {
            request.Content = new ByteArrayContent(bytes)
            {
                Headers = { ContentType = new MediaTypeHeaderValue(type) },
            };
        }
        else if (body is string text)
        {
            request.Content = new StringContent(text, Encoding.UTF8, "application/json");
        }
        else if (body is not null)
        {
            request.Content = new StringContent(
                JsonSerializer.Serialize(body, JsonSerializerOptions.Web),
                Encoding.UTF8,
                "application/json"
            );
        }

        // What may be refused for its size waits to be asked for: who is refused while still sending finds the line cut
        // and, as it happens, the answer or not.
        request.Headers.ExpectContinue = request.Content?.Headers.ContentLength > BodySizes.Largest;
        if (version is { } based)
        {
            request.Headers.TryAddWithoutValidation("If-Match", $"\"{based}\"");
        }

        if (set is { } named)
        {
            request.Headers.Add("X-Change-Set", named.ToString());
        }

        if (method != HttpMethod.Get && !Careless)
        {
            token ??= await Token();
            request.Headers.Add("X-Antiforgery", token);
        }

        using var response = await client.SendAsync(request);
        return new Answer((int)response.StatusCode, await response.Content.ReadAsStringAsync(), response.Headers);
    }

    private async Task<string> Token()
    {
        using var session = JsonDocument.Parse(await client.GetStringAsync("/api/session"));
        return session.RootElement.GetProperty("antiforgeryToken").GetString()!;
    }

    public void Dispose()
    {
        client.Dispose();
        handler.Dispose();
    }
}
