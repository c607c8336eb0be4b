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

namespace Mortar.Server.Features.Events;

/// <summary>/api/events: making, reading, changing, moving and deleting an event, or one occurrence of a series (query <c>only</c>).</summary>
internal static class EventsSetup
{
    /// <param name="CalendarId">Where it goes.</param>
    /// <param name="Time">On any clock; it is kept on that of the calendar or of the event.</param>
    internal sealed record Body(
        Guid CalendarId,
        TimeBody Time,
        ShowAs ShowAs,
        string? Title = null,
        string? Place = null,
        string? Notes = null
    );

    public static void AddEvents(this IServiceCollection services) => services.AddScoped<EventCommands>();

    public static void MapEvents(this RouteGroupBuilder api)
    {
        var events = api.MapGroup("/events/{eventId:guid}");
        events.MapGet("/", Read).WithName("ReadEvent");
        events.MapPut("/", Put).WithName("PutEvent");
        events.MapDelete("/", Delete).WithName("DeleteEvent");
    }

    private static async Task<Results<Ok<BrickBody.Event>, ProblemHttpResult>> Read(
        Guid eventId,
        LocalTimeQuery? only,
        Acting acting,
        MortarDb db,
        EventView view,
        HttpContext context,
        CancellationToken cancellationToken
    )
    {
        var id = new EventId(eventId);
        var row = await db
            .Events.AsNoTracking()
            .FirstOrDefaultAsync(one => one.Id == id && one.DeletedAt == null, cancellationToken);
        if (row is null || await view.Of(acting.Person, row, only?.Value, cancellationToken) is not { } body)
        {
            return Problems.NotThere("event");
        }

        context.Response.Headers.ETag = $"\"{body.Version}\"";
        return TypedResults.Ok(body);
    }

    private static Task<Results<Ok<BrickBody.Event>, ProblemHttpResult>> Put(
        Guid eventId,
        LocalTimeQuery? only,
        Body body,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        Acting acting,
        EventCommands events,
        EventView view,
        CancellationToken cancellationToken
    )
    {
        var draft = new EventDraft(body.Title, body.Place, body.Notes, body.ShowAs, body.Time.ToDraft());
        var wish = new EventWish(new CalendarId(body.CalendarId), draft, only?.Value, Versions.Read(ifMatch));
        return events
            .Put(acting.Act, new EventId(eventId), wish, cancellationToken)
            .Answer(row => view.OfWritten(acting.Person, row, only?.Value, cancellationToken));
    }

    private static Task<Results<Ok<BrickBody.Event>, ProblemHttpResult>> Delete(
        Guid eventId,
        LocalTimeQuery? only,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        Acting acting,
        EventCommands events,
        EventView view,
        CancellationToken cancellationToken
    ) =>
        events
            .Delete(acting.Act, new EventId(eventId), only?.Value, Versions.Read(ifMatch), cancellationToken)
            .Answer(row => view.OfWritten(acting.Person, row, only: null, cancellationToken));
}

/// <summary>Shows one event to one person, by way of the access rules and on their clock.</summary>
internal sealed class EventView(MortarDb db, ZoneClock clock)
{
    /// <summary>The event, or the occurrence that starts at <paramref name="only"/>; <c>null</c> where it is not there for the person.</summary>
    public async Task<BrickBody.Event?> Of(
        PersonId person,
        EventRow row,
        LocalDateTime? only,
        CancellationToken cancellationToken
    )
    {
        var role = (await db.StandingOf(person, row.CalendarId, cancellationToken)).Role;
        if (role < Role.Outline)
        {
            return null;
        }

        var zone = clock.Zone(
            await db.People.Where(one => one.Id == person).Select(one => one.Zone).SingleAsync(cancellationToken)
        );
        return row.ToCore().OccurrenceAt(only, clock, zone) is { } occurrence
            ? BrickBody.Of(VisibleEvent.Show(role, person, occurrence, zone), zone)
            : null;
    }

    /// <summary>The same for somebody who was just allowed to write it.</summary>
    public async Task<BrickBody.Event> OfWritten(
        PersonId person,
        EventRow row,
        LocalDateTime? only,
        CancellationToken cancellationToken
    ) =>
        await Of(person, row, only, cancellationToken)
        ?? await Of(person, row, only: null, cancellationToken)
        ?? throw new InvalidOperationException("Whoever may write an event may see it.");
}
