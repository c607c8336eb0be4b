using Microsoft.EntityFrameworkCore;
using Mortar.Core.Words;
using Mortar.Data.Store;

namespace Mortar.Data.Inbox;

/// <summary>Keeps up to where somebody looked through their inbox.</summary>
public sealed class InboxCommands(MortarDb db)
{
    /// <summary>Marks everything up to now as seen.</summary>
    public async Task See(PersonId person, CancellationToken cancellationToken)
    {
        var row = await db.People.SingleAsync(one => one.Id == person, cancellationToken);
        row.SeenChanges = await db.Changes.MaxAsync(change => (long?)change.Sequence, cancellationToken) ?? 0;
        row.InboxSeenAt = db.Now;
        await db.SaveChangesAsync(cancellationToken);
    }
}
