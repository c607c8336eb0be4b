using Microsoft.EntityFrameworkCore;
using Mortar.Core.Letters;
using Mortar.Core.Words;
using Mortar.Data.Store;

namespace Mortar.Data.Mail;

/// <summary>
/// What every mail passes before it is written, whichever command writes it: who has stopped mails from here gets none, and
/// nobody has more written than <see cref="MailLimits"/> allow. <see cref="MortarDb"/> sees to it, so that no command can forget.
/// </summary>
internal static class Outgoing
{
    /// <summary>Takes out the mails to those who want none; returns those that are left.</summary>
    public static async Task<IReadOnlyList<MailRow>> WithoutStopped(
        this MortarDb db,
        CancellationToken cancellationToken
    )
    {
        var added = db
            .ChangeTracker.Entries<MailRow>()
            .Where(entry => entry.State == EntityState.Added)
            .Select(entry => entry.Entity)
            .ToList();
        if (added.Count == 0)
        {
            return added;
        }

        var addresses = added.Select(mail => mail.To).Distinct().ToList();
        var stopped = await db
            .MailStops.Where(row => addresses.Contains(row.Address))
            .Select(row => row.Address)
            .ToHashSetAsync(cancellationToken);
        foreach (var mail in added.Where(mail => stopped.Contains(mail.To)))
        {
            db.Entry(mail).State = EntityState.Detached;
        }

        return added.FindAll(mail => !stopped.Contains(mail.To));
    }

    /// <summary>The refusal where somebody would have too many written; <c>null</c> where they may.</summary>
    public static async Task<Refusal?> WhyNotSend(
        this MortarDb db,
        PersonId by,
        IReadOnlyList<MailRow> mails,
        CancellationToken cancellationToken
    )
    {
        if (mails.Count == 0)
        {
            return null;
        }

        if (await db.WhyNotYet(by, mails, cancellationToken) is { } unconfirmed)
        {
            return unconfirmed;
        }

        var (since, addresses) = (db.Now - MailLimits.Window, mails.Select(mail => mail.To).Distinct().ToList());
        var written = await db
            .Mails.AsNoTracking()
            .Where(mail =>
                mail.CausedBy != null
                && mail.WrittenAt > since
                && (mail.CausedBy == by.Value || addresses.Contains(mail.To))
            )
            .Select(mail => new
            {
                mail.To,
                mail.CausedBy,
                mail.WrittenAt,
            })
            .ToListAsync(cancellationToken);
        return
            MailLimits.Exceeded(
                written.ConvertAll(one => (one.To, new PersonId(one.CausedBy!.Value), one.WrittenAt)),
                by,
                [.. mails.Select(mail => mail.To)],
                db.Now
            )
                is var (sentence, wait)
            ? new Refusal.TooOften(sentence, wait)
            : null;
    }

    /// <summary>The refusal where somebody has an account and no address of their own yet.</summary>
    private static async Task<Refusal?> WhyNotYet(
        this MortarDb db,
        PersonId by,
        IReadOnlyList<MailRow> mails,
        CancellationToken cancellationToken
    )
    {
        var isUnconfirmed = await db.People.AnyAsync(
            person => person.Id == by && person.Address == null && db.Users.Any(one => one.Id == by.Value),
            cancellationToken
        );
        if (!isUnconfirmed)
        {
            return null;
        }

        var own = await db
            .Addresses.Where(row => row.PersonId == by)
            .Select(row => row.Address)
            .ToHashSetAsync(cancellationToken);
        own.UnionWith(db.Addresses.Local.Where(row => row.PersonId == by).Select(row => row.Address));
        return MailLimits.WhyNotYet(mails.Select(mail => mail.To), own);
    }
}
