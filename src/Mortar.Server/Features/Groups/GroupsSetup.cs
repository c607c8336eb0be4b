using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Groups;
using Mortar.Core.Words;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Groups;

/// <summary>/api/groups: the groups one is in, making one, who is in it.</summary>
internal static class GroupsSetup
{
    internal sealed record GroupBody(
        Guid Id,
        string Name,
        GroupSort Sort,
        string Zone,
        IsoDayOfWeek FirstDay,
        bool Coordinates
    );

    internal sealed record SettingsBody(string Name, GroupSort Sort, string Zone, IsoDayOfWeek FirstDay);

    /// <param name="Address">Told to coordinators of the group only.</param>
    /// <param name="HasAccount">Whether they can sign in; a name that was claimed, or somebody who came by themselves.</param>
    /// <param name="InvitedAt">When a mail to claim the name was sent last; told to coordinators only.</param>
    internal sealed record MemberBody(
        Guid PersonId,
        string Name,
        string? Address,
        string Zone,
        bool Coordinates,
        bool HasAccount,
        Instant? InvitedAt
    );

    public static void AddGroups(this IServiceCollection services) =>
        services.AddScoped<GroupCommands>().AddScoped<MemberCommands>();

    public static void MapGroups(this RouteGroupBuilder api)
    {
        api.MapGet("/groups", List).WithName("ListGroups");
        api.MapPut("/groups/{groupId:guid}", Create).WithName("CreateGroup");
        api.MapGet("/groups/{groupId:guid}/members", Members).WithName("ListMembers");
        ReadPeople.Map(api);
        ChangeMembers.Map(api);
        JoinGroup.Map(api);
    }

    private static async Task<Ok<List<GroupBody>>> List(Acting acting, MortarDb db, CancellationToken cancellationToken)
    {
        var groups =
            from member in db.Members
            where member.PersonId == acting.Person
            join row in db.Groups on member.GroupId equals row.Id
            orderby member.Coordinates descending, row.Name
            select new GroupBody(row.Id.Value, row.Name, row.Sort, row.Zone, row.FirstDay, member.Coordinates);
        return TypedResults.Ok(await groups.ToListAsync(cancellationToken));
    }

    private static Task<Results<Ok<GroupBody>, ProblemHttpResult>> Create(
        Guid groupId,
        SettingsBody body,
        Acting acting,
        GroupCommands groups,
        CancellationToken cancellationToken
    ) =>
        groups
            .Create(
                acting.Act,
                new GroupId(groupId),
                new GroupSettings(body.Name, body.Sort, body.Zone, body.FirstDay),
                cancellationToken
            )
            .Answer(row =>
                Task.FromResult(
                    new GroupBody(row.Id.Value, row.Name, row.Sort, row.Zone, row.FirstDay, Coordinates: true)
                )
            );

    private static async Task<Results<Ok<List<MemberBody>>, ProblemHttpResult>> Members(
        Guid groupId,
        Acting acting,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        var id = new GroupId(groupId);
        var me = await db
            .Members.AsNoTracking()
            .FirstOrDefaultAsync(member => member.GroupId == id && member.PersonId == acting.Person, cancellationToken);
        if (me is null)
        {
            return Problems.NotThere("group");
        }

        var members =
            from member in db.Members
            where member.GroupId == id
            join person in db.People on member.PersonId equals person.Id
            orderby person.Name
            select new { member, person };
        var found = await members.AsNoTracking().ToListAsync(cancellationToken);
        var numbers = found.ConvertAll(one => one.person.Id.Value);
        var accounts = await db
            .Users.Where(account => numbers.Contains(account.Id))
            .Select(account => account.Id)
            .ToHashSetAsync(cancellationToken);
        return TypedResults.Ok(
            found.ConvertAll(one => new MemberBody(
                one.person.Id.Value,
                one.person.Name,
                me.Coordinates ? one.person.Address ?? one.member.Address : null,
                one.person.Zone,
                one.member.Coordinates,
                accounts.Contains(one.person.Id.Value),
                me.Coordinates && one.member.ClaimHash is not null ? one.member.InvitedAt : null
            ))
        );
    }
}
