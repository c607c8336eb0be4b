using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Links;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Access;

/// <summary>GET /api/calendars/{id}/audience: how many see what is added there, for whoever may add; no names.</summary>
internal static class ReadAudience
{
    /// <param name="Sentence">As <see cref="Audience.Sentence"/>.</param>
    internal sealed record Body(string Sentence);

    internal static void Map(RouteGroupBuilder calendar) =>
        calendar.MapGet("/audience", Handle).WithName(nameof(ReadAudience));

    private static async Task<Results<Ok<Body>, ProblemHttpResult>> Handle(
        Guid calendarId,
        Acting acting,
        MortarDb db,
        IClock clock,
        CancellationToken cancellationToken
    )
    {
        var id = new CalendarId(calendarId);
        var mine = (await db.StandingOf(acting.Person, id, cancellationToken)).Role;
        if (AccessRules.ToAdd(mine).WhyNot("calendar", "Add").Problem() is { } refusal)
        {
            return refusal;
        }

        var standings = await db.StandingsOn([id], cancellationToken);
        var now = clock.GetCurrentInstant();
        var group = await (
            from calendar in db.Calendars
            where calendar.Id == id
            join row in db.Groups on calendar.GroupId equals row.Id
            select new { row.Id, row.Name }
        ).SingleAsync(cancellationToken);
        var members = await db
            .Members.Where(member => member.GroupId == group.Id)
            .Select(member => member.PersonId)
            .ToListAsync(cancellationToken);
        var byLink = await db.LeadingLinks()
            .AnyAsync(
                link =>
                    link.CalendarId == id
                    && link.EventId == null
                    && link.EndedAt == null
                    && (link.EndsAt == null || link.EndsAt > now),
                cancellationToken
            );
        return TypedResults.Ok(
            new Body(
                Audience
                    .Of(standings.ToDictionary(one => one.Key.Person, one => one.Value.Role), members, byLink)
                    .Sentence(group.Name)
            )
        );
    }
}
