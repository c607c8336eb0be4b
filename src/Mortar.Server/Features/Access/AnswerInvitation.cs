using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;

namespace Mortar.Server.Features.Access;

/// <summary>POST /api/invitations/{id}/accept and /decline: the answer of the one invited.</summary>
internal static class AnswerInvitation
{
    internal static void Map(RouteGroupBuilder api)
    {
        api.MapPost("/invitations/{invitationId:guid}/accept", Accept).WithName("AcceptInvitation");
        api.MapPost("/invitations/{invitationId:guid}/decline", Decline).WithName("DeclineInvitation");
    }

    /// <param name="inReturn">A calendar of one's own for whoever sent it; <c>null</c> for none.</param>
    /// <param name="inReturnRole">The step on that calendar.</param>
    private static Task<Results<NoContent, ProblemHttpResult>> Accept(
        InvitationId invitationId,
        [FromQuery] CalendarId? inReturn,
        [FromQuery] RoleQuery? inReturnRole,
        Acting acting,
        InvitationCommands invitations,
        CancellationToken cancellationToken
    ) =>
        invitations
            .Accept(
                acting.Act,
                invitationId,
                inReturn is { } gift ? new ReturnGift(gift, inReturnRole?.Value ?? Role.None) : null,
                cancellationToken
            )
            .Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> Decline(
        InvitationId invitationId,
        Acting acting,
        InvitationCommands invitations,
        CancellationToken cancellationToken
    ) => invitations.Decline(acting.Act, invitationId, cancellationToken).Answer();
}
