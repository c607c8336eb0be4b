using System.Buffers;
using System.Collections.Concurrent;
using MimeKit;
using Mortar.Core.Letters;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using NodaTime;
using SmtpServer;
using SmtpServer.Protocol;
using SmtpServer.Storage;

namespace Mortar.Server.StandIns;

/// <summary>A mail that arrived.</summary>
/// <param name="Fate">What Mortar made of one that was sent to it; <c>null</c> for what it sent itself.</param>
internal sealed record ArrivedMail(
    string Id,
    string To,
    string From,
    string Subject,
    string Text,
    Instant At,
    string? Fate,
    string MessageId
);

/// <summary>The built-in stand-in for outside mail: an SMTP server on this machine alone that keeps what Mortar sends as <c>.eml</c> files.</summary>
internal sealed class PostRoom(MortarOptions options, AnswerReader answers, IClock clock, ILogger<PostRoom> log)
    : MessageStore
{
    private readonly ConcurrentDictionary<string, ArrivedMail> mails = new(StringComparer.Ordinal);

    /// <summary>Keeps with the mail what became of it.</summary>
    private const string FateHeader = "X-Mortar-Fate";

    /// <summary>How many are kept at most.</summary>
    internal const int Most = 5_000;

    private string Folder => Path.Combine(options.Data, DataFolders.PostRoom);

    /// <summary>All that has arrived, newest first.</summary>
    public IReadOnlyList<ArrivedMail> Arrived =>
        [.. mails.Values.OrderByDescending(mail => mail.Id, StringComparer.Ordinal)];

    public ArrivedMail? Find(string id) => mails.GetValueOrDefault(id);

    /// <summary>Reads what arrived before this start.</summary>
    public void Open()
    {
        Directory.CreateDirectory(Folder);
        foreach (var part in Directory.EnumerateFiles(Folder, "*.part"))
        {
            File.Delete(part); // of a stop in the middle
        }

        foreach (var file in Directory.EnumerateFiles(Folder, "*.eml"))
        {
            using var message = MimeMessage.Load(file);
            Keep(Path.GetFileNameWithoutExtension(file), message);
        }
    }

    /// <inheritdoc />
    public override async Task<SmtpResponse> SaveAsync(
        ISessionContext context,
        IMessageTransaction transaction,
        ReadOnlySequence<byte> buffer,
        CancellationToken cancellationToken
    )
    {
        using var bytes = new MemoryStream(buffer.ToArray());
        using var message = await MimeMessage.LoadAsync(bytes, cancellationToken);
        message.Headers.RemoveAll(FateHeader); // nobody else says what became of a mail
        if (await FateOf(message, cancellationToken) is { } fate)
        {
            message.Headers.Replace(FateHeader, fate);
        }

        var id = Guid.CreateVersion7().ToString();
        // Whoever looks into the folder finds whole mails only.
        var (part, whole) = (Path.Combine(Folder, $"{id}.part"), Path.Combine(Folder, $"{id}.eml"));
        await message.WriteToAsync(part, cancellationToken);
        File.Move(part, whole);
        Keep(id, message);
        return SmtpResponse.Ok;
    }

    /// <summary>Throws away what nobody looks for any more: what is older than mails are remembered, and all but the newest thousands.</summary>
    public void Sweep()
    {
        var last = clock.GetCurrentInstant() - MailLife.KeptFor;
        foreach (var (_, mail) in Arrived.Index().Where(one => one.Index >= Most || one.Item.At < last))
        {
            File.Delete(Path.Combine(Folder, $"{mail.Id}.eml"));
            mails.TryRemove(mail.Id, out _);
        }
    }

    /// <summary>Whatever is in a mail, it is kept; what cannot be read is said to be.</summary>
    private async Task<string?> FateOf(MimeMessage message, CancellationToken cancellationToken)
    {
        try
        {
            return await answers.Read(message, cancellationToken);
        }
        catch (Exception bad) when (bad is not OperationCanceledException)
        {
            log.LogError(bad, "An answer by mail could not be read");
            return "Kept, and not read: something in it cannot be understood. The link in the question works without it.";
        }
    }

    private void Keep(string id, MimeMessage message) =>
        mails[id] = new ArrivedMail(
            id,
            string.Join(", ", message.To.Mailboxes.Select(mailbox => mailbox.Address)),
            message.From.Mailboxes.FirstOrDefault()?.Address ?? string.Empty,
            message.Subject ?? string.Empty,
            message.TextBody ?? string.Empty,
            message.Date == default ? clock.GetCurrentInstant() : Instant.FromDateTimeOffset(message.Date),
            message.Headers[FateHeader],
            message.MessageId ?? string.Empty
        );
}

/// <summary>Runs the post room's SMTP server on a free port of the loopback address.</summary>
internal sealed class PostRoomServer(PostRoom postRoom, PostRoomPort port) : BackgroundService
{
    public override Task StartAsync(CancellationToken cancellationToken)
    {
        postRoom.Open();
        return base.StartAsync(cancellationToken);
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        var services = new SmtpServer.ComponentModel.ServiceProvider();
        services.Add(postRoom);
        var options = new SmtpServerOptionsBuilder()
            .ServerName("post-room")
            .Endpoint(endpoint =>
                endpoint.Endpoint(new System.Net.IPEndPoint(System.Net.IPAddress.Loopback, port.Value))
            )
            .MaxMessageSize(4 * 1024 * 1024)
            .Build();
        // It takes a second to let go of its port when it ends; nobody has to wait for that.
        await new SmtpServer.SmtpServer(options, services).StartAsync(stoppingToken).WaitAsync(stoppingToken);
    }
}

/// <summary>A port that was free when Mortar started.</summary>
internal sealed class PostRoomPort
{
    public PostRoomPort()
    {
        using var probe = new System.Net.Sockets.TcpListener(System.Net.IPAddress.Loopback, 0);
        probe.Start();
        Value = ((System.Net.IPEndPoint)probe.LocalEndpoint).Port;
    }

    public int Value { get; }
}
