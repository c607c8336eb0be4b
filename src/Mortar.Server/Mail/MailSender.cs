using System.Threading.Channels;
using MailKit.Net.Smtp;
using Microsoft.AspNetCore.SignalR;
using MimeKit;
using Mortar.Core.Changes;
using Mortar.Core.Words;
using Mortar.Data.Mail;
using Mortar.Data.Store;
using Mortar.Server.Live;
using NodaTime;

namespace Mortar.Server.Mail;

/// <summary>Sends the mails that commands have written, after their commit; tries again later what could not be sent.</summary>
internal sealed class MailSender(
    IServiceScopeFactory scopes,
    ChangeSignal signal,
    MailLine line,
    IHubContext<LiveHub> hub,
    ILogger<MailSender> log
) : BackgroundService
{
    /// <summary>How many go out side by side: a server far away takes its time over each.</summary>
    private const int SideBySide = 6;

    private static readonly TimeSpan LookAgain = TimeSpan.FromSeconds(2);

    private readonly SemaphoreSlim taking = new(1, 1);

    /// <summary>Those that are tried just now.</summary>
    private readonly HashSet<long> inHand = [];

    private readonly Channel<bool> notes = Channel.CreateBounded<bool>(
        new BoundedChannelOptions(1) { FullMode = BoundedChannelFullMode.DropWrite }
    );

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        signal.Committed += TakeNote;
        try
        {
            while (!stoppingToken.IsCancellationRequested)
            {
                var waiting = await SendDueOrLog(stoppingToken);
                using var pause = CancellationTokenSource.CreateLinkedTokenSource(stoppingToken);
                if (waiting)
                {
                    var left = line.Left;
                    pause.CancelAfter(left > TimeSpan.Zero && left < LookAgain ? left : LookAgain);
                }

                await Note(pause.Token, stoppingToken);
            }
        }
        finally
        {
            signal.Committed -= TakeNote;
        }
    }

    private void TakeNote(object? sender, EventArgs e) => notes.Writer.TryWrite(true);

    /// <summary>Waits for a commit, or for the pause to be over.</summary>
    private async Task Note(CancellationToken pause, CancellationToken stopping)
    {
        try
        {
            await notes.Reader.ReadAsync(pause);
        }
        catch (OperationCanceledException) when (!stopping.IsCancellationRequested)
        {
            log.LogDebug("Looking for mails that are due again");
        }
    }

    /// <summary>A store that is busy must not end the sending; what is due stays due.</summary>
    private async Task<bool> SendDueOrLog(CancellationToken cancellationToken)
    {
        try
        {
            return await SendDue(cancellationToken);
        }
        catch (Exception bad) when (bad is not OperationCanceledException)
        {
            log.LogError(bad, "Mails that are due could not be dealt with; trying again");
            return true;
        }
    }

    /// <summary>Sends what is due, what is awaited first; returns whether something is left to be tried later.</summary>
    private async Task<bool> SendDue(CancellationToken cancellationToken)
    {
        await using var scope = scopes.CreateAsyncScope();
        var queue = scope.ServiceProvider.GetRequiredService<MailQueue>();
        if (line.IsOpen && await queue.CountDue(line.OpensAt, cancellationToken) is > 0 and var due)
        {
            try
            {
                await Task.WhenAll(
                    Enumerable.Range(0, Math.Min(due, SideBySide)).Select(_ => SendOneAfterAnother(cancellationToken))
                );
            }
            finally
            {
                await line.HangUp();
            }
        }

        return await queue.HasWaiting(cancellationToken);
    }

    private async Task SendOneAfterAnother(CancellationToken cancellationToken)
    {
        while (line.IsOpen && await SendNext(cancellationToken)) { }
    }

    /// <summary>Tries the next mail; whatever is wrong with it is about it alone.</summary>
    /// <returns>Whether there was one.</returns>
    private async Task<bool> SendNext(CancellationToken cancellationToken)
    {
        await using var scope = scopes.CreateAsyncScope();
        var queue = scope.ServiceProvider.GetRequiredService<MailQueue>();
        if (await Next(queue, cancellationToken) is not { } mail)
        {
            return false;
        }

        try
        {
            await Send(mail, queue, scope.ServiceProvider.GetRequiredService<MailComposer>(), cancellationToken);
        }
        finally
        {
            await taking.WaitAsync(CancellationToken.None);
            inHand.Remove(mail.Id);
            taking.Release();
        }

        if (mail.AskedBy is { } by && (mail.Attempts > 1 || mail.SentAt is null))
        {
            await Tell([by], cancellationToken);
        }

        return true;
    }

    private async Task<MailRow?> Next(MailQueue queue, CancellationToken cancellationToken)
    {
        await taking.WaitAsync(cancellationToken);
        try
        {
            var mail = await queue.Next(line.OpensAt, [.. inHand], cancellationToken);
            if (mail is not null)
            {
                inHand.Add(mail.Id);
            }

            return mail;
        }
        finally
        {
            taking.Release();
        }
    }

    private async Task<IReadOnlyCollection<Guid>> HoldUp(
        MailQueue queue,
        Instant until,
        CancellationToken cancellationToken
    )
    {
        await taking.WaitAsync(cancellationToken);
        try
        {
            return await queue.HoldUp(until, [.. inHand], cancellationToken);
        }
        finally
        {
            taking.Release();
        }
    }

    private async Task Send(MailRow mail, MailQueue queue, MailComposer composer, CancellationToken cancellationToken)
    {
        using var trying = Measured.Source.StartActivity("mail");
        MimeMessage message;
        try
        {
            message = await composer.Compose(mail, cancellationToken);
        }
        catch (Exception bad) when (bad is not OperationCanceledException)
        {
            await queue.Unfit(mail);
            Count("unfit");
            Log(mail, bad.GetType().Name);
            return;
        }

        using (message)
        {
            SmtpClient client;
            try
            {
                client = await line.Connection(cancellationToken);
            }
            catch (LineDownException down)
            {
                await queue.NotTaken(mail, down.Until);
                Count("no_line");
                await Tell(await HoldUp(queue, down.Until, cancellationToken), cancellationToken);
                return;
            }

            try
            {
                await line.Send(client, message, cancellationToken);
                await queue.WentOut(mail);
                Count("sent");
            }
            catch (SmtpCommandException refused)
            {
                await queue.NotTaken(mail);
                Count("not_taken");
                Log(mail, refused.StatusCode.ToString());
            }
            catch (LineDownException broken)
            {
                // It may be this mail that breaks the line: it goes behind the others.
                await queue.NotTaken(mail);
                Count("no_line");
                Log(mail, broken.Message);
            }
        }
    }

    private static void Count(string fate) => Measured.Mails.Add(1, new KeyValuePair<string, object?>("fate", fate));

    private void Log(MailRow mail, string reason) =>
        log.LogWarning(
            "Mail {Mail} was not taken at attempt {Attempt} and is {Fate}: {Reason}",
            mail.Id,
            mail.Attempts,
            mail.Waits() ? "tried again" : "given up",
            reason
        );

    /// <summary>Whoever had one written sees in their inbox that it waits, waits no more, or was given up.</summary>
    private Task Tell(IReadOnlyCollection<Guid> people, CancellationToken cancellationToken) =>
        hub.Tell([.. people.Select(by => new PersonId(by))], Topic.Inbox, cancellationToken);
}
