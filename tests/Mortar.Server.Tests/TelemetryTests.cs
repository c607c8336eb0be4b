using System.Collections.Concurrent;
using System.Net;
using System.Net.Sockets;
using System.Text;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Logging;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests;

/// <summary>What an operator sees from outside: what goes on, and of nobody who they are, what they plan or by which link they came.</summary>
public class TelemetryTests
{
    [Fact]
    public async Task What_goes_on_is_read_at_a_port_of_its_own_and_nothing_of_anybody_is_in_it()
    {
        var port = FreePort();
        await using var collector = await Collector.Start();
        await using var mortar = await TestMortar.Start(
            FormattableString.Invariant($"MetricsPort={port}"),
            $"TracesTo={collector.Address}"
        );
        using var ines = await mortar.As(DemoPeople.Ines);
        using var nobody = mortar.Anonymous();
        var calendar = await ines.MakeCalendar();
        await ines.MakeEvent(calendar, "Quite secret");
        var link = (
            await ines.Put($"/api/calendars/{calendar.Value}/links/{Guid.NewGuid()}", new { role = "view" })
        ).Is(200);
        var secret = link.Body.Text("url").Split("/link/")[1];
        (await nobody.Get($"/api/links/{secret}/wall?from=2026-03-09&to=2026-03-15")).Is(200);
        await nobody.Get($"/link/{secret}");
        await nobody.Get($"/api/links/{secret}-mistyped");
        (
            await ines.Put(
                $"/api/calendars/{calendar.Value}/invitations/{Guid.NewGuid()}",
                new { address = "nina@example.org", role = "view" }
            )
        ).Is(204);
        await World.Eventually(() => mortar.Store(db => db.Mails.FirstOrDefaultAsync(mail => mail.SentAt != null)));

        using var operatorsTool = new HttpClient();
        var text = await World.Eventually(async () =>
            await operatorsTool.GetStringAsync(new Uri($"http://127.0.0.1:{port}/metrics")) is var all
            && all.Contains("mortar_mails", StringComparison.Ordinal)
                ? all
                : null
        );
        foreach (
            var name in new[]
            {
                "mortar_store_write_wait",
                "mortar_store_write_held",
                "http_server_request_duration",
                "fate=\"sent\"",
            }
        )
        {
            Assert.Contains(name, text, StringComparison.Ordinal);
        }

        // A mail and a request of each sort have been traced: what was sent is looked at by its bytes.
        await World.Eventually(() =>
            Task.FromResult(
                collector.Text.Contains("/api/links/{secret", StringComparison.Ordinal)
                && collector.Text.Contains("mail", StringComparison.Ordinal)
                    ? collector
                    : null
            )
        );
        foreach (
            var hidden in new[]
            {
                secret,
                "Quite secret",
                "nina@example.org",
                "2026-03-09",
                calendar.Value.ToString(),
                "127.0.0.1:",
            }
        )
        {
            Assert.DoesNotContain(hidden, text, StringComparison.OrdinalIgnoreCase);
            Assert.DoesNotContain(hidden, collector.Text, StringComparison.OrdinalIgnoreCase);
        }

        // The people's own port does not know of it.
        Assert.DoesNotContain("mortar_mails", (await nobody.Get("/metrics")).Text, StringComparison.Ordinal);
    }

    private static int FreePort()
    {
        using var probe = new TcpListener(IPAddress.Loopback, 0);
        probe.Start();
        return ((IPEndPoint)probe.LocalEndpoint).Port;
    }

    /// <summary>Takes what is sent by OTLP over HTTP, whatever it is.</summary>
    private sealed class Collector(WebApplication app, ConcurrentQueue<string> bodies) : IAsyncDisposable
    {
        public string Address => $"{app.Urls.First()}/v1/traces";

        public string Text => string.Concat(bodies);

        public static async Task<Collector> Start()
        {
            var bodies = new ConcurrentQueue<string>();
            var builder = WebApplication.CreateSlimBuilder();
            builder.Logging.ClearProviders();
            var app = builder.Build();
            app.Urls.Add("http://127.0.0.1:0");
            app.MapPost(
                "/v1/traces",
                async (HttpRequest request) =>
                {
                    using var body = new MemoryStream();
                    await request.Body.CopyToAsync(body);
                    bodies.Enqueue(Encoding.Latin1.GetString(body.ToArray()));
                    return Results.Ok();
                }
            );
            await app.StartAsync();
            return new Collector(app, bodies);
        }

        public async ValueTask DisposeAsync()
        {
            await app.StopAsync();
            await app.DisposeAsync();
        }
    }
}
