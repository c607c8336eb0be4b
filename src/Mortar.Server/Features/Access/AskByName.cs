using Microsoft.AspNetCore.Http.HttpResults;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Access;

/// <summary>PUT /api/open-asks/{askId}: asks a person or a group for a calendar of theirs; /give and /refuse answer it.</summary>
internal static class AskByName
{
    /// <param name="To">An address, the name of somebody one shares a group with, or the name of a group.</param>
    internal sealed record Body(string To, Role Role, string? Note = null);

    /// <param name="CalendarId">Which calendar is given: the answerer chooses.</param>
    internal sealed record GiftBody(Guid CalendarId, Role Role);

    internal static void Map(RouteGroupBuilder api)
    {
        var ask = api.MapGroup("/open-asks/{askId:guid}");
        ask.MapPut("/", Ask).WithName(nameof(AskByName)).RequireRateLimiting(RateLimits.Asks);
        ask.MapPost("/give", Give).WithName("GiveAsk");
        ask.MapPost("/refuse", Refuse).WithName("RefuseOpenAsk");
    }

    /// <summary>Takes as long for who is here as for who is not.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> Ask(
        AskId askId,
        Body body,
        Acting acting,
        OpenAskCommands asks,
        TimeProvider time,
        CancellationToken cancellationToken
    )
    {
        var least = Task.Delay(AskForAccess.Least, time, cancellationToken);
        var answer = await asks.Ask(acting.Act, askId, body.To, body.Role, body.Note, cancellationToken).Answer();
        await least;
        return answer;
    }

    private static Task<Results<NoContent, ProblemHttpResult>> Give(
        AskId askId,
        GiftBody body,
        Acting acting,
        OpenAskCommands asks,
        CancellationToken cancellationToken
    ) => asks.Give(acting.Act, askId, new CalendarId(body.CalendarId), body.Role, cancellationToken).Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> Refuse(
        AskId askId,
        Acting acting,
        OpenAskCommands asks,
        CancellationToken cancellationToken
    ) => asks.Refuse(acting.Act, askId, cancellationToken).Answer();
}
