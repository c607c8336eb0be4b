using Microsoft.AspNetCore.Http.HttpResults;
using Mortar.Core.Words;
using Mortar.Data.Groups;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Groups;

/// <summary>/api/groups/{id}/members: adding people, correcting, inviting again, coordinators, ends.</summary>
internal static class ChangeMembers
{
    /// <param name="Id">The new person's id, made by the client; or that of somebody with whom one shares another group.</param>
    internal sealed record NewBody(Guid Id, string Name, string? Address = null);

    internal sealed record AddBody(IReadOnlyList<NewBody> People);

    internal sealed record AddedBody(int Added);

    internal sealed record CorrectBody(string Name, string? Address = null);

    internal sealed record CoordinatesBody(bool Coordinates);

    /// <param name="Guardians">All who are to see and answer for the member; who is not in it does so no longer.</param>
    internal sealed record GuardiansBody(IReadOnlyList<Guid> Guardians);

    internal static void Map(RouteGroupBuilder api)
    {
        var group = api.MapGroup("/groups/{groupId:guid}/members");
        group.MapPut("/", Add).WithName("AddMembers");
        group.MapPut("/{personId:guid}", Correct).WithName("CorrectMember");
        group.MapPut("/{personId:guid}/coordinates", Coordinate).WithName("SetCoordinates");
        group.MapPut("/{personId:guid}/guardians", SetGuardians).WithName("SetGuardians");
        group.MapPost("/{personId:guid}/invite", Invite).WithName("InviteMember");
        group.MapDelete("/{personId:guid}", End).WithName("EndMembership");
    }

    private static Task<Results<Ok<AddedBody>, ProblemHttpResult>> Add(
        Guid groupId,
        AddBody body,
        Acting acting,
        MemberCommands members,
        CancellationToken cancellationToken
    ) =>
        members
            .Add(
                acting.Act,
                new GroupId(groupId),
                [.. body.People.Select(one => new NewMember(new PersonId(one.Id), one.Name, one.Address))],
                cancellationToken
            )
            .Answer(added => Task.FromResult(new AddedBody(added)));

    private static Task<Results<NoContent, ProblemHttpResult>> Correct(
        Guid groupId,
        Guid personId,
        CorrectBody body,
        Acting acting,
        MemberCommands members,
        CancellationToken cancellationToken
    ) =>
        members
            .Correct(
                acting.Act,
                new GroupId(groupId),
                new PersonId(personId),
                body.Name,
                body.Address,
                cancellationToken
            )
            .Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> Coordinate(
        Guid groupId,
        Guid personId,
        CoordinatesBody body,
        Acting acting,
        MemberCommands members,
        CancellationToken cancellationToken
    ) =>
        members
            .SetCoordinates(
                acting.Act,
                new GroupId(groupId),
                new PersonId(personId),
                body.Coordinates,
                cancellationToken
            )
            .Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> SetGuardians(
        Guid groupId,
        Guid personId,
        GuardiansBody body,
        Acting acting,
        GuardianCommands guardians,
        CancellationToken cancellationToken
    ) =>
        guardians
            .Set(
                acting.Act,
                new GroupId(groupId),
                new PersonId(personId),
                [.. body.Guardians.Select(one => new PersonId(one))],
                cancellationToken
            )
            .Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> Invite(
        Guid groupId,
        Guid personId,
        Acting acting,
        MemberCommands members,
        CancellationToken cancellationToken
    ) => members.InviteAgain(acting.Act, new GroupId(groupId), new PersonId(personId), cancellationToken).Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> End(
        Guid groupId,
        Guid personId,
        Acting acting,
        MemberCommands members,
        CancellationToken cancellationToken
    ) => members.End(acting.Act, new GroupId(groupId), new PersonId(personId), cancellationToken).Answer();
}
