using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Core.Writing;
using Mortar.Data.Access;
using Mortar.Data.Events;
using Mortar.Data.People;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Server.Features.Events;

/// <summary>/api/events: making, reading, changing, moving and deleting an event, or part of a series.</summary>
/// <remarks>The query <c>only</c> names the occurrence one had before oneself, <c>reach</c> how far a change goes: without it only that one.</remarks>
internal static class EventsSetup
{
    /// <param name="CalendarId">Where it goes.</param>
    /// <param name="Time">On any clock; it is kept on that of the calendar or of the event.</param>
    /// <param name="Rule">How it is to repeat (RFC 5545, 3.3.10); empty for not at all, <c>null</c> for as it does.</param>
    /// <param name="HidesAttendees">Whether only those who may change it see who is named.</param>
    internal sealed record Body(
        Guid CalendarId,
        TimeBody Time,
        ShowAs ShowAs,
        string? Title = null,
        string? Place = null,
        string? Notes = null,
        IReadOnlyList<Guid>? Attendees = null,
        string? Kind = null,
        bool Private = false,
        int? Reminder = null,
        string? Rule = null,
        bool HidesAttendees = false
    )
    {
        public EventDraft ToDraft() =>
            new(Title, Place, Notes, ShowAs, Time.ToDraft())
            {
                Attendees = Core.Events.Attendees.Of((Attendees ?? []).Select(id => new PersonId(id))),
                Kind = Kind,
                Private = Private,
                Reminder = Reminder,
                HidesAttendees = HidesAttendees,
            };
    }

    /// <param name="Event">What is wanted; <c>null</c> to see what deleting would come to.</param>
    internal sealed record PreviewBody(LocalDateTime Only, Body? Event);

    /// <param name="PersonId">Who is to have the event; somebody with the step Add or more.</param>
    internal sealed record OrganizerBody(Guid PersonId);

    /// <param name="PersonIds">All who may change the event by themselves; people named on it.</param>
    internal sealed record EditorsBody(IReadOnlyList<Guid> PersonIds);

    /// <summary>How something is to repeat.</summary>
    /// <param name="Time">When the occurrence in question is to be, on any clock.</param>
    /// <param name="Rule">The text of a rule (RFC 5545, 3.3.10) on the event's own clock; <c>null</c> for as before.</param>
    /// <param name="CalendarId">The calendar it goes to: its zone is that of a new event.</param>
    /// <param name="EventId">The event, also one that is being made.</param>
    /// <param name="Only">Which date of a series.</param>
    internal sealed record RuleBody(
        TimeBody Time,
        string? Rule,
        Guid CalendarId,
        Guid EventId,
        LocalDateTime? Only = null
    );

    /// <param name="Next">Its next local starts that take place, as ISO 8601, on the event's own clock.</param>
    /// <param name="Start">When the occurrence in question begins on that clock.</param>
    /// <param name="Zone">The zone of that clock, where it is another than the reader's.</param>
    /// <param name="Rule">The rule it comes to, with its end as a day; <c>null</c> where no single rule says it.</param>
    /// <param name="Problem">What is wrong with it; <c>null</c> where it is fit.</param>
    internal sealed record RuleAnswer(
        string Sentence,
        IReadOnlyList<string> Next,
        string Start,
        string? Zone,
        string? Rule,
        string? Problem
    );

    public static void AddEvents(this IServiceCollection services) =>
        services.AddScoped<EventCommands>().AddScoped<EventGivingCommands>();

    public static void MapEvents(this RouteGroupBuilder api)
    {
        var events = api.MapGroup("/events/{eventId:guid}");
        events.MapGet("/", Read).WithName("ReadEvent");
        events.MapPut("/", Put).WithName("PutEvent");
        events.MapPut("/organizer", HandOver).WithName("HandOverEvent");
        events.MapPut("/editors", LetChange).WithName("LetChangeEvent");
        events.MapDelete("/", Delete).WithName("DeleteEvent");
        events.MapPost("/preview", Preview).WithName("PreviewChange");
        EventHistory.Map(events);
        api.MapPost("/rules/preview", PreviewRule).WithName("PreviewRule");
    }

    private static async Task<Results<Ok<BrickBody.Event>, ProblemHttpResult>> Read(
        EventId eventId,
        LocalTimeQuery? only,
        Acting acting,
        MortarDb db,
        EventView view,
        HttpContext context,
        CancellationToken cancellationToken
    )
    {
        if (
            await db.EventFor(acting.Person, eventId, cancellationToken) is not var (row, role)
            || await view.Of(acting.Person, row, role, only?.Value, cancellationToken) is not { } body
        )
        {
            return Problems.NotThere("event");
        }

        context.Response.Headers.ETag = $"\"{body.Version}\"";
        return TypedResults.Ok(body);
    }

    private static Task<Results<Ok<BrickBody.Event>, ProblemHttpResult>> Put(
        EventId eventId,
        LocalTimeQuery? only,
        ReachQuery? reach,
        Body body,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        Acting acting,
        EventCommands events,
        EventView view,
        CancellationToken cancellationToken
    )
    {
        var wish = Wish(body, only?.Value, ReachQuery.Or(reach, only), Versions.Read(ifMatch));
        return events
            .Put(acting.Act, eventId, wish, cancellationToken)
            .Answer(row => view.OfWritten(acting.Person, row, only?.Value, cancellationToken));
    }

