using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Sockets;

namespace Mortar.Bench.AtWork;

/// <summary>How many mails a second go out to a mail server that is not on this machine, and how long one that is waited for takes behind eight hundred.</summary>
internal static class Mails
{
    private const int OfAGroup = 200;
    private const int Groups = 4;

    /// <summary>How long a mail server across the network thinks about each line (common practice, no source).</summary>
    private static readonly TimeSpan Thinks = TimeSpan.FromMilliseconds(20);

    private static readonly TimeSpan Longest = TimeSpan.FromMinutes(3);

    /// <returns>0 where more go out than did before.</returns>
    public static async Task<int> Run()
    {
        const double Before = 24;
        await using var post = new FarPost(Thinks);
        await using var mortar = await RunningMortar.Start(
            "--Mortar:SmtpHost=127.0.0.1",
            FormattableString.Invariant($"--Mortar:SmtpPort={post.Port}")
        );
        await using var ines = new Client(mortar.Url, []);
        await TwoHundred.SignIn(ines, "Ines");
        var own = await TwoHundred.MakeGroup(ines, "Those at work");
        var calendar = await TwoHundred.MakeCalendar(ines, own, "Hers");
        var begun = Stopwatch.GetTimestamp();
        for (var group = 0; group < Groups; group++)
        {
            var id = await TwoHundred.MakeGroup(ines, $"Team {group}");
            await ines.Put(
                $"groups/{id}/members",
                new
                {
                    people = Enumerable
                        .Range(group * OfAGroup, OfAGroup)
                        .Select(n => new
                        {
                            id = Guid.CreateVersion7(),
                            name = $"Potter {n}",
                            address = $"potter{n}@example.org",
                        }),
                }
            );
        }

        var asked = Stopwatch.GetTimestamp();
        var invited = await ines.Put(
            $"calendars/{calendar}/invitations/{Guid.NewGuid()}",
            new { address = "waits@example.org", role = "view" }
        );
        while (post.Taken.Count < (OfAGroup * Groups) + 1 && Stopwatch.GetElapsedTime(begun) < Longest)
        {
            await Task.Delay(20);
        }

        var took = Stopwatch.GetElapsedTime(begun, post.Taken.Values.Max());
        var one = post.Taken.TryGetValue("waits@example.org", out var at)
            ? Stopwatch.GetElapsedTime(asked, at).TotalMilliseconds
            : double.NaN;
        var perSecond = post.Taken.Count / took.TotalSeconds;
        Console.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"{post.Taken.Count} mails in {took.TotalSeconds:0.0} s: {perSecond:0} a second; an invitation ({invited.Status}) written behind the others went out within {one:0} ms; {post.Lines} connections"
            )
        );
        return perSecond > Before ? 0 : 1;
    }

    /// <summary>A mail server that takes everything and is far away.</summary>
    private sealed class FarPost : IAsyncDisposable
    {
        private readonly TcpListener listener = new(IPAddress.Loopback, 0);
        private readonly TimeSpan thinks;
        private readonly CancellationTokenSource end = new();
        private readonly Task serving;
        private int lines;

        public FarPost(TimeSpan thinks)
        {
            this.thinks = thinks;
            listener.Start();
            serving = Serve();
        }

        public int Port => ((IPEndPoint)listener.LocalEndpoint).Port;

        /// <summary>How often somebody connected.</summary>
        public int Lines => lines;

        /// <summary>To whom a mail was taken, and when.</summary>
        public ConcurrentDictionary<string, long> Taken { get; } = new(StringComparer.OrdinalIgnoreCase);

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
                    var client = await listener.AcceptTcpClientAsync(end.Token);
                    _ = Talk(client);
                }
                catch (Exception over) when (over is OperationCanceledException or SocketException)
                {
                    return;
                }
            }
        }

        private async Task Talk(TcpClient client)
        {
            Interlocked.Increment(ref lines);
            try
            {
                using (client)
                {
                    client.NoDelay = true;
                    await using var stream = client.GetStream();
                    using var reader = new StreamReader(stream);
                    await using var writer = new StreamWriter(stream) { NewLine = "\r\n", AutoFlush = true };
                    await writer.WriteLineAsync("220 far");
                    var (isText, to) = (false, string.Empty);
                    while (await reader.ReadLineAsync(end.Token) is { } line)
                    {
                        if (isText && line != ".")
                        {
                            continue;
                        }

                        await Task.Delay(thinks, end.Token);
                        var verb = line.Split(' ', ':')[0].ToUpperInvariant();
                        to =
                            verb == "RCPT"
                                ? line[
                                    (line.IndexOf('<', StringComparison.Ordinal) + 1)..line.IndexOf(
                                        '>',
                                        StringComparison.Ordinal
                                    )
                                ]
                                : to;
                        if (isText)
                        {
                            Taken.TryAdd(to, Stopwatch.GetTimestamp());
                        }

                        await writer.WriteLineAsync(
                            isText ? "250 taken"
                            : verb == "DATA" ? "354 go on"
                            : verb == "QUIT" ? "221 bye"
                            : "250 ok"
                        );
                        isText = !isText && verb == "DATA";
                    }
                }
            }
            catch (Exception over) when (over is OperationCanceledException or IOException)
            {
                // The measuring is over, or the other side hung up.
            }
        }
    }
}
