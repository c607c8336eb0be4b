using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Calendars;
using Mortar.Data.Events;
using Mortar.Data.Shelf;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Shelf;

/// <summary>/api/shelf: the layers of one's own wall.</summary>
internal static class ShelfSetup
{
    /// <param name="Name">As one sees it; <paramref name="Calendar"/> has what everybody else does. So too its colour and sign.</param>
    /// <param name="Takes">Whose time its events take.</param>
    /// <param name="Person">The one person whose time it takes.</param>
    /// <param name="Agreed">Whether a coordinator agrees to what others enter.</param>
    /// <param name="GroupName"><c>null</c> where one does not reach the calendar, and an event of it is given by itself.</param>
    /// <param name="Role">Where one stands with the calendar, by which ways; none where an event of it is given by itself.</param>
    /// <param name="May">What that allows, so that nobody who offers it compares steps.</param>
    /// <param name="Description"><c>null</c> where one's step does not show it.</param>
    /// <param name="GroupDefault">Told to coordinators only.</param>
    /// <param name="Web">How it is with a calendar whose events come from the web; <c>null</c> for others.</param>
    internal sealed record LayerBody(
        Guid CalendarId,
        Guid? GroupId,
        string? GroupName,
        string Name,
        string? Description,
        Hue Hue,
        Mark Mark,
        string Zone,
        Purpose Purpose,
        Role? GroupDefault,
        WhoseTime Takes,
        Guid? Person,
        bool OneAtATime,
        bool Agreed,
        IReadOnlyList<Kind> Kinds,
        Role Role,
        IReadOnlyList<Way> Ways,
        Role Stays,
        May May,
        bool Shown,
        bool Beside,
        bool OffShelf,
        LookBody Calendar,
        WebBody? Web,
        int Version
    );

    /// <param name="AsOf">When what it has was last known to be so; <c>null</c> where it was never fetched.</param>
    /// <param name="FailingSince">Since when it cannot be fetched; <c>null</c> where it can.</param>
    internal sealed record WebBody(Instant? AsOf, Instant? FailingSince);

    /// <summary>What a layer is known by.</summary>
    internal sealed record LookBody(string Name, Hue Hue, Mark Mark);

    /// <summary>How a layer lies on one's own wall; nobody else sees it.</summary>
    /// <param name="Beside">Whether it has a lane of its own.</param>
    /// <param name="Look">One's own look; <c>null</c> for that of the calendar.</param>
    /// <param name="OffShelf">Whether it is taken off the shelf, to which it comes back when it is found.</param>
    internal sealed record LayBody(bool Shown, bool Beside, LookBody? Look, bool OffShelf = false);

    /// <param name="Layers">In the order in which they are to lie on the shelf; those not named stay behind them.</param>
    internal sealed record OrderBody(IReadOnlyList<OrderedLayer> Layers);

    internal sealed record OrderedLayer(Guid CalendarId, bool Shown, bool Beside);

    public static void AddShelf(this IServiceCollection services) =>
        services.AddScoped<ShelfCommands>().AddScoped<SetCommands>();

    public static void MapShelf(this RouteGroupBuilder api)
    {
        api.MapGet("/shelf", List).WithName("ListLayers");
        api.MapPut("/shelf", Order).WithName("OrderLayers");
        api.MapPut("/shelf/{calendarId:guid}", Lay).WithName("LayLayer");
    }

    /// <summary>The layer of one calendar on one person's shelf.</summary>
    internal static async Task<LayerBody> LayerOf(
        this MortarDb db,
        PersonId person,
        CalendarId calendar,
        CancellationToken cancellationToken
    ) =>
        (
            await Layers(
                db,
                await db.StandingsOf(person, cancellationToken),
                [],
                db.Layers.Where(layer => layer.PersonId == person),
                calendar,
                cancellationToken
            )
        )[0];

