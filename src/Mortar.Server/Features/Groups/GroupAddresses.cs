using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Words;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Groups;

/// <summary>/api/groups/by-address/{name}: the group at a short address, for its members; and whether a name can be had as it is typed.</summary>
internal static class GroupAddresses
{
    public static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/groups/by-address/{name}", Find).WithName("FindGroup");
        api.MapGet("/groups/{groupId:guid}/address", Look)
            .WithName("LookAtGroupAddress")
            .RequireRateLimiting(RateLimits.Searching);
    }

    /// <summary>Whoever is not in it learns no more than of a name that leads nowhere.</summary>
    private static async Task<Results<Ok<GroupsSetup.GroupBody>, ProblemHttpResult>> Find(
        string name,
        Acting acting,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        var known = await db.Addressed(GroupRow.AddressSpace, name.ToLowerInvariant(), cancellationToken);
        var member = known is null
            ? null
            : await db
                .Members.AsNoTracking()
                .FirstOrDefaultAsync(
                    one => one.GroupId == new GroupId(known.OwnerId) && one.PersonId == acting.Person,
                    cancellationToken
                );
        return
            member is not null
            && await db
                .Groups.AsNoTracking()
                .FirstOrDefaultAsync(row => row.Id == member.GroupId && row.DeletedAt == null, cancellationToken)
                is { } group
            ? TypedResults.Ok(GroupsSetup.GroupBody.Of(group, member.Coordinates))
            : Problems.NotThere("group");
    }

    private static async Task<Results<Ok<NameBody>, ProblemHttpResult>> Look(
        GroupId groupId,
        string? name,
        Acting acting,
        MortarDb db,
        IClock clock,
        CancellationToken cancellationToken
    )
    {
        var group = await db
            .Groups.Where(row =>
                row.Id == groupId
                && row.DeletedAt == null
                && db.Members.Any(member =>
                    member.GroupId == groupId && member.PersonId == acting.Person && member.Coordinates
                )
            )
            .Select(row => row.Name)
            .FirstOrDefaultAsync(cancellationToken);
        return group is null
            ? Problems.NotThere("group")
            : TypedResults.Ok(
                await NameBody.Of(
                    db,
                    GroupRow.AddressSpace,
                    groupId.Value,
                    name,
                    group,
                    group,
                    clock.GetCurrentInstant().InUtc().Year,
                    cancellationToken
                )
            );
    }
}
