using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Links;
using Mortar.Data.Store;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Access;

/// <summary>GET /api/calendars/{id}/audience: how many see what is added there, for whoever may add; no names.</summary>
internal static class ReadAudience
{
    /// <param name="Sentence">As <see cref="Audience.Sentence"/>.</param>
    internal sealed record Body(string Sentence);

    internal static void Map(RouteGroupBuilder calendar) =>
        calendar.MapGet("/audience", Handle).WithName(nameof(ReadAudience));

    private static async Task<Results<Ok<Body>, ProblemHttpResult>> Handle(
        CalendarId calendarId,
        Acting acting,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        var mine = (await db.StandingOf(acting.Person, calendarId, cancellationToken)).Role;
        if (AccessRules.ToAdd(mine).WhyNot("calendar", "Add").Problem() is { } refusal)
        {
            return refusal;
        }

        var standings = await db.StandingsOn([calendarId], cancellationToken);
        var now = db.Now;
        var group = await (
            from calendar in db.Calendars
            where calendar.Id == calendarId
            join row in db.Groups on calendar.GroupId equals row.Id
            select new { row.Id, row.Name }
        ).SingleAsync(cancellationToken);
        var members = await db
            .Members.Where(member => member.GroupId == group.Id)
            .Select(member => member.PersonId)
            .ToListAsync(cancellationToken);
        var byLink = await db.LeadingLinks()
            .CountingAt(now)
            .AnyAsync(link => link.CalendarId == calendarId && link.EventId == null, cancellationToken);
        return TypedResults.Ok(
            new Body(
                Audience
                    .Of(standings.ToDictionary(one => one.Key.Person, one => one.Value.Role), members, byLink)
                    .Sentence(group.Name)
            )
        );
    }
}
