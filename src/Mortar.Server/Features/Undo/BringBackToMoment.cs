using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Undo;
using Mortar.Core.Words;
using Mortar.Data.People;
using Mortar.Data.Store;
using Mortar.Data.Undo;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Undo;

/// <summary>/api/calendars/{id}/moment: what bringing the calendar back to a moment would do, and doing it; for coordinators.</summary>
internal static class BringBackToMoment
{
    /// <summary>How many events are told of each fate; the rest is counted.</summary>
    private const int MostTold = 100;

    /// <param name="Then">When it was; left out where it was not there.</param>
    /// <param name="Now">When it is; left out where it is not there.</param>
    internal sealed record ThingBody(Guid Id, string Title, TimeBody? Then, TimeBody? Now, bool Repeats);

    /// <param name="Fate">What becomes of them.</param>
    /// <param name="Count">How many.</param>
    /// <param name="Things">The first of them.</param>
    internal sealed record FateBody(MomentFate Fate, int Count, IReadOnlyList<ThingBody> Things);

    /// <param name="Stays">How many stay as they are, since they are in another calendar, or came from one.</param>
    internal sealed record PreviewBody(IReadOnlyList<FateBody> Fates, int Stays);

    /// <param name="Dates">What would not stay as it is on these days.</param>
    /// <param name="Texts">What is long on their bricks, by their number in it.</param>
    internal sealed record WallBody(IReadOnlyList<DateBody> Dates, IReadOnlyList<BrickTexts> Texts);

    /// <param name="Fate">What becomes of it; what moves goes at one place and comes at another.</param>
    /// <param name="IsThen">Whether it is as it was then, and not as it is.</param>
    internal sealed record DateBody(BrickBody.Event Brick, MomentFate Fate, bool IsThen);

    internal sealed record MomentBody(Instant At);

    /// <param name="Returned">How many events are as they were.</param>
    internal sealed record BackBody(int Returned);

    internal static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/calendars/{calendarId:guid}/moment", Preview).WithName("PreviewMoment");
        api.MapGet("/calendars/{calendarId:guid}/moment/wall", OnWall).WithName("PreviewMomentOnWall");
        api.MapPost("/calendars/{calendarId:guid}/moment", BringBack).WithName("BringBackToMoment");
    }

    private static async Task<Results<Ok<PreviewBody>, ProblemHttpResult>> Preview(
        CalendarId calendarId,
        string at,
        Acting acting,
        MomentCommands moments,
        MortarDb db,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        if (Moment(at) is not { } moment)
        {
            return NoMoment;
        }

        var zone = await db.ZoneOf(acting.Person, zones, cancellationToken);
        return await moments
            .Preview(acting.Person, calendarId, moment, cancellationToken)
            .Answer(preview =>
                Task.FromResult(
                    new PreviewBody(
                        [
                            .. preview
                                .Changes.GroupBy(one => one.Fate)
                                .OrderBy(alike => alike.Key)
                                .Select(alike => new FateBody(
                                    alike.Key,
                                    alike.Count(),
                                    [.. alike.Take(MostTold).Select(Body)]
                                )),
                        ],
                        preview.Stays
                    )
                )
            );

        ThingBody Body(MomentChange one) =>
            new(
                one.Id.Value,
                (one.Then ?? one.Now)!.Content.Title,
                Seen(one.Then),
                Seen(one.Now),
                (one.Then ?? one.Now)!.Series is not null
            );

        TimeBody? Seen(Event? state) => state is null ? null : TimeBody.Of(zones.AsSeenIn(state.Time, zone));
    }

    /// <summary>/moment/wall: the same on some days, date by date, to be laid over what is there.</summary>
    private static async Task<Results<Ok<WallBody>, ProblemHttpResult>> OnWall(
        CalendarId calendarId,
        string at,
        [FromQuery] DateQuery from,
        [FromQuery] DateQuery to,
        Acting acting,
        MomentCommands moments,
        MortarDb db,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        if (Moment(at) is not { } moment)
        {
            return NoMoment;
        }

        if (Ranges.WhyNot(from.Value, to.Value) is { } refusal)
        {
            return refusal;
        }

        var zone = await db.ZoneOf(acting.Person, zones, cancellationToken);
        var window = new Window(from.Value, to.Value, zone);
        return await moments
            .Preview(acting.Person, calendarId, moment, cancellationToken)
            .Answer(preview =>
            {
                var table = new BrickTable(zone);
                return Task.FromResult(
                    new WallBody(
                        [
                            .. from change in preview.Changes
                            from date in MomentDate.Of(change, window, zones)
                            let shown = VisibleEvent.Show(Role.Coordinate, acting.Person, date.Date, zone)
                            where shown is not null
                            select new DateBody(table.Lay(shown), date.Fate, date.IsThen),
                        ],
                        table.Texts
                    )
                );
            });
    }

    private static Instant? Moment(string at) =>
        NodaTime.Text.InstantPattern.ExtendedIso.Parse(at).TryGetValue(default, out var moment) ? moment : null;

    private static ProblemHttpResult NoMoment =>
        Problems.Unfit([new FieldProblem("at", "That is not a moment. Choose a day and an hour.")]);

    private static Task<Results<Ok<BackBody>, ProblemHttpResult>> BringBack(
        CalendarId calendarId,
        MomentBody body,
        Acting acting,
        MomentCommands moments,
        CancellationToken cancellationToken
    ) =>
        moments
            .BringBack(acting.Act, calendarId, body.At, cancellationToken)
            .Answer(undone => Task.FromResult(new BackBody(undone.Returned)));
}
