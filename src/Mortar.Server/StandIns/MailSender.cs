using System.Threading.Channels;
using MailKit;
using MailKit.Net.Smtp;
using MailKit.Security;
using Microsoft.AspNetCore.SignalR;
using Microsoft.EntityFrameworkCore;
using MimeKit;
using Mortar.Core.Availability;
using Mortar.Core.Letters;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Availability;
using Mortar.Data.Mail;
using Mortar.Data.Store;
using Mortar.Formats.ICalendar;
using Mortar.Server.Hosting;
using Mortar.Server.Live;
using NodaTime;

namespace Mortar.Server.StandIns;

/// <summary>Sends the mails that commands have written, after their commit; tries again later what could not be sent.</summary>
internal sealed class MailSender(
    IServiceScopeFactory scopes,
    ChangeSignal signal,
    MortarOptions options,
    PostRoomPort postRoom,
    MailStops stops,
    IHubContext<LiveHub> hub,
    IClock clock,
    ILogger<MailSender> log
) : BackgroundService
{
    private static readonly TimeSpan LookAgain = TimeSpan.FromSeconds(2);

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
                    pause.CancelAfter(LookAgain);
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

    /// <summary>Sends what is due, each by itself; returns whether something is left to be tried later.</summary>
    private async Task<bool> SendDue(CancellationToken cancellationToken)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<MortarDb>();
        var now = clock.GetCurrentInstant();
        await db
            .Mails.Where(mail => mail.WrittenAt < now - MailLife.KeptFor && mail.DueAt < now - MailLife.KeptFor)
            .ExecuteDeleteAsync(cancellationToken);
        var due = await db
            .Mails.Where(mail => mail.SentAt == null && mail.GivenUpAt == null && mail.DueAt <= now)
            .OrderBy(mail => mail.DueAt)
            .ThenBy(mail => mail.Id)
            .Take(50)
            .Select(mail => mail.Id)
            .ToListAsync(cancellationToken);
        if (due.Count > 0)
        {
            using var client = new SmtpClient();
            foreach (var id in due)
            {
                await SendOne(client, id, cancellationToken);
            }

            if (client.IsConnected)
            {
                await client.DisconnectAsync(quit: true, cancellationToken);
            }
        }

        return await db.Mails.AnyAsync(mail => mail.SentAt == null && mail.GivenUpAt == null, cancellationToken);
    }

    /// <summary>
    /// Tries one mail. That it was tried is written down before it is, so that one which breaks something is not tried without
    /// end; and whatever is wrong with it is about it alone.
    /// </summary>
    private async Task SendOne(SmtpClient client, long id, CancellationToken cancellationToken)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<MortarDb>();
        var now = clock.GetCurrentInstant();
        var mail = await db.Mails.SingleAsync(one => one.Id == id, cancellationToken);
        var waited = mail.Attempts > 0;
        mail.Attempts++;
        mail.DueAt = MailLife.Next(mail.Attempts, now);
        await db.SaveChangesAsync(cancellationToken);
        try
        {
            using var message = await ToMessage(
                mail,
                db,
                scope.ServiceProvider.GetRequiredService<ZoneClock>(),
                cancellationToken
            );
            await Connect(client, cancellationToken);
            await client.SendAsync(message, cancellationToken);
            mail.WentOut(now);
        }
        catch (Exception bad) when (bad is not OperationCanceledException)
        {
            if (MailLife.IsGivenUp(mail.WrittenAt, mail.Attempts, isUnfit: !IsOfTheLine(bad), now))
            {
                mail.GiveUp(now);
            }

            log.LogWarning(
                "Mail {Mail} was not taken at attempt {Attempt} and is {Fate}: {Kind} {Reason}",
                mail.Id,
                mail.Attempts,
                mail.Waits() ? "tried again" : "given up",
                bad.GetType().Name,
                bad is SmtpCommandException refused ? refused.StatusCode : null
            );
        }

        await db.SaveChangesAsync(CancellationToken.None);
        if (mail.AskedBy is { } by && (waited || mail.SentAt is null))
        {
            // Whoever had it written sees in their inbox that it waits, waits no more, or was given up.
            await hub.Clients.User(by.ToString()).SendAsync("inboxChanged", cancellationToken);
        }
    }

    /// <summary>What the server or the way to it has to do with, and not the mail itself.</summary>
    private static bool IsOfTheLine(Exception bad) =>
        bad
            is System.Net.Sockets.SocketException
                or IOException
                or ServiceNotConnectedException
                or CommandException
                or ProtocolException
                or AuthenticationException
                or SslHandshakeException;

    private async Task Connect(SmtpClient client, CancellationToken cancellationToken)
    {
        if (client.IsConnected)
        {
            return;
        }

        if (options.SmtpHost.Length > 0)
        {
            await client.ConnectAsync(
                options.SmtpHost,
                options.SmtpPort,
                SecureSocketOptions.StartTlsWhenAvailable,
                cancellationToken
            );
        }
        else
        {
            await client.ConnectAsync("127.0.0.1", postRoom.Value, SecureSocketOptions.None, cancellationToken);
        }
    }

    private async Task<MimeMessage> ToMessage(
        MailRow mail,
        MortarDb db,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        var message = new MimeMessage
        {
            Subject = mail.Subject,
            Date = mail.WrittenAt.ToDateTimeOffset(),
            MessageId = FormattableString.Invariant(
                $"{mail.WrittenAt.ToUnixTimeMilliseconds()}.{mail.Id}{options.MailFrom[options.MailFrom.IndexOf('@', StringComparison.Ordinal)..]}"
            ),
        };
        message.From.Add(new MailboxAddress("Mortar", options.MailFrom));
        message.To.Add(MailboxAddress.Parse(mail.To));
        var words = new TextPart("plain") { Text = $"{mail.Body}\n\n-- \n{stops.Sentence(mail.To)}\n" };
        foreach (var (name, value) in stops.Headers(mail.To))
        {
            message.Headers.Add(name, value);
        }

        message.Body = words;
        if (await Message(mail, db, zones, cancellationToken) is { } itip)
        {
            message.ReplyTo.Add(new MailboxAddress("Mortar", AnswerAddress(mail)));
            var calendar = new TextPart("calendar") { Text = itip };
            calendar.ContentType.Parameters.Add("method", IsOff(mail) ? "CANCEL" : "REQUEST"); // RFC 6047, 2.4
            calendar.ContentTransferEncoding = ContentEncoding.Base64;
            message.Body = new MultipartAlternative(words, calendar);
        }

        return message;
    }

    private string AnswerAddress(MailRow mail) =>
        $"{mail.AnswersTo}{options.MailFrom[options.MailFrom.IndexOf('@', StringComparison.Ordinal)..]}";

    private static bool IsOff(MailRow mail) => mail.Tells is ToldOfEvent.CalledOff or ToldOfEvent.NotAsked;

    /// <summary>The event as it is when the mail goes out, asked about or called off; <c>null</c> where the mail is about none, or what it asks about is gone.</summary>
    private async Task<string?> Message(MailRow mail, MortarDb db, ZoneClock zones, CancellationToken cancellationToken)
    {
        if (mail is not { AsksAbout: { } about, AskedBy: { } by })
        {
            return null;
        }

        var (id, from) = (new EventId(about), new PersonId(by));
        var row = await db.Events.AsNoTracking().FirstOrDefaultAsync(one => one.Id == id, cancellationToken);
        if (row is null || (row.DeletedAt is not null && !IsOff(mail)))
        {
            return null;
        }

        // A mail that waited is not to carry what became of the event for somebody who is not asked any more.
        var asked = await db.AskedBy(mail.AnswersTo![Letters.AnswerPrefix.Length..], cancellationToken);
        if (!IsOff(mail) && (asked is null || !row.ToCore().Guests.Has(asked.PersonId)))
        {
            return null;
        }

        var name = await db.People.Where(one => one.Id == from).Select(one => one.Name).SingleAsync(cancellationToken);
        var (organizer, attendee) = (new ItipPerson(name, AnswerAddress(mail)), new ItipPerson(mail.To, mail.To));
        var now = clock.GetCurrentInstant();
        var whole = row.ToCore() with { Version = row.Version + (asked?.BinTold ?? 0) };
        return IsOff(mail)
            ? Itip.Cancel(whole, organizer, attendee, mail.Tells == ToldOfEvent.CalledOff, now)
            : Itip.Request(whole, organizer, attendee, now, zones);
    }
}
