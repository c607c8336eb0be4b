using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Mortar.Core.Words;
using Mortar.Data.Reading;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Wall;

/// <summary>GET /api/ribbon: how full each of some weeks is, and where it clashes, over some of one's layers.</summary>
internal static class ReadRibbon
{
    private const int MostWeeks = 56;

    /// <param name="First">The first day of the week.</param>
    /// <param name="Minutes">How many minutes of it are taken, overlapping ones once.</param>
    internal sealed record Week(LocalDate First, int Minutes, int Clashes);

    public static void Map(RouteGroupBuilder api) => api.MapGet("/ribbon", Handle).WithName(nameof(ReadRibbon));

    private static async Task<Results<Ok<IReadOnlyList<Week>>, ProblemHttpResult>> Handle(
        [FromQuery] DateQuery from,
        [FromQuery] int weeks,
        [FromQuery] Guid[]? calendars,
        Acting acting,
        WindowReader wall,
        KeptWeeks kept,
        CancellationToken cancellationToken
    )
    {
        if (weeks is < 1 or > MostWeeks || from.Value.Year is < 1 or > 9_990)
        {
            return Problems.Unfit([new FieldProblem("weeks", $"Ask for 1 to {MostWeeks} weeks.")]);
        }

        var last = from.Value.PlusDays((weeks * 7) - 1);
        if (Ranges.WhyNot(from.Value, last) is { } refusal)
        {
            return refusal;
        }

        var seen = await wall.See(acting.Person, cancellationToken);
        var layers = new SeenLayers(
            seen,
            calendars is { Length: > 0 }
                ? seen.Calendars.Where(id => calendars.Contains(id.Value)).ToHashSet()
                : seen.Calendars
        );
        var told = new List<Week>();
        for (var week = 0; week < weeks; week++)
        {
            var first = from.Value.PlusDays(week * 7);
            var one = await kept.Of(wall, layers, seen.Days(first, first.PlusDays(6)), cancellationToken);
            told.Add(new Week(first, (int)one.Busy.TotalMinutes, one.Clashes));
        }

        return TypedResults.Ok<IReadOnlyList<Week>>(told);
    }
}
