using System.Collections.Concurrent;
using System.Diagnostics;
using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Microsoft.AspNetCore.SignalR.Client;

namespace Mortar.Bench.AtWork;

/// <summary>One answer, and how long it took.</summary>
internal sealed record Told(string What, int Status, TimeSpan Took, JsonElement Body, string Text);

/// <summary>One person's browser; every answer it gets is noted.</summary>
internal sealed class Client : IAsyncDisposable
{
    private readonly HttpClientHandler handler = new() { CookieContainer = new CookieContainer() };
    private readonly HttpClient http;
    private readonly ConcurrentBag<Told> notes;
    private string token = string.Empty;
    private HubConnection? line;

    public Client(Uri url, ConcurrentBag<Told> notes)
    {
        http = new HttpClient(handler) { BaseAddress = url, Timeout = TimeSpan.FromMinutes(10) };
        this.notes = notes;
    }

    public Guid Me { get; private set; }

    /// <summary>Learns who one is and what changes are sent with.</summary>
    public async Task Session()
    {
        var session = (await Get("session")).Body;
        token = session.GetProperty("antiforgeryToken").GetString()!;
        if (session.GetProperty("person") is { ValueKind: JsonValueKind.Object } person)
        {
            Me = person.GetProperty("id").GetGuid();
        }
    }

    public Task<Told> Get(string path) => Send(HttpMethod.Get, path, null);

    public Task<Told> Post(string path, object? body = null, Guid? set = null, int? version = null) =>
        Send(HttpMethod.Post, path, body, set, version);

    public Task<Told> Put(string path, object body, Guid? set = null, int? version = null) =>
        Send(HttpMethod.Put, path, body, set, version);

    public Task<Told> Delete(string path) => Send(HttpMethod.Delete, path, null, version: 1);

    /// <summary>Opens the live line and does something whenever it says that the wall changed.</summary>
    public async Task Listen(Func<Task> changed)
    {
        line = new HubConnectionBuilder()
            .WithUrl(new Uri(http.BaseAddress!, "/live"), options => options.Cookies = handler.CookieContainer)
            .Build();
        line.On("calendarChanged", changed);
        await line.StartAsync();
    }

    public async ValueTask DisposeAsync()
    {
        if (line is not null)
        {
            await line.DisposeAsync();
        }

        http.Dispose();
        handler.Dispose();
    }

    private async Task<Told> Send(HttpMethod method, string path, object? body, Guid? set = null, int? version = null)
    {
        using var request = new HttpRequestMessage(method, new Uri($"/api/{path}", UriKind.Relative));
        request.Content = body switch
        {
            null => null,
            string file => new StringContent(file, Encoding.UTF8, new MediaTypeHeaderValue("text/calendar")),
            _ => JsonContent.Create(body),
        };
        if (method != HttpMethod.Get)
        {
            request.Headers.Add("X-Antiforgery", token);
        }

        if (set is { } named)
        {
            request.Headers.Add("X-Change-Set", named.ToString());
        }

        if (version is { } based)
        {
            request.Headers.TryAddWithoutValidation("If-Match", $"\"{based}\"");
        }

        var began = Stopwatch.GetTimestamp();
        using var response = await http.SendAsync(request);
        var text = await response.Content.ReadAsStringAsync();
        var told = new Told(
            $"{method} {path.Split('?')[0].Split('/')[0]}",
            (int)response.StatusCode,
            Stopwatch.GetElapsedTime(began),
            text.StartsWith('{') || text.StartsWith('[') ? JsonSerializer.Deserialize<JsonElement>(text) : default,
            text
        );
        notes.Add(told);
        return told;
    }
}
