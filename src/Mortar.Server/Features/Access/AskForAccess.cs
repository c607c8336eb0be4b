using Microsoft.AspNetCore.Http.HttpResults;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Access;

/// <summary>PUT /api/calendars/{id}/asks/{askId}: asks for a step. /api/asks/{id}: taking it back, and a coordinator's answer.</summary>
internal static class AskForAccess
{
    internal sealed record Body(Role Role, string? Note = null);

    internal sealed record AnswerBody(Role Role);

    internal static void Map(RouteGroupBuilder api, RouteGroupBuilder calendar)
    {
        calendar
            .MapPut("/asks/{askId:guid}", Ask)
            .WithName(nameof(AskForAccess))
            .RequireRateLimiting(RateLimits.Asking);
        api.MapDelete("/asks/{askId:guid}", Withdraw).WithName("WithdrawAsk");
        api.MapPost("/asks/{askId:guid}/grant", Grant).WithName("GrantAsk");
        api.MapPost("/asks/{askId:guid}/refuse", Refuse).WithName("RefuseAsk");
    }

    private static Task<Results<NoContent, ProblemHttpResult>> Ask(
        Guid calendarId,
        Guid askId,
        Body body,
        Acting acting,
        AskCommands asks,
        CancellationToken cancellationToken
    ) =>
        asks.Ask(acting.Act, new CalendarId(calendarId), new AskId(askId), body.Role, body.Note, cancellationToken)
            .Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> Withdraw(
        Guid askId,
        Acting acting,
        AskCommands asks,
        CancellationToken cancellationToken
    ) => asks.Withdraw(acting.Act, new AskId(askId), cancellationToken).Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> Grant(
        Guid askId,
        AnswerBody body,
        Acting acting,
        AskCommands asks,
        CancellationToken cancellationToken
    ) => asks.Grant(acting.Act, new AskId(askId), body.Role, cancellationToken).Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> Refuse(
        Guid askId,
        Acting acting,
        AskCommands asks,
        CancellationToken cancellationToken
    ) => asks.Refuse(acting.Act, new AskId(askId), cancellationToken).Answer();
}
