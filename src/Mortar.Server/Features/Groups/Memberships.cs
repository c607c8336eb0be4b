using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Groups;
using Mortar.Core.Words;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Groups;

/// <summary>
/// /api/memberships, /api/guardianships: what one is asked, answered for oneself, and ended. /api/groups/{id}/asked: who was asked to be
/// in a group, for those who coordinate it.
/// </summary>
internal static class Memberships
{
    /// <summary>Somebody who was asked. Of them the group is told the name they were asked by and nothing more.</summary>
    internal sealed record AskedBody(Guid PersonId, string Name, Instant AskedAt);

    /// <summary>Who sees and answers for whom.</summary>
    /// <param name="Ward">For whom; <c>null</c> for oneself.</param>
    /// <param name="Guardian">Who does; <c>null</c> for oneself.</param>
    internal sealed record GuardianshipBody(Guid Id, string GroupName, string? Ward, string? Guardian);

    internal static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/groups/{groupId:guid}/asked", List).WithName("ListAsked");
        api.MapDelete("/groups/{groupId:guid}/asked/{personId:guid}", Withdraw).WithName("WithdrawAsking");
        api.MapPost("/memberships/{groupId:guid}/accept", Accept).WithName("AcceptMembership");
        api.MapPost("/memberships/{groupId:guid}/decline", Decline).WithName("DeclineMembership");
        api.MapGet("/guardianships", Guardianships).WithName("ListGuardianships");
        api.MapDelete("/guardianships/{guardianshipId:guid}", EndGuardian).WithName("EndGuardianship");
        api.MapPost("/guardianships/{guardianshipId:guid}/accept", AcceptGuardian).WithName("AcceptGuardianship");
        api.MapPost("/guardianships/{guardianshipId:guid}/decline", DeclineGuardian).WithName("DeclineGuardianship");
    }

    private static async Task<Results<Ok<List<AskedBody>>, ProblemHttpResult>> List(
        GroupId groupId,
        Acting acting,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        var me = await db.PlaceIn(groupId, acting.Person).AsNoTracking().FirstOrDefaultAsync(cancellationToken);
        if (MemberRules.ToKeep(me is not null, me?.Coordinates == true).WhyNotOfGroup() is { } refusal)
        {
            return Problems.Of(refusal);
        }

        return TypedResults.Ok(
            await (
                from row in db.MembershipsWaiting(groupId)
                join person in db.People on row.PersonId equals person.Id
                orderby person.Name
                select new AskedBody(person.Id.Value, person.Name, row.AskedAt!.Value)
            ).ToListAsync(cancellationToken)
        );
    }

    private static Task<Results<NoContent, ProblemHttpResult>> Withdraw(
        GroupId groupId,
        PersonId personId,
        Acting acting,
        MembershipCommands memberships,
        CancellationToken cancellationToken
    ) => memberships.Withdraw(acting.Act, groupId, personId, cancellationToken).Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> Accept(
        GroupId groupId,
        Acting acting,
        MembershipCommands memberships,
        CancellationToken cancellationToken
    ) => memberships.Answer(acting.Act, groupId, yes: true, cancellationToken).Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> Decline(
        GroupId groupId,
        Acting acting,
        MembershipCommands memberships,
        CancellationToken cancellationToken
    ) => memberships.Answer(acting.Act, groupId, yes: false, cancellationToken).Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> AcceptGuardian(
        Guid guardianshipId,
        Acting acting,
        MembershipCommands memberships,
        CancellationToken cancellationToken
    ) => memberships.AnswerGuardian(acting.Act, guardianshipId, yes: true, cancellationToken).Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> DeclineGuardian(
        Guid guardianshipId,
        Acting acting,
        MembershipCommands memberships,
        CancellationToken cancellationToken
    ) => memberships.AnswerGuardian(acting.Act, guardianshipId, yes: false, cancellationToken).Answer();

    private static async Task<Ok<List<GuardianshipBody>>> Guardianships(
        Acting acting,
        MortarDb db,
        CancellationToken cancellationToken
    ) =>
        TypedResults.Ok(
            await (
                from row in db.GuardianshipsOf(acting.Person)
                join home in db.Groups on row.GroupId equals home.Id
                join ward in db.People on row.WardId equals ward.Id
                join guardian in db.People on row.GuardianId equals guardian.Id
                orderby home.Name, ward.Name, guardian.Name
                select new GuardianshipBody(
                    row.Id,
                    home.Name,
                    row.WardId == acting.Person ? null : ward.Name,
                    row.GuardianId == acting.Person ? null : guardian.Name
                )
            ).ToListAsync(cancellationToken)
        );

    private static Task<Results<NoContent, ProblemHttpResult>> EndGuardian(
        Guid guardianshipId,
        Acting acting,
        GuardianCommands guardians,
        CancellationToken cancellationToken
    ) => guardians.End(acting.Act, guardianshipId, cancellationToken).Answer();
}
