using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Mortar.Core.Availability;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Availability;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Availability;

/// <summary>
/// GET /api/groups/{groupId}/cover: day by day who is there and who is away, against how many are needed; for members, as
/// far as they see absences. With <c>without</c> as it would be were these people away as well: all the time, or from
/// <c>awayFrom</c> to <c>awayTo</c> on the reader's clock.
/// </summary>
internal static class ReadCover
{
    /// <param name="Present">Those who are there in their usual hours.</param>
    /// <param name="Missing">Those who would be and are away.</param>
    /// <param name="TooFew">How many too few; 0 where there are enough.</param>
    internal sealed record DayBody(
        LocalDate Day,
        int Needed,
        IReadOnlyList<Guid> Present,
        IReadOnlyList<Guid> Missing,
        int TooFew
    );

    public static void Map(RouteGroupBuilder api) =>
        api.MapGet("/groups/{groupId:guid}/cover", Handle).WithName(nameof(ReadCover));

    private static async Task<Results<Ok<IReadOnlyList<DayBody>>, ProblemHttpResult>> Handle(
        Guid groupId,
        [FromQuery] DateQuery from,
        [FromQuery] DateQuery to,
        [FromQuery] Guid[]? without,
        [FromQuery] LocalTimeQuery? awayFrom,
        [FromQuery] LocalTimeQuery? awayTo,
        Acting acting,
        MortarDb db,
        TimesReader times,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        if (await CountedGroup.Read(new GroupId(groupId), acting.Person, db, cancellationToken) is not { } group)
        {
            return Problems.NotThere("group");
        }

        if (Ranges.WhyNot(from.Value, to.Value) is { } refusal)
        {
            return refusal;
        }

        // Days are the group's, whoever looks at them.
        var window = new Window(from.Value, to.Value, zones.Zone(group.Row.Zone));
        var reader = await db.ZoneOf(acting.Person, zones, cancellationToken);
        var alsoAway =
            awayFrom is { Value: var start } && awayTo is { Value: var end } && start < end
                ? new Interval(ZoneClock.At(start, reader), ZoneClock.At(end, reader))
                : window.Span;
        var days = Cover.Every(
            window,
            CoverNeed.Of(group.Row.ToSettings().Cover),
            await group.People(
                acting.Person,
                window,
                new Without((without ?? []).ToHashSet(), alsoAway),
                times,
                cancellationToken
            ),
            await db.DaysOffIn(group.Row, window, zones, cancellationToken)
        );
        return TypedResults.Ok<IReadOnlyList<DayBody>>([
            .. days.Select(day => new DayBody(
                day.Day,
                day.Needed,
                [.. day.Present.Select(one => one.Value)],
                [.. day.Missing.Select(one => one.Value)],
                day.TooFew
            )),
        ]);
    }
}
