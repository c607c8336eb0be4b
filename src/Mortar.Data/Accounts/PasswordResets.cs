using Microsoft.EntityFrameworkCore;
using Mortar.Core.Accounts;
using Mortar.Core.Letters;
using Mortar.Core.Words;
using Mortar.Data.Mail;
using Mortar.Data.People;
using Mortar.Data.Store;

namespace Mortar.Data.Accounts;

/// <summary>The mailed links by which somebody sets a new password who forgot theirs.</summary>
public sealed class PasswordResets(MortarDb db, PublicLinks links)
{
    /// <summary>Has a link mailed to an address that leads to an account. It comes to the same, and does as much, whether it does or not.</summary>
    public Task Ask(Address address, CancellationToken cancellationToken) =>
        db.WriteUnlogged(
            async () =>
            {
                var addressHash = LinkSecret.HashOf(address.Value);
                var since = db.Now - PasswordReset.Span;
                var sent = await db.PasswordResets.CountAsync(
                    row => row.AddressHash == addressHash && row.AskedAt > since,
                    cancellationToken
                );
                var person = await db.PersonAt(address, cancellationToken);
                var account = person?.Id.Value ?? Guid.Empty;
                var hasAccount = await db.Users.AnyAsync(user => user.Id == account, cancellationToken);
                if (sent >= PasswordReset.MostMails)
                {
                    return;
                }

                var secret = LinkSecret.New();
                db.PasswordResets.Add(
                    new PasswordResetRow
                    {
                        Id = Guid.CreateVersion7(),
                        PersonId = hasAccount ? person!.Id : null,
                        AddressHash = addressHash,
                        Hash = LinkSecret.HashOf(secret),
                        AskedAt = db.Now,
                    }
                );
                var letter = AccountLetters.ToReset(links.Reset(secret));
                if (hasAccount)
                {
                    db.Post(letter, address.Value);
                }
            },
            cancellationToken
        );

    /// <summary>The one a secret opens; <c>null</c> where it opens none any more.</summary>
    public async Task<PasswordResetRow?> OpenedBy(string secret, CancellationToken cancellationToken)
    {
        var hash = LinkSecret.HashOf(secret);
        // Read anew each time: under the write lock it may have been used since it was read before it.
        var row = await db
            .PasswordResets.AsNoTracking()
            .FirstOrDefaultAsync(one => one.Hash == hash && one.PersonId != null, cancellationToken);
        return row is not null && PasswordReset.Opens(row.AskedAt, row.UsedAt, db.Now) ? row : null;
    }

    /// <summary>Ends all links of somebody whose password was set.</summary>
    public async Task End(PersonId person, CancellationToken cancellationToken)
    {
        foreach (
            var row in await db
                .PasswordResets.Where(one => one.PersonId == person && one.UsedAt == null)
                .ToListAsync(cancellationToken)
        )
        {
            row.UsedAt = db.Now;
        }
    }

    /// <summary>
    /// Tells somebody at their first address that their password was set. By itself and after it: how many mails others had
    /// written to that address keeps nobody from having a password.
    /// </summary>
    public Task Tell(PersonId person, CancellationToken cancellationToken) =>
        db.WriteUnlogged(
            async () =>
            {
                var first = await db
                    .People.Where(row => row.Id == person)
                    .Select(row => row.Address)
                    .FirstOrDefaultAsync(cancellationToken);
                if (first is not null)
                {
                    db.Post(AccountLetters.PasswordSet(links.Forgotten), first);
                }
            },
            cancellationToken
        );
}
