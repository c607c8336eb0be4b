using Microsoft.EntityFrameworkCore;
using Mortar.Core.Letters;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Mail;

/// <summary>The mails that are to go out: which is next, and what became of it.</summary>
public sealed class MailQueue(MortarDb db)
{
    /// <summary>Whether any is still to go out, now or later.</summary>
    public Task<bool> HasWaiting(CancellationToken cancellationToken) => Waiting().AnyAsync(cancellationToken);

    /// <summary>How many are to be tried now.</summary>
    /// <param name="heldUntil">When the line was to open that is open now: what waited for it waits no more.</param>
    /// <param name="cancellationToken">Ends the asking.</param>
    public Task<int> CountDue(Instant? heldUntil, CancellationToken cancellationToken) =>
        Due(heldUntil).CountAsync(cancellationToken);

    /// <summary>
    /// Takes the next one. That it is tried is written down before it is, so that one which breaks something is not tried
    /// without end.
    /// </summary>
    /// <param name="heldUntil">When the line was to open that is open now: what waited for it waits no more.</param>
    /// <param name="inHand">Those that somebody else tries just now.</param>
    /// <param name="cancellationToken">Ends the asking.</param>
    public async Task<MailRow?> Next(
        Instant? heldUntil,
        IReadOnlyCollection<long> inHand,
        CancellationToken cancellationToken
    )
    {
        var mail = await Due(heldUntil)
            .Where(mail => !inHand.Contains(mail.Id))
            .OrderBy(mail => mail.Rank)
            .ThenBy(mail => mail.DueAt)
            .ThenBy(mail => mail.Id)
            .FirstOrDefaultAsync(cancellationToken);
        if (mail is not null)
        {
            mail.Attempts++;
            mail.DueAt = MailLife.Next(mail.Attempts, db.Now);
            await db.SaveChangesAsync(cancellationToken);
        }

        return mail;
    }

    /// <summary>Notes that one has gone out, whoever wants the program to end just then.</summary>
    public Task WentOut(MailRow mail)
    {
        mail.WentOut(db.Now);
        return db.SaveChangesAsync(CancellationToken.None);
    }

    /// <summary>Notes that one was not taken: it is tried again, or given up.</summary>
    /// <param name="mail">The mail.</param>
    /// <param name="heldUntil">When the line is tried again, where that is what it waits for.</param>
    public Task NotTaken(MailRow mail, Instant? heldUntil = null)
    {
        mail.DueAt = heldUntil ?? mail.DueAt;
        return TriedOrGivenUp(mail, isUnfit: false);
    }

    /// <summary>Notes that one could not be put together.</summary>
    public Task Unfit(MailRow mail) => TriedOrGivenUp(mail, isUnfit: true);

    private Task<int> TriedOrGivenUp(MailRow mail, bool isUnfit)
    {
        if (MailLife.IsGivenUp(mail.WrittenAt, mail.Attempts, isUnfit, db.Now))
        {
            mail.GiveUp(db.Now);
        }

        return db.SaveChangesAsync(CancellationToken.None);
    }

    /// <summary>Notes that the mail server cannot be reached: what is due waits, and what has waited too long is given up.</summary>
    /// <param name="heldUntil">When the server is tried again.</param>
    /// <param name="inHand">Those that are tried just now: what becomes of them is noted by who tries them.</param>
    /// <param name="cancellationToken">Ends the asking.</param>
    /// <returns>Who had those written of which that was not known yet.</returns>
    public async Task<IReadOnlyCollection<Guid>> HoldUp(
        Instant heldUntil,
        IReadOnlyCollection<long> inHand,
        CancellationToken cancellationToken
    )
    {
        var (now, last) = (db.Now, db.Now - MailLife.TriedFor);
        IReadOnlyCollection<Guid> told = [];
        var due = Due(heldUntil: null).Where(mail => !inHand.Contains(mail.Id));
        await db.WriteUnlogged(
            async () =>
            {
                told = await due.Where(mail => mail.AskedBy != null && (mail.Attempts == 0 || mail.WrittenAt < last))
                    .Select(mail => mail.AskedBy!.Value)
                    .Distinct()
                    .ToListAsync(cancellationToken);
                await due.Where(mail => mail.WrittenAt < last)
                    .ExecuteUpdateAsync(
                        row =>
                            row.SetProperty(mail => mail.GivenUpAt, now)
                                .SetProperty(mail => mail.Body, string.Empty)
                                .SetProperty(mail => mail.AnswersTo, (string?)null),
                        cancellationToken
                    );
                await due.ExecuteUpdateAsync(
                    row =>
                        row.SetProperty(mail => mail.Attempts, mail => mail.Attempts + 1)
                            .SetProperty(mail => mail.DueAt, heldUntil),
                    cancellationToken
                );
            },
            cancellationToken
        );
        return told;
    }

    private IQueryable<MailRow> Waiting() => db.Mails.Where(mail => mail.SentAt == null && mail.GivenUpAt == null);

    /// <summary>
    /// What is to be tried now; also what would wait longer than anything ever waits, since the clock was put back meanwhile.
    /// </summary>
    private IQueryable<MailRow> Due(Instant? heldUntil)
    {
        var (now, furthest) = (db.Now, db.Now + MailLife.LongestPause);
        // Quiet hours are shorter than a day: what they would keep back for longer was kept back by another clock.
        var quietest = now + Duration.FromDays(1);
        return Waiting()
            .Where(mail => mail.DueAt <= now || mail.DueAt == heldUntil || mail.DueAt > furthest)
            .Where(mail => mail.QuietUntil == null || mail.QuietUntil <= now || mail.QuietUntil > quietest);
    }
}
