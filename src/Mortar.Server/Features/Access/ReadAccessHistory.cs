using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Groups;
using Mortar.Data.History;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Access;

/// <summary>Who gave what to whom and when: of a calendar, and of a person on the calendars of a group; for coordinators.</summary>
internal static class ReadAccessHistory
{
    /// <param name="CalendarName"><c>null</c> for what was done about the group.</param>
    /// <param name="Actor">The name of who did it.</param>
    /// <param name="Sentence">What they did, to be read after the name.</param>
    internal sealed record EntryBody(long Sequence, Instant At, string? CalendarName, string Actor, string Sentence);

    internal static void Map(RouteGroupBuilder api, RouteGroupBuilder calendar)
    {
        calendar.MapGet("/access-history", OfCalendar).WithName("ReadCalendarAccessHistory");
        api.MapGet("/groups/{groupId:guid}/access-history/{personId:guid}", OfPerson)
            .WithName("ReadPersonAccessHistory");
    }

    private static async Task<Results<Ok<List<EntryBody>>, ProblemHttpResult>> OfCalendar(
        CalendarId calendarId,
        Acting acting,
        MortarDb db,
        AccessHistory history,
        CancellationToken cancellationToken
    )
    {
        return await db.WhyNotCoordinate(acting.Person, calendarId, cancellationToken) is { } refusal
            ? refusal
            : TypedResults.Ok(await Told(db, history, acting.Person, [calendarId], person: null, cancellationToken));
    }

    private static async Task<Results<Ok<List<EntryBody>>, ProblemHttpResult>> OfPerson(
        GroupId groupId,
        PersonId personId,
        Acting acting,
        MortarDb db,
        AccessHistory history,
        CancellationToken cancellationToken
    )
    {
        if (!await db.PlaceIn(groupId, acting.Person).AnyAsync(cancellationToken))
        {
            return Problems.NotThere("group");
        }

        var inGroup = await db
            .Calendars.Where(row => row.GroupId == groupId && row.DeletedAt == null)
            .Select(row => row.Id)
            .ToListAsync(cancellationToken);
        var mine = await db.StandingsOf(acting.Person, cancellationToken);
        return TypedResults.Ok(
            await Told(
                db,
                history,
                acting.Person,
                inGroup.FindAll(calendar =>
                    AccessRules.ToCoordinate(mine.GetValueOrDefault(calendar, Standing.Outside).Role) == Verdict.Granted
                ),
                personId,
                cancellationToken
            )
        );
    }

    private static async Task<List<EntryBody>> Told(
        MortarDb db,
        AccessHistory history,
        PersonId reader,
        List<CalendarId> calendars,
        PersonId? person,
        CancellationToken cancellationToken
    )
    {
        var names = await db
            .Calendars.Where(row => calendars.Contains(row.Id))
            .ToDictionaryAsync(row => row.Id, row => row.Name, cancellationToken);
        return
        [
            .. (await history.Of(reader, calendars, person, cancellationToken)).Select(one => new EntryBody(
                one.Sequence,
                one.At,
                one.CalendarId is { } calendar ? names[calendar] : null,
                one.Actor,
                one.Sentence
            )),
        ];
    }
}
