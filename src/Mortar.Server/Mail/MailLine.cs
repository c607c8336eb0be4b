using System.Collections.Concurrent;
using System.Net.Sockets;
using MailKit.Net.Smtp;
using MailKit.Security;
using Mortar.Core.Letters;
using Mortar.Server.Hosting;
using Mortar.Server.StandIns;
using NodaTime;

namespace Mortar.Server.Mail;

/// <summary>The mail server cannot be reached, or what answers cannot be trusted or understood: no mail's fault.</summary>
internal sealed class LineDownException(LineTrouble trouble, Exception inner) : IOException(trouble.Sentence, inner)
{
    /// <summary>When it is tried again.</summary>
    public Instant Until => trouble.Until;
}

/// <summary>What is wrong with the way to the mail server.</summary>
/// <param name="Since">Since when.</param>
/// <param name="Until">When it is tried again.</param>
/// <param name="Sentence">What it is, for the operator.</param>
internal sealed record LineTrouble(Instant Since, Instant Until, string Sentence);

/// <summary>
/// The way to the mail server: the connections to it, and whether it is open. What is wrong with it is told apart from what
/// is wrong with a mail, so that a server that hangs or shows a bad certificate costs no mail its place.
/// </summary>
/// <remarks>It waits by a clock that does not jump.</remarks>
internal sealed class MailLine(
    MortarOptions options,
    PostRoomPort postRoom,
    IClock clock,
    TimeProvider time,
    ILogger<MailLine> log
) : IDisposable
{
    /// <summary>How long a mail server may take to greet and to agree on a cipher, and to take one mail.</summary>
    private readonly TimeSpan toGreet = TimeSpan.FromSeconds(options.SmtpPatience);
    private readonly TimeSpan toTake = TimeSpan.FromSeconds(3 * options.SmtpPatience);

    private readonly Lock gate = new();
    private readonly ConcurrentBag<SmtpClient> free = [];
    private int failures;
    private long closedAt;
    private TimeSpan closedFor;
    private Instant? opensAt;

    /// <summary>What is wrong since it last worked; <c>null</c> while it works.</summary>
    public LineTrouble? Trouble { get; private set; }

    /// <summary>Whether it is to be tried now.</summary>
    public bool IsOpen => Left <= TimeSpan.Zero;

    /// <summary>
    /// When it was last to be tried again, by the clock of the mails: it is the sign of those that waited for it. <c>null</c>
    /// where it never was closed.
    /// </summary>
    public Instant? OpensAt
    {
        get
        {
            lock (gate)
            {
                return opensAt;
            }
        }
    }

    /// <summary>How long until it is tried again.</summary>
    public TimeSpan Left
    {
        get
        {
            lock (gate)
            {
                return closedFor - time.GetElapsedTime(closedAt);
            }
        }
    }

    /// <summary>A connection, to be given back or disposed of.</summary>
    /// <exception cref="LineDownException">There is none.</exception>
    public async Task<SmtpClient> Connection(CancellationToken cancellationToken)
    {
        while (free.TryTake(out var there))
        {
            if (there.IsConnected)
            {
                return there;
            }

            there.Dispose();
        }

        var client = new SmtpClient();
        try
        {
            await Within(toGreet, token => Connect(client, token), cancellationToken);
            return client;
        }
        catch (Exception bad) when (!cancellationToken.IsCancellationRequested)
        {
            client.Dispose();
            throw new LineDownException(Fail(bad), bad);
        }
    }

    /// <summary>Sends by a connection and gives it back. Throws what was wrong; of the server's answers about this mail, the connection is kept.</summary>
    /// <exception cref="SmtpCommandException">The server does not take this mail.</exception>
    /// <exception cref="LineDownException">The connection broke, or the server did not answer in time.</exception>
    public async Task Send(SmtpClient client, MimeKit.MimeMessage message, CancellationToken cancellationToken)
    {
        try
        {
            await Within(toTake, token => client.SendAsync(message, token), cancellationToken);
            Works();
            free.Add(client);
        }
        catch (SmtpCommandException answer) when (answer.StatusCode != SmtpStatusCode.ServiceNotAvailable)
        {
            Works();
            free.Add(client);
            throw;
        }
        catch (Exception bad) when (!cancellationToken.IsCancellationRequested)
        {
            client.Dispose();
            throw new LineDownException(Fail(bad), bad);
        }
    }

    /// <summary>Says goodbye on all connections that nobody uses.</summary>
    public async Task HangUp()
    {
        while (free.TryTake(out var client))
        {
            try
            {
                await Within(
                    TimeSpan.FromSeconds(2),
                    token => client.DisconnectAsync(quit: true, token),
                    CancellationToken.None
                );
            }
            catch (Exception bad)
            {
                log.LogDebug(bad, "The mail server did not say goodbye");
            }
            finally
            {
                client.Dispose();
            }
        }
    }

    /// <inheritdoc />
    public void Dispose()
    {
        while (free.TryTake(out var client))
        {
            client.Dispose();
        }
    }

    private string Where =>
        options.SmtpHost.Length > 0
            ? FormattableString.Invariant($"{options.SmtpHost}:{options.SmtpPort}")
            : "the post room";

    private Task Connect(SmtpClient client, CancellationToken cancellationToken) =>
        options.SmtpHost.Length > 0
            ? client.ConnectAsync(
                options.SmtpHost,
                options.SmtpPort,
                SecureSocketOptions.StartTlsWhenAvailable,
                cancellationToken
            )
            : client.ConnectAsync("127.0.0.1", postRoom.Value, SecureSocketOptions.None, cancellationToken);

    private static async Task Within(
        TimeSpan longest,
        Func<CancellationToken, Task> act,
        CancellationToken cancellationToken
    )
    {
        using var end = CancellationTokenSource.CreateLinkedTokenSource(cancellationToken);
        end.CancelAfter(longest);
        await act(end.Token);
    }

    private void Works()
    {
        lock (gate)
        {
            (failures, closedFor) = (0, TimeSpan.Zero);
            if (Trouble is null)
            {
                return;
            }

            Trouble = null;
        }

        log.LogInformation("The mail server at {Where} takes mails again", Where);
    }

    /// <summary>Closes the line for a while, longer each time; several connections that break together count once.</summary>
    private LineTrouble Fail(Exception bad)
    {
        var sentence = Sentence(bad);
        LineTrouble trouble;
        lock (gate)
        {
            if (Trouble is { } known && closedFor > time.GetElapsedTime(closedAt))
            {
                return known;
            }

            failures++;
            var (now, pause) = (clock.GetCurrentInstant(), MailLife.LinePause(failures));
            (closedAt, closedFor, opensAt) = (time.GetTimestamp(), pause.ToTimeSpan(), now + pause);
            trouble = new LineTrouble(Trouble?.Since ?? now, now + pause, sentence);
            if (Trouble?.Sentence == sentence)
            {
                return Trouble = trouble;
            }

            Trouble = trouble;
        }

        log.LogWarning("{Sentence} It is looked for at {Where}; mails wait until it works", sentence, Where);
        return trouble;
    }

    private static string Sentence(Exception bad) =>
        bad switch
        {
            SslHandshakeException => "The mail server shows a certificate that is not trusted here.",
            OperationCanceledException or TimeoutException => "The mail server does not answer in time.",
            SocketException { SocketErrorCode: SocketError.HostNotFound or SocketError.TryAgain } =>
                "The mail server is not found by its name.",
            SocketException => "The mail server cannot be reached.",
            SmtpCommandException => "The mail server says that it is not available.",
            SmtpProtocolException => "The mail server hangs up or answers what is not SMTP.",
            _ => "The mail server breaks off.",
        };
}
