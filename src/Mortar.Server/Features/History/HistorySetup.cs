using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Mortar.Core.Changes;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.History;
using Mortar.Data.People;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.History;

/// <summary>What was done: by oneself (/api/history), in a calendar, in a group; by acts, the latest first.</summary>
internal static class HistorySetup
{
    /// <param name="About">What it was done to: a title or a name; may be empty.</param>
    /// <param name="What">What was done, as words that follow the name of who did it.</param>
    /// <param name="EventId">The event it is about, where that is there.</param>
    internal sealed record DeedBody(string About, IReadOnlyList<string> What, Guid? EventId);

    /// <param name="Act">Its name, by which it is undone.</param>
    /// <param name="ActorName">Who did it.</param>
    /// <param name="Count">How many things it changed.</param>
    /// <param name="Deeds">The first of what it did.</param>
    /// <param name="CalendarId">The calendar it was in; left out where in several, or none.</param>
    /// <param name="IsUndo">Whether it took back another one.</param>
    /// <param name="IsUndone">Whether it was taken back itself.</param>
    /// <param name="CanBeUndone">Whether one may try to undo it.</param>
    internal sealed record ActBody(
        Guid Act,
        Instant At,
        Guid ActorId,
        string ActorName,
        int Count,
        IReadOnlyList<DeedBody> Deeds,
        HistoryTopic Topic,
        Guid? CalendarId,
        bool IsUndo,
        bool IsUndone,
        bool CanBeUndone
    );

    /// <param name="Next">Asked for as <c>before</c> it brings the acts before these; left out where there are none.</param>
    internal sealed record PageBody(IReadOnlyList<ActBody> Acts, Guid? Next);

    /// <summary>What of a history is looked for.</summary>
    /// <param name="Actor">Only what this person did.</param>
    /// <param name="Topic">Only what is about this.</param>
    /// <param name="Event">Only what became of this event.</param>
    /// <param name="From">From this day on, on the reader's clock.</param>
    /// <param name="To">To this day, included.</param>
    /// <param name="Before">Only what came before this act.</param>
    internal sealed record Query(
        [FromQuery(Name = "actor")] PersonId? Actor,
        [FromQuery(Name = "topic")] TopicQuery? Topic,
        [FromQuery(Name = "event")] EventId? Event,
        [FromQuery(Name = "from")] DateQuery? From,
        [FromQuery(Name = "to")] DateQuery? To,
        [FromQuery(Name = "before")] ChangeSetId? Before
    );

    public static void AddHistory(this IServiceCollection services) => services.AddScoped<ActHistory>();

    public static void MapHistory(this RouteGroupBuilder api)
    {
        api.MapGet("/history", Mine).WithName("ReadMyHistory");
        api.MapGet("/calendars/{calendarId:guid}/history", OfCalendar).WithName("ReadCalendarHistory");
        api.MapGet("/groups/{groupId:guid}/history", OfGroup).WithName("ReadGroupHistory");
    }

    private static Task<Results<Ok<PageBody>, ProblemHttpResult>> Mine(
        [AsParameters] Query query,
        Acting acting,
        ActHistory history,
        MortarDb db,
        ZoneClock zones,
        CancellationToken cancellationToken
    ) => Read(new HistoryOfWhat.Mine(), query, acting, history, db, zones, cancellationToken);

    private static Task<Results<Ok<PageBody>, ProblemHttpResult>> OfCalendar(
        CalendarId calendarId,
        [AsParameters] Query query,
        Acting acting,
        ActHistory history,
        MortarDb db,
        ZoneClock zones,
        CancellationToken cancellationToken
    ) => Read(new HistoryOfWhat.Calendar(calendarId), query, acting, history, db, zones, cancellationToken);

    private static Task<Results<Ok<PageBody>, ProblemHttpResult>> OfGroup(
        GroupId groupId,
        [AsParameters] Query query,
        Acting acting,
        ActHistory history,
        MortarDb db,
        ZoneClock zones,
        CancellationToken cancellationToken
    ) => Read(new HistoryOfWhat.Group(groupId), query, acting, history, db, zones, cancellationToken);

    private static async Task<Results<Ok<PageBody>, ProblemHttpResult>> Read(
        HistoryOfWhat of,
        Query query,
        Acting acting,
        ActHistory history,
        MortarDb db,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        var zone = await db.ZoneOf(acting.Person, zones, cancellationToken);
        var wish = new HistoryWish(
            of,
            query.Actor,
            query.Topic?.Value,
            query.Event,
            query.From is { } from ? zone.AtStartOfDay(from.Value).ToInstant() : null,
            query.To is { } to ? zone.AtStartOfDay(to.Value.PlusDays(1)).ToInstant() : null,
            query.Before
        );
        return await history
            .Read(acting.Person, wish, cancellationToken)
            .Answer(page => Task.FromResult(new PageBody([.. page.Acts.Select(Body)], page.Next?.Value)));
    }

    private static ActBody Body(PastAct act) =>
        new(
            act.Act.Value,
            act.At,
            act.Actor.Value,
            act.ActorName,
            act.Count,
            [.. act.Deeds.Select(deed => new DeedBody(deed.About, deed.What, deed.Event?.Value))],
            act.Topic,
            act.CalendarId?.Value,
            act.IsUndo,
            act.State == ActState.Undone,
            act.CanBeUndone
        );
}