    /// <summary>
    /// With <c>as</c>: those calendars that one coordinates as that person has them; how they look to them is theirs alone.
    /// With <c>atRest</c>: those of a group that is at rest, which are on no shelf.
    /// </summary>
    private static async Task<Ok<IReadOnlyList<LayerBody>>> List(
        [FromQuery(Name = "as")] PersonId? whose,
        [FromQuery] GroupId? atRest,
        Acting acting,
        MortarDb db,
        CancellationToken cancellationToken
    ) =>
        TypedResults.Ok(
            whose is { } other
                ? await Layers(
                    db,
                    await db.StandingsAsSeenBy(acting.Person, other, cancellationToken),
                    await db.CalendarsGivingAsSeenBy(acting.Person, other, cancellationToken),
                    db.Layers.Where(_ => false),
                    only: null,
                    cancellationToken
                )
            : atRest is { } group
                ? await Layers(
                    db,
                    await db.StandingsAtRest(acting.Person, group, cancellationToken),
                    [],
                    db.Layers.Where(layer => layer.PersonId == acting.Person),
                    only: null,
                    cancellationToken
                )
            : await Layers(
                db,
                await db.StandingsOf(acting.Person, cancellationToken),
                await db.CalendarsGiving(acting.Person).ToListAsync(cancellationToken),
                db.Layers.Where(layer => layer.PersonId == acting.Person),
                only: null,
                cancellationToken
            )
        );

    private static Task<Results<NoContent, ProblemHttpResult>> Lay(
        CalendarId calendarId,
        LayBody body,
        Acting acting,
        ShelfCommands shelf,
        CancellationToken cancellationToken
    ) =>
        shelf
            .Lay(
                acting.Person,
                new LaidLayer(calendarId, body.Shown, body.Beside, body.OffShelf),
                body.Look is { } look ? new LayerLook(look.Name, look.Hue, look.Mark) : LayerLook.Own,
                cancellationToken
            )
            .Answer();

    /// <summary>Puts the whole shelf in order.</summary>
    private static async Task<NoContent> Order(
        OrderBody body,
        Acting acting,
        ShelfCommands shelf,
        CancellationToken cancellationToken
    )
    {
        await shelf.Order(
            acting.Person,
            [
                .. body.Layers.Select(layer => new LaidLayer(
                    new CalendarId(layer.CalendarId),
                    layer.Shown,
                    layer.Beside
                )),
            ],
            cancellationToken
        );
        return TypedResults.NoContent();
    }

    private static async Task<IReadOnlyList<LayerBody>> Layers(
        MortarDb db,
        IReadOnlyDictionary<CalendarId, Standing> standings,
        IReadOnlyList<CalendarId> giving,
        IQueryable<LayerRow> looks,
        CalendarId? only,
        CancellationToken cancellationToken
    )
    {
        var ids = only is { } one ? [one] : standings.Keys.Union(giving).ToList();
        var rows = await (
            from calendar in db.Calendars.AsNoTracking()
            where ids.Contains(calendar.Id)
            join g in db.Groups on calendar.GroupId equals g.Id
            join layer in looks on calendar.Id equals layer.CalendarId into layers
            from layer in layers.DefaultIfEmpty()
            join web in db.WebCalendars on calendar.Id equals web.CalendarId into webs
            from web in webs.DefaultIfEmpty()
            join source in db.WebSources.AsNoTracking() on web.SourceId equals source.Id into sources
            from source in sources.DefaultIfEmpty()
            orderby g.Name, calendar.Name
            select new
            {
                calendar,
                g.Name,
                layer,
                Web = source == null ? null : new WebBody(source.AsOf, source.FailingSince),
            }
        ).ToListAsync(cancellationToken);
        return
        [
            .. from row in rows
            let standing = standings.GetValueOrDefault(row.calendar.Id, Standing.Outside)
            let visible = VisibleCalendar.Through(
                standing.Role,
                row.calendar.Settings(),
                giving.Contains(row.calendar.Id)
            )
            where visible is not null
            orderby row.layer?.Place ?? int.MaxValue
            select new LayerBody(
                row.calendar.Id.Value,
                standing.Role > Role.None ? row.calendar.GroupId.Value : null,
                standing.Role > Role.None ? row.Name : null,
                row.layer?.Name ?? visible.Name,
                visible.Description,
                row.layer?.Hue ?? visible.Hue,
                row.layer?.Mark ?? visible.Mark,
                visible.Zone,
                visible.Purpose,
                visible.GroupDefault,
                visible.Takes,
                visible.Person?.Value,
                visible.OneAtATime,
                visible.Agreed,
                visible.Kinds,
                standing.Role,
                standing.Ways,
                standing.Stays,
                May.On(standing.Role, row.calendar.FromWeb),
                row.layer?.Shown ?? true,
                row.layer?.Beside ?? false,
                row.layer?.OffShelf ?? false,
                new LookBody(visible.Name, visible.Hue, visible.Mark),
                row.Web,
                row.calendar.Version
            ),
        ];
    }
}
