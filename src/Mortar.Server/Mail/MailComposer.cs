using Microsoft.EntityFrameworkCore;
using MimeKit;
using Mortar.Core.Answers;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Answers;
using Mortar.Data.Mail;
using Mortar.Data.Store;
using Mortar.Formats.ICalendar;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Mail;

/// <summary>Puts the message of a mail together, with the event it asks about as other calendar programs read it.</summary>
internal sealed class MailComposer(MortarDb db, ZoneClock zones, MortarOptions options, MailStops stops, IClock clock)
{
    /// <summary>The message of a mail; its Message-ID is the same however often it is tried (RFC 5322, 3.6.4).</summary>
    public async Task<MimeMessage> Compose(MailRow mail, CancellationToken cancellationToken)
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
        if (await Event(mail, cancellationToken) is { } itip)
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
    private async Task<string?> Event(MailRow mail, CancellationToken cancellationToken)
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
        var asked = await db.AskedBy(mail.AnswersTo![MailRow.AnswerPrefix.Length..], cancellationToken);
        if (!IsOff(mail) && (asked is null || !row.ToCore().GivenTo.Has(asked.PersonId)))
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
