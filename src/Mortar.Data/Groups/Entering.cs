using Microsoft.EntityFrameworkCore;
using Mortar.Core.Words;
using Mortar.Data.Store;

namespace Mortar.Data.Groups;

/// <summary>How somebody comes into a group, whichever command brings them.</summary>
internal static class Entering
{
    /// <summary>Somebody's place in a group, also where they left it or were only asked; <c>null</c> where they never had one.</summary>
    public static async Task<MemberRow?> AnyPlaceOf(
        this MortarDb db,
        GroupId groupId,
        PersonId person,
        CancellationToken cancellationToken
    ) =>
        db.Members.Local.FirstOrDefault(member => member.GroupId == groupId && member.PersonId == person)
        ?? await db
            .Members.IgnoreQueryFilters()
            .FirstOrDefaultAsync(member => member.GroupId == groupId && member.PersonId == person, cancellationToken);

    /// <summary>Puts a person into a group by their own yes.</summary>
    public static async Task Enter(
        this MortarDb db,
        GroupId groupId,
        PersonId person,
        CancellationToken cancellationToken
    )
    {
        if (await db.AnyPlaceOf(groupId, person, cancellationToken) is { } row)
        {
            (row.LeftAt, row.AskedAt) = (null, null);
        }
        else
        {
            db.Members.Add(new MemberRow { GroupId = groupId, PersonId = person });
        }
    }

    /// <summary>Whether somebody can sign in, and so answers for themselves.</summary>
    public static Task<bool> HasAccount(this MortarDb db, PersonId person, CancellationToken cancellationToken) =>
        db.Users.AnyAsync(account => account.Id == person.Value, cancellationToken);
}
