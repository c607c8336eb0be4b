using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;

namespace Mortar.Server.Features.Calendars;

/// <summary>GET /api/calendars/{id}/export: the whole calendar as an iCalendar file.</summary>
internal static class ExportCalendar
{
    internal static void Map(RouteGroupBuilder calendars) =>
        calendars
            .MapGet("/export", Handle)
            .WithName(nameof(ExportCalendar))
            .Produces(StatusCodes.Status200OK, contentType: "text/calendar");

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Handle(
        CalendarId calendarId,
        Acting acting,
        MortarDb db,
        CalendarFiles files,
        CancellationToken cancellationToken
    )
    {
        var role = (await db.StandingOf(acting.Person, calendarId, cancellationToken)).Role;
        if (AccessRules.ToExport(role).WhyNot("calendar", "View").Problem() is { } refusal)
        {
            return refusal;
        }

        var calendar = await db.Calendars.AsNoTracking().SingleAsync(row => row.Id == calendarId, cancellationToken);
        var file = await files.Events(acting.Person, role, calendar, cancellationToken);
        return TypedResults.File(
            Encoding.UTF8.GetBytes(file.Text),
            "text/calendar; charset=utf-8",
            FilesToGive.Name(calendar.Name, ".ics")
        );
    }
}
