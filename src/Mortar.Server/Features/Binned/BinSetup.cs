using Microsoft.AspNetCore.Http.HttpResults;
using Mortar.Core.Binned;
using Mortar.Core.Calendars;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Binned;
using Mortar.Data.People;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Binned;

/// <summary>/api/bin: what was deleted and can be brought back.</summary>
internal static class BinSetup
{
    /// <summary>Where something waits.</summary>
    /// <param name="Act">The act that put it there, for events and dates.</param>
    /// <param name="CalendarId">The calendar it is of, or that it is; left out for a group.</param>
    /// <param name="Id">Which event, series, proposal or group; left out for the calendar, and for all events of the act.</param>
    internal sealed record PlaceBody(BinKind Kind, Guid? CalendarId = null, Guid? Act = null, Guid? Id = null)
    {
        public BinPlace ToCore() =>
            new(Kind, new CalendarId(CalendarId ?? default), Act is { } act ? new ChangeSetId(act) : null, Id);
    }

    /// <param name="Start">Another start for one booking whose own time is taken.</param>
    internal sealed record BringBackBody(PlaceBody Place, Instant? Start = null);

    /// <param name="Name">What the entry says has to be typed.</param>
    internal sealed record EraseBody(PlaceBody Place, string? Name = null);

    /// <param name="Time">When it is, for an event.</param>
    internal sealed record ThingBody(Guid Id, string Title, TimeBody? Time, bool Repeats);

    /// <param name="Start">By which the series counts it.</param>
    internal sealed record DateBody(LocalDateTime Start);

    /// <summary>What one act put in the bin of a calendar, or a calendar that is there itself.</summary>
    /// <param name="CalendarName">Left out for a group, as its colour and sign.</param>
    /// <param name="Count">How many things: events, dates, the events in a calendar, or the calendars of a group.</param>
    /// <param name="Things">The first of them.</param>
    /// <param name="Dates">For dates, which.</param>
    /// <param name="From">For dates, the first of those that went with all later ones.</param>
    /// <param name="KeptUntil">From when on it cannot be brought back.</param>
    /// <param name="Erased">What has to be typed to have it go for good; left out where that is not the reader's.</param>
    internal sealed record EntryBody(
        PlaceBody Place,
        string? CalendarName,
        Hue? Hue,
        Mark? Mark,
        string GroupName,
        int Count,
        IReadOnlyList<ThingBody> Things,
        IReadOnlyList<DateBody> Dates,
        LocalDateTime? From,
        string DeletedBy,
        Instant DeletedAt,
        Instant KeptUntil,
        string? Erased
    );

    /// <param name="Returned">How many things are back.</param>
    internal sealed record BackBody(int Returned);

    /// <summary>The nearest times at which a booking can come back.</summary>
    /// <param name="EarlierStart">The start of <paramref name="Earlier"/>.</param>
    /// <param name="LaterStart">The start of <paramref name="Later"/>.</param>
    internal sealed record NearestBody(TimeBody? Earlier, Instant? EarlierStart, TimeBody? Later, Instant? LaterStart);

    public static void AddBin(this IServiceCollection services) =>
        services.AddScoped<BinQueries>().AddScoped<BinCommands>();

    public static void MapBin(this RouteGroupBuilder api)
    {
        var bin = api.MapGroup("/bin");
        bin.MapGet("/", List).WithName("ListBin");
        bin.MapGet("/{act:guid}/events", Things).WithName("ListBinnedEvents");
        bin.MapPost("/bring-back", BringBack).WithName("BringBack");
        bin.MapPost("/nearest", Nearest).WithName("ReadNearestBack");
        bin.MapPost("/erase", Erase).WithName("EraseForGood");
    }

    private static async Task<Ok<List<EntryBody>>> List(
        Acting acting,
        BinQueries bin,
        MortarDb db,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        var seen = await SeenBy(acting.Person, db, zones, cancellationToken);
        return TypedResults.Ok(
            (await bin.Read(acting.Person, cancellationToken)).Select(entry => Body(entry, seen)).ToList()
        );
    }

    /// <param name="calendar">The calendar they were in.</param>
    private static async Task<Ok<List<ThingBody>>> Things(
        ChangeSetId act,
        CalendarId calendar,
        Acting acting,
        BinQueries bin,
        MortarDb db,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        var seen = await SeenBy(acting.Person, db, zones, cancellationToken);
        return TypedResults.Ok(
            (await bin.Things(acting.Person, calendar, act, cancellationToken))
                .Select(thing => Body(thing, seen))
                .ToList()
        );
    }

    private static Task<Results<Ok<BackBody>, ProblemHttpResult>> BringBack(
        BringBackBody body,
        Acting acting,
        BinCommands bin,
        CancellationToken cancellationToken
    ) =>
        bin.BringBack(acting.Act, body.Place.ToCore(), body.Start, cancellationToken)
            .Answer(returned => Task.FromResult(new BackBody(returned)));

    private static async Task<Results<Ok<NearestBody>, ProblemHttpResult>> Nearest(
        PlaceBody body,
        Acting acting,
        BinCommands bin,
        MortarDb db,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        var seen = await SeenBy(acting.Person, db, zones, cancellationToken);
        return await bin.Nearest(acting.Person, body.ToCore(), cancellationToken)
            .Answer(near =>
                Task.FromResult(
                    new NearestBody(
                        seen(near.Earlier?.Time),
                        near.Earlier?.Start,
                        seen(near.Later?.Time),
                        near.Later?.Start
                    )
                )
            );
    }

    /// <summary>Tells times on somebody's clock.</summary>
    private static async Task<Func<EventTime?, TimeBody?>> SeenBy(
        PersonId person,
        MortarDb db,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        var zone = await db.ZoneOf(person, zones, cancellationToken);
        return time => time is null ? null : TimeBody.Of(zones.AsSeenIn(time, zone));
    }

    private static Task<Results<NoContent, ProblemHttpResult>> Erase(
        EraseBody body,
        Acting acting,
        BinCommands bin,
        CancellationToken cancellationToken
    ) => bin.Erase(acting.Act, body.Place.ToCore(), body.Name, cancellationToken).Answer();

    private static EntryBody Body(BinEntry entry, Func<EventTime?, TimeBody?> seen) =>
        new(
            new PlaceBody(entry.Place.Kind, entry.Calendar?.Id.Value, entry.Place.Act?.Value, entry.Place.Id),
            entry.Calendar?.Name,
            entry.Calendar?.Hue,
            entry.Calendar?.Mark,
            entry.GroupName,
            entry.Count,
            [.. entry.Things.Select(thing => Body(thing, seen))],
            [.. (entry.Out?.Dates ?? []).Select(start => new DateBody(start))],
            entry.Out?.From,
            entry.DeletedBy,
            entry.DeletedAt,
            entry.DeletedAt + BinRules.Kept,
            entry.Erased
        );

    private static ThingBody Body(BinnedThing thing, Func<EventTime?, TimeBody?> seen) =>
        new(thing.Id, thing.Title, seen(thing.Time), thing.Repeats);
}
