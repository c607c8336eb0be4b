using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Mortar.Core.Absences;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Absences;
using Mortar.Data.Availability;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Absences;

/// <summary>GET /api/groups/{groupId}/absences: how many working days everybody is away in a year, month by month; for members, as far as they see absences.</summary>
internal static class ReadAbsences
{
    /// <param name="HalfDays">How many half days in each month from January on.</param>
    /// <param name="Days">All of them, in days.</param>
    internal sealed record TotalBody(Guid PersonId, IReadOnlyList<int> HalfDays, decimal Days);

    public static void Map(RouteGroupBuilder api) =>
        api.MapGet("/groups/{groupId:guid}/absences", Handle).WithName(nameof(ReadAbsences));

    private static async Task<Results<Ok<IReadOnlyList<TotalBody>>, ProblemHttpResult>> Handle(
        GroupId groupId,
        [FromQuery] int year,
        Acting acting,
        MortarDb db,
        TimesReader times,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        if (year is < 1900 or > 2199)
        {
            return Problems.Unfit([new FieldProblem("year", "Years from 1900 to 2199 can be asked for.")]);
        }

        if (await CountedGroup.Read(groupId, acting.Person, db, cancellationToken) is not { } group)
        {
            return Problems.NotThere("group");
        }

        var window = new Window(new LocalDate(year, 1, 1), new LocalDate(year, 12, 31), zones.Zone(group.Row.Zone));
        var people = await group.People(acting.Person, window, Without.Nobody, times, cancellationToken);
        var daysOff = await db.DaysOffIn(group.Row, window, zones, cancellationToken);
        return TypedResults.Ok<IReadOnlyList<TotalBody>>([
            .. AbsenceCount
                .Of(window, people, daysOff)
                .Select(one => new TotalBody(one.Person.Value, one.HalfDays, one.Days)),
        ]);
    }
}
