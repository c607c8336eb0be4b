using Microsoft.EntityFrameworkCore;
using Mortar.Data.Store;

namespace Mortar.Data.Mail;

/// <summary>Lets whoever gets mail from here have none any more, or have it again.</summary>
public sealed class MailStopCommands(MortarDb db)
{
    /// <summary>Nothing goes out to an address from now on; what waits for it neither.</summary>
    public Task Stop(string address, CancellationToken cancellationToken) =>
        db.WriteUnlogged(
            async () =>
            {
                if (!await db.MailStops.AnyAsync(row => row.Address == address, cancellationToken))
                {
                    db.MailStops.Add(new MailStopRow { Address = address, StoppedAt = db.Now });
                }

                foreach (
                    var mail in await db
                        .Mails.Where(mail => mail.To == address && mail.SentAt == null && mail.GivenUpAt == null)
                        .ToListAsync(cancellationToken)
                )
                {
                    mail.GiveUp(db.Now);
                }
            },
            cancellationToken
        );

    /// <summary>Mail goes out to an address again.</summary>
    public Task Start(string address, CancellationToken cancellationToken) =>
        db.WriteUnlogged(
            async () =>
                db.MailStops.RemoveRange(
                    await db.MailStops.Where(row => row.Address == address).ToListAsync(cancellationToken)
                ),
            cancellationToken
        );
}
