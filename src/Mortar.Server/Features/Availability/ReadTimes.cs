using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Mortar.Core.Availability;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Availability;
using Mortar.Data.People;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Availability;

/// <summary>
/// GET /api/times: when some people are busy beside what lies on one's own layers. Told of those who let people of their
/// groups know; who does not, or is not known to one, is answered alike, with nothing.
/// </summary>
internal static class ReadTimes
{
    private const int MostPeople = 500;

    /// <param name="Stretches">Taken, and on no layer of the reader's; in order.</param>
    internal sealed record Body(Guid PersonId, IReadOnlyList<StretchBody> Stretches);

    /// <summary>A stretch on the reader's clock.</summary>
    internal sealed record StretchBody(LocalDateTime Start, LocalDateTime End, bool Tentative);

    public static void Map(RouteGroupBuilder api) => api.MapGet("/times", Handle).WithName(nameof(ReadTimes));

    private static async Task<Results<Ok<IReadOnlyList<Body>>, ProblemHttpResult>> Handle(
        [FromQuery] DateQuery from,
        [FromQuery] DateQuery to,
        [FromQuery] Guid[] people,
        Acting acting,
        MortarDb db,
        TimesReader times,
        ZoneClock clock,
        CancellationToken cancellationToken
    )
    {
        if (Ranges.WhyNot(from.Value, to.Value) is { } refusal)
        {
            return refusal;
        }

        if (people.Length > MostPeople)
        {
            return Problems.Unfit([new FieldProblem("people", $"Ask for at most {MostPeople} people at once.")]);
        }

        var zone = await db.ZoneOf(acting.Person, clock, cancellationToken);
        var known = await times.Read(
            acting.Person,
            [.. people.Select(id => Participant.Of(new PersonId(id)))],
            new Window(from.Value, to.Value, zone),
            new TimesScope(),
            cancellationToken
        );
        return TypedResults.Ok<IReadOnlyList<Body>>([
            .. known
                .Where(one => one.Who != Participant.Of(acting.Person))
                .Select(one => new Body(
                    one.Who.Id,
                    [.. one.Time.Unseen.Select(taken => Of(taken.Span, taken.Tentative))]
                ))
                .Where(one => one.Stretches.Count > 0),
        ]);

        StretchBody Of(Interval span, bool tentative) =>
            new(span.Start.InZone(zone).LocalDateTime, span.End.InZone(zone).LocalDateTime, tentative);
    }
}
