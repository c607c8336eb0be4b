using System.Net;
using System.Net.Sockets;

namespace Mortar.Server.Tests;

/// <summary>A mail server that does not take everybody's mail: it refuses whom it is told to (RFC 5321, 3.3 and 4.2.3), and takes the rest.</summary>
internal sealed class PickyPost : IAsyncDisposable
{
    private readonly TcpListener listener = new(IPAddress.Loopback, 0);
    private readonly string refused;
    private readonly CancellationTokenSource end = new();
    private readonly Task serving;

    public PickyPost(string refused)
    {
        this.refused = refused;
        listener.Start();
        serving = Serve();
    }

    public int Port => ((IPEndPoint)listener.LocalEndpoint).Port;

    public async ValueTask DisposeAsync()
    {
        await end.CancelAsync();
        listener.Stop();
        await serving;
        listener.Dispose();
        end.Dispose();
    }

    private async Task Serve()
    {
        while (!end.IsCancellationRequested)
        {
            try
            {
                using var client = await listener.AcceptTcpClientAsync(end.Token);
                await Talk(client);
            }
            catch (Exception over) when (over is OperationCanceledException or SocketException or IOException)
            {
                // The test is over, or the other side hung up.
            }
        }
    }

    private async Task Talk(TcpClient client)
    {
        await using var stream = client.GetStream();
        using var reader = new StreamReader(stream);
        await using var writer = new StreamWriter(stream) { NewLine = "\r\n", AutoFlush = true };
        await writer.WriteLineAsync("220 picky");
        var isText = false;
        while (await reader.ReadLineAsync(end.Token) is { } line)
        {
            if (isText && line != ".")
            {
                continue;
            }

            var verb = line.Split(' ', ':')[0].ToUpperInvariant();
            await writer.WriteLineAsync(
                isText ? "250 taken"
                : verb == "DATA" ? "354 go on"
                : verb == "QUIT" ? "221 bye"
                : verb == "RCPT" && line.Contains(refused, StringComparison.OrdinalIgnoreCase) ? "550 no such mailbox"
                : "250 ok"
            );
            isText = !isText && verb == "DATA";
        }
    }
}
