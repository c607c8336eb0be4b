using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Calendars;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Calendars;

/// <summary>/api/bin: what deleting a calendar takes from whom, and bringing it back.</summary>
internal static class Bin
{
    /// <summary>What would go from everybody's wall.</summary>
    /// <param name="Events">Events and series in it.</param>
    /// <param name="People">Everybody who reaches it now.</param>
    internal sealed record LossBody(int Events, int People);

    /// <param name="DeletedBy">Who put it there.</param>
    /// <param name="KeptUntil">From when on it cannot be brought back.</param>
    internal sealed record BinnedBody(
        Guid CalendarId,
        string Name,
        Hue Hue,
        Mark Mark,
        string GroupName,
        string DeletedBy,
        Instant DeletedAt,
        Instant KeptUntil,
        int Events
    );

    internal static void Map(RouteGroupBuilder api, RouteGroupBuilder calendar)
    {
        calendar.MapGet("/loss", Loss).WithName("ReadLoss");
        api.MapGet("/bin", List).WithName("ListBin");
        api.MapPost("/bin/{calendarId:guid}/bring-back", BringBack).WithName("BringBackCalendar");
    }

    private static async Task<Results<Ok<LossBody>, ProblemHttpResult>> Loss(
        CalendarId calendarId,
        Acting acting,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        var role = (await db.StandingOf(acting.Person, calendarId, cancellationToken)).Role;
        return AccessRules.ToCoordinate(role).WhyNot("calendar", "Coordinate").Problem() is { } refusal
            ? refusal
            : TypedResults.Ok(
                new LossBody(
                    await db.Events.CountAsync(
                        row => row.CalendarId == calendarId && row.DeletedAt == null,
                        cancellationToken
                    ),
                    (await db.ReadersOf(calendarId, cancellationToken)).Count
                )
            );
    }

    private static async Task<Ok<List<BinnedBody>>> List(
        Acting acting,
        MortarDb db,
        CancellationToken cancellationToken
    ) =>
        TypedResults.Ok(
            (await db.InBin(acting.Person, cancellationToken))
                .Select(one => new BinnedBody(
                    one.Row.Id.Value,
                    one.Row.Name,
                    one.Row.Hue,
                    one.Row.Mark,
                    one.GroupName,
                    one.DeletedBy,
                    one.Row.DeletedAt!.Value,
                    one.Row.DeletedAt.Value + BinRules.Kept,
                    one.Events
                ))
                .ToList()
        );

    private static Task<Results<NoContent, ProblemHttpResult>> BringBack(
        CalendarId calendarId,
        Acting acting,
        CalendarCommands calendars,
        CancellationToken cancellationToken
    ) => calendars.BringBack(acting.Act, calendarId, cancellationToken).Answer();
}
