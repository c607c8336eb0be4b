using Microsoft.EntityFrameworkCore;
using Mortar.Core.Answers;
using Mortar.Core.Letters;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Store;

namespace Mortar.Data.Mail;

/// <summary>Puts letters among the mails that go out.</summary>
internal static class Posting
{
    /// <summary>Has a letter go out with what is written in the same act.</summary>
    /// <param name="db">The store.</param>
    /// <param name="letter">What it says.</param>
    /// <param name="to">The address.</param>
    /// <param name="by">Who had it written, and is told where it cannot be sent; <c>null</c> where nobody is.</param>
    /// <param name="rank">Which go out before it where many wait.</param>
    public static void Post(
        this MortarDb db,
        Letter letter,
        string to,
        PersonId? by = null,
        MailRank rank = MailRank.Awaited
    ) => db.Post(letter, new MailTo(to), by, rank);

    /// <summary>The same to somebody as they want to be told.</summary>
    public static void Post(
        this MortarDb db,
        Letter letter,
        MailTo to,
        PersonId? by = null,
        MailRank rank = MailRank.Awaited
    ) => db.Mails.Add(Mail(db, letter, to, by, rank, about: null, ToldOfEvent.Nothing, answersTo: null));

    /// <summary>The same with the event it is about, as other calendar programs read it, and an address that takes answers.</summary>
    /// <param name="db">The store.</param>
    /// <param name="letter">What it says.</param>
    /// <param name="to">Where it goes.</param>
    /// <param name="by">Who asks.</param>
    /// <param name="about">The event.</param>
    /// <param name="secret">What its link opens with.</param>
    /// <param name="tells">What it tells of the event; <see cref="ToldOfEvent.Nothing"/> for a question.</param>
    public static void PostAbout(
        this MortarDb db,
        Letter letter,
        MailTo to,
        PersonId by,
        EventId about,
        string secret,
        ToldOfEvent tells
    ) =>
        db.Mails.Add(
            Mail(
                db,
                letter,
                to,
                by,
                tells == ToldOfEvent.Nothing ? MailRank.Awaited : MailRank.Timed,
                about.Value,
                tells,
                $"{MailRow.AnswerPrefix}{secret}"
            )
        );

    /// <summary>Somebody as a letter addresses them, and the name of who writes.</summary>
    public static async Task<(Recipient To, string From)> Correspondents(
        this MortarDb db,
        PersonId to,
        PersonId from,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        var people = await db
            .People.Where(person => person.Id == to || person.Id == from)
            .Select(person => new
            {
                person.Id,
                person.Name,
                person.Zone,
            })
            .ToDictionaryAsync(person => person.Id, cancellationToken);
        return (new Recipient(people[to].Name, zones.Zone(people[to].Zone)), people[from].Name);
    }

    private static MailRow Mail(
        MortarDb db,
        Letter letter,
        MailTo to,
        PersonId? by,
        MailRank rank,
        Guid? about,
        ToldOfEvent tells,
        string? answersTo
    ) =>
        new()
        {
            To = to.Address,
            QuietUntil = to.QuietUntil,
            Subject = letter.Subject,
            Body = letter.Body,
            AskedBy = by?.Value,
            AsksAbout = about,
            AnswersTo = answersTo,
            Rank = rank,
            Tells = tells,
            WrittenAt = db.Now,
            DueAt = db.Now,
        };
}
