using System.Diagnostics;
using Mortar.Data.Store;
using OpenTelemetry.Exporter;
using OpenTelemetry.Metrics;
using OpenTelemetry.Trace;

namespace Mortar.Server.Hosting.Telemetry;

/// <summary>
/// Mortar seen from outside, by OpenTelemetry; off where nothing is set. What is measured is read at a port of this machine
/// alone, as plain text, and what is traced goes where the operator says.
/// </summary>
internal static class TelemetrySetup
{
    /// <summary>Where the measures are read on their port.</summary>
    private const string Path = "/metrics";

    /// <summary>What ASP.NET Core and .NET measure by themselves: requests, connections, memory, threads.</summary>
    private static readonly string[] Built =
    [
        "Microsoft.AspNetCore.Hosting",
        "Microsoft.AspNetCore.Server.Kestrel",
        "Microsoft.AspNetCore.Http.Connections",
        "System.Runtime",
    ];

    public static void AddTelemetry(this IServiceCollection services, MortarOptions options)
    {
        if (options.MetricsPort == 0 && options.TracesTo.Length == 0)
        {
            return;
        }

        var telemetry = services.AddOpenTelemetry();
        telemetry.WithMetrics(metrics =>
        {
            metrics.AddMeter([Measured.Name, .. Built]);
            if (options.MetricsPort > 0)
            {
                metrics.AddPrometheusHttpListener(listener =>
                {
                    listener.Host = "127.0.0.1";
                    listener.Port = options.MetricsPort;
                    listener.ScrapeEndpointPath = Path;
                });
            }
        });
        if (options.TracesTo.Length > 0)
        {
            telemetry.WithTracing(traces =>
                traces
                    .AddSource(Measured.Name)
                    .AddAspNetCoreInstrumentation(requests =>
                    {
                        requests.RecordException = false;
                        requests.EnrichWithHttpResponse = WithoutSecrets;
                    })
                    .AddOtlpExporter(exporter =>
                    {
                        exporter.Endpoint = new Uri(options.TracesTo);
                        exporter.Protocol = OtlpExportProtocol.HttpProtobuf;
                        exporter.BatchExportProcessorOptions.ScheduledDelayMilliseconds = 1_000;
                    })
            );
        }
    }

    /// <summary>An address can be a key (links, invitations, answers): of it only the route goes out, and of who asks nothing.</summary>
    private static void WithoutSecrets(Activity activity, HttpResponse response)
    {
        var route = (response.HttpContext.GetEndpoint() as RouteEndpoint)?.RoutePattern.RawText ?? "/";
        activity.SetTag("url.path", route);
        activity.SetTag("url.query", null);
        activity.SetTag("client.address", null);
        activity.SetTag("network.peer.address", null);
        activity.SetTag("user_agent.original", null);
        activity.DisplayName = $"{response.HttpContext.Request.Method} {route}";
    }
}
