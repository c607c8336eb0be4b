using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Store;
using Mortar.Formats.ICalendar;
using Mortar.Server.Hosting;
using NodaTime;

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
        ZoneClock zones,
        IClock clock,
        CancellationToken cancellationToken
    )
    {
        var role = (await db.StandingOf(acting.Person, calendarId, cancellationToken)).Role;
        if (AccessRules.ToExport(role).WhyNot("calendar", "View").Problem() is { } refusal)
        {
            return refusal;
        }

        var calendar = await db.Calendars.AsNoTracking().SingleAsync(row => row.Id == calendarId, cancellationToken);
        var rows = await db
            .Events.AsNoTracking()
            .Where(row => row.CalendarId == calendarId && row.DeletedAt == null)
            .OrderBy(row => row.IndexStart)
            .ThenBy(row => row.Uid)
            .ToListAsync(cancellationToken);
        var written = (
            from row in rows
            let seen = VisibleEvent.ToExport(role, acting.Person, row.ToCore())
            where seen.Event is not null
            select new EventToWrite(seen.Event!, seen.IsWhole ? row.Source : null)
        ).ToList();
        var people = written.SelectMany(one => one.Event.Named.Append(one.Event.AddedBy)).Distinct().ToList();
        var names = await db
            .People.Where(person => people.Contains(person.Id))
            .ToDictionaryAsync(person => person.Id, person => person.Name, cancellationToken);
        var text = CalendarFileWriter.Write(
            new FileHead(calendar.Name, calendar.Description, calendar.Zone),
            written,
            names,
            clock.GetCurrentInstant(),
            zones
        );
        return TypedResults.File(
            Encoding.UTF8.GetBytes(text),
            "text/calendar; charset=utf-8",
            FilesToGive.Name(calendar.Name, ".ics")
        );
    }
}
