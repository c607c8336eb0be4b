using System.Net.Http.Headers;
using System.Text;
using System.Xml.Linq;
using Mortar.Core.Words;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features.Devices;

/// <summary>What the calendar server answered.</summary>
internal sealed record DavReply(int Status, string Text, HttpResponseHeaders Headers)
{
    public static readonly XNamespace D = "DAV:";
    public static readonly XNamespace C = "urn:ietf:params:xml:ns:caldav";

    public XElement Xml => XElement.Parse(Text);

    public string? ETag => Headers.TryGetValues("ETag", out var tags) ? tags.Single() : null;

    public DavReply Is(int status)
    {
        Assert.True(status == Status, $"{Status} instead of {status}: {Text}");
        return this;
    }

    /// <summary>It was refused by a precondition, with a sentence.</summary>
    public DavReply Misses(int status, XName condition)
    {
        Is(status);
        Assert.Equal(D + "error", Xml.Name);
        Assert.NotNull(Xml.Element(condition));
        Assert.NotEmpty(Xml.Element(D + "responsedescription")!.Value);
        return this;
    }

    /// <summary>The answers in a multistatus, by address.</summary>
    public IReadOnlyDictionary<string, XElement> Each =>
        Is(207).Xml.Elements(D + "response").ToDictionary(one => one.Element(D + "href")!.Value);

    /// <summary>What was told of a property of the one thing that was asked about.</summary>
    public XElement? Property(XName name) => Each.Values.Single().Property(name);

    public string Token => Xml.Element(D + "sync-token")!.Value;
}

internal static class DavElements
{
    /// <summary>A property that was found.</summary>
    public static XElement? Property(this XElement response, XName name) =>
        response
            .Elements(DavReply.D + "propstat")
            .Where(stat => stat.Element(DavReply.D + "status")!.Value.Contains("200", StringComparison.Ordinal))
            .Select(stat => stat.Element(DavReply.D + "prop")!.Element(name))
            .FirstOrDefault(found => found is not null);

    public static string? ETag(this XElement response) => response.Property(DavReply.D + "getetag")?.Value;

    public static string Data(this XElement response) =>
        response.Property(DavReply.C + "calendar-data")!.Value.ReplaceLineEndings("\r\n");

    /// <summary>What is said of the thing itself, where it is not of properties.</summary>
    public static string? Status(this XElement response) => response.Element(DavReply.D + "status")?.Value;
}

/// <summary>A calendar program of somebody's: HTTP with the key of a device, and nothing that Mortar has.</summary>
internal sealed class DavClient : IDisposable
{
    private readonly HttpClient client;

    public DavClient(Uri url, string key, string user = "whoever")
    {
        client = new HttpClient(new SocketsHttpHandler { UseCookies = false, AllowAutoRedirect = false })
        {
            BaseAddress = url,
        };
        client.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue(
            "Basic",
            Convert.ToBase64String(Encoding.UTF8.GetBytes($"{user}:{key}"))
        );
        client.DefaultRequestHeaders.UserAgent.ParseAdd("Trial/1.0");
        Key = key;
    }

    public string Key { get; }

    public PersonId Owner { get; init; }

    public string Home => $"/dav/calendars/{Owner.Value:N}/";

    public string Principal => $"/dav/principals/{Owner.Value:N}/";

    /// <summary>A device of somebody's.</summary>
    public static async Task<DavClient> Of(TestMortar mortar, DemoPerson person, string role = "edit")
    {
        using var browser = await mortar.As(person);
        var made = (await browser.Put($"/api/devices/{Guid.CreateVersion7()}", new { name = "Phone", role })).Is(200);
        return new DavClient(mortar.Url, made.Body.Text("key")) { Owner = person.Id };
    }

    public string At(CalendarId calendar, string name = "") => $"{Home}{calendar.Value:N}/{name}";

    public async Task<DavReply> Send(
        string method,
        string path,
        string? body = null,
        string? type = null,
        params (string Name, string Value)[] headers
    )
    {
        using var request = new HttpRequestMessage(new HttpMethod(method), path);
        if (body is not null)
        {
            request.Content = new ByteArrayContent(Encoding.UTF8.GetBytes(body));
            request.Content.Headers.TryAddWithoutValidation("Content-Type", type ?? "application/xml; charset=utf-8");
        }

        foreach (var (name, value) in headers)
        {
            request.Headers.TryAddWithoutValidation(name, value);
        }

        using var response = await client.SendAsync(request, TestContext.Current.CancellationToken);
        return new DavReply(
            (int)response.StatusCode,
            await response.Content.ReadAsStringAsync(TestContext.Current.CancellationToken),
            response.Headers
        );
    }

    public Task<DavReply> Find(string path, int depth, params string[] properties) =>
        Send(
            "PROPFIND",
            path,
            $"""
            <d:propfind xmlns:d="DAV:" xmlns:c="urn:ietf:params:xml:ns:caldav" xmlns:x="http://colors.example/">
            <d:prop>{string.Concat(properties.Select(name => $"<{name}/>"))}</d:prop></d:propfind>
            """,
            null,
            ("Depth", $"{depth}")
        );

    public Task<DavReply> Report(string path, string body, int depth = 1) =>
        Send("REPORT", path, body, null, ("Depth", $"{depth}"));

    public Task<DavReply> Sync(string path, string? token = null, int? limit = null) =>
        Report(
            path,
            $"""
            <d:sync-collection xmlns:d="DAV:" xmlns:c="urn:ietf:params:xml:ns:caldav">
            <d:sync-token>{token}</d:sync-token><d:sync-level>1</d:sync-level>
            {(limit is { } most ? $"<d:limit><d:nresults>{most}</d:nresults></d:limit>" : "")}
            <d:prop><d:getetag/></d:prop></d:sync-collection>
            """,
            0
        );

    public Task<DavReply> Put(string path, string text, params (string Name, string Value)[] headers) =>
        Send("PUT", path, text.ReplaceLineEndings("\r\n"), "text/calendar; charset=utf-8", headers);

    public Task<DavReply> Get(string path) => Send("GET", path);

    public Task<DavReply> Delete(string path, params (string Name, string Value)[] headers) =>
        Send("DELETE", path, null, null, headers);

    /// <summary>The entity tags of all that is in a calendar, by address.</summary>
    public async Task<Dictionary<string, string>> Tags(CalendarId calendar) =>
        (await Find(At(calendar), 1, "d:getetag"))
            .Each.Where(one => one.Value.ETag() is not null)
            .ToDictionary(one => one.Key, one => one.Value.ETag()!);

    public void Dispose() => client.Dispose();

    /// <summary>A file of one event.</summary>
    public static string File(string uid, string summary = "Kiln check", string lines = "", string more = "") =>
        $"""
            BEGIN:VCALENDAR
            VERSION:2.0
            PRODID:-//Trial//Trial//EN
            BEGIN:VEVENT
            UID:{uid}
            DTSTAMP:20260301T080000Z
            DTSTART:20260312T090000Z
            DTEND:20260312T100000Z
            SUMMARY:{summary}
            {lines}{(lines.Length > 0 ? "\n" : "")}END:VEVENT
            {more}{(more.Length > 0 ? "\n" : "")}END:VCALENDAR

            """;
}
