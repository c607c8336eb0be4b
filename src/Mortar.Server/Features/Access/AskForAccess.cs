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

    /// <summary>Well over what asking takes when there is something to write.</summary>
    internal static readonly TimeSpan Least = TimeSpan.FromMilliseconds(120);

    internal static void Map(RouteGroupBuilder api, RouteGroupBuilder calendar)
    {
        calendar.MapPut("/asks/{askId:guid}", Ask).WithName(nameof(AskForAccess)).RequireRateLimiting(RateLimits.Asks);
        api.MapDelete("/asks/{askId:guid}", Withdraw).WithName("WithdrawAsk");
        api.MapPost("/asks/{askId:guid}/grant", Grant).WithName("GrantAsk");
        api.MapPost("/asks/{askId:guid}/refuse", Refuse).WithName("RefuseAsk");
    }

    /// <summary>Takes at least <see cref="Least"/>, so that how long it took does not tell either whether the calendar is there.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> Ask(
        CalendarId calendarId,
        AskId askId,
        Body body,
        Acting acting,
        AskCommands asks,
        TimeProvider time,
        CancellationToken cancellationToken
    )
    {
        var least = Task.Delay(Least, time, cancellationToken);
        var answer = await asks.Ask(acting.Act, calendarId, askId, body.Role, body.Note, cancellationToken).Answer();
        await least;
        return answer;
    }

    private static Task<Results<NoContent, ProblemHttpResult>> Withdraw(
        AskId askId,
        Acting acting,
        AskCommands asks,
        CancellationToken cancellationToken
    ) => asks.Withdraw(acting.Act, askId, cancellationToken).Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> Grant(
        AskId askId,
        AnswerBody body,
        Acting acting,
        AskCommands asks,
        CancellationToken cancellationToken
    ) => asks.Grant(acting.Act, askId, body.Role, cancellationToken).Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> Refuse(
        AskId askId,
        Acting acting,
        AskCommands asks,
        CancellationToken cancellationToken
    ) => asks.Refuse(acting.Act, askId, cancellationToken).Answer();
}
