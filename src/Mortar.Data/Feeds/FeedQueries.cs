using Microsoft.EntityFrameworkCore;
using Mortar.Core.Words;
using Mortar.Data.Calendars;
using Mortar.Data.Store;

namespace Mortar.Data.Feeds;

/// <summary>Finds feeds.</summary>
public static class FeedQueries
{
    /// <summary>The feed that a secret opens, also an ended one; <c>null</c> for none.</summary>
    public static Task<FeedRow?> FeedBySecret(this MortarDb db, string secret, CancellationToken cancellationToken)
    {
        var hash = LinkSecret.HashOf(secret);
        return db.Feeds.AsNoTracking().FirstOrDefaultAsync(row => row.Hash == hash, cancellationToken);
    }

    /// <summary>The sets that somebody has: their own, and those given to their groups.</summary>
    public static IQueryable<SetRow> SetsFor(this MortarDb db, PersonId person) =>
        db.Sets.Where(set =>
            set.Owner == person
            || (
                set.GroupId != null
                && db.Members.Any(member => member.GroupId == set.GroupId && member.PersonId == person)
            )
        );
}
