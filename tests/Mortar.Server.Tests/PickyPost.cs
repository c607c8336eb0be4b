using System.Collections.Concurrent;
using System.Net;
using System.Net.Security;
using System.Net.Sockets;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;

namespace Mortar.Server.Tests;

/// <summary>How a mail server behaves.</summary>
internal enum PostManner
{
    /// <summary>It takes everybody's mail but that of whom it was told to refuse.</summary>
    Takes,

    /// <summary>It lets in and says nothing.</summary>
    Hangs,

    /// <summary>It takes the text of a mail and never says whether it has it.</summary>
    HangsAtText,

    /// <summary>It hangs up in the middle of a mail.</summary>
    BreaksOff,

    /// <summary>It talks, but not SMTP.</summary>
    TalksNonsense,

    /// <summary>It shows a certificate that nobody has signed (RFC 3207, 4.1).</summary>
    HasBadCertificate,

    /// <summary>It says that it does not work just now (RFC 5321, 3.8).</summary>
    IsClosing,
}

/// <summary>A mail server as one meets them: it refuses whom it is told to (RFC 5321, 3.3 and 4.2.3), and behaves as it is told to.</summary>
internal sealed class PickyPost : IAsyncDisposable
{
    private readonly TcpListener listener = new(IPAddress.Loopback, 0);
    private readonly string? refused;
    private readonly CancellationTokenSource end = new();
    private readonly Task serving;
    private readonly ConcurrentBag<Task> talks = [];
    private int lines;

    public PickyPost(string? refused = null, PostManner manner = PostManner.Takes)
    {
        (this.refused, Manner) = (refused, manner);
        listener.Start();
        serving = Serve();
    }

    public int Port => ((IPEndPoint)listener.LocalEndpoint).Port;

    public PostManner Manner { get; set; }

    /// <summary>How often somebody connected.</summary>
    public int Lines => lines;

    /// <summary>To whom each mail was that it took, or had in hand when it broke off, and its Message-ID, in their order.</summary>
    public ConcurrentQueue<(string To, string MessageId, bool IsTaken)> Had { get; } = [];

    public async ValueTask DisposeAsync()
    {
        await end.CancelAsync();
        listener.Stop();
        await serving;
        await Task.WhenAll(talks);
        listener.Dispose();
        end.Dispose();
    }

    private async Task Serve()
    {
        while (!end.IsCancellationRequested)
        {
            try
            {
                talks.Add(Talk(await listener.AcceptTcpClientAsync(end.Token)));
            }
            catch (Exception over) when (over is OperationCanceledException or SocketException)
            {
                // The test is over.
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
                await Talk(client.GetStream());
            }
        }
        catch (Exception over)
            when (over
                    is OperationCanceledException
                        or SocketException
                        or IOException
                        or System.Security.Authentication.AuthenticationException
            )
        {
            // The test is over, or the other side hung up.
        }
    }

    private async Task Talk(Stream stream)
    {
        if (Manner == PostManner.Hangs)
        {
            await Task.Delay(Timeout.Infinite, end.Token);
        }

        using var reader = new StreamReader(stream, leaveOpen: true);
        await using var writer = new StreamWriter(stream, leaveOpen: true) { NewLine = "\r\n", AutoFlush = true };
        await writer.WriteLineAsync(
            Manner switch
            {
                PostManner.TalksNonsense => "HTTP/1.1 400 Bad Request",
                PostManner.IsClosing => "421 closing",
                _ => "220 picky",
            }
        );
        var (isText, to, id) = (false, string.Empty, string.Empty);
        while (await reader.ReadLineAsync(end.Token) is { } line)
        {
            if (isText && line != ".")
            {
                id = line.StartsWith("Message-Id:", StringComparison.OrdinalIgnoreCase) ? line[11..].Trim() : id;
                continue;
            }

            var verb = line.Split(' ', ':')[0].ToUpperInvariant();
            to = verb == "RCPT" ? line.Split('<', '>')[1] : to;
            if (isText)
            {
                var isTaken = Manner is not (PostManner.BreaksOff or PostManner.HangsAtText);
                Had.Enqueue((to, id, isTaken));
                if (Manner == PostManner.BreaksOff)
                {
                    return;
                }

                if (!isTaken)
                {
                    await Task.Delay(Timeout.Infinite, end.Token);
                }
            }

            if (verb == "STARTTLS")
            {
                await writer.WriteLineAsync("220 go on");
                await using var secret = new SslStream(stream, leaveInnerStreamOpen: true);
                using var own = OwnCertificate();
                await secret.AuthenticateAsServerAsync(
                    new SslServerAuthenticationOptions { ServerCertificate = own },
                    end.Token
                );
                return;
            }

            await writer.WriteLineAsync(
                isText ? "250 taken"
                : verb == "EHLO" && Manner == PostManner.HasBadCertificate ? "250-picky\r\n250 STARTTLS"
                : verb == "DATA" ? "354 go on"
                : verb == "QUIT" ? "221 bye"
                : verb == "RCPT" && refused is not null && line.Contains(refused, StringComparison.OrdinalIgnoreCase)
                    ? "550 no such mailbox"
                : "250 ok"
            );
            isText = !isText && verb == "DATA";
        }
    }

    private static X509Certificate2 OwnCertificate()
    {
        using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        using var made = new CertificateRequest("CN=picky", key, HashAlgorithmName.SHA256).CreateSelfSigned(
            DateTimeOffset.UtcNow.AddDays(-1),
            DateTimeOffset.UtcNow.AddDays(1)
        );
        return X509CertificateLoader.LoadPkcs12(made.Export(X509ContentType.Pkcs12), password: null);
    }
}
