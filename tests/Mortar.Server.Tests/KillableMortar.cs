using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using System.Text;
using Mortar.Server.Hosting;

namespace Mortar.Server.Tests;

/// <summary>A Mortar in a process of its own, as an operator runs it, so that it can be killed at any moment.</summary>
internal sealed class KillableMortar : IAsyncDisposable
{
    private readonly Process process;
    private readonly StringBuilder said = new();

    private KillableMortar(Process process, Uri url) => (this.process, Url) = (process, url);

    public Uri Url { get; }

    /// <summary>What it said; where it ended by itself, why.</summary>
    public string Said
    {
        get
        {
            lock (said)
            {
                return said.ToString();
            }
        }
    }

    public bool HasEnded => process.HasExited;

    /// <summary>An address nobody listens at.</summary>
    public static Uri FreeAddress()
    {
        using var probe = new TcpListener(IPAddress.Loopback, 0);
        probe.Start();
        return new Uri($"http://127.0.0.1:{((IPEndPoint)probe.LocalEndpoint).Port}");
    }

    /// <param name="data">The data directory.</param>
    /// <param name="url">Where it listens.</param>
    /// <param name="inside">What is put before the command, as of <see cref="SmallDisk.Inside"/>.</param>
    public static KillableMortar Start(string data, Uri url, IReadOnlyList<string>? inside = null)
    {
        IReadOnlyList<string> command = [.. inside ?? [], "dotnet"];
        var start = new ProcessStartInfo(
            command[0],
            [
                .. command.Skip(1),
                typeof(MortarHost).Assembly.Location,
                "--urls",
                url.ToString(),
                "--Mortar:Demo=true",
                $"--Mortar:Today={TestMortar.Today}",
                $"--Mortar:Data={data}",
                $"--Mortar:Web={Path.Combine(data, "no-web")}",
            ]
        )
        {
            UseShellExecute = false,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        var mortar = new KillableMortar(Process.Start(start)!, url);
        mortar.process.OutputDataReceived += mortar.Hear;
        mortar.process.ErrorDataReceived += mortar.Hear;
        mortar.process.BeginOutputReadLine();
        mortar.process.BeginErrorReadLine();
        return mortar;
    }

    /// <summary>Waits until it answers; throws what it said where it ended instead, or does not come up at all.</summary>
    public async Task IsUp()
    {
        using var http = new HttpClient { BaseAddress = Url };
        var begun = Stopwatch.GetTimestamp();
        while (!process.HasExited && Stopwatch.GetElapsedTime(begun) < TimeSpan.FromMinutes(2))
        {
            try
            {
                if ((await http.GetAsync(new Uri("/health", UriKind.Relative))).IsSuccessStatusCode)
                {
                    return;
                }
            }
            catch (HttpRequestException)
            {
                await Task.Delay(20);
            }
        }

        throw new Xunit.Sdk.XunitException($"It did not come up: {Said}");
    }

    /// <summary>Waits until it listens, whatever works then, or has ended by itself; tells what it said until then.</summary>
    public async Task<string> Tells() =>
        await World.Eventually(() =>
            Task.FromResult(HasEnded || Said.Contains("Mortar is at", StringComparison.Ordinal) ? Said : null)
        );

    /// <summary>Ends it as a power cut would, but for what the disk has not written yet (SIGKILL).</summary>
    public async Task Kill()
    {
        process.Kill();
        await process.WaitForExitAsync();
    }

    public async ValueTask DisposeAsync()
    {
        if (!process.HasExited)
        {
            await Kill();
        }

        process.Dispose();
    }

    private void Hear(object sender, DataReceivedEventArgs heard)
    {
        lock (said)
        {
            said.AppendLine(heard.Data);
        }
    }
}
