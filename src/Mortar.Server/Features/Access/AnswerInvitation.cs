using Microsoft.AspNetCore.Http.HttpResults;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Access;

/// <summary>POST /api/invitations/{id}/accept and /decline: the answer of the one invited.</summary>
internal static class AnswerInvitation
{
    internal static void Map(RouteGroupBuilder api)
    {
        api.MapPost("/invitations/{invitationId:guid}/accept", Accept).WithName("AcceptInvitation");
        api.MapPost("/invitations/{invitationId:guid}/decline", Decline).WithName("DeclineInvitation");
    }

    private static Task<Results<NoContent, ProblemHttpResult>> Accept(
        Guid invitationId,
        Acting acting,
        AccessCommands access,
        CancellationToken cancellationToken
    ) => access.Accept(acting.Act, new InvitationId(invitationId), cancellationToken).Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> Decline(
        Guid invitationId,
        Acting acting,
        AccessCommands access,
        CancellationToken cancellationToken
    ) => access.Decline(acting.Act, new InvitationId(invitationId), cancellationToken).Answer();
}
