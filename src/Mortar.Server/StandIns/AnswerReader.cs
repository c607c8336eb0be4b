using MimeKit;
using Mortar.Core.Answers;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Answers;
using Mortar.Data.Mail;
using Mortar.Formats.ICalendar;
using NodaTime;

namespace Mortar.Server.StandIns;

/// <summary>Reads the answers that other calendar programs send back by mail (RFC 5546, 3.2.3).</summary>
internal sealed class AnswerReader(IServiceScopeFactory scopes, ILogger<AnswerReader> log)
{
    /// <summary>What became of a mail; <c>null</c> where it was sent to no address of answers.</summary>
    public async Task<string?> Read(MimeMessage message, CancellationToken cancellationToken)
    {
        var secret = message
            .To.Mailboxes.Select(to => to.Address.Split('@')[0])
            .Where(local => local.StartsWith(MailRow.AnswerPrefix, StringComparison.OrdinalIgnoreCase))
            .Select(local => local[MailRow.AnswerPrefix.Length..].ToLowerInvariant())
            .FirstOrDefault();
        if (secret is null)
        {
            return null;
        }

        var reply = message
            .BodyParts.OfType<TextPart>()
            .Where(part => part.ContentType.IsMimeType("text", "calendar"))
            .Select(part => Itip.ReadReply(part.Text))
            .FirstOrDefault(read => read is not null);
        if (reply is null || AnswerOf(reply.PartStat, reply.Counter is not null) is not { } answer)
        {
            return "Ignored: it carries no answer that can be read. The link in the question works without one.";
        }

        await using var scope = scopes.CreateAsyncScope();
        var outcome = await scope
            .ServiceProvider.GetRequiredService<AnswerCommands>()
            .AnswerByMail(
                secret,
                reply.Uid,
                message.From.Mailboxes.FirstOrDefault()?.Address ?? string.Empty,
                reply.Attendee,
                whole => new AnswerWish(
                    DateOf(reply, whole, scope.ServiceProvider.GetRequiredService<ZoneClock>()),
                    answer,
                    PlainText.Shorten(reply.Comment, AnswerRules.LongestComment),
                    Suggested(reply, whole, scope.ServiceProvider.GetRequiredService<ZoneClock>())
                ),
                new ReplyMark(reply.Sequence, reply.Stamp),
                cancellationToken
            );
        log.LogInformation(
            "An answer by mail was {Outcome}",
            outcome is Outcome<AnswerRow>.Not not ? not.Why.GetType().Name : outcome.GetType().Name
        );
        return outcome switch
        {
            Outcome<AnswerRow>.Done => "Read as an answer.",
            Outcome<AnswerRow>.Not { Why: Refusal.AgainstRule } =>
                "Ignored: a later answer of theirs was read already.",
            Outcome<AnswerRow>.Not { Why: Refusal.NotAllowed } => "Ignored: it does not come from who was asked.",
            _ => "Ignored: it is about no event that was asked about, or the question was asked anew since.",
        };
    }

    /// <summary>Another time they ask for; where the message gives no end it is as long as before.</summary>
    private static (Instant Start, Instant End)? Suggested(ItipReply reply, Event whole, ZoneClock zones)
    {
        if (reply.Counter is not { } wish)
        {
            return null;
        }

        var name = wish.Zone ?? (whole.Time as EventTime.Timed)?.Zone ?? "UTC";
        var zone = zones.Zone(zones.Knows(name) ? name : "UTC");
        var start = ZoneClock.At(wish.Start, zone);
        var length = zones.Span(whole.Time, zone).Duration;
        return (start, wish.End is { } end ? ZoneClock.At(end, zone) : start + length);
    }

    private static Answer? AnswerOf(string partStat, bool isCounter) =>
        partStat switch
        {
            "NEEDS-ACTION" when isCounter => Answer.NeedsAction, // a wish for another time is no answer to this one
            "ACCEPTED" => Answer.Accepted,
            "TENTATIVE" => Answer.Tentative,
            "DECLINED" => Answer.Declined,
            _ => null,
        };

    /// <summary>The date as the series counts it: on the event's own clock.</summary>
    private static LocalDateTime? DateOf(ItipReply reply, Event whole, ZoneClock zones) =>
        reply is { OnlyInUtc: true, Only: { } utc } && whole.Time is EventTime.Timed timed
            ? utc.InUtc().ToInstant().InZone(zones.Zone(timed.Zone)).LocalDateTime
            : reply.Only;
}
