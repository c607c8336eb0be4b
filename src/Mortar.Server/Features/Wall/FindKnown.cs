using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Mortar.Data.Reading;
using Mortar.Data.Store;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Wall;

/// <summary>GET /api/find/known: people, calendars and groups one knows of, by their names.</summary>
internal static class FindKnown
{
    /// <param name="Calendars">Those of the shelf, and those that were taken off it.</param>
    /// <param name="Groups">Those one is in, at work or at rest.</param>
    internal sealed record Body(
        IReadOnlyList<PersonBody> People,
        IReadOnlyList<Guid> Calendars,
        IReadOnlyList<Guid> Groups
    );

    /// <param name="Groups">Those that both are in.</param>
    internal sealed record PersonBody(Guid PersonId, string Name, IReadOnlyList<Guid> Groups);

    public static void Map(RouteGroupBuilder api) =>
        api.MapGet("/find/known", Handle).WithName(nameof(FindKnown)).RequireRateLimiting(RateLimits.Searching);

    private static async Task<Ok<Body>> Handle(
        [FromQuery] string? words,
        Acting acting,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        var found = await db.FindKnown(acting.Person, words ?? string.Empty, cancellationToken);
        return TypedResults.Ok(
            new Body(
                [
                    .. found.People.Select(one => new PersonBody(
                        one.Id.Value,
                        one.Name,
                        [.. one.Groups.Select(group => group.Value)]
                    )),
                ],
                [.. found.Calendars.Select(one => one.Value)],
                [.. found.Groups.Select(one => one.Value)]
            )
        );
    }
}
