using Mortar.Core.Words;
using Mortar.Data.Store;

namespace Mortar.Data.Groups;

/// <summary>Reads who is in which group.</summary>
public static class GroupQueries
{
    /// <summary>Those who share a group with a person, and so are known to them by name.</summary>
    public static IQueryable<PersonRow> KnownTo(this MortarDb db, PersonId person)
    {
        var groups = db.Members.Where(member => member.PersonId == person).Select(member => member.GroupId);
        return db.People.Where(other =>
            db.Members.Any(member => member.PersonId == other.Id && groups.Contains(member.GroupId))
        );
    }
}
