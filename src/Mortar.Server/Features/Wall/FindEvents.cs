using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;

namespace Mortar.Server.Features.Wall;

/// <summary>GET /api/find: events by words, person, place, calendar, kind and days, over all that one may see.</summary>
internal static class FindEvents
{
    private const int Most = 200;

    private const int MostOfSeries = 3;

    /// <param name="Hits">In order of time; of a series the first few in the range.</param>
    /// <param name="Texts">What is long on the hits, by their number in it.</param>
    /// <param name="More">Whether there are more than are told.</param>
    internal sealed record Body(IReadOnlyList<BrickBody.Event> Hits, IReadOnlyList<BrickTexts> Texts, bool More);

    public static void Map(RouteGroupBuilder api) =>
        api.MapGet("/find", Handle).WithName(nameof(FindEvents)).RequireRateLimiting(RateLimits.Searching);

    private static async Task<Results<Ok<Body>, ProblemHttpResult>> Handle(
        [FromQuery] DateQuery from,
        [FromQuery] DateQuery to,
        [FromQuery] string? words,
        [FromQuery] string? place,
        [FromQuery] string? kind,
        [FromQuery] Guid? person,
        [FromQuery] Guid? calendar,
        Acting acting,
        WallReader wall,
        CancellationToken cancellationToken
    )
    {
        if (Ranges.WhyNot(from.Value, to.Value) is { } refusal)
        {
            return refusal;
        }

        var search = new EventSearch(
            words ?? string.Empty,
            place ?? string.Empty,
            kind,
            person is { } id ? new PersonId(id) : null
        );
        var reading = await wall.Read(acting.Person, from.Value, to.Value, cancellationToken);
        var zone = reading.Window.Reader;
        var hits = reading
            .Calendars.Where(one => calendar is null || one.Row.Id.Value == calendar)
            .SelectMany(reading.Visible)
            .OfType<VisibleEvent.Shown>()
            .Where(search.Finds)
            .OrderBy(shown => shown.Seen.LocalStart)
            .GroupBy(shown => shown.Id)
            .SelectMany(same => same.Take(MostOfSeries))
            .OrderBy(shown => shown.Seen.LocalStart)
            .Take(Most + 1)
            .ToList();
        var table = new BrickTable(zone);
        return TypedResults.Ok(new Body([.. hits.Take(Most).Select(table.Lay)], table.Texts, hits.Count > Most));
    }
}
