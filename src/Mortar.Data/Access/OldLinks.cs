using Microsoft.EntityFrameworkCore;
using Mortar.Data.Store;

namespace Mortar.Data.Access;

/// <summary>Links of an earlier release, whose secrets were stored as they are.</summary>
public static class OldLinks
{
    /// <summary>Puts hashes in the place of secrets, so that links that were mailed go on working and what is stored opens none.</summary>
    public static async Task Hash(MortarDb db, CancellationToken cancellationToken)
    {
        var plain = await db
            .Invitations.Where(row => row.LinkHash != "" && row.LinkHash.Length < LinkSecret.HashLength)
            .Select(row => new { row.Id, row.LinkHash })
            .ToListAsync(cancellationToken);
        foreach (var one in plain)
        {
            var hash = LinkSecret.HashOf(one.LinkHash);
            await db
                .Invitations.Where(row => row.Id == one.Id)
                .ExecuteUpdateAsync(set => set.SetProperty(row => row.LinkHash, hash), cancellationToken);
        }
    }
}
