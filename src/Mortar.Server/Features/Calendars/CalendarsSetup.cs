using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Calendars;
using Mortar.Data.Store;
using Mortar.Server.Features.Shelf;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Calendars;

/// <summary>/api/calendars: making, reading, changing and deleting a calendar.</summary>
internal static class CalendarsSetup
{
    /// <param name="GroupId">The group it is made in; a change leaves it where it is.</param>
    internal sealed record SettingsBody(
        Guid GroupId,
        string Name,
        Hue Hue,
        Mark Mark,
        string Zone,
        Purpose Purpose,
        Role GroupDefault,
        string? Description = null,
        WhoseTime Takes = WhoseTime.Named,
        Guid? Person = null,
        IReadOnlyList<Kind>? Kinds = null,
        bool OneAtATime = false,
        bool Agreed = false
    );

    /// <summary>What would go from everybody's wall.</summary>
    /// <param name="Events">Events and series in it.</param>
    /// <param name="People">Everybody who reaches it now.</param>
    internal sealed record LossBody(int Events, int People);

    public static void AddCalendars(this IServiceCollection services) => services.AddScoped<CalendarCommands>();

    public static void MapCalendars(this RouteGroupBuilder api)
    {
        var calendars = api.MapGroup("/calendars/{calendarId:guid}");
        calendars.MapGet("/", Read).WithName("ReadCalendar");
        calendars.MapPut("/", Put).WithName("PutCalendar");
        calendars.MapDelete("/", Delete).WithName("DeleteCalendar");
        ExportCalendar.Map(calendars);
        calendars.MapGet("/loss", Loss).WithName("ReadLoss");
        api.MapGet("/zones", Zones).WithName("ListZones");
    }

    private static async Task<Results<Ok<ShelfSetup.LayerBody>, ProblemHttpResult>> Read(
        CalendarId calendarId,
        Acting acting,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        return
            AccessRules.ToSee((await db.StandingOf(acting.Person, calendarId, cancellationToken)).Role)
            == Verdict.Granted
            ? TypedResults.Ok(await db.LayerOf(acting.Person, calendarId, cancellationToken))
            : Problems.NotThere("calendar");
    }

    /// <summary>Creates without If-Match; changes with it. A creation sent twice is done once.</summary>
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

    private static async Task<Results<Ok<ShelfSetup.LayerBody>, ProblemHttpResult>> Put(
        CalendarId calendarId,
        SettingsBody body,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        Acting acting,
        MortarDb db,
        CalendarCommands calendars,
        CancellationToken cancellationToken
    )
    {
        var settings = new CalendarSettings(
            body.Name,
            body.Description ?? string.Empty,
            body.Hue,
            body.Mark,
            body.Zone,
            body.Purpose,
            body.GroupDefault
        )
        {
            Takes = body.Takes,
            Person = body.Person is { } person ? new PersonId(person) : null,
            Kinds = body.Kinds ?? [],
            OneAtATime = body.OneAtATime,
            Agreed = body.Agreed,
        };
        return await calendars
            .Put(acting.Act, calendarId, new GroupId(body.GroupId), Versions.Read(ifMatch), settings, cancellationToken)
            .Answer(_ => db.LayerOf(acting.Person, calendarId, cancellationToken));
    }

    /// <param name="name">The calendar's name, typed to show that this one is meant.</param>
    private static Task<Results<NoContent, ProblemHttpResult>> Delete(
        CalendarId calendarId,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        [FromQuery] string? name,
        Acting acting,
        CalendarCommands calendars,
        CancellationToken cancellationToken
    ) => calendars.Delete(acting.Act, calendarId, Versions.Read(ifMatch), name, cancellationToken).Answer();

    /// <summary>The names of all zones that can be chosen, in order.</summary>
    private static Ok<IReadOnlyList<string>> Zones(IDateTimeZoneProvider zones) =>
        TypedResults.Ok<IReadOnlyList<string>>([
            .. zones
                .Ids.Where(id => id == "UTC" || id.Contains('/', StringComparison.Ordinal))
                .Order(StringComparer.Ordinal),
        ]);
}
