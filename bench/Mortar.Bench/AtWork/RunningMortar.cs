using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Sockets;
using Mortar.Server.Hosting;

namespace Mortar.Bench.AtWork;

/// <summary>A Mortar of its own as it runs for people: another process, on demo data in a temporary folder, the heap held at 1 GB.</summary>
internal sealed class RunningMortar : IAsyncDisposable
{
    private readonly Process process;
    private readonly string data;

    private RunningMortar(Process process, string data, Uri url) =>
        (this.process, this.data, Url) = (process, data, url);

    public Uri Url { get; }

    /// <summary>The most memory the process had at once, in MB (VmHWM of proc_pid_status(5)).</summary>
    public long PeakMemory => Status("VmHWM:");

    /// <summary>The memory it has now, in MB (VmRSS).</summary>
    public long Memory => Status("VmRSS:");

    public bool IsUp => !process.HasExited;

    /// <param name="settings">Settings of its own, as <c>--Mortar:SmtpPort=2525</c>.</param>
    public static async Task<RunningMortar> Start(params string[] settings)
    {
        using var probe = new TcpListener(IPAddress.Loopback, 0);
        probe.Start();
        var url = new Uri($"http://127.0.0.1:{((IPEndPoint)probe.LocalEndpoint).Port}");
        probe.Stop();
        var folder = Directory.CreateTempSubdirectory("mortar-at-work-").FullName;
        var start = new ProcessStartInfo(
            "dotnet",
            [
                typeof(MortarHost).Assembly.Location,
                "--urls",
                url.ToString(),
                "--Mortar:Demo=true",
                "--Mortar:Today=2026-03-11",
                .. settings,
            ]
        )
        {
            UseShellExecute = false,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
            Environment = { ["Mortar__Data"] = folder, ["DOTNET_GCHeapHardLimit"] = "0x40000000" },
        };
        var server = Process.Start(start)!;
        server.OutputDataReceived += (_, _) => { };
        server.ErrorDataReceived += (_, _) => { };
        server.BeginOutputReadLine();
        server.BeginErrorReadLine();
        using var http = new HttpClient { BaseAddress = url };
        while (true)
        {
            try
            {
                if ((await http.GetAsync(new Uri("/health", UriKind.Relative))).IsSuccessStatusCode)
                {
                    return new RunningMortar(server, folder, url);
                }
            }
            catch (HttpRequestException) when (!server.HasExited)
            {
                await Task.Delay(100);
            }
        }
    }

    private long Status(string line) =>
        File.ReadLines($"/proc/{process.Id}/status")
            .Where(one => one.StartsWith(line, StringComparison.Ordinal))
            .Select(one =>
                long.Parse(one.Split(' ', StringSplitOptions.RemoveEmptyEntries)[1], CultureInfo.InvariantCulture)
            )
            .Single() / 1024;

    public async ValueTask DisposeAsync()
    {
        process.Kill();
        await process.WaitForExitAsync();
        process.Dispose();
        Directory.Delete(data, recursive: true);
    }
}