    private static Task<Results<Ok<BrickBody.Event>, ProblemHttpResult>> HandOver(
        EventId eventId,
        OrganizerBody body,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        Acting acting,
        EventGivingCommands events,
        EventView view,
        CancellationToken cancellationToken
    ) =>
        events
            .HandOver(acting.Act, eventId, new PersonId(body.PersonId), Versions.Read(ifMatch), cancellationToken)
            .Answer(row => view.OfWritten(acting.Person, row, null, cancellationToken));

    private static Task<Results<Ok<BrickBody.Event>, ProblemHttpResult>> LetChange(
        EventId eventId,
        EditorsBody body,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        Acting acting,
        EventGivingCommands events,
        EventView view,
        CancellationToken cancellationToken
    ) =>
        events
            .LetChange(
                acting.Act,
                eventId,
                [.. body.PersonIds.Select(id => new PersonId(id))],
                Versions.Read(ifMatch),
                cancellationToken
            )
            .Answer(row => view.OfWritten(acting.Person, row, null, cancellationToken));

    private static Task<Results<Ok<BrickBody.Event>, ProblemHttpResult>> Delete(
        EventId eventId,
        LocalTimeQuery? only,
        ReachQuery? reach,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        Acting acting,
        EventCommands events,
        EventView view,
        CancellationToken cancellationToken
    ) =>
        events
            .Delete(
                acting.Act,
                eventId,
                only?.Value,
                ReachQuery.Or(reach, only),
                Versions.Read(ifMatch),
                cancellationToken
            )
            .Answer(row => view.OfWritten(acting.Person, row, only: null, cancellationToken));

    /// <summary>What a change would come to, for each way it could reach; nothing is changed.</summary>
    private static async Task<Results<Ok<IReadOnlyList<ReachPreview>>, ProblemHttpResult>> Preview(
        EventId eventId,
        PreviewBody body,
        Acting acting,
        EventCommands events,
        CancellationToken cancellationToken
    )
    {
        var wish = body.Event is { } wanted
            ? Wish(wanted, body.Only, Reach.OnlyThis, version: null)
            : new EventWish(default, Nothing, body.Only, Reach.OnlyThis, Repeats: null, Version: null);
        return await events
            .Preview(acting.Act, eventId, wish, isDeletion: body.Event is null, cancellationToken)
            .Answer(Task.FromResult);
    }

    /// <summary>How something is to repeat in words and by its next dates, before it is saved.</summary>
    private static async Task<Results<Ok<RuleAnswer>, ProblemHttpResult>> PreviewRule(
        RuleBody body,
        Acting acting,
        EventCommands events,
        MortarDb db,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        var (time, problems) = body.Time.ToDraft().Check(zones);
        if (time is null)
        {
            return Problems.Unfit(problems);
        }

        var reader = await db.ZoneOf(acting.Person, zones, cancellationToken);
        return await events
            .PreviewRule(
                acting.Act,
                new EventId(body.EventId),
                new CalendarId(body.CalendarId),
                body.Only,
                time,
                body.Rule,
                cancellationToken
            )
            .Answer(preview =>
                Task.FromResult(
                    new RuleAnswer(
                        preview.Sentence,
                        [.. preview.Next.Select(LocalDateTimePattern.GeneralIso.Format)],
                        LocalDateTimePattern.GeneralIso.Format(preview.Time.LocalStart),
                        preview.Time is EventTime.Timed own && own.Zone != reader.Id
                            ? Core.Recurrence.ZoneRules.NameOf(own.Zone)
                            : null,
                        preview.Rule?.ToString(),
                        preview.Problem
                    )
                )
            );
    }

    private static readonly EventDraft Nothing = new(
        null,
        null,
        null,
        ShowAs.Busy,
        new TimeDraft.Days(new LocalDate(2000, 1, 1), new LocalDate(2000, 1, 1))
    );

    private static EventWish Wish(Body body, LocalDateTime? only, Reach reach, int? version) =>
        new(new CalendarId(body.CalendarId), body.ToDraft(), only, reach, body.Rule, version);
}

/// <summary>Shows one event to one person, by way of the access rules and on their clock.</summary>
internal sealed class EventView(MortarDb db, ZoneClock clock)
{
    /// <summary>The event, or the occurrence that starts at <paramref name="only"/>; <c>null</c> where it is not there for the person.</summary>
    public async Task<BrickBody.Event?> Of(
        PersonId person,
        EventRow row,
        Role role,
        LocalDateTime? only,
        CancellationToken cancellationToken
    )
    {
        var zone = await db.ZoneOf(person, clock, cancellationToken);
        return
            row.ToCore().OccurrenceAt(only, clock, zone) is { } occurrence
            && VisibleEvent.Show(role, person, occurrence, zone) is { } shown
            ? BrickBody.Of(shown, zone)
            : null;
    }

    /// <summary>The same for somebody who was just allowed to write it.</summary>
    public async Task<BrickBody.Event> OfWritten(
        PersonId person,
        EventRow row,
        LocalDateTime? only,
        CancellationToken cancellationToken
    )
    {
        var role = (await db.StandingOf(person, row.CalendarId, cancellationToken)).Role;
        return await Of(person, row, role, only, cancellationToken)
            ?? await Of(person, row, role, only: null, cancellationToken)
            ?? throw new InvalidOperationException("Whoever may write an event may see it.");
    }
}
