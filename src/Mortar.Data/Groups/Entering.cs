using Microsoft.EntityFrameworkCore;
using Mortar.Core.Words;
using Mortar.Data.Store;

namespace Mortar.Data.Groups;

/// <summary>How somebody comes into a group, whichever command brings them.</summary>
internal static class Entering
{
    /// <summary>Puts a person into a group, again where they had left; whether they were not in it.</summary>
    public static async Task<bool> Enter(
        this MortarDb db,
        GroupId groupId,
        PersonId person,
        CancellationToken cancellationToken
    )
    {
        var row =
            db.Members.Local.FirstOrDefault(member => member.GroupId == groupId && member.PersonId == person)
            ?? await db
                .Members.IgnoreQueryFilters()
                .FirstOrDefaultAsync(
                    member => member.GroupId == groupId && member.PersonId == person,
                    cancellationToken
                );
        if (row is { LeftAt: null })
        {
            return false;
        }

        if (row is null)
        {
            db.Members.Add(new MemberRow { GroupId = groupId, PersonId = person });
        }
        else
        {
            row.LeftAt = null;
        }

        return true;
    }
}
