using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Mortar.Data.Absences;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Absences;

/// <summary>
/// PUT /api/events/{eventId}/agreement: a coordinator agrees to an absence that waits for it, or does not, and it is off
/// the plan; who entered it is told.
/// </summary>
internal static class AgreeToEvent
{
    /// <param name="Comment">Told to who entered it.</param>
    internal sealed record Body(bool Agrees, string? Comment = null);

    public static void Map(RouteGroupBuilder api) =>
        api.MapPut("/events/{eventId:guid}/agreement", Handle).WithName(nameof(AgreeToEvent));

    private static Task<Results<NoContent, ProblemHttpResult>> Handle(
        EventId eventId,
        Body body,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        Acting acting,
        AgreementCommands agreements,
        CancellationToken cancellationToken
    ) =>
        agreements
            .Answer(acting.Act, eventId, Versions.Read(ifMatch), body.Agrees, body.Comment, cancellationToken)
            .Answer();
}
