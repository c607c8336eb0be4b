using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Mortar.Core.Availability;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Absences;
using Mortar.Data.Availability;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Absences;

/// <summary>GET /api/groups/{groupId}/back: the first working day of some members after their last day away.</summary>
internal static class ReadBack
{
    /// <summary>How many days after the last are looked through for days off of all.</summary>
    private const int DaysAhead = 92;

    private const int MostPeople = 500;

    /// <param name="Back">The day on which all of them are back; <c>null</c> where nobody of the group was asked for.</param>
    internal sealed record Body(LocalDate? Back);

    public static void Map(RouteGroupBuilder api) =>
        api.MapGet("/groups/{groupId:guid}/back", Handle).WithName(nameof(ReadBack));

    private static async Task<Results<Ok<Body>, ProblemHttpResult>> Handle(
        GroupId groupId,
        [FromQuery] DateQuery last,
        [FromQuery] Guid[] people,
        Acting acting,
        MortarDb db,
        TimesReader times,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        if (await CountedGroup.Read(groupId, acting.Person, db, cancellationToken) is not { } group)
        {
            return Problems.NotThere("group");
        }

        if (Ranges.WhyNot(last.Value, last.Value) is { } refusal)
        {
            return refusal;
        }

        if (people.Length > MostPeople)
        {
            return Problems.Unfit([new FieldProblem("people", $"Ask for at most {MostPeople} people at once.")]);
        }

        var zone = zones.Zone(group.Row.Zone);
        var known = await times.Read(
            acting.Person,
            [.. people.Select(id => new PersonId(id)).Where(group.Members.Contains).Select(Participant.Of)],
            new Window(last.Value, last.Value, zone),
            new TimesScope(group.Row.Id),
            cancellationToken
        );
        var ahead = new Window(last.Value.PlusDays(1), last.Value.PlusDays(DaysAhead), zone);
        var daysOff = await db.DaysOffIn(group.Row, ahead, zones, cancellationToken);
        return TypedResults.Ok(
            new Body(known.Select(one => one.Hours?.Off(daysOff).BackAfter(last.Value)).DefaultIfEmpty(null).Max())
        );
    }
}
