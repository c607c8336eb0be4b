using Mortar.Core.Words;
using Mortar.Data.Store;

namespace Mortar.Data.Groups;

/// <summary>Finds who is in a group.</summary>
public static class GroupPlaces
{
    /// <summary>Somebody's place in a group that is there, at work or at rest: what is in the bin is read by nobody.</summary>
    public static IQueryable<MemberRow> PlaceIn(this MortarDb db, GroupId group, PersonId person) =>
        db.Members.Where(member =>
            member.GroupId == group
            && member.PersonId == person
            && db.Groups.Any(row => row.Id == group && row.DeletedAt == null)
        );
}
