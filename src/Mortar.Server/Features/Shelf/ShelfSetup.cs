using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Calendars;
using Mortar.Data.Store;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Shelf;

/// <summary>/api/shelf: the layers of one's own wall.</summary>
internal static class ShelfSetup
{
    /// <param name="Role">Where one stands with the calendar, by which ways.</param>
    /// <param name="Description"><c>null</c> where one's step does not show it.</param>
    /// <param name="GroupDefault">Told to coordinators only.</param>
    internal sealed record LayerBody(
        Guid CalendarId,
        Guid GroupId,
        string GroupName,
        string Name,
        string? Description,
        Hue Hue,
        Mark Mark,
        string Zone,
        Purpose Purpose,
        Role? GroupDefault,
        Role Role,
        IReadOnlyList<Way> Ways,
        bool Shown,
        int Version
    );

    internal sealed record ShownBody(bool Shown);

    public static void MapShelf(this RouteGroupBuilder api)
    {
        api.MapGet("/shelf", List).WithName("ListLayers");
        api.MapPut("/shelf/{calendarId:guid}", Show).WithName("ShowLayer");
    }

    /// <summary>The layer of one calendar on one person's shelf.</summary>
    internal static async Task<LayerBody> LayerOf(
        this MortarDb db,
        PersonId person,
        CalendarId calendar,
        CancellationToken cancellationToken
    ) => (await Layers(db, person, calendar, cancellationToken))[0];

    private static async Task<Ok<IReadOnlyList<LayerBody>>> List(
        Acting acting,
        MortarDb db,
        CancellationToken cancellationToken
    ) => TypedResults.Ok(await Layers(db, acting.Person, only: null, cancellationToken));

    private static async Task<Results<NoContent, ProblemHttpResult>> Show(
        Guid calendarId,
        ShownBody body,
        Acting acting,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        var id = new CalendarId(calendarId);
        if (AccessRules.ToSee((await db.StandingOf(acting.Person, id, cancellationToken)).Role) != Verdict.Granted)
        {
            return Problems.NotThere("calendar");
        }

        if (await db.Layers.FindAsync([acting.Person, id], cancellationToken) is { } known)
        {
            known.Shown = body.Shown;
        }
        else
        {
            db.Layers.Add(
                new LayerRow
                {
                    PersonId = acting.Person,
                    CalendarId = id,
                    Shown = body.Shown,
                }
            );
        }

        await db.SaveChangesAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static async Task<IReadOnlyList<LayerBody>> Layers(
        MortarDb db,
        PersonId person,
        CalendarId? only,
        CancellationToken cancellationToken
    )
    {
        var standings = await db.StandingsOf(person, cancellationToken);
        var ids = only is { } one ? [one] : standings.Keys.ToList();
        var rows = await (
            from calendar in db.Calendars.AsNoTracking()
            where ids.Contains(calendar.Id)
            join g in db.Groups on calendar.GroupId equals g.Id
            join layer in db.Layers.Where(layer => layer.PersonId == person)
                on calendar.Id equals layer.CalendarId
                into layers
            from layer in layers.DefaultIfEmpty()
            orderby g.Name, calendar.Name
            select new
            {
                calendar,
                g.Name,
                Shown = layer == null || layer.Shown,
            }
        ).ToListAsync(cancellationToken);
        return
        [
            .. from row in rows
            let standing = standings.GetValueOrDefault(row.calendar.Id, Standing.Outside)
            let visible = VisibleCalendar.Through(standing.Role, row.calendar.Settings())
            where visible is not null
            select new LayerBody(
                row.calendar.Id.Value,
                row.calendar.GroupId.Value,
                row.Name,
                visible.Name,
                visible.Description,
                visible.Hue,
                visible.Mark,
                visible.Zone,
                visible.Purpose,
                visible.GroupDefault,
                standing.Role,
                standing.Ways,
                row.Shown,
                row.calendar.Version
            ),
        ];
    }
}
