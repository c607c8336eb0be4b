using System.Collections.Concurrent;
using System.Diagnostics;
using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Net.Sockets;
using System.Text;
using System.Text.Json;
using Microsoft.AspNetCore.Http.Connections;
using Microsoft.AspNetCore.SignalR.Client;

namespace Mortar.Bench.AtWork;

/// <summary>One answer, how long it took and how many bytes it has.</summary>
internal sealed record Told(string What, int Status, TimeSpan Took, JsonElement Body, string Text, int Length);

/// <summary>One person's browser; every answer it gets is noted.</summary>
internal sealed class Client : IAsyncDisposable
{
    private readonly SocketsHttpHandler handler = new() { CookieContainer = new CookieContainer() };
    private readonly HttpClient http;
    private readonly ConcurrentBag<Told> notes;
    private string token = string.Empty;
    private HubConnection? line;

    /// <param name="url">The Mortar.</param>
    /// <param name="notes">Where every answer is noted.</param>
    /// <param name="from">The address of the network to come from; the machine's own choice where it is <c>null</c>.</param>
    public Client(Uri url, ConcurrentBag<Told> notes, IPAddress? from = null)
    {
        if (from is not null)
        {
            handler.ConnectCallback = (context, cancellationToken) =>
                Connect(from, context.DnsEndPoint, cancellationToken);
        }

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

    /// <param name="path">What is asked for.</param>
    /// <param name="read">Whether the answer is looked into; else it only has to arrive.</param>
    public Task<Told> Get(string path, bool read = true) => Send(HttpMethod.Get, path, null, read: read);

    public Task<Told> Post(string path, object? body = null, Guid? set = null, int? version = null) =>
        Send(HttpMethod.Post, path, body, set, version);

    public Task<Told> Put(string path, object body, Guid? set = null, int? version = null) =>
        Send(HttpMethod.Put, path, body, set, version);

    public Task<Told> Delete(string path) => Send(HttpMethod.Delete, path, null, version: 1);

    /// <summary>Opens the live line and does something whenever it says that the wall changed.</summary>
    public async Task Listen(Func<Task> changed)
    {
        line = new HubConnectionBuilder()
            .WithUrl(
                new Uri(http.BaseAddress!, "/live"),
                options =>
                {
                    options.Cookies = handler.CookieContainer;
                    options.Transports = HttpTransportType.WebSockets;
                    options.SkipNegotiation = true;
                }
            )
            .Build();
        line.On<Guid, Guid[]>("calendarChanged", (_, _) => changed());
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

    private static async ValueTask<Stream> Connect(IPAddress from, DnsEndPoint to, CancellationToken cancellationToken)
    {
        var socket = new Socket(AddressFamily.InterNetwork, SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
        try
        {
            socket.Bind(new IPEndPoint(from, 0));
            await socket.ConnectAsync(IPAddress.Parse(to.Host), to.Port, cancellationToken);
            return new NetworkStream(socket, ownsSocket: true);
        }
        catch
        {
            socket.Dispose();
            throw;
        }
    }

    private async Task<Told> Send(
        HttpMethod method,
        string path,
        object? body,
        Guid? set = null,
        int? version = null,
        bool read = true
    )
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
        var bytes = await response.Content.ReadAsByteArrayAsync();
        var took = Stopwatch.GetElapsedTime(began);
        var isJson = read && bytes is [(byte)'{' or (byte)'[', ..];
        var text = isJson && response.IsSuccessStatusCode ? string.Empty : Encoding.UTF8.GetString(bytes);
        var told = new Told(
            $"{method} {path.Split('?')[0].Split('/')[0]}",
            (int)response.StatusCode,
            took,
            isJson ? JsonSerializer.Deserialize<JsonElement>(bytes) : default,
            text,
            bytes.Length
        );
        notes.Add(told);
        return told;
    }
}
