using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Events;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Wall;

/// <summary>GET /api/wall: everything on the layers of one's wall between two days, on one's own clock.</summary>
internal static class WallSetup
{
    /// <param name="Zone">The zone whose clock the bricks are on.</param>
    /// <param name="Bricks">All bricks of all layers, hidden ones too, so that showing a layer takes no time.</param>
    internal sealed record Body(LocalDate From, LocalDate To, string Zone, IReadOnlyList<BrickBody> Bricks);

    public static void MapWall(this RouteGroupBuilder api) => api.MapGet("/wall", Read).WithName("ReadWall");

    private static async Task<Results<Ok<Body>, ProblemHttpResult>> Read(
        [FromQuery(Name = "from")] DateQuery first,
        [FromQuery(Name = "to")] DateQuery last,
        Acting acting,
        MortarDb db,
        ZoneClock clock,
        CancellationToken cancellationToken
    )
    {
        var (from, to) = (first.Value, last.Value);
        if (to < from || Period.DaysBetween(from, to) >= Window.LongestDays)
        {
            return Problems.Unfit([
                new FieldProblem(
                    "to",
                    FormattableString.Invariant(
                        $"Ask for 1 to {Window.LongestDays} days; the last not before the first."
                    )
                ),
            ]);
        }

        var zone = clock.Zone(
            await db
                .People.Where(person => person.Id == acting.Person)
                .Select(person => person.Zone)
                .SingleAsync(cancellationToken)
        );
        var window = new Window(from, to, zone);
        var standings = await db.StandingsOf(acting.Person, cancellationToken);
        var events = (await db.EventsTouching([.. standings.Keys], window, cancellationToken)).ToLookup(one =>
            one.CalendarId
        );
        var bricks =
            from calendar in standings
            from visible in VisibleEvent.Through(
                calendar.Value.Role,
                acting.Person,
                events[calendar.Key].SelectMany(one => one.Occurrences(window, clock).Take(SeriesExpansion.MostShown)),
                window
            )
            select BrickBody.Of(calendar.Key, visible, zone);
        return TypedResults.Ok(new Body(from, to, zone.Id, [.. bricks]));
    }
}
